"use client";

import { useRef, useState } from "react";
import { conditionsOf } from "@/core/chance/conditions";
import { INPUT_NAMES, type InputName, type Spread, USUAL_INPUTS } from "@/core/chance/inputs";
import type { Plan } from "@/core/document/plan";
import { ownValue, withoutValue, withValue } from "@/core/records/ownValue";
import { Button } from "../kit/Button";
import { Choice, Tick } from "../kit/Field";
import { TableHead } from "../kit/TableHead";
import type { PlaceProps } from "../shell/planPlace";
import { TYPED, typedValue } from "./inputWords";

interface Props extends Pick<PlaceProps, "plan" | "act"> {
  /** Told what a plan would be worked out with while a field is typed in; null where that says nothing. */
  onTyped: (chance: NonNullable<Plan["chance"]> | null) => void;
}

const ENDS = ["low", "expected", "high"] as const;

/** How often all that is stored is read, in hours. */
const ROUNDS = [
  { value: "168", label: "once a week" },
  { value: "730", label: "once a month" },
  { value: "2191.5", label: "every three months" },
  { value: "8766", label: "once a year" },
  { value: "35064", label: "never" },
];

/** What the chances are worked out with: what the owner does, and the inputs with where they are from. */
export function InputsTable({ plan, act, onTyped }: Props) {
  const conditions = conditionsOf(plan);
  const set = (changes: NonNullable<Plan["chance"]>) =>
    act({ kind: "set-chance", chance: { ...plan.chance, ...changes } }, true);
  const round = String(conditions.scrubHours);
  const rounds = ROUNDS.some(({ value }) => value === round)
    ? ROUNDS
    : [...ROUNDS, { value: round, label: `every ${round} hours` }];
  return (
    <section aria-labelledby="worked-out-with" className="mt-6">
      <h2 id="worked-out-with" className="border-b border-line pb-1 font-serif text-lg">
        What it is worked out with
      </h2>
      <div className="mt-2 flex flex-wrap items-end gap-x-6 gap-y-2">
        <div className="w-56">
          <Choice
            label="All that is stored is checked (scrubbed)"
            value={round}
            options={rounds}
            onPick={(value) => set({ scrubHours: Number(value) })}
          />
        </div>
        <Tick checked={conditions.alerts} onTick={(alerts) => set({ alerts })}>
          The box tells you when a drive fails
        </Tick>
        <Tick checked={conditions.spareOnShelf} onTick={(spareOnShelf) => set({ spareOnShelf })}>
          A drive that fits lies on the shelf
        </Tick>
        <Tick checked={conditions.ups} onTick={(ups) => act({ kind: "change-box", ups }, true)}>
          A battery supply (UPS)
        </Tick>
      </div>
      <Inputs plan={plan} act={act} onTyped={onTyped} />
    </section>
  );
}

