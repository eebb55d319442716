import { doingOf } from "../simulator/doings/registry";
import type { Mishap } from "../simulator/mishaps";
import type { Step } from "../document/plan";
import { groupWith, placeOf } from "../simulator/simulatedBox";
import { hasParitySchedule } from "../layouts/hasParitySchedule";
import { rulesOfBox } from "../box/rulesOfBox";
import type { Stage } from "./stage";

/** A mishap that can befall a box at a moment, with what follows from it at once, each so many hours later. */
export interface Happening {
  kind: Mishap["kind"];
  /** The drive, volume or pool that it is about, by its id; nothing where it is about the box. */
  of?: string;
  mishaps: readonly { after: number; mishap: Mishap }[];
}

/** At how many places of a drive sectors cannot be read. */
export const FEW_SECTORS = 3;
/** How much smaller than it should be a drive that is short is, as a share of it. */
export const SHORT_BY = 0.01;
/** How many times slower a slow drive is. */
export const SLOW_BY = 4;
/** How long after a loss the schedule brings the parity up to date, in hours. */
const UPDATE_AFTER = 1;

const just = (mishap: Mishap, of?: string): Happening => ({
  kind: mishap.kind,
  ...(of === undefined ? {} : { of }),
  mishaps: [{ after: 0, mishap }],
});

/** Drives of the box that work and are in a group, or stand by for one; and those of them that are being filled. */
function drivesInUse({ practice: { box, running } }: Stage): { members: string[]; filled: string[] } {
  const filling = new Set(
    running.flatMap(({ phases, phase }) => {
      const op = phases[phase]?.op;
      return op?.kind === "fill" ? [op.place] : op?.kind === "copy" ? [op.to] : [];
    }),
  );
  const works = box.drives.flatMap(({ id, state, bay }, place) =>
    state === "works" && bay !== null ? [{ id, place }] : [],
  );
  return {
    members: works.flatMap(({ id, place }) => (!filling.has(place) && groupWith(box, place) ? [id] : [])),
    filled: works.flatMap(({ id, place }) => (filling.has(place) ? [id] : [])),
  };
}

/** What can happen to drives, to each of them. */
export function toDrives(stage: Stage, kinds: readonly Mishap["kind"][]): Happening[] {
  const { members, filled } = drivesInUse(stage);
  const each: Partial<Record<Mishap["kind"], (drive: string) => Mishap>> = {
    "drive-dies": (drive) => ({ kind: "drive-dies", drive }),
    unreadable: (drive) => ({ kind: "unreadable", drive, blocks: FEW_SECTORS }),
    "goes-missing": (drive) => ({ kind: "goes-missing", drive }),
    "wrong-drive-pulled": (drive) => ({ kind: "wrong-drive-pulled", drive }),
    slow: (drive) => ({ kind: "slow", drive, times: SLOW_BY }),
  };
  return [
    ...kinds.flatMap((kind) => {
      const make = each[kind];
      return make ? members.map((drive) => just(make(drive), drive)) : [];
    }),
    ...(kinds.includes("dies-young") ? filled.map((drive) => just({ kind: "dies-young", drive }, drive)) : []),
  ];
}

/** After a drive has died the schedule brings the parity up to date before anybody has seen it. */
function updatedParity(stage: Stage): Happening[] {
  const rules = rulesOfBox(stage.plan);
  return stage.plan.pools
    .filter((pool) => hasParitySchedule(pool, rules))
    .flatMap((pool) => {
      const { members } = drivesInUse(stage);
      const own = new Set(pool.groups.flatMap(({ drives }) => drives));
      return members
        .filter((drive) => own.has(drive))
        .map((drive) => ({
          kind: "parity-updated" as const,
          of: drive,
          mishaps: [
            { after: 0, mishap: { kind: "drive-dies" as const, drive } },
            { after: UPDATE_AFTER, mishap: { kind: "parity-updated" as const, pool: pool.id } },
          ],
        }));
    });
}

/** What can happen while a box does something, at any moment. */
export const atAnyMoment = (stage: Stage): Happening[] => [
  ...toDrives(stage, ["drive-dies", "dies-young", "unreadable", "goes-missing"]),
  ...updatedParity(stage),
  ...(stage.practice.running.length > 0 ? [just({ kind: "power-cut" })] : []),
];

/** What is the same at any moment of a step. */
export const onceAStep = (stage: Stage): Happening[] => [
  just({ kind: "fire" }),
  ...stage.plan.pools.flatMap(({ volumes }) => volumes.map(({ id }) => just({ kind: "deletion", volume: id }, id))),
  ...(stage.practice.running.length > 0 ? toDrives(stage, ["slow"]) : []),
];

/** Whoever opens the box for a step can take the wrong drive. */
export const withHandsInIt = (stage: Stage): Happening[] => toDrives(stage, ["wrong-drive-pulled"]);

/** What shows, or is forgotten, when the turn of a step has come. */
export function whenItsTurnComes({ practice: { box }, play }: Stage, step: Step): Happening[] {
  const joining = "by" in step ? [step.by] : "drives" in step && Array.isArray(step.drives) ? step.drives : [];
  const short = joining.flatMap((drive): Happening[] => {
    const bytes = play.plan.drives.find(({ id }) => id === drive)?.bytes;
    const is = box.drives[placeOf(box, drive)];
    if (bytes === undefined || !is || groupWith(box, placeOf(box, drive))) return [];
    return [just({ kind: "short", drive, bytes: Math.round(bytes * SHORT_BY) }, drive)];
  });
  return [...short, ...(doingOf(step).enlarges ? [just({ kind: "grow-forgotten" })] : [])];
}
