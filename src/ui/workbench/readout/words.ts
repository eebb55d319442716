import { systemFate } from "@/core/box/systemFate";
import { rulesOf } from "@/core/rules/ruleSets";
import { fateOf, type Fate } from "@/core/failures/fate";
import type { Plan } from "@/core/document/plan";
import { bayOf } from "@/core/drives/drive";
import type { LedgerCause } from "@/core/ledger/ledger";
import type { PoolPrediction } from "@/core/prediction/predictPool";
import { oneOrMany, plural } from "@/core/words/counted";
import { listOf } from "@/core/words/listOf";
import type { SwatchKind } from "../../kit/Swatch";

/** What each cause of the ledger is called, and the pattern that it has in the terraces. */
export const CAUSES: Record<LedgerCause, { name: string; why: string; swatch: SwatchKind }> = {
  "system-reserve": {
    name: "Kept by the box",
    why: "Your box keeps a part of every drive for its own system.",
    swatch: "reserve",
  },
  "right-size-margin": {
    name: "Right-size margin",
    why: "Left unused so that a slightly smaller replacement fits.",
    swatch: "idle",
  },
  rounding: {
    name: "Rounding",
    why: "What is left over below the unit in which the box gives out space.",
    swatch: "idle",
  },
  idle: { name: "Unused tops", why: "Room on the larger drives that this layout cannot use.", swatch: "idle" },
  spare: { name: "Hot spares", why: "Drives that stand by.", swatch: "spare" },
  copies: { name: "Copies", why: "Second and further copies of your data.", swatch: "copies" },
  parity: { name: "Parity", why: "What a lost drive is worked out from.", swatch: "parity" },
  metadata: {
    name: "Array metadata",
    why: "The RAID driver's own notes at the start of each member.",
    swatch: "reserve",
  },
  "pool-reserve": {
    name: "Pool reserve",
    why: "A share of the pool that your box keeps to itself.",
    swatch: "reserve",
  },
  unassigned: {
    name: "Not given to a volume",
    why: "Room of the pool that no volume has been given yet.",
    swatch: "idle",
  },
  "not-grown": {
    name: "File system not grown",
    why: "The volume has grown and its file system has not yet: nothing can be stored there until it does.",
    swatch: "idle",
  },
  "volume-reserve": {
    name: "Kept of volumes",
    why: "The share of a volume that is kept for snapshots or for the system.",
    swatch: "reserve",
  },
  "file-system": {
    name: "File systems",
    why: "What the file systems need for their own structures, from measured shares.",
    swatch: "reserve",
  },
  "root-reserve": {
    name: "Reserved for root",
    why: "ext4 keeps 5 % that ordinary users cannot fill.",
    swatch: "reserve",
  },
  "head-room": {
    name: "Head-room",
    why: "What you want to keep free, so that the box stays quick and has time to grow.",
    swatch: "idle",
  },
  used: { name: "Used", why: "What is stored today.", swatch: "data" },
  left: { name: "Left to fill", why: "What you can still fill.", swatch: "data" },
};

/** Drives by the places they are in: "bays 1 and 2". */
export function placesOf(plan: Plan, ids: readonly string[]): string {
  const bays = ids.flatMap((id) => {
    const drive = plan.drives.find((each) => each.id === id);
    return drive ? (bayOf(drive) ?? `${drive.serial ?? drive.id} (shelf)`) : [];
  });
  return `${plural(bays.length, "bay")} ${listOf(bays.map(String))}`;
}

/** Drives of a pool that still work, but fail. */
const failingIn = (plan: Plan, pool: PoolPrediction): string[] =>
  plan.drives
    .filter((drive) => drive.health.state === "failing" && pool.groups.some((group) => group.drives.includes(drive.id)))
    .map((drive) => drive.id);

