"use client";

import type { Plan, WorkKind } from "@/core/document/plan";
import type { Command } from "@/core/document/command";
import type { LogbookLine } from "@/core/logbook/logbookLines";
import { ownTimesOf } from "@/core/logbook/ownTimes";
import { recordedTimes } from "@/core/logbook/recordedTime";
import { workName } from "@/core/logbook/workWords";
import { counted } from "@/core/words/counted";
import { Tick } from "../kit/Field";
import { whenWords } from "./when";
import { say } from "../kit/say";
import { STACKED_NAME, STACKED_ROW, TableHead } from "../kit/TableHead";

interface Props {
  plan: Plan;
  lines: readonly LogbookLine[];
  act: (command: Command, offersUndo?: boolean) => string | null;
}

const factor = (value: number) => `${value.toFixed(2)} ×`;

/** What the box's own times say of each kind of work, by which entries, and whether it is reckoned with. */
export function OwnTimes({ plan, lines, act }: Props) {
  const own = ownTimesOf(plan);
  const off = new Set(plan.ratesOnly);
  // Of the kinds of which there are own entries, and of one more for all others: they differ in nothing.
  const kinds = [...new Set(recordedTimes(plan).map(({ work }) => work))];
  if (kinds.length === 0)
    return (
      <p className="mt-4 max-w-prose text-soft">
        No entry tells how fast this box is yet. Hours are by the usual rates, with a range that is wide.
      </p>
    );
  const others = own.factors && Object.keys(own.of).find((work) => !kinds.includes(work as WorkKind));
  return (
    <section aria-labelledby="own-times" className="mt-6">
      <h2 id="own-times" className="font-serif text-lg">
        What your box’s own times say
      </h2>
      <p className="max-w-prose text-soft">
        Hours by the usual rates are multiplied by these. An entry counts much for work of its kind, and less for other
        work. Between the two figures in brackets lie four of five.
      </p>
      <table className="mt-2 w-full text-left">
        <TableHead names={["Work", "Times the usual hours", "By", "Reckoned with"]} stacks />
        <tbody>
          {kinds.map((work) => {
            const [known, by] = [own.of[work], own.factors[work]];
            return (
              <tr key={work} className={STACKED_ROW}>
                <th scope="row" className={`${STACKED_NAME} font-semibold`}>
                  {workName(work)}
                </th>
                <td className="py-1 pr-3">
                  {by ? `${factor(by.expected)} (${by.low.toFixed(2)} to ${by.high.toFixed(2)})` : "as they are"}
                </td>
                <td className="py-1 pr-3 text-soft">
                  {known
                    ? `${counted(known.own, "entry", "entries")} of its ` +
                      `own${known.others > 0 ? `, ${known.others} of other work` : ""}`
                    : "the usual rates"}
                </td>
                <td className="py-1">
                  <Tick
                    aria-label={`Reckon with your box’s own times for: ${workName(work)}`}
                    checked={!off.has(work)}
                    onTick={(on) => {
                      act({ kind: "set-rates-only", work, on: !on }, true);
                      say(on ? "It is reckoned with its own times." : "It is reckoned with the usual rates.");
                    }}
                  >
                    {off.has(work) ? "No" : "Yes"}
                  </Tick>
                </td>
              </tr>
            );
          })}
          {others && (
            <tr className={STACKED_ROW}>
              <th scope="row" className={STACKED_NAME}>
                All other work
              </th>
              <td className="py-1 pr-3">
                {factor(own.factors[others as WorkKind]?.expected ?? 1)} (
                {own.factors[others as WorkKind]?.low.toFixed(2)} to {own.factors[others as WorkKind]?.high.toFixed(2)})
              </td>
              <td className="py-1 pr-3 text-soft">{counted(own.times.length, "entry", "entries")} of other work</td>
              <td />
            </tr>
          )}
        </tbody>
      </table>
      <details className="mt-2">
        <summary className="cursor-pointer py-1">By which entries</summary>
        <ul>
          {own.times.map(({ entry, ratio }) => {
            const line = lines.find(({ id }) => id === entry);
            return (
              <li key={entry} className="border-b border-line py-1 last:border-0">
                {line ? `${line.title}, ${whenWords(line.start)}` : entry}: {factor(ratio)} the usual hours
              </li>
            );
          })}
        </ul>
      </details>
    </section>
  );
}
