import { applyCommand } from "../commands/applyCommand";
import type { Plan, Step } from "../document/plan";
import { rescueOf, settingOf } from "../rescue/rescueOf";
import { befall, type Mishap } from "../simulator/mishaps";
import { Practice } from "../simulator/practice";
import { groupWith, placeOf } from "../simulator/simulatedBox";
import { truthOf } from "../simulator/truth";
import type { WalkedMoment } from "../walk/moment";
import { walkPlan } from "../walk/walkPlan";
import { holdAgainst } from "./agreement";
import type { Dice } from "./likelyPlan";

// What the prediction says of mishaps, held against what is read back from the simulated box.

/** A step that is about to be carried out, and the box just before it. */
export interface Before {
  practice: Practice;
  moment: WalkedMoment;
  next: WalkedMoment;
  step: Step;
  dice: Dice;
  seed: number;
}

const memberOf = ({ practice, dice }: Before): string | undefined => {
  const { box } = practice;
  const all = box.pools.flatMap(({ groups }) => groups.flatMap(({ drives }) => drives));
  return dice.one(all.flatMap((place) => (box.drives[place]?.state === "works" ? [box.drives[place].id] : [])));
};

const poolOf = ({ practice: { box } }: Before, drive: string): string | undefined =>
  groupWith(box, placeOf(box, drive))?.pool.id;

/** How many more drives a pool bears while the step runs; before it and after it, whichever is less. */
function bearsDuring({ next, moment }: Before, pool: string): number {
  const exposed = next.walked?.exposure.filter((each) => each.pool === pool).map(({ redundancy }) => redundancy) ?? [];
  const at = ({ state, tolerance }: WalkedMoment) =>
    state.plan.pools.flatMap(({ id }, p) => (id === pool ? [tolerance[p] ?? 0] : []));
  const lacks = moment.state.plan.drives.some(({ state }) => state !== undefined);
  return Math.min(...exposed, ...(lacks ? [0] : at(moment)), ...at(next), 99);
}

/** Lets what is under way end, whatever the box begins by itself on the way. */
function toTheEnd(practice: Practice): void {
  for (let n = 0; n < 20; n += 1) {
    const left = practice.left();
    if (left === null) return;
    practice.pass(left);
  }
}

const lostOf = (practice: Practice, pool: string): number =>
  truthOf(practice).find((each) => each.pool === pool)?.lost ?? 0;

/** The step begun and some way into it; null where the box does nothing then. */
function midway({ practice, step, dice }: Before): Practice | null {
  const other = practice.fork();
  if (!other.begin(step)) return null;
  other.pass((other.left() ?? 0) * (0.1 + dice.below(8) / 10));
  return other.running.length > 0 ? other : null;
}

/** That a drive which is lost while a step runs takes nothing with it, as long as one more may be lost. */
function oneIsGone(before: Before, mishap: (drive: string) => Mishap): string[] | null {
  const drive = memberOf(before);
  const pool = drive && poolOf(before, drive);
  const other = drive && midway(before);
  if (!drive || !pool || !other) return null;
  befall(other, mishap(drive));
  toTheEnd(other);
  const lost = lostOf(other, pool);
  return lost > 0 && bearsDuring(before, pool) >= 1 ? [`${drive} gone midway: ${lost} blocks are lost`] : [];
}

/** The drive that a step fills. */
const filledBy = (step: Step): string | undefined => ("by" in step ? step.by : undefined);

/** The plan with a drive that has failed and what is to be done about it, and what is said of the pool then. */
function courseOf(plan: Plan, drive: string, pool: string): { then: Plan; left: number | null } | null {
  const since = "2026-11-20T21:40Z";
  const bare = { ...plan, steps: [] };
  const result = applyCommand(bare, { kind: "set-drive-state", drives: [drive], state: "failed", since });
  const setting = result.ok ? settingOf(result.plan, pool, "TB", null) : undefined;
  if (!result.ok || !setting) return result.ok ? { then: result.plan, left: null } : null;
  const { rescue, command } = rescueOf(setting);
  const planned = command ? applyCommand(result.plan, command) : null;
  return { then: planned?.ok ? planned.plan : result.plan, left: rescue.condition.redundancyLeft };
}

