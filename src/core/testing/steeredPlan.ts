import { usableOfPool } from "../box/figures";
import { isFree } from "../box/members";
import { rulesOfBox } from "../box/rulesOfBox";
import { withParityNamed } from "../box/parityNamed";
import { emptyPlan } from "../document/emptyPlan";
import type { BoxRules, Group, LayoutId, Plan, Pool, Step, StepBody, StepKind } from "../document/plan";
import { isGone } from "../drives/driveState";
import { isSeparate } from "../layouts/isSeparate";
import { layoutOf, layouts } from "../layouts/registry";
import { ruleSets, rulesOf } from "../rules/ruleSets";
import { stepModules } from "../steps/registry";
import type { Walk } from "../walk/moment";
import { walkPlan } from "../walk/walkPlan";
import { testDrive } from "./arbitraries";
import { away, images } from "./dataPlan";
import { anyRules, Dice, freeOf, levelStep, makingStep, volumeStep } from "./likelyPlan";

// Plans that are steered to what has been reached least so far, so that few of them reach every layout and step.

/** How often each thing has been reached. */
export type Reached = Map<string, number>;

/** Counts one more. */
export const reach = (reached: Reached, what: string): void => void reached.set(what, (reached.get(what) ?? 0) + 1);

/** Things in the order in which they have been reached least; equal ones drawn. */
const leastFirst = <T extends string>(all: readonly T[], reached: Reached, dice: Dice): T[] =>
  all
    .map((each) => ({ each, count: reached.get(each) ?? 0, draw: dice.below(1000) }))
    .sort((a, b) => a.count - b.count || a.draw - b.draw)
    .map(({ each }) => each);

const SIZES = [[4000, 8000, 12_000], [4000], [120, 150, 209, 250, 300, 400], [2000, 8000, 12_000, 20_000]];

/** What a plan with a pool of a layout begins with: a box that offers it, and drives beside it. */
function beginning(layout: LayoutId, dice: Dice): Plan {
  const offering = ruleSets.filter(({ rules }) => rules.layouts.includes(layout));
  const choice = dice.below(3) === 0 ? anyRules(dice) : { set: dice.one(offering).id, overrides: {} };
  const overrides: Partial<BoxRules> = {
    ...choice.overrides,
    ...(layoutOf(layout).dedicatedParity && dice.below(6) > 0 ? { parityWrites: "by-schedule" as const } : {}),
    layouts: layouts.map(({ id }) => id),
    minimumDrives: {},
    mostDrives: null,
  };
  const rules = rulesOf({ set: choice.set, overrides });
  const sizes = dice.one(SIZES);
  const size = () => dice.one(sizes) * 1e9 + (dice.below(3) === 0 ? dice.below(300) * 512 : 0);
  const { usualDrives, multiple = 1 } = layoutOf(layout);
  // Separate drives fail by themselves, so that several can be brought back; a mirror is seldom wider than two.
  const least = isSeparate(layoutOf(layout)) ? 5 : usualDrives;
  const count = least + multiple * dice.below(layoutOf(layout).widening === "copies" ? 1 + dice.below(2) : 4);
  const drives = [
    ...Array.from({ length: count }, (_, i) => testDrive(`d${i + 1}`, size(), { place: { bay: i + 1 } })),
    ...Array.from({ length: 4 + dice.below(4) }, (_, i) => testDrive(`x${i + 1}`, size(), {})),
  ];
  const last = drives.at(-1);
  if (last && dice.below(2) === 0) last.contents = { kind: "data" };
  const plan: Plan = {
    ...emptyPlan("Any"),
    box: { name: "Any", bays: count + 4 + dice.below(4), rules: { set: choice.set, overrides } },
    drives,
  };
  const ids = drives.slice(0, count).map(({ id }) => id);
  plan.pools = [{ id: "p1", name: "P", groups: [{ id: "g1", layout, drives: ids }], spares: [], volumes: [] }];
  const usable = usableOfPool(plan, plan.pools[0]!, rules);
  const share = dice.one([0.3, 0.5, 0.9]);
  for (const id of ["v1", "v2"].slice(0, 1 + dice.below(2)))
    plan.pools[0]!.volumes.push({
      id,
      name: id,
      bytes: Math.floor((usable * share) / 2),
      fileSystem: dice.one(["ext4", "btrfs", "xfs"]),
      usedBytes: Math.floor(usable * share * 0.2 * dice.below(3)),
    });
  if (isSeparate(layoutOf(layout))) Object.assign(plan, { dataSets: [images], backups: [away] });
  return plan;
}

interface At {
  plan: Plan;
  rules: BoxRules;
  pool: Pool;
  group: Group;
  free: string[];
  dice: Dice;
  n: number;
  isBackedUp: boolean;
}

