"use client";

import type { ReactNode } from "react";
import { formatBytes } from "@/core/bytes/formatBytes";
import { shortSize } from "@/core/drives/nameOfDrive";
import { lengthWords } from "@/core/walk/planSummary";
import type { Tried } from "@/core/sequences/tried";
import { useUnit } from "../preferences/preferences";
import { stepLabel } from "@/core/steps/stepLabel";

/** What a sequence does, needs, erases and takes, before it is planned. */
export function SequenceFigures({ tried }: { tried: Tried }) {
  const [unit] = useUnit();
  const { before, after, moments, purchases, hours } = tried;
  const grouped = new Map<string, { count: number; price: number | null; example: boolean }>();
  for (const { drive, price, isExample } of purchases) {
    const key = shortSize(drive, unit);
    const old = grouped.get(key);
    grouped.set(key, {
      count: (old?.count ?? 0) + 1,
      price: price === null || old?.price === null ? null : (old?.price ?? 0) + price,
      example: isExample || (old?.example ?? false),
    });
  }
  const bought = [...grouped].map(
    ([size, { count, price, example }]) =>
      `${count} × ${size}${price === null ? ", no price known" : `, ${price.toLocaleString("en")}${example ? " by example prices" : ""}`}`,
  );
  const usable =
    before.capacities.pool === after.capacities.pool
      ? `stays at ${formatBytes(after.capacities.pool, unit)}`
      : `${formatBytes(before.capacities.pool, unit)} → ${formatBytes(after.capacities.pool, unit)}`;
  const days = moments.some((moment) => moment.walked?.step.notBefore !== undefined);
  return (
    <div className="space-y-3">
      <p className="font-serif text-lg leading-snug">{tried.does}</p>
      <dl className="grid grid-cols-[8.5rem_minmax(0,1fr)] gap-x-3 gap-y-1">
        <Fact name="Usable">{usable}</Fact>
        <Fact name="To buy">{bought.length === 0 ? "nothing" : bought.join("; ")}</Fact>
        <Fact name="Erased" tone={tried.erased.length > 0 ? "text-geranium" : ""}>
          {tried.erased.length === 0
            ? "nothing that you have"
            : `${new Intl.ListFormat("en").format(tried.erased.map((name, i) => (i === 0 ? name : name.replace(/^T/, "t"))))}`}
        </Fact>
        <Fact name="Takes">
          {lengthWords(hours.expected)} of work ({lengthWords(hours.low).replace("about ", "")} to{" "}
          {lengthWords(hours.high).replace("about ", "")}){days ? ", spread over the years" : ""}
          {tried.offlineHours >= 0.5 ? `; the pool is offline for ${lengthWords(tried.offlineHours)}` : ""}
        </Fact>
        <Fact name="Exposed" tone={tried.bareHours >= 0.5 ? "text-geranium" : ""}>
          {tried.bareHours >= 0.5
            ? `no drive may fail for ${lengthWords(tried.bareHours)} in all`
            : "never without redundancy that there is otherwise"}
        </Fact>
      </dl>
      {tried.blocks.length > 0 && (
        <ul aria-label="What stands against it" className="space-y-1 text-geranium">
          {tried.blocks.map((finding) => (
            <li key={finding.message}>{finding.message}</li>
          ))}
        </ul>
      )}
      {tried.breaks > 0 && (
        <p className="text-ochre-text">
          {tried.breaks === 1
            ? "One step that is planned for later could"
            : `${tried.breaks} steps that are planned for later could`}{" "}
          no longer be carried out after this.
        </p>
      )}
      {tried.warnings
        .filter((finding) => finding.code.startsWith("backup-"))
        .map((finding) => (
          <p key={finding.message} className="text-ochre-text">
            {finding.message}
          </p>
        ))}
      <div>
        <h3 className="text-[0.9rem] text-soft">The steps{tried.order ? `. ${tried.order}` : ""}</h3>
        <ol aria-label="Steps of the sequence" className="mt-0.5 columns-1 gap-x-6 text-[0.95rem] sm:columns-2">
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
      </div>
    </div>
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
