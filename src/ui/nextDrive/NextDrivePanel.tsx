"use client";

import "@/core/commands/priceCommands";
import { useMemo, useState } from "react";
import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import { nameOfDrive } from "@/core/drives/nameOfDrive";
import type { Placement } from "@/core/nextDrive/placements";
import { flatStretches } from "@/core/nextDrive/flatStretches";
import { sizeCurve } from "@/core/nextDrive/sizeCurve";
import { layoutOf } from "@/core/layouts/registry";
import { useUnit } from "../preferences/preferences";
import { GrowthLink } from "../growth/GrowthLink";
import { BestBuys } from "./BestBuys";
import { refusalWords, stretchWords } from "./curveWords";
import { SizeCurveChart } from "./SizeCurveChart";
import { OneOf } from "../kit/OneOf";
import { part } from "../kit/part";

const PricesDialog = part(() => import("./PricesDialog").then((module) => module.PricesDialog), {
  said: "over",
});

const keyOf = (at: Placement) =>
  at.kind === "add" ? `add ${at.group}` : at.kind === "replace" ? `replace ${at.drive}` : "further";

/** What one more drive, or another in a bay, would bring, and which to buy. */
export function NextDrivePanel({
  plan,
  act,
  free,
  start,
}: {
  plan: Plan;
  act: (command: Command, offersUndo?: boolean) => string | null;
  free: number;
  start?: Placement;
}) {
  const [unit] = useUnit();
  const [poolId, setPool] = useState<string | null>(null);
  const [key, setKey] = useState<string | null>(start ? keyOf(start) : null);
  const [pricing, setPricing] = useState(false);
  const pool = plan.pools.find((each) => each.id === poolId) ?? plan.pools[0];
  const places = useMemo(() => {
    if (!pool) return [];
    const drive = (id: string) => plan.drives.find((each) => each.id === id);
    return [
      ...(free > 0
        ? pool.groups.map((group, g) => ({
            at: { kind: "add", group: group.id } as Placement,
            words:
              pool.groups.length === 1
                ? "as one more drive"
                : `as one more in group ${g + 1} (${layoutOf(group.layout).shortName})`,
          }))
        : []),
      ...pool.groups.flatMap((group) =>
        group.drives.flatMap((id) => {
          const old = drive(id);
          return old
            ? [{ at: { kind: "replace", drive: id } as Placement, words: `in place of ${nameOfDrive(old, unit)}` }]
            : [];
        }),
      ),
    ];
  }, [plan.drives, pool, free, unit]);
  const place = places.find(({ at }) => keyOf(at) === key) ?? places[0];
  const curve = useMemo(() => (pool && place ? sizeCurve(plan, pool, place.at) : []), [plan, pool, place]);
  if (!pool || !place)
    return (
      <p className="text-soft">
        There is no pool yet that a drive could go to. Apply a layout, or make a group on the workbench.
      </p>
    );
  const stretches = flatStretches(curve);
  const refusal = refusalWords(curve, unit);
  return (
    <div className="text-[0.95rem]">
      <div className="flex flex-wrap items-center gap-1.5">
        {plan.pools.length > 1 && (
          <OneOf
            label="Pool"
            value={pool.id}
            options={plan.pools.map((each) => ({ value: each.id, label: each.name || each.id }))}
            onChange={setPool}
          />
        )}
        <label className="flex min-w-0 items-center gap-1.5">
          <span className="shrink-0 text-soft">A drive</span>
          <select
            value={keyOf(place.at)}
            onChange={(event) => setKey(event.target.value)}
            className="h-7 max-w-72 min-w-0 rounded border border-line-strong/60 bg-raised px-1"
          >
            {places.map(({ at, words }) => (
              <option key={keyOf(at)} value={keyOf(at)}>
                {words}
              </option>
            ))}
          </select>
        </label>
      </div>
      <SizeCurveChart curve={curve} />
      <p className="text-[0.87rem] text-soft">
        Solid: gained at once. Dotted: with a second drive of that size. After the new space is taken into use.
      </p>
      <ul className="mt-2 list-disc space-y-0.5 pl-5">
        {refusal && <li>{refusal}</li>}
        {stretches.map((stretch) => (
          <li key={stretch.from}>{stretchWords(stretch, unit)}</li>
        ))}
        {stretches.length === 0 && !refusal && <li>Every larger size brings more.</li>}
      </ul>
      <BestBuys plan={plan} pool={pool} act={act} onPrices={() => setPricing(true)} />
      <p className="mt-2">
        These are for one purchase. For years of them, each at its time: <GrowthLink />
      </p>
      {pricing && (
        <PricesDialog
          plan={plan}
          onClose={() => setPricing(false)}
          onTake={(prices) => act({ kind: "set-prices", prices })}
        />
      )}
    </div>
  );
}
