import { rulesOfBox } from "@/core/box/rulesOfBox";
import type { Plan } from "@/core/document/plan";
import { hasParitySchedule } from "@/core/layouts/hasParitySchedule";
import type { Breakable } from "../mishaps/mishapOffers";
import type { PracticeView, SeenDrive } from "./openPractice";

const nameOf = ({ size, serial, bay }: SeenDrive): string =>
  `${size}, ${serial}, ${bay === null ? "on the shelf" : `in bay ${bay}`}`;

/** What of a practice box something can befall, as one sees it. */
export function breakable({ drives, volumes }: PracticeView, plan: Plan): Breakable {
  const named = (isMeant: (drive: SeenDrive) => boolean) =>
    drives.filter(isMeant).map((drive) => ({ value: drive.id, label: nameOf(drive) }));
  const rules = rulesOfBox(plan);
  return {
    inBays: named(({ bay, state }) => bay !== null && state === "works"),
    onShelf: named(({ bay, state }) => bay === null && state === "works"),
    away: named(({ state }) => state === "missing"),
    volumes: volumes.map(({ id, name }) => ({ value: id, label: name })),
    scheduled: plan.pools
      .filter((pool) => hasParitySchedule(pool, rules))
      .map(({ id, name }) => ({ value: id, label: name })),
    bytesOf: (id) => plan.drives.find((drive) => drive.id === id)?.bytes ?? 0,
    hasUps: plan.box.ups === true,
  };
}
