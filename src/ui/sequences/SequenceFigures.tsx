"use client";

import { moneyWords } from "@/core/words/money";
import { survivesMeanwhile } from "@/core/words/survives";
import type { ReactNode } from "react";
import { formatBytes, type UnitFamily } from "@/core/bytes/formatBytes";
import { shortSize } from "@/core/drives/nameOfDrive";
import type { Tried } from "@/core/sequences/tried";
import { chanceWords } from "@/core/chance/chanceWords";
import type { Spread } from "@/core/chance/inputs";
import { stepLabel } from "@/core/steps/stepLabel";
import { lengthWords } from "@/core/time/hoursWords";
import { plural } from "@/core/words/counted";
import { listOf } from "@/core/words/listOf";
import type { Finding } from "@/core/findings/finding";
import { TrialFindings } from "../workbench/time/TrialFindings";
import { useUnit } from "../preferences/preferences";

/** What has to be bought, like drives counted together, with what they cost. */
function boughtWords(purchases: Tried["purchases"], unit: UnitFamily, currency: string | undefined): string {
  const grouped = new Map<string, { count: number; price: number | null; example: boolean }>();
  for (const { drive, price, isExample } of purchases) {
    const key = shortSize(drive, unit);
    const old = grouped.get(key) ?? { count: 0, price: 0, example: false };
    grouped.set(key, {
      count: old.count + 1,
      price: price === null || old.price === null ? null : old.price + price,
      example: isExample || old.example,
    });
  }
  const priceWords = (price: number | null, example: boolean) =>
    price === null ? "no price known" : `${moneyWords(price, currency)}${example ? " by example prices" : ""}`;
  const bought = [...grouped].map(
    ([size, { count, price, example }]) => `${count} × ${size}, ${priceWords(price, example)}`,
  );
  return bought.length === 0 ? "nothing" : bought.join("; ");
}

/** How long it takes, from the least to the most, and for how long of that nobody can use the pool. */
function takesWords({ hours, moments, offlineHours, swapWords }: Tried): string {
  const bare = (value: number) => lengthWords(value).replace("about ", "");
  const spread = moments.some((moment) => moment.walked?.step.notBefore !== undefined) ? ", spread over the years" : "";
  const away = [
    ...(offlineHours > 0 ? [`the pool is offline for ${lengthWords(offlineHours)}`] : []),
    ...(swapWords ? [swapWords] : []),
  ].join("; ");
  return (
    `${lengthWords(hours.expected)} of work (${bare(hours.low)} to ` +
    `${bare(hours.high)})${spread}${away ? `; ${away}` : ""}`
  );
}

/** What a sequence does, needs, erases and takes, before it is planned. */
export function SequenceFigures({ tried, chance }: { tried: Tried; chance: Spread | null }) {
  const [unit] = useUnit();
  const { before, after, erased, bareHours } = tried;
  const usable =
    before.capacities.pool === after.capacities.pool
      ? `stays at ${formatBytes(after.capacities.pool, unit)}`
      : `${formatBytes(before.capacities.pool, unit)} → ${formatBytes(after.capacities.pool, unit)}`;
  const exposed =
    bareHours > 0
      ? `for ${lengthWords(bareHours)} in all, ${survivesMeanwhile(0)}`
      : "your protection stays as it is throughout";
  return (
    <div className="space-y-3">
      <p className="font-serif text-lg leading-snug">{tried.does}</p>
      <dl className="grid grid-cols-[8.5rem_minmax(0,1fr)] gap-x-3 gap-y-1">
        <Fact name="Usable">{usable}</Fact>
        <Fact name="To buy">{boughtWords(tried.purchases, unit, before.state.plan.currency)}</Fact>
        <Fact name="Erased" tone={erased.length > 0 ? "text-geranium" : ""}>
          {erased.length === 0
            ? "nothing that you have"
            : listOf(erased.map((name, i) => (i === 0 ? name : name.replace(/^T/, "t"))))}
        </Fact>
        <Fact name="Takes">{takesWords(tried)}</Fact>
        <Fact name="Exposed" tone={bareHours > 0 ? "text-geranium" : ""}>
          {exposed}
        </Fact>
        {chance && <Fact name="Chance of loss">{chanceWords(chance)} such boxes lose something on the way</Fact>}
      </dl>
      <Objections tried={tried} />
      <div>
        <h3 className="text-[0.9rem] text-soft">The steps{tried.order ? `. ${tried.order}` : ""}</h3>
        <StepsOf tried={tried} />
      </div>
    </div>
  );
}

const messages = (findings: readonly Finding[]) => [...new Set(findings.map(({ message }) => message))];

/** What stands against it, and what it makes of the steps that are planned for later. */
function Objections({ tried: { blocks, breaks, warnings, notes } }: { tried: Tried }) {
  return (
    <>
      {blocks.length > 0 && (
        <ul aria-label="What stands against it" className="space-y-1 text-geranium">
          {blocks.map((finding) => (
            <li key={finding.message}>{finding.message}</li>
          ))}
        </ul>
      )}
      {breaks > 0 && (
        <p className="text-ochre-text">
          {plural(breaks, "One step that is", `${breaks} steps that are`)} planned for later could no longer be carried
          out after this.
        </p>
      )}
      <TrialFindings
        blocks={[]}
        warnings={messages(warnings.filter(({ code }) => code !== "no-redundancy"))}
        notes={messages(notes)}
      />
    </>
  );
}

function StepsOf({ tried: { before, moments } }: { tried: Tried }) {
  const [unit] = useUnit();
  return (
    <ol aria-label="What would be planned" className="mt-0.5 columns-1 gap-x-6 text-[0.95rem] sm:columns-2">
      {moments.map((moment, i) => {
        const step = moment.walked?.step;
        const earlier = (i === 0 ? before : moments[i - 1])?.state.plan;
        if (!step || !earlier) return null;
        return (
          <li key={step.id} className="flex gap-1.5 py-px">
            <span className="w-5 shrink-0 text-right text-soft">{i + 1}</span>
            <span className={moment.walked?.done ? "" : "text-geranium"}>
              {stepLabel(step, earlier, unit)}
              {step.together ? <span className="text-soft"> meanwhile</span> : null}
              {step.notBefore ? <span className="text-soft"> from {step.notBefore}</span> : null}
            </span>
          </li>
        );
      })}
    </ol>
  );
}

function Fact({ name, tone = "", children }: { name: string; tone?: string; children: ReactNode }) {
  return (
    <>
      <dt className="text-soft">{name}</dt>
      <dd className={tone}>{children}</dd>
    </>
  );
}