/** What is planned for a box of which a drive has failed, held against the simulated one from there to its end. */
function rescued(before: Before): string[] | null {
  const { plan } = before.moment.state;
  const drive = memberOf(before);
  const pool = drive && poolOf(before, drive);
  if (!drive || !pool || plan.drives.some(({ state }) => state !== undefined)) return null;
  const course = courseOf(plan, drive, pool);
  if (!course) return null;
  const { differences } = holdAgainst(walkPlan(course.then), 512, before.seed);
  const practice = before.practice.fork();
  befall(practice, { kind: "drive-dies", drive });
  const lost = lostOf(practice, pool) > 0;
  // Chunks that are not stored on the drive are not lost with it.
  const chunked = practice.box.pools.some(({ groups }) => groups.some(({ chunks }) => chunks));
  const { left } = course;
  if (left !== null && (lost ? left >= 0 : left < 0 && !chunked))
    differences.push(`${drive} has failed: redundancy left ${left}, and ${lost ? "data is" : "nothing is"} lost`);
  return differences;
}

/** The step on a drive that is a seventh smaller: both refuse it, or both do it. */
function shorter(before: Before): string[] | null {
  const { moment, step, practice } = before;
  const drive = filledBy(step) ?? ("drives" in step ? step.drives[0] : undefined);
  const own = moment.state.plan.drives.find(({ id }) => id === drive);
  if (!drive || !own) return null;
  const less = Math.floor(own.bytes / 10);
  const plan: Plan = {
    ...moment.state.plan,
    drives: moment.state.plan.drives.map((each) => (each.id === drive ? { ...each, bytes: each.bytes - less } : each)),
    steps: [step],
  };
  const { walked } = walkPlan(plan).moments.at(-1)!;
  const blocks = walked!.findings.filter(({ severity }) => severity === "block").map(({ code }) => code);
  // What is too small by less than a block the box cannot tell.
  const by = (message: string) => Number(/too small by ([^B]*)B/.exec(message)?.[1]?.replace(/\D/g, "") || NaN);
  const close = walked!.findings.some(({ message }) => by(message) < 2 * practice.box.block && /\d\s?B/.test(message));
  if (close || blocks.some((code) => code !== "too-small")) return null;
  const other = practice.fork();
  befall(other, { kind: "short", drive, bytes: less });
  const began = other.begin(step);
  return began === walked!.done
    ? []
    : [`a seventh smaller, ${drive} is ${began ? "taken" : "refused"}, not as predicted`];
}

type Law = (before: Before) => string[] | null;

