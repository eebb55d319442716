"use client";

import type { ReactNode } from "react";
import type { Choice } from "@/core/compare/compare";
import { layoutOf } from "@/core/layouts/registry";
import type { Compared } from "./useComparison";

/** The choices in their order: those that fit, those that do not, and what cannot be made of these drives at all. */
export function ChoiceLists({ compared, card }: { compared: Compared; card: (choice: Choice) => ReactNode }) {
  const { comparison, tooMany, drives, choices, inside, outside } = compared;
  if (!comparison || tooMany || drives.length === 0) return null;
  return (
    <>
      <h2 className="sr-only">Layouts side by side</h2>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(15.5rem,1fr))] gap-x-6 pt-2">{inside.map(card)}</div>
      {inside.length === 0 && choices.length > 0 && (
        <p className="pt-4">Nothing that can be made of these drives fits. The nearest changes stand with each.</p>
      )}
      {outside.length > 0 && (
        <section aria-labelledby="unfit-heading">
          <h2 id="unfit-heading" className="mt-2 font-serif text-xl">
            Does not fit what you need
          </h2>
          <div className="grid grid-cols-[repeat(auto-fill,minmax(15.5rem,1fr))] gap-x-6 pt-2">{outside.map(card)}</div>
        </section>
      )}
      {comparison.impossible.length > 0 && (
        <section aria-labelledby="impossible-heading">
          <h2 id="impossible-heading" className="mt-2 font-serif text-xl">
            Not possible with these drives
          </h2>
          <ul className="mt-1 grid gap-x-6 sm:grid-cols-2">
            {comparison.impossible.map(({ layout, reason }) => (
              <li key={layout} className="flex gap-2 border-t border-line py-1">
                <span className="w-32 shrink-0 font-semibold">{layoutOf(layout).shortName}</span>
                <span className="text-soft">{reason}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <p className="mt-4 text-[0.9rem] text-soft">
        {comparison.exact
          ? "All ways to group these drives were compared; for each layout and number of groups the best is shown."
          : "With more than 12 drives only groups of neighbours in size were compared: better splits are " +
            "unlikely, but not ruled out."}{" "}
        Speeds and hours are estimates from the usual rates of such drives.
      </p>
    </>
  );
}
