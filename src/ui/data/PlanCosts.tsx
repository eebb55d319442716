"use client";

import { useMemo } from "react";
import { plainDayWords } from "@/core/time/dateWords";
import { nameOfDrive, shortSize } from "@/core/drives/nameOfDrive";
import { costsOf } from "@/core/walk/costs";
import type { Dates } from "../calendar/useDates";
import { useUnit } from "../preferences/preferences";
import type { Walk } from "@/core/walk/moment";
import type { Command } from "@/core/document/command";
import { moneyWords } from "@/core/words/money";
import { CurrencyChoice } from "../kit/CurrencyChoice";
import { oneOrMany } from "@/core/words/counted";
import { listOf } from "@/core/words/listOf";

/** What the plan costs and when, and which drives become free. */
export function PlanCosts({
  walked,
  dates,
  act,
}: {
  walked: Walk;
  dates: Dates;
  act: (command: Command) => string | null;
}) {
  const { currency } = walked.plan;
  const [unit] = useUnit();
  const { purchases, total, unpriced, freed } = useMemo(() => costsOf(walked), [walked]);
  const orderOf = (id: string) => dates.schedule?.orders.find((order) => order.drives.includes(id))?.orderOn;
  return (
    <section aria-labelledby="costs">
      <h2 id="costs" className="border-b border-line pb-1 font-serif text-lg">
        What the plan costs
      </h2>
      {purchases.length === 0 ? (
        <p className="py-2 text-soft">Nothing has to be bought.</p>
      ) : (
        <table className="w-full">
          <caption className="sr-only">Drives to buy, with when to order them and what they cost</caption>
          <tbody>
            {purchases.map(({ drive, price, isExample }) => {
              const order = orderOf(drive.id);
              return (
                <tr key={drive.id} className="border-b border-line">
                  <th scope="row" className="py-1 text-left font-normal">
                    {shortSize(drive, unit)} {drive.model ?? ""}
                  </th>
                  <td className="py-1 text-soft">{order ? `order by ${plainDayWords(order)}` : ""}</td>
                  <td className="py-1 text-right">
                    {price === null ? "no price" : moneyWords(price, currency)}
                    {isExample ? <span className="text-soft"> (example)</span> : ""}
                  </td>
                </tr>
              );
            })}
            <tr>
              <th scope="row" colSpan={2} className="py-1 text-left font-normal">
                In all
                {unpriced > 0 ? `, without the ${oneOrMany(unpriced, "one that has", "that have")} no price` : ""}
              </th>
              <td className="py-1 text-right font-semibold">{moneyWords(total, currency)}</td>
            </tr>
          </tbody>
        </table>
      )}
      {purchases.length > 0 && <CurrencyChoice currency={currency} act={act} />}
      {freed.length > 0 && (
        <p className="py-1">
          Free afterwards, as a spare, for a backup or to be sold:{" "}
          {listOf(freed.map((drive) => nameOfDrive(drive, unit).replace(/ on the shelf/, "")))}.
        </p>
      )}
    </section>
  );
}