/** What is asked of each kind of mishap: in what prediction and box differ; null where it can not befall here. */
export const LAWS: { readonly [K in Mishap["kind"]]: Law } = {
  "drive-dies": rescued,
  "goes-missing": (before) => oneIsGone(before, (drive) => ({ kind: "goes-missing", drive })),
  "wrong-drive-pulled": (before) => oneIsGone(before, (drive) => ({ kind: "wrong-drive-pulled", drive })),
  "dies-young": (before) => {
    const drive = filledBy(before.step);
    const pool = "drive" in before.step && before.step.drive ? poolOf(before, before.step.drive) : undefined;
    const other = drive && pool ? midway(before) : null;
    if (!drive || !pool || !other) return null;
    befall(other, { kind: "dies-young", drive });
    toTheEnd(other);
    const lost = lostOf(other, pool);
    return lost > 0 && bearsDuring(before, pool) >= 0 ? [`${drive} dies young: ${lost} blocks are lost`] : [];
  },
  unreadable: (before) => {
    const drive = memberOf(before);
    const pool = drive && poolOf(before, drive);
    if (!drive || !pool || bearsDuring(before, pool) < 1) return null;
    const other = before.practice.fork();
    befall(other, { kind: "unreadable", drive, blocks: 20 });
    const found = lostOf(other, pool);
    other.do({ id: "v", kind: "verify", pool });
    const [left] = other.box.drives.filter(({ id }) => id === drive);
    const lost = lostOf(other, pool);
    const unread = left?.unreadable?.size ?? 0;
    const used = groupWith(other.box, placeOf(other.box, drive))?.group.chunks === null;
    return found + lost > 0 || (used && unread > 20) ? [`unreadable: ${found} and ${lost} blocks are lost`] : [];
  },
  "comes-back": (before) => {
    const drive = memberOf(before);
    const pool = drive && poolOf(before, drive);
    if (!drive || !pool || bearsDuring(before, pool) < 1) return null;
    const other = before.practice.fork();
    befall(other, { kind: "goes-missing", drive });
    const spent = other.running.length > 0;
    other.pass(before.dice.below(2) === 0 ? 0.1 : 5);
    befall(other, { kind: "comes-back", drive });
    toTheEnd(other);
    const another = memberOf({ ...before, practice: other });
    if (another && !spent && poolOf({ ...before, practice: other }, another) === pool)
      befall(other, { kind: "drive-dies", drive: another });
    const lost = lostOf(other, pool);
    return lost > 0 ? [`${drive} away and back, then ${another} failed: ${lost} blocks are lost`] : [];
  },
  "power-cut": (before) => {
    const other = midway(before);
    if (!other) return null;
    befall(other, { kind: "power-cut" });
    toTheEnd(other);
    const lost = truthOf(other).reduce((sum, each) => sum + each.lost, 0);
    const was = truthOf(before.practice).reduce((sum, each) => sum + each.lost, 0);
    return lost > was && before.step.kind !== "change-level" ? [`power cut: ${lost} blocks are lost`] : [];
  },
  short: shorter,
  slow: (before) => {
    const { box } = before.practice;
    const drive = box.drives[before.dice.below(box.drives.length)];
    const [usual, slowed] = [before.practice.fork(), before.practice.fork()];
    if (!drive || !usual.do(before.step)) return null;
    befall(slowed, { kind: "slow", drive: drive.id, times: 4 });
    slowed.do(before.step);
    const [a, b] = [usual.box.hours - box.hours, slowed.box.hours - box.hours];
    return b < a - 1e-6 || b > 4 * a + 1e-6 ? [`${drive.id} four times slower: ${b} h instead of ${a} h`] : [];
  },
  "parity-updated": (before) => {
    const { box } = before.practice;
    const pool = box.pools.find(({ groups }) => groups.some(({ parityDrives }) => parityDrives.length > 0));
    const group = pool?.groups.find(({ parityDrives }) => parityDrives.length > 0);
    const place = before.dice.one(group?.drives.filter((each) => !group.parityDrives.includes(each)) ?? []);
    const drive = place === undefined ? undefined : box.drives[place];
    if (!pool || !group || !drive || box.drives.some(({ state }) => state !== "works")) return null;
    const other = before.practice.fork();
    befall(other, { kind: "drive-dies", drive: drive.id });
    if (other.running.length > 0) return null;
    const lostAtFirst = lostOf(other, pool.id);
    befall(other, { kind: "parity-updated", pool: pool.id });
    const own = group.slabs.filter(({ members }) => members.some((member) => member.drive === place));
    const rows = own.reduce((sum, slab) => sum + slab.rows, 0);
    const lost = lostOf(other, pool.id);
    // A schedule that is paused does it no harm.
    if (pool.paused) return lost === lostAtFirst ? [] : [`paused, and yet ${lost} of ${rows} are lost`];
    // A byte in 256 is 0 anyway.
    return lost <= rows && lost > 0.9 * rows - 3 ? [] : [`parity updated without ${drive.id}: ${lost} of ${rows} lost`];
  },
  "grow-forgotten": (before) => {
    const { step, practice } = before;
    if (step.kind !== "grow-volume" && step.kind !== "grow-file-system") return null;
    const other = practice.fork();
    befall(other, { kind: "grow-forgotten" });
    const did = other.do(step);
    const volumes = (of: Practice) =>
      JSON.stringify(of.box.pools.map((pool) => pool.volumes.map(({ bytes, files }) => [bytes, files])));
    return did || volumes(other) !== volumes(practice) ? ["forgotten, and yet it has grown"] : [];
  },
  fire: (before) => {
    const other = before.practice.fork();
    befall(other, { kind: "fire" });
    const left = truthOf(other).filter(({ blocks, lost }) => lost < blocks);
    return left.length > 0 ? ["something is left after the fire"] : [];
  },
  deletion: (before) => {
    const volume = before.practice.box.pools.flatMap(({ volumes }) => volumes)[0];
    if (!volume) return null;
    const other = before.practice.fork();
    befall(other, { kind: "deletion", volume: volume.id });
    const truth = truthOf(other)
      .flatMap(({ volumes }) => volumes)
      .find((each) => each.volume === volume.id);
    return truth?.deleted && truth.lost === truth.blocks ? [] : ["deleted, and yet it is there"];
  },
};
