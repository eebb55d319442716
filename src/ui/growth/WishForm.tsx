"use client";

import { useId } from "react";
import { beginningsIn, layoutsOfPool, levelsFor } from "@/core/bestWay/levels";
import type { Plan } from "@/core/document/plan";
import { layoutOf } from "@/core/layouts/registry";
import { Choice, FIELD } from "../kit/Field";
import type { Option } from "../kit/Select";
import { useUnit } from "../preferences/preferences";
import { type ReadWish, storedOf, type TypedWish } from "./typedWish";

interface Props {
  plan: Plan;
  typed: TypedWish;
  read: ReadWish;
  onType: (changes: Partial<TypedWish>) => void;
}

interface TypedProps {
  label: string;
  unit?: string;
  value: string;
  placeholder?: string;
  wrong: string | null;
  onType: (text: string) => void;
}

/** A field with its unit beside it; what is wrong with it stands below it and belongs to it. */
function Typed({ label, unit, value, placeholder, wrong, onType }: TypedProps) {
  const id = useId();
  return (
    <div className="min-w-0">
      <label className="block">
        <span className="text-[0.9rem] text-soft">{label}</span>
        <span className="flex items-center gap-1.5">
          <input
            value={value}
            placeholder={placeholder}
            inputMode={unit === undefined ? "text" : "decimal"}
            aria-invalid={wrong !== null}
            aria-describedby={wrong === null ? undefined : id}
            onChange={(event) => onType(event.target.value)}
            className={FIELD}
          />
          {unit && <span className="shrink-0 text-soft">{unit}</span>}
        </span>
      </label>
      {wrong && (
        <p id={id} role="alert" className="mt-0.5 text-[0.9rem] text-geranium">
          {wrong}
        </p>
      )}
    </div>
  );
}

const years: Option[] = Array.from({ length: 10 }, (_, i) => ({
  value: String(i + 1),
  label: i === 0 ? "one year" : `${i + 1} years`,
}));

const SURVIVES: Option[] = [
  { value: "1", label: "any one drive" },
  { value: "2", label: "any two drives" },
  { value: "0", label: "none" },
];

const AIMS: Option[] = [
  { value: "money", label: "money" },
  { value: "hours", label: "hours exposed, then money" },
  { value: "acts", label: "purchases and changes, then money" },
];

function layoutOptions(plan: Plan, pool: string | null): Option[] {
  const own = plan.pools.find(({ id }) => id === pool);
  if (!own)
    return [
      { value: "any-level", label: "costs least" },
      ...beginningsIn(plan).map((id) => ({ value: id, label: `is ${layoutOf(id).shortName}` })),
    ];
  const now = layoutsOfPool(own);
  const others = levelsFor(plan, own).filter((id) => !now.includes(id));
  return [
    { value: "as-it-is", label: `stays ${now.map((id) => layoutOf(id).shortName).join(", ")}` },
    ...(others.length > 0 ? [{ value: "any-level", label: "may change its level on the way" }] : []),
    ...others.map((id) => ({ value: id, label: `may become ${layoutOf(id).shortName}` })),
  ];
}

/** The fields that are typed in. */
type TypedField = "now" | "perMonth" | "keepFree" | "bays" | "fall" | "perYear" | "retire" | "running" | "mostActs";

/** What is needed, in a sentence whose parts can be changed in place. */
export function WishForm({ plan, typed, read, onType }: Props) {
  const [unit] = useUnit();
  const stored = storedOf(plan, typed.pool, unit);
  const wrong = (field: keyof TypedWish) => (!read.ok && read.field === field ? read.message : null);
  const field = (name: TypedField) => ({
    value: typed[name],
    wrong: wrong(name),
    onType: (text: string) => onType({ [name]: text }),
  });
  const hasPairs = plan.pools
    .find(({ id }) => id === typed.pool)
    ?.groups.some(({ layout, drives }) => layoutOf(layout).stripe({}).copies === "all" && drives.length === 2);
  return (
    <section aria-labelledby="what-i-need" className="border-y border-line py-3">
      <h2 id="what-i-need" className="font-serif text-lg">
        What do I need?
      </h2>
      <div className="mt-1 grid grid-cols-[repeat(auto-fill,minmax(9.5rem,1fr))] gap-x-5 gap-y-2">
        {plan.pools.length > 1 && (
          <Choice
            label="The pool that grows"
            value={typed.pool ?? ""}
            options={plan.pools.map(({ id, name }) => ({ value: id, label: name || id }))}
            onPick={(pool) => onType({ pool, layout: "as-it-is" })}
          />
        )}
        <Typed label="Hold what is stored now" placeholder={stored?.now ?? "9.4 TB"} {...field("now")} />
        <Typed label="and what a month adds" placeholder={stored?.perMonth ?? "220 GB"} {...field("perMonth")} />
        <Choice
          label="for the next"
          value={String(typed.years)}
          options={years}
          onPick={(value) => onType({ years: Number(value) })}
        />
        <Typed label="keeping free" unit="%" {...field("keepFree")} />
        <Choice
          label="surviving the loss of"
          value={String(typed.survives)}
          options={SURVIVES}
          onPick={(value) => onType({ survives: Number(value) })}
        />
        <Typed label="in at most" unit="bays" {...field("bays")} />
        <Choice
          label="in a pool that"
          value={typed.layout}
          options={layoutOptions(plan, typed.pool)}
          onPick={(layout) => onType({ layout: layout as TypedWish["layout"] })}
        />
        {hasPairs && (
          <Choice
            label="of mirrored pairs of"
            value={typed.pairs}
            options={[
              { value: "equal", label: "equal drives" },
              { value: "any", label: "any two drives (slower)" },
            ]}
            onPick={(pairs) => onType({ pairs: pairs as TypedWish["pairs"] })}
          />
        )}
        <Choice
          label="for the least"
          value={typed.aim}
          options={AIMS}
          onPick={(aim) => onType({ aim: aim as TypedWish["aim"] })}
        />
        {typed.aim === "money" && (
          <Typed
            label="spending a year at most"
            unit={plan.currency ?? ""}
            placeholder="no limit"
            {...field("perYear")}
          />
        )}
        <Typed label="with at most" unit="changes" placeholder="no limit" {...field("mostActs")} />
        <Typed label="while prices fall a year by" unit="%" {...field("fall")} />
        <Typed label="retiring drives after" unit="years" placeholder="never" {...field("retire")} />
        <Typed
          label="a drive runs a year for"
          unit={plan.currency ?? ""}
          placeholder="not counted"
          {...field("running")}
        />
      </div>
      {stored && typed.now === "" && typed.perMonth === "" && (
        <p className="mt-2 text-soft">
          What is stored follows from your data sets: {stored.now} now, about {stored.perMonth} more a month.
        </p>
      )}
    </section>
  );
}
