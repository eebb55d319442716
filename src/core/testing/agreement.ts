import { heightOf } from "../bands/band";
import { bandsOfPool, fateOfPool, usableOfPool } from "../box/figures";
import { rulesOfBox } from "../box/rulesOfBox";
import type { Plan, Pool, Step, StepKind } from "../document/plan";
import { layoutOf } from "../layouts/registry";
import { fillUp } from "../simulator/chunks";
import { capacityOfPool } from "../simulator/groups";
import { readBack } from "../simulator/readBack";
import { doStep } from "../simulator/run";
import { setUp } from "../simulator/setUp";
import { forkBox, type SimBox, type SimPool } from "../simulator/simulatedBox";
import type { Walk, WalkedMoment, WalkedStep } from "../walk/moment";

// The prediction held against the simulated box: what each says of the same plan, by ways that share nothing.

/** Takes down in what they differ. */
export type Differ = (what: string) => void;

/** All sets of so many of some things. */
export function* setsOf<T>(all: readonly T[], size: number, from = 0): Generator<T[]> {
  if (size === 0) yield [];
  else
    for (let i = from; i <= all.length - size; i += 1)
      for (const rest of setsOf(all, size - 1, i + 1)) yield [all[i]!, ...rest];
}

/** How many blocks two figures may differ by: for each drive two ends that are rounded, and a chunk. */
function grainOf(box: SimBox, pool: Pool): number {
  const chunk = 2 ** 30 / box.block;
  return (
    2 +
    pool.groups.reduce((sum, { layout, drives }) => {
      const each = layoutOf(layout).chunked ? 2 + chunk : 2;
      return sum + each * drives.length;
    }, 0)
  );
}

const sizesAgree = (a: number, b: number, blocks: number, block: number) => Math.abs(a - b) <= blocks * block;

/** What pools, volumes and file systems hold. */
function holdCapacities(box: SimBox, plan: Plan, differ: Differ): void {
  const rules = rulesOfBox(plan);
  for (const pool of plan.pools) {
    const own = box.pools.find(({ id }) => id === pool.id);
    if (!own) {
      differ(`${pool.id} is not in the simulated box`);
      continue;
    }
    const grain = grainOf(box, pool);
    const gone = plan.drives.some(({ state }) => state !== undefined);
    const [predicted, simulated] = [usableOfPool(plan, pool, rules), capacityOfPool(box, own) * box.block];
    if (!gone && !sizesAgree(predicted, simulated, grain, box.block))
      differ(`${pool.id} holds ${predicted} B as predicted, ${simulated} B as filled`);
    pool.volumes.forEach((volume, v) => {
      const other = own.volumes[v];
      const files = Math.min(volume.bytes, volume.fileSystemBytes ?? volume.bytes);
      if (!other || !sizesAgree(volume.bytes, other.bytes, grain, box.block))
        differ(`volume ${volume.id} has ${volume.bytes} B as predicted, ${other?.bytes} B`);
      else if (!sizesAgree(files, other.files, grain, box.block))
        differ(`the files of ${volume.id} reach ${files} B as predicted, ${other.files} B`);
    });
  }
}

/** Reads a pool back with some more drives gone. */
function lostWithout(box: SimBox, pool: SimPool, places: readonly number[]): number {
  const were = places.map((place) => box.drives[place]!.state);
  for (const place of places) box.drives[place]!.state = "failed";
  const { lost } = readBack(box, pool);
  places.forEach((place, i) => (box.drives[place]!.state = were[i]!));
  return lost;
}

/** How high the highest of some bands is, in bytes. */
const heightOfLost = (plan: Plan, pool: Pool, lost: readonly number[]): number => {
  const bands = bandsOfPool(plan, pool, rulesOfBox(plan));
  return Math.max(0, ...lost.map((b) => (bands[b] ? heightOf(bands[b]) : 0)));
};

/** The most sets of drives that are tried at one moment. */
const MOST_SETS = 40;

/** A pool of a moment, and the same in the simulated box, filled to the brim. */
interface FullPool {
  plan: Plan;
  pool: Pool;
  box: SimBox;
  own: SimPool;
  /** Places of its drives that work, and how many of them may be lost as predicted; −1 where data is lost already. */
  drives: number[];
  left: number;
  differ: Differ;
}

/**
 * Tries sets of so many drives; says how many of them were tried, how many took data with them, and of how many it is
 * predicted that they take more than the blocks are too coarse for.
 */
function trySets(
  { plan, pool, box, own, drives, left, differ }: FullPool,
  size: number,
): { tried: number; fatal: number; foretold: number } {
  const chunked = own.groups.some(({ chunks }) => chunks !== null);
  let [tried, fatal, foretold] = [0, 0, 0];
  for (const set of setsOf(drives, size)) {
    if (tried === MOST_SETS) break;
    tried += 1;
    const lost = lostWithout(box, own, set);
    if (lost > 0) fatal += 1;
    const ids = set.map((place) => box.drives[place]!.id);
    const fate = fateOfPool(plan, pool, rulesOfBox(plan), ids);
    const isLost =
      (fate.kind === "lost" || fate.kind === "partly-lost") && heightOfLost(plan, pool, fate.bands) > 2 * box.block;
    if (isLost) foretold += 1;
    // Which chunks lie together is not predicted. A sliver that the blocks are too coarse for decides nothing.
    const differs = size === left ? lost > 0 : !chunked && isLost !== lost > 0 && (isLost || lost > drives.length);
    if (differs)
      differ(`without ${ids.join(", ")} ${pool.id} is ${fate.kind} as predicted, and ${lost} blocks are lost`);
  }
  return { tried, fatal, foretold };
}

