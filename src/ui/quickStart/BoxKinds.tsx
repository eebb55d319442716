"use client";

import type { RuleSetId } from "@/core/document/plan";
import { formatBytes, type UnitFamily } from "@/core/bytes/formatBytes";
import { useUnit } from "../preferences/preferences";
import { ABOUT_SETS } from "@/core/rules/aboutSets";
import { ruleSets } from "@/core/rules/ruleSets";

const heldWords = (bytes: number | null, unit: UnitFamily): string =>
  bytes === null ? "takes fewer drives" : bytes === 0 ? "none protected" : `up to ${formatBytes(bytes, unit)}`;

/** Which kind of box: each with what it does, and what it is typical of. */
export function BoxKinds({
  set,
  held,
  onSet,
}: {
  set: RuleSetId;
  /** What each kind would hold with at least one drive safe, in bytes; null while there are no drives. */
  held: ReadonlyMap<RuleSetId, number | null> | null;
  onSet: (set: RuleSetId) => void;
}) {
  const [unit] = useUnit();
  return (
    <fieldset>
      <legend className="font-serif text-lg">What kind of box is it?</legend>
      <p className="text-[0.93rem] text-soft">
        The nearest will do: what yours does otherwise is asked later, under “What can your box do?”.
        {held && " Beside each: what these drives would hold in it with at least one drive safe."}
      </p>
      <ul className="mt-1 divide-y divide-line border-y border-line">
        {ruleSets.map(({ id, name }) => (
          <li key={id}>
            <label className="flex cursor-pointer gap-2.5 py-1.5 has-checked:bg-wall">
              <input
                type="radio"
                name="kind"
                value={id}
                checked={set === id}
                onChange={() => onSet(id)}
                className="mt-1.5 size-4 shrink-0 accent-indigo"
              />
              <span className="min-w-0 flex-1 leading-snug">
                <span className="font-semibold">{name}</span>{" "}
                {held && (
                  <span className="float-right ml-2 text-[0.93rem]">{heldWords(held.get(id) ?? null, unit)}</span>
                )}
                <span className="block text-[0.93rem]">{ABOUT_SETS[id].typical}</span>
                <span className="block text-[0.87rem] text-soft">{ABOUT_SETS[id].description}</span>
              </span>
            </label>
          </li>
        ))}
      </ul>
    </fieldset>
  );
}