function Inputs({ plan, act, onTyped }: Props) {
  const heading = useRef<HTMLHeadingElement>(null);
  const own: Readonly<Record<string, Spread>> = plan.chance?.inputs ?? {};
  const chanceWith = (name: InputName, spread: Spread | null): NonNullable<Plan["chance"]> => {
    const inputs = spread ? withValue(own, name, spread) : withoutValue(own, name);
    const { inputs: _inputs, ...rest } = plan.chance ?? {};
    return Object.keys(inputs).length > 0 ? { ...rest, inputs } : rest;
  };
  return (
    <>
      <h3 ref={heading} tabIndex={-1} className="mt-4 font-semibold outline-none">
        Inputs
      </h3>
      <p className="text-soft">
        Each with its low and its high. Where no study is named, the values are assumed. Type your own where you know
        better; the figures above follow.
      </p>
      <div className="overflow-x-auto" role="group" aria-label="Inputs" tabIndex={0}>
        <table className="mt-1 w-full min-w-[44rem] text-left">
          <TableHead names={["Input", "low", "expected", "high", "unit", "from", ""]} />
          <tbody>
            {INPUT_NAMES.map((name) => (
              <InputRow
                key={`${name} ${JSON.stringify(ownValue(own, name) ?? null)}`}
                name={name}
                own={ownValue(own, name)}
                onTyped={(spread) => onTyped(spread && chanceWith(name, spread))}
                onPut={(spread) => {
                  if (!spread) heading.current?.focus();
                  return act({ kind: "set-chance", chance: chanceWith(name, spread) }, true);
                }}
              />
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

interface RowProps {
  name: InputName;
  own: Spread | undefined;
  onPut: (spread: Spread | null) => string | null;
  onTyped: (spread: Spread | null) => void;
}

/** Why three values cannot be the range of an input; null where they can. */
function whyNot(values: Readonly<Record<(typeof ENDS)[number], number>>, isShare: boolean): string | null {
  const { low, expected, high } = values;
  if ([low, expected, high].some((value) => !Number.isFinite(value) || value < 0))
    return "Type numbers that are not below 0.";
  if (low > expected || expected > high) return "Low, expected and high go up.";
  return isShare && high > 1 ? "It cannot be more than 100 %." : high > 100_000 ? "That is too large." : null;
}

function InputRow({ name, own, onPut, onTyped }: RowProps) {
  const { name: words, unit, source } = USUAL_INPUTS[name];
  const spread: Spread = own ?? USUAL_INPUTS[name];
  const { times, unit: unitWords } = TYPED[unit];
  const [typed, setTyped] = useState(() => ({
    low: typedValue(spread.low, unit),
    expected: typedValue(spread.expected, unit),
    high: typedValue(spread.high, unit),
  }));
  const [wrong, setWrong] = useState<string | null>(null);
  const isShare = unit === "share" || unit === "share-a-year";
  const valuesOf = (of: typeof typed): Spread => {
    // What was not typed anew stays what it is, with all its digits.
    const valueOf = (end: (typeof ENDS)[number]) => {
      if (of[end] === typedValue(spread[end], unit)) return spread[end];
      return of[end].trim() === "" ? NaN : Number(of[end].replace(",", ".")) / times;
    };
    return { low: valueOf("low"), expected: valueOf("expected"), high: valueOf("high") };
  };
  const type = (next: typeof typed) => {
    setTyped(next);
    const values = valuesOf(next);
    onTyped(whyNot(values, isShare) === null ? values : null);
  };
  const take = () => {
    if (ENDS.every((end) => typed[end] === typedValue(spread[end], unit))) return setWrong(null);
    const values = valuesOf(typed);
    setWrong(whyNot(values, isShare) ?? onPut(values));
  };
  return (
    <>
      <tr className="border-t border-line">
        <th scope="row" className="py-1 pr-3 font-normal">
          {words}
        </th>
        {ENDS.map((end) => (
          <td key={end} className="py-1 pr-2">
            <input
              aria-label={`${words}: ${end}, ${unitWords}`}
              aria-invalid={wrong !== null}
              inputMode="decimal"
              value={typed[end]}
              onChange={(event) => type({ ...typed, [end]: event.target.value })}
              onBlur={take}
              onKeyDown={(event) => {
                if (event.key === "Enter") take();
              }}
              className={`h-7 w-20 rounded border border-line-strong/70 bg-raised px-1.5 text-right ${own ? "font-semibold" : ""}`}
            />
          </td>
        ))}
        <td className="py-1 pr-3 whitespace-nowrap text-soft">{unitWords}</td>
        <td className="py-1 pr-3 text-[0.85rem] text-soft">{own ? "yours" : (source ?? "assumed")}</td>
        <td className="py-1">
          {own && (
            <Button small aria-label={`As usual: ${words}`} onClick={() => onPut(null)}>
              As usual
            </Button>
          )}
        </td>
      </tr>
      {wrong && (
        <tr>
          <td colSpan={7} role="alert" className="pb-1 text-geranium">
            {words}: {wrong}
          </td>
        </tr>
      )}
    </>
  );
}