/** A failing drive is as good as gone: what is left is what is left without it. */
function failingWords(plan: Plan, pool: PoolPrediction, failing: readonly string[]): { heading: string; then: string } {
  const fate = fateOf(
    pool.groups.flatMap((group) => group.bands),
    new Set(failing),
  );
  const heading = `${oneOrMany(failing.length, "One drive is", "drives are")} failing: treat ${plural(failing.length, "it", "them")} as gone`;
  if (fate.kind === "lost" || fate.kind === "partly-lost")
    return {
      heading,
      then: `When ${placesOf(plan, failing)} ${plural(failing.length, "goes", "go")}, data is lost. Copy what matters off now.`,
    };
  const left = fate.kind === "degraded" ? fate.redundancy : pool.tolerance;
  return {
    heading,
    then:
      left === 0
        ? `Nothing is lost yet. Once ${placesOf(plan, failing)} ${plural(failing.length, "is", "are")} gone, no other drive may fail until a new one is filled.`
        : `Nothing is lost yet. Without ${plural(failing.length, "it", "them")}, ${oneOrMany(left, "one more drive", "more drives")} may fail.`,
  };
}

/** How many drives of a pool may fail, as a heading and a sentence about what then. */
export function toleranceWords(plan: Plan, pool: PoolPrediction): { heading: string; then: string } {
  const fatal = placesOf(plan, pool.smallestFatalSet);
  const failing = failingIn(plan, pool);
  if (failing.length > 0) return failingWords(plan, pool, failing);
  if (pool.smallestFatalSet.length === 0)
    return { heading: "Nothing to protect yet", then: "This pool cannot be made as it is." };
  if (pool.tolerance === 0)
    return { heading: "No drive may fail", then: `The loss of any one, for instance in ${fatal}, loses data.` };
  const heading = `Any ${oneOrMany(pool.tolerance, "one drive", "drives")} may fail`;
  const left = pool.tolerance - 1;
  const then =
    left === 0
      ? "While it is replaced and rebuilt, none may."
      : `After one failure, ${oneOrMany(left, "one more", "more")} may until the rebuild has ended.`;
  // Drives with file systems of their own take nothing else with them.
  const independent = pool.groups.every((group) => group.bands.every((band) => band.independent));
  return {
    heading,
    then: `${then} Losing ${fatal} together loses ${independent ? "what is on them, and nothing else" : "the pool"}.`,
  };
}

/** What has become of a pool in a what-if. */
export function fateWords(
  plan: Plan,
  fate: Fate,
): { heading: string; then: string; tone: "whole" | "degraded" | "lost" } {
  switch (fate.kind) {
    case "whole":
      return { heading: "Not touched", then: "None of the failed drives belongs to this pool.", tone: "whole" };
    case "degraded": {
      const more =
        fate.redundancy === 0
          ? "No further drive may fail until the rebuild has ended."
          : `Any ${oneOrMany(fate.redundancy, "one more drive", "more drives")} may fail until the rebuild has ended.`;
      return {
        heading: "Degraded, nothing lost",
        then: `All data can be read without ${placesOf(plan, fate.missing)}. ${more}`,
        tone: "degraded",
      };
    }
    case "partly-lost":
      return {
        heading: "Some data is lost",
        then: `What was on ${placesOf(plan, fate.lostDrives)} is lost, and only a backup brings it back. Every drive that still works keeps its own file system and can be read.`,
        tone: "lost",
      };
    case "lost":
      return {
        heading: "The pool is lost",
        then: `Without ${placesOf(plan, fate.missing)}, ${oneOrMany(fate.bands.length, "one band", "bands")} cannot be read, and the pool with ${plural(fate.bands.length, "it", "them")}. Only a backup helps.`,
        tone: "lost",
      };
  }
}

/** What becomes of the box's own system in a what-if; null where it runs on. */
export function systemWords(plan: Plan, failed: ReadonlySet<string>): string | null {
  switch (systemFate(plan, failed, rulesOf(plan.box.rules))) {
    case "gone":
      return "The box's system is gone with it: it does not start until it is set up anew.";
    case "one-copy":
      return "The box's system is left on a single drive.";
    case "runs":
    case "unknown":
      return null;
  }
}