/** That every set of so many drives as may be lost is survived, and of one more as it is predicted, not all are. */
function holdFates(coarse: SimBox, { state: { plan } }: WalkedMoment, differ: Differ): void {
  for (const pool of plan.pools) {
    const box = forkBox(coarse);
    const own = box.pools.find(({ id }) => id === pool.id);
    if (!own) continue;
    for (const { chunks } of own.groups) if (chunks) fillUp(box, chunks);
    const drives = own.groups.flatMap((group) => group.drives).filter((place) => box.drives[place]?.state === "works");
    const now = fateOfPool(plan, pool, rulesOfBox(plan));
    const left = now.kind === "whole" || now.kind === "degraded" ? now.redundancy : -1;
    const full: FullPool = { plan, pool, box, own, drives, left, differ };
    if (left >= 0) trySets(full, left);
    const { tried, fatal, foretold } = trySets(full, left + 1);
    // Of chunks that are stored with a drive gone, none lies on it: then more may be lost than is promised.
    const promised = now.kind === "degraded" && own.groups.some(({ chunks }) => chunks !== null);
    if (left >= 0 && tried > 0 && tried < MOST_SETS && fatal === 0 && foretold > 0 && !promised)
      differ(`any ${left + 1} may be lost`);
  }
}

/** Within how much hours are the same: the share, and what the blocks are too coarse for, at such a slow pace. */
const WITHIN = 0.01;
const SLOW_PACE = 50e6;
const coarseHours = ({ block }: SimBox): number => 0.02 + (2 * Math.max(block, 2 ** 30)) / SLOW_PACE / 3600;

/**
 * Chunks that are all written anew, or moved off a drive, end where there was most room on the way, which is not quite
 * even, and a group that is added holds nothing at first; the prediction takes all for spread evenly. The hours of what
 * is done to them afterwards are not compared.
 */
const leavesUneven = (step: Step, plan: Plan): boolean =>
  ["change-level", "remove-drive", "rebalance", "add-group"].includes(step.kind) &&
  plan.pools.some(({ groups }) => groups.some(({ layout }) => layoutOf(layout).chunked));

/** What came of holding a plan against the simulated box. */
export interface Held {
  /** Steps that both carried out. */
  steps: StepKind[];
  differences: string[];
}

/** A step that the prediction carries out, done by the boxes; says whether they could. */
function holdStep(
  boxes: { fine: SimBox; coarse: SimBox },
  walked: WalkedStep,
  uneven: boolean,
  differ: Differ,
): boolean {
  const came = doStep(boxes.fine, walked.step);
  const other = doStep(boxes.coarse, walked.step);
  if (!came.done || !other.done) {
    differ(`refused: ${came.done ? "in the coarse one" : came.why}`);
    return false;
  }
  const { expected } = walked.cost.hours;
  if (!uneven && Math.abs(came.hours - expected) > WITHIN * expected + coarseHours(boxes.fine))
    differ(`${expected} h as predicted, ${came.hours} h`);
  const [theirs, ours] = [came.erased, [...new Set(walked.cost.erased)]].map((ids) => [...ids].sort().join(" "));
  if (theirs !== ours) differ(`erases ${ours} as predicted, and ${theirs}`);
  return true;
}

/** That nothing is lost of a pool of which the prediction says so. */
function holdWhole(box: SimBox, plan: Plan, differ: Differ): void {
  for (const pool of box.pools) {
    const { lost } = readBack(box, pool);
    const now = plan.pools.find(({ id }) => id === pool.id);
    const kind = now && fateOfPool(plan, now, rulesOfBox(plan)).kind;
    if (lost > 0 && (kind === "whole" || kind === "degraded")) differ(`${lost} blocks of ${pool.id} are lost`);
  }
}

/**
 * Walks a plan and lets the simulated box do the same, and tells in what they differ: what holds how much, which drives
 * are erased, the hours, and which sets of drives may be lost.
 *
 * @param blocks how fine the box is for capacities; for sets of drives it is coarser
 */
export function holdAgainst(walk: Walk, blocks: number, seed: number): Held {
  const held: Held = { steps: [], differences: [] };
  const fine = setUp(walk.plan, { blocks, seed });
  const coarse = setUp(walk.plan, { blocks: 300, seed });
  let uneven = false;
  for (const [i, moment] of walk.moments.entries()) {
    const { walked, state } = moment;
    if (walked && !walked.done) continue;
    const where = `moment ${i}${walked ? `, ${JSON.stringify(walked.step)}` : ""}`;
    const differ: Differ = (what) => void held.differences.push(`${where}: ${what}`);
    if (walked) {
      if (!holdStep({ fine, coarse }, walked, uneven, differ)) break;
      held.steps.push(walked.step.kind);
      uneven ||= leavesUneven(walked.step, state.plan);
    }
    holdCapacities(fine, state.plan, differ);
    holdWhole(fine, state.plan, differ);
    holdFates(coarse, moment, differ);
  }
  return held;
}
