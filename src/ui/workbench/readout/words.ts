import { fateOf } from "@/core/failures/fate";
import type { Plan } from "@/core/document/plan";
import { bayOf } from "@/core/drives/drive";
import type { LedgerCause } from "@/core/ledger/ledger";
import type { PoolPrediction } from "@/core/prediction/predictPool";
import { oneOrMany, plural } from "@/core/words/counted";
import { survivesWords } from "@/core/words/survives";
import { listOf } from "@/core/words/listOf";
import type { SwatchKind } from "../../kit/Swatch";

/**
 * What each cause of the ledger is called, the pattern that it has in the terraces, and a mark where that is the
 * pattern of others too.
 */
export const CAUSES: Record<
  LedgerCause,
  { name: string; why: string; swatch: Exclude<SwatchKind, "cache" | "log">; mark?: string }
> = {
  "system-reserve": {
    name: "Kept by the box",
    why: "Your box keeps a part of every drive for its own system.",
    swatch: "reserve",
  },
  "replacement-margin": {
    name: "Replacement margin",
    why: "Left unused so that a slightly smaller replacement fits.",
    swatch: "idle",
    mark: "M2 4h10",
  },
  rounding: {
    name: "Rounding",
    why: "What is left over below the unit in which the box gives out space.",
    swatch: "idle",
    mark: "M6 7h2",
  },
  idle: { name: "Unused tops", why: "Space on the larger drives that this layout cannot use.", swatch: "idle" },
  spare: { name: "Hot spares", why: "Drives that stand by.", swatch: "spare" },
  copies: { name: "Mirror copies", why: "The second and other copies of your data.", swatch: "copies" },
  parity: { name: "Parity", why: "What a lost drive is worked out from.", swatch: "parity" },
  metadata: {
    name: "Array metadata",
    why: "The RAID driver's own notes at the start of each drive.",
    swatch: "reserve",
    mark: "M4 5h6M4 9h6",
  },
  "pool-reserve": {
    name: "Pool reserve",
    why: "A share of the pool that your box keeps to itself.",
    swatch: "reserve",
    mark: "M7 3v8",
  },
  unassigned: {
    name: "Not given to a volume",
    why: "Space of the pool that no volume has been given yet.",
    swatch: "idle",
    mark: "M3 11l8-8",
  },
  "not-grown": {
    name: "File system not grown",
    why: "The volume has grown and its file system has not yet: nothing can be stored there until it does.",
    swatch: "idle",
    mark: "M7 11V3M4 6l3-3 3 3",
  },
  "volume-reserve": {
    name: "Kept of volumes",
    why: "The share of a volume that is kept for snapshots or for the system.",
    swatch: "reserve",
    mark: "M4 3v8M10 3v8",
  },
  "file-system": {
    name: "File systems",
    why: "What the file systems need for their own structures, from measured shares.",
    swatch: "reserve",
    mark: "M7 3v8M3 7h8",
  },
  "root-reserve": {
    name: "Reserved for root",
    why: "ext4 keeps 5 % that only the administrator (root) can fill.",
    swatch: "reserve",
    mark: "M5 5h4v4h-4z",
  },
  "head-room": {
    name: "Kept free",
    why: "What you want to keep free, so that the box stays quick and has time to grow.",
    swatch: "idle",
    mark: "M3 10h8",
  },
  lost: {
    name: "Lost",
    why: "What was on drives that are gone, and cannot be worked out from the others.",
    swatch: "lost",
  },
  used: { name: "Used", why: "What is stored today.", swatch: "data" },
  left: { name: "Left to fill", why: "What you can still fill.", swatch: "spare", mark: "M4 10h6" },
};

/** Drives by the places they are in: "bays 1 and 2". */
export function placesOf(plan: Plan, ids: readonly string[]): string {
  const bays = ids.flatMap((id) => {
    const drive = plan.drives.find((each) => each.id === id);
    return drive ? (bayOf(drive) ?? drive.lastBay ?? `${drive.serial ?? drive.id} (shelf)`) : [];
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
  const heading =
    `${oneOrMany(failing.length, "One drive is", "drives are")} failing: treat ` +
    `${plural(failing.length, "it", "them")} as gone`;
  if (fate.kind === "lost" || fate.kind === "partly-lost")
    return {
      heading,
      then:
        `When ${placesOf(plan, failing)} ${plural(failing.length, "goes", "go")}, data is lost. Copy what ` +
        "matters off now.",
    };
  const left = fate.kind === "degraded" ? fate.redundancy : pool.tolerance;
  return {
    heading,
    then:
      left === 0
        ? `Nothing is lost yet. Once ${placesOf(plan, failing)} ${plural(failing.length, "is", "are")} gone, the ` +
          "loss of another drive loses data, until a new one is filled."
        : `Nothing is lost yet. Without ${plural(failing.length, "it", "them")}, the loss of ` +
          `${oneOrMany(left, "one more drive", "more drives")} is survived.`,
  };
}

/** The loss of how many drives a pool survives, as a heading and a sentence about what then. */
export function toleranceWords(plan: Plan, pool: PoolPrediction): { heading: string; then: string } {
  const fatal = placesOf(plan, pool.smallestFatalSet);
  const failing = failingIn(plan, pool);
  if (failing.length > 0) return failingWords(plan, pool, failing);
  if (pool.smallestFatalSet.length === 0)
    return { heading: "Nothing to protect yet", then: "This pool cannot be made as it is." };
  if (pool.tolerance === 0) return { heading: survivesWords(0), then: `For instance the one in ${fatal}.` };
  const heading = survivesWords(pool.tolerance);
  const left = pool.tolerance - 1;
  const then =
    left === 0
      ? "Until its replacement is rebuilt, a second failure loses data."
      : `After one failure, the loss of ${oneOrMany(left, "one more", "more")} is survived until the replacement ` +
        "is rebuilt.";
  // Drives with file systems of their own take nothing else with them.
  const independent = pool.groups.every((group) => group.bands.every((band) => band.independent));
  return {
    heading,
    then:
      `${then} If the drives in ${fatal} ${pool.smallestFatalSet.length === 2 ? "both" : "all"} fail, ` +
      (independent ? "what is on them is lost, and nothing else" : "everything in this pool is lost") +
      ".",
  };
}