const goneIn = ({ plan, group }: At): string | undefined =>
  group.drives.find((id) => plan.drives.some((drive) => drive.id === id && isGone(drive)));

const largestFree = ({ plan, free }: At): string =>
  [...plan.drives].sort((a, b) => b.bytes - a.bytes).find(({ id }) => free.includes(id))?.id ?? "";

const goneCount = ({ plan }: At): number => plan.drives.filter(isGone).length;

/** A step of each kind that could be meant; undefined where nothing is there for it. */
const MAKERS: { readonly [K in StepKind]: (at: At) => StepBody | null | undefined } = {
  "create-group": ({ plan, dice, n }) => makingStep(plan, null, dice, n),
  "add-group": ({ plan, pool, dice, n }) => makingStep(plan, pool, dice, n),
  "mirror-drive": ({ plan, free, dice, n }) => {
    const holder = free.find((id) => plan.drives.some((drive) => drive.id === id && drive.contents)) ?? dice.one(free);
    const by = dice.one(free.filter((id) => id !== holder));
    return { kind: "mirror-drive", pool: `p${n + 10}`, group: `g${n + 10}`, name: "New", drive: holder, by };
  },
  "widen-group": ({ group, free, dice }) => ({
    kind: "widen-group",
    group: group.id,
    drives: dice.some(free, (layoutOf(group.layout).multiple ?? 1) * (1 + dice.below(2))),
  }),
  "replace-drive": ({ group, free, dice, rules }) => ({
    kind: "replace-drive",
    drive: dice.one(group.drives),
    by: dice.one(free),
    how: rules.replacing === "old-attached" && dice.below(2) === 0 ? "attached" : "pulled",
  }),
  "claim-space": ({ group }) => {
    const [drive] = Object.keys(group.reach ?? {});
    return { kind: "claim-space", group: group.id, ...(drive ? { drive } : {}) };
  },
  "change-level": ({ group, free, dice }) => levelStep(group, free, dice),
  "set-spare": ({ pool, free, dice }) => ({ kind: "set-spare", pool: pool.id, drive: dice.one(free) }),
  "remove-spare": ({ pool: { spares } }) => (spares[0] ? { kind: "remove-spare", drive: spares[0] } : null),
  "remove-drive": ({ group, dice }) => ({ kind: "remove-drive", drive: dice.one(group.drives) }),
  "grow-volume": ({ pool, dice }) =>
    pool.volumes[0] && {
      kind: "grow-volume",
      pool: pool.id,
      volume: pool.volumes[0].id,
      ...(dice.below(2) === 0 ? { bytes: Math.floor(pool.volumes[0].bytes * 1.2) } : {}),
    },
  "shrink-volume": ({ pool, dice }) =>
    pool.volumes[0] && {
      kind: "shrink-volume",
      pool: pool.id,
      volume: pool.volumes[0].id,
      bytes: Math.floor(pool.volumes[0].bytes * dice.one([0.5, 0.9])),
    },
  "grow-file-system": ({ pool, dice }) => (pool.volumes.length > 0 ? volumeStep(pool, dice) : null),
  "shrink-file-system": ({ plan, dice }) => {
    const holders = plan.drives.filter((drive) => drive.contents !== undefined && isFree(plan, drive.id));
    const drive = dice.one(holders);
    return drive && { kind: "shrink-file-system", drive: drive.id, bytes: Math.floor(drive.bytes * 0.9) };
  },
  "test-drive": ({ plan, dice }) => ({ kind: "test-drive", drive: dice.one(plan.drives).id }),
  "wipe-drive": ({ free, dice }) => ({ kind: "wipe-drive", drive: dice.one(free) }),
  "back-up": ({ pool }) => ({ kind: "back-up", pool: pool.id, to: "elsewhere" }),
  verify: ({ pool }) => ({ kind: "verify", pool: pool.id }),
  "change-parity-drive": ({ group, free, dice }) =>
    group.options?.parityDrives && {
      kind: "change-parity-drive",
      group: group.id,
      drive: dice.one(group.options.parityDrives),
      by: dice.one(free),
    },
  "update-parity": ({ pool }) => ({ kind: "update-parity", pool: pool.id }),
  "check-parity": ({ pool }) => ({ kind: "check-parity", pool: pool.id }),
  "pause-schedule": ({ pool }) => ({ kind: "pause-schedule", pool: pool.id }),
  "resume-schedule": ({ pool }) => ({ kind: "resume-schedule", pool: pool.id }),
  rebuild: (at) => {
    const drive = goneIn(at);
    return drive ? { kind: "rebuild", group: at.group.id, drive, by: at.dice.one(at.free) } : null;
  },
  "restore-drive": (at) => {
    const drive = goneIn(at);
    const from = at.plan.backups?.[0]?.id;
    const step = { kind: "restore-drive" as const, group: at.group.id, drive: drive ?? "", by: largestFree(at) };
    // With another gone as well, what a smaller one cannot hold is missing from the parity too.
    const [old, next] = [drive, step.by].map((id) => at.plan.drives.find((each) => each.id === id)?.bytes ?? 0);
    if ((next ?? 0) < (old ?? 0) && goneCount(at) > 1) return null;
    return drive ? { ...step, ...(from ? { from } : {}) } : null;
  },
  rebalance: ({ group }) => (layoutOf(group.layout).chunked ? { kind: "rebalance", group: group.id } : null),
  "rebuild-from-backup": ({ pool, group, free, rules, dice, isBackedUp }) =>
    isBackedUp
      ? {
          kind: "rebuild-from-backup",
          pool: pool.id,
          layout: dice.one(rules.layouts),
          drives: [...group.drives, ...dice.some(free, dice.below(2))],
        }
      : { kind: "back-up", pool: pool.id, to: "elsewhere" },
};

