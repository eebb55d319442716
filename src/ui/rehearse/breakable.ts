import type { UnitFamily } from "@/core/bytes/formatBytes";
import { rulesOfBox } from "@/core/box/rulesOfBox";
import type { Drive, Plan } from "@/core/document/plan";
import { hasParitySchedule } from "@/core/layouts/hasParitySchedule";
import type { Practice } from "@/core/simulator/practice";
import type { Breakable } from "../mishaps/mishapOffers";
import { driveWords } from "./mishapWords";

/**
 * What of a simulated box something can befall, by its names in the plan.
 *
 * @param plan the box as a plan document: a drive that was pulled for a step is missing there, and nothing of the box's
 */
export function breakable(plan: Plan, { box }: Practice, unit: UnitFamily): Breakable {
  const named = (isMeant: (drive: Drive) => boolean) =>
    plan.drives.filter(isMeant).map(({ id }) => ({ value: id, label: driveWords(plan, id, unit) }));
  const rules = rulesOfBox(plan);
  const missing = new Set(box.drives.flatMap(({ id, state }) => (state === "missing" ? [id] : [])));
  return {
    inBays: named(({ state, place }) => state === undefined && "bay" in place),
    onShelf: named(({ state, place }) => state === undefined && "shelf" in place),
    away: named(({ id }) => missing.has(id)),
    volumes: plan.pools.flatMap(({ volumes }) =>
      volumes.map(({ id, name }) => ({ value: id, label: name || "Volume" })),
    ),
    scheduled: plan.pools
      .filter((pool) => hasParitySchedule(pool, rules))
      .map(({ id, name }) => ({ value: id, label: name || "Pool" })),
    bytesOf: (id) => plan.drives.find((drive) => drive.id === id)?.bytes ?? 0,
    hasUps: plan.box.ups === true,
  };
}
