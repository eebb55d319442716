"use client";

import type { Survival as Counted } from "@/core/failures/survival";

const NAMES = ["", "One drive", "Two drives", "Three drives", "Four drives"];

/** For each number of drives lost at once, how many of all the sets lose nothing. Counted, not estimated. */
export function Survival({ survival, independent }: { survival: readonly Counted[]; independent: boolean }) {
  if (survival.length === 0) return null;
  // Once every set is fatal, every larger set is too.
  const firstHopeless = survival.findIndex((each) => each.survived === 0);
  const shown = firstHopeless < 0 ? survival : survival.slice(0, firstHopeless + 1);
  return (
    <div>
      <h3 className="font-serif text-[1.05rem]">If several fail at once</h3>
      <table className="mt-1 w-full text-[0.95rem]">
        <caption className="sr-only">How often your data survives if several drives fail at once</caption>
        <tbody>
          {shown.map(({ failed, survived, sets }) => (
            <tr key={failed}>
              <th scope="row" className="py-0.5 text-left font-normal">
                {NAMES[failed]}
                {survived === 0 && failed < survival.length ? " or more" : ""}
              </th>
              <td className="py-0.5 text-right">
                {survived === sets
                  ? "always survived"
                  : survived === 0
                    ? independent
                      ? "only what is on them is lost"
                      : "always loses data"
                    : `survived in ${survived} of ${sets} cases`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