const KINDS = Object.keys(stepModules) as StepKind[];

/** A plan of which a drive of the group has failed, where the layout bears it. */
function lacking(plan: Plan, dice: Dice): Plan {
  const { drives = [], options = {} } = withParityNamed(plan).pools[0]?.groups[0] ?? {};
  const layout = layoutOf(plan.pools[0]?.groups[0]?.layout ?? "raid5");
  const many =
    layout.independent && !layout.liesEndToEnd
      ? Math.max(1, layout.dedicatedParity ?? Math.min(3, drives.length - 1))
      : 1;
  const failed = dice.some(
    drives.filter((id) => !options.parityDrives?.includes(id)),
    many,
  );
  return {
    ...plan,
    drives: plan.drives.map((drive) => (failed.includes(drive.id) ? { ...drive, state: "failed" as const } : drive)),
  };
}

/**
 * A plan that begins with the layout that has been reached least, with so many steps of the kinds that have been
 * reached least, each of which is carried out; now and then with one that is not, and now and then on a box that lacks
 * a drive.
 *
 * @param reached what has been reached; counted further
 */
export function steeredWalk(seed: number, steps: number, reached: Reached): Walk {
  const dice = new Dice(seed);
  const [layout = "raid5"] = leastFirst(
    layouts.map(({ id }) => id),
    reached,
    dice,
  );
  reach(reached, layout);
  let first = beginning(layout, dice);
  const { independent, liesEndToEnd, nominalTolerance, dedicatedParity } = layoutOf(layout);
  const answer = independent && !liesEndToEnd ? "restore-drive" : "rebuild";
  const wants = (reached.get(answer) ?? 0) <= (reached.get("verify") ?? 0);
  const can = dedicatedParity ? dice.below(3) > 0 : answer === "restore-drive" || nominalTolerance({}) > 0;
  if (wants && can) first = lacking(first, dice);
  let walk = walkPlan(first);
  for (let n = 1; n <= steps; n += 1) walk = oneMore(walk, n, reached, dice);
  reach(reached, walk.plan.box.rules.set);
  return walk;
}

/** What of a box a step could be about: each pool with one of its groups, drawn; one that is backed up first. */
function placesIn(walk: Walk, n: number, dice: Dice): At[] {
  const { plan, backedUp } = walk.moments.at(-1)!.state;
  const free = freeOf(plan).filter((id) => !isGone(plan.drives.find((drive) => drive.id === id) ?? {}));
  if (free.length === 0) return [];
  const pools = dice.some(plan.pools, 2).sort((a, b) => Number(backedUp.has(b.id)) - Number(backedUp.has(a.id)));
  return pools.flatMap((pool) => {
    const group = dice.one(pool.groups);
    const rules = rulesOfBox(plan);
    return group ? [{ plan, rules, pool, group, free, dice, n, isBackedUp: backedUp.has(pool.id) }] : [];
  });
}

/** The walk with a step more. */
function oneMore(walk: Walk, n: number, reached: Reached, dice: Dice): Walk {
  const places = placesIn(walk, n, dice);
  for (const kind of leastFirst(KINDS, reached, dice))
    for (const at of places) {
      const body = MAKERS[kind](at);
      if (!body) continue;
      const step = { ...body, id: `s${n}` } as Step;
      const next = walkPlan({ ...walk.plan, steps: [...walk.plan.steps, step] }, "TB", walk);
      const { done } = next.moments.at(-1)!.walked!;
      if (!done && dice.below(16) > 0) continue;
      if (done) reach(reached, step.kind);
      return next;
    }
  return walk;
}
