"use client";

import { formatExactBytes } from "@/core/bytes/formatBytes";
import type { LedgerEntry } from "@/core/ledger/ledger";
import { Size } from "../../kit/Size";
import { Swatch } from "../../kit/Swatch";
import { useWorkbench } from "../useWorkbench";
import { CAUSES, placesOf } from "./words";

/** Where every byte went: a list that sums to the drives, with a bar for each entry's share. */
export function Ledger({ entries }: { entries: readonly LedgerEntry[] }) {
  const { plan } = useWorkbench();
  const total = entries.reduce((sum, entry) => sum + entry.bytes, 0);
  if (total === 0) return null;
  return (
    <div>
      <h3 className="font-serif text-lg">Where the bytes went</h3>
      <table className="mt-1 w-full text-[0.95rem]">
        <caption className="sr-only">From the sum of the drives down to what is usable; the entries sum to it exactly</caption>
        <thead className="sr-only">
          <tr>
            <th scope="col">Cause</th>
            <th scope="col">Size</th>
          </tr>
        </thead>
        <tbody>
          <tr className="border-b border-line">
            <th scope="row" className="py-[3px] text-left font-normal">
              All its drives
            </th>
            <td className="py-[3px] text-right">
              <Size bytes={total} />
            </td>
          </tr>
          {entries.map((entry) => {
            const { name, why, swatch } = CAUSES[entry.cause];
            const usable = entry.cause === "usable";
            return (
              <tr key={entry.cause} className={usable ? "border-t border-line font-semibold" : ""} title={`${why} ${formatExactBytes(entry.bytes)}${entry.drives.length > 0 ? `, ${placesOf(plan, entry.drives)}` : ""}`}>
                <th scope="row" className={`py-[3px] pr-2 text-left ${usable ? "font-semibold" : "font-normal"}`}>
                  <span className="flex items-center gap-2">
                    <Swatch kind={swatch} />
                    {name}
                    {!usable && entry.cause === "idle" && <span className="text-[0.85rem] text-soft">{placesOf(plan, entry.drives)}</span>}
                  </span>
                </th>
                <td className="py-[3px] text-right whitespace-nowrap">
                  {usable ? "" : "− "}
                  <Size bytes={entry.bytes} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
