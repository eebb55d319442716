"use client";

import { formatExactBytes } from "@/core/bytes/formatBytes";
import { USABLE_CAUSES, type LedgerEntry } from "@/core/ledger/ledger";
import { Explained } from "../../kit/Explained";
import { Size } from "../../kit/Size";
import { Swatch } from "../../kit/Swatch";
import { useWorkbench } from "../useWorkbench";
import { CAUSES, placesOf } from "./words";

/** Where every byte went: a list that sums to the drives, with a bar for each entry's share. */
export function Ledger({ entries, hasVolumes }: { entries: readonly LedgerEntry[]; hasVolumes: boolean }) {
  const total = entries.reduce((sum, entry) => sum + entry.bytes, 0);
  if (total === 0) return null;
  const usable = entries.filter((entry) => USABLE_CAUSES.has(entry.cause));
  return (
    <div>
      <h3 className="font-serif text-lg">Where the bytes went</h3>
      <table className="mt-1 w-full text-[0.95rem]">
        <caption className="sr-only">
          From the sum of the drives down to what is usable; the entries sum to it exactly
        </caption>
        <thead className="sr-only">
          <tr>
            <th scope="col">Cause</th>
            <th scope="col">Size</th>
          </tr>
        </thead>
        <tbody>
          <tr className="border-b border-line">
            <th scope="row" className="py-[1.5px] text-left font-normal">
              All its drives
            </th>
            <td className="py-[1.5px] text-right">
              <Size bytes={total} />
            </td>
          </tr>
          {entries
            .filter((entry) => !USABLE_CAUSES.has(entry.cause))
            .map((entry) => (
              <Row key={entry.cause} entry={entry} />
            ))}
          <tr className="border-t border-line font-semibold">
            <th scope="row" className="py-[1.5px] pr-2 text-left font-semibold">
              <span className="flex items-center gap-2">
                <Swatch kind="data" />
                Usable
              </span>
            </th>
            <td className="py-[1.5px] text-right whitespace-nowrap">
              <Size bytes={usable.reduce((sum, entry) => sum + entry.bytes, 0)} />
            </td>
          </tr>
          {hasVolumes && usable.map((entry) => <Row key={entry.cause} entry={entry} />)}
        </tbody>
      </table>
    </div>
  );
}

function Row({ entry }: { entry: LedgerEntry }) {
  const { plan } = useWorkbench();
  const { name, why, swatch, mark } = CAUSES[entry.cause];
  const stays = entry.cause === "used" || entry.cause === "left";
  return (
    <tr
      title={
        `${why} ` +
        `${formatExactBytes(entry.bytes)}${entry.drives.length > 0 ? `, ${placesOf(plan, entry.drives)}` : ""}`
      }
      className={entry.cause === "left" ? "font-semibold" : ""}
    >
      <th scope="row" className="py-[1.5px] pr-2 text-left font-[inherit]">
        <span className={`flex items-center gap-2 ${entry.cause === "left" ? "font-semibold" : "font-normal"}`}>
          <Swatch kind={swatch} mark={mark} />
          <span>
            <Explained text={name} />
          </span>
          {entry.cause === "idle" && <span className="text-[0.85rem] text-soft">{placesOf(plan, entry.drives)}</span>}
        </span>
      </th>
      <td className="py-[1.5px] text-right whitespace-nowrap">
        {stays ? "" : "− "}
        <Size bytes={entry.bytes} />
      </td>
    </tr>
  );
}
