import fc from "fast-check";
import { bandsOfPool, usableOfPool } from "../box/figures";
import { nominalBytes } from "../bytes/nominalBytes";
import { roomOf } from "../drives/room";
import type { BoxRules, Plan, StepBody } from "../document/plan";
import { fateOf } from "../failures/fate";
import { layOutGroup } from "../layouts/layOutGroup";
import type { Layout } from "../layouts/layout";
import { wrongCount } from "../layouts/problemsOfLayout";
import { layouts } from "../layouts/registry";
import { predict } from "../prediction/predict";
import { ruleSets, rulesOf } from "../rules/ruleSets";
import { anyStepOn, numbered } from "../testing/anySteps";
import { testDrive } from "../testing/arbitraries";
import { boxWith, withRules } from "../testing/boxWith";
import { attach, claim, level, pull, widen } from "../testing/stepsInShort";
import { survivesForReal } from "../testing/codedBytes";
import { likelySeed, likelyWalk } from "../testing/likelyPlan";
import type { Walk } from "../walk/moment";
import { poolsAt } from "../walk/poolsAt";
import { walkPlan } from "../walk/walkPlan";
import { moduleOf } from "./registry";

const sizes = fc.constantFrom(1, 2, 3, 4, 8, 12);
const setId = fc.constantFrom(...ruleSets.map((set) => set.id));
const TBs = (tb: readonly number[], prefix: string, from: number) =>
  tb.map((each, i) =>
    testDrive(`${prefix}${i + 1}`, nominalBytes(each * 1000), from > 0 ? { place: { bay: from + i } } : {}),
  );

/** A box of any rules with likely steps, and after them any, sensible or not. */
const anyGrowing = likelySeed.chain(([seed, length]) => {
  const { plan } = likelyWalk(seed, length);
  return fc
    .array(anyStepOn(plan), { minLength: 1, maxLength: 5 })
    .map((steps) => numbered(plan, [...plan.steps, ...steps]));
});

test("over any boxes, rules and steps", () => {
  fc.assert(
    fc.property(anyGrowing, (plan) => {
      const { moments } = walkPlan(plan);
      moments.forEach((moment, i) => {
        const before = moments[i - 1];
        const { state, walked } = moment;
        const rules = rulesOf(state.plan.box.rules);
        // No drive is lost or made, and none is in two places.
        expect(state.plan.drives.map((drive) => [drive.id, drive.bytes])).toEqual(
          plan.drives.map((drive) => [drive.id, drive.bytes]),
        );
        const bays = state.plan.drives.flatMap((drive) => ("bay" in drive.place ? [drive.place.bay] : []));
        expect(new Set(bays).size).toBe(bays.length);
        const members = state.plan.pools.flatMap((pool) => [
          ...pool.groups.flatMap((group) => group.drives),
          ...pool.spares,
        ]);
        expect(new Set(members).size).toBe(members.length);
        const ids = state.plan.pools.flatMap((pool) => [pool.id, ...pool.groups.map((group) => group.id)]);
        expect(new Set(ids).size).toBe(ids.length);
        for (const pool of state.plan.pools) {
          const prediction = poolsAt(moment, "TB").find((each) => each.id === pool.id)!;
          // What the walk says is what the prediction says.
          expect(usableOfPool(state.plan, pool, rules)).toBe(prediction.usableBytes);
          expect(pool.volumes.every((volume) => (volume.fileSystemBytes ?? 0) <= volume.bytes)).toBe(true);
          // Redundancy is what the bands bear, whichever drives fail.
          const bands = bandsOfPool(state.plan, pool, rules);
          const ids = pool.groups.flatMap((group) => group.drives);
          const bears = (most: number) =>
            subsets(ids, most).every((set) => !["lost", "partly-lost"].includes(fateOf(bands, new Set(set)).kind));
          expect(bears(prediction.tolerance)).toBe(true);
          if (bands.length > 0 && ids.length > prediction.tolerance)
            expect(bears(prediction.tolerance + 1)).toBe(false);
        }
        if (!walked || !before || !walked.done) return;
        // Data is never only on a drive that is erased: no member is, unless the pool is made anew from a backup.
        if (walked.step.kind !== "rebuild-from-backup") {
          const held = before.state.plan.pools.flatMap((pool) => pool.groups.flatMap((group) => group.drives));
          expect(walked.cost.erased.filter((id) => held.includes(id))).toEqual([]);
        } else expect(before.state.backedUp.has(walked.step.pool)).toBe(true);
        // Usable space falls only at steps that may lower it.
        if (moment.capacities.pool < before.capacities.pool) expect(moduleOf(walked.step).mayLower).toBe(true);
        expect(walked.cost.hours.low).toBeLessThanOrEqual(walked.cost.hours.expected);
        expect(walked.to).toBeGreaterThanOrEqual(walked.from);
        expect(walked.exposure.every((each) => each.redundancy >= 0)).toBe(true);
      });
    }),
    { numRuns: 400 },
  );
});

function subsets(ids: readonly string[], size: number): string[][] {
  if (size === 0) return [[]];
  return ids.flatMap((id, i) => subsets(ids.slice(i + 1), size - 1).map((rest) => [id, ...rest]));
}

/**
 * What a hybrid holds after its drives were changed one after the other, by the words of the trade alone: a drive joins
 * the bands that it covers whole, and new bands come only above all that there are, at the sizes that reach there then.
 */
function hybridSwapped(bear: number, swaps: (readonly [number, number])[], atOnce: boolean): number {
  const now = swaps.map(([old]) => old);
  const cuts: number[] = [];
  const lay = () => {
    for (const size of [...new Set(now)].sort((a, b) => a - b))
      if (size > (cuts.at(-1) ?? 0) && now.filter((each) => each >= size).length > bear) cuts.push(size);
  };
  lay();
  swaps.forEach(([, next], i) => {
    if (atOnce) lay();
    now[i] = next;
  });
  lay();
  return cuts.reduce((sum, cut, i) => {
    const over = now.filter((size) => size >= cut).length;
    return sum + Math.max(0, over - bear) * (cut - (cuts[i - 1] ?? 0));
  }, 0);
}

function expectHybrid(pool: number, bear: number, swaps: (readonly [number, number])[], rules: BoxRules): void {
  // With metadata before each band its end is stated elsewhere, to the byte.
  if (rules.arrayFormat !== "plain") return;
  const roomFor = (size: number, id: string) => roomOf(TBs([size], id, 1)[0]!, rules).length;
  const rooms = swaps.map(([old, next]) => [roomFor(old, "d"), roomFor(next, "x")] as const);
  const usable = hybridSwapped(bear, rooms, rules.claiming !== "whole-group");
  expect(pool).toBe(usable - Math.ceil(usable * rules.poolReserveShare));
}

/** Codes of what stands against steps of a walk. */
const blocksOf = ({ moments }: Walk): string[] =>
  moments
    .flatMap((moment) => moment.walked?.findings ?? [])
    .filter((finding) => finding.severity === "block")
    .map((finding) => finding.code);

/** What one by one ends with: what made at once holds, and nothing more where no part can grow where it is. */
const endOf = (layout: Layout, made: Walk, atOnce: Plan): number =>
  layout.liesEndToEnd ? made.moments[0]!.capacities.pool : predict(atOnce).pools[0]!.usableBytes;

/** The claims that a box wants of a layout: chunks lie on each drive by itself. */
const claimsOf = (layout: Layout, { claiming }: BoxRules) =>
  layout.chunked && claiming === "whole-group" ? "per-drive" : claiming;

test("one by one ends where the pool made at once with the new sizes is, for every layout", () => {
  fc.assert(
    fc.property(
      setId,
      fc.array(sizes, { minLength: 2, maxLength: 5 }),
      fc.nat(),
      fc.array(fc.integer({ min: 0, max: 8 }), { minLength: 5, maxLength: 5 }),
      (set, tb, pick, more) => {
        const rules = rulesOf({ set });
        const offered = layouts.filter(
          (layout) => rules.layouts.includes(layout.id) && !wrongCount(layout, tb.length, rules),
        );
        const layout = offered[pick % Math.max(1, offered.length)];
        if (!layout) return;
        // Parity drives have to be changed first, in the order of their size.
        const order = tb.map((size, i) => ({ size, i })).sort((a, b) => b.size - a.size);
        const wanted = tb.map(
          (size, i) => size + Math.max(...more) - (layout.dedicatedParity ? 0 : Math.max(...more) - (more[i] ?? 0)),
        );
        const volumes = [{ id: "v1", name: "V", bytes: 0, fileSystem: "ext4" as const }];
        const plan = boxWith(set, layout.id, tb, wanted, { volumes }, tb.length + 1);
        if (usableOfPool(plan, plan.pools[0]!, rules) === 0) return;
        const how = rules.replacing === "old-attached" ? ("attached" as const) : ("pulled" as const);
        const claiming = claimsOf(layout, rules);
        const parity = layout.dedicatedParity ?? 0;
        const parityIds = bandsOfPool(plan, plan.pools[0]!, rules)[0]!
          .members.slice(-parity || Infinity)
          .map((member) => member.drive);
        const turns =
          parity > 0
            ? [
                ...parityIds.map((id) => Number(id.slice(1)) - 1),
                ...order.map(({ i }) => i).filter((i) => !parityIds.includes(`d${i + 1}`)),
              ]
            : order.map(({ i }) => i);
        const steps = turns.flatMap((i): StepBody[] => [
          parityIds.includes(`d${i + 1}`) && parity > 0
            ? { kind: "change-parity-drive", group: "g1", drive: `d${i + 1}`, by: `x${i + 1}` }
            : { kind: "replace-drive", drive: `d${i + 1}`, by: `x${i + 1}`, how },
          ...(claiming === "per-drive" ? [{ kind: "claim-space" as const, group: "g1", drive: `x${i + 1}` }] : []),
        ]);
        const made = walkPlan(
          numbered(plan, [
            ...steps,
            ...(claiming === "whole-group" ? [{ kind: "claim-space" as const, group: "g1" }] : []),
            ...(layout.allocationUnit ? [{ kind: "rebalance" as const, group: "g1" }] : []),
            { kind: "grow-volume", pool: "p1", volume: "v1" },
            { kind: "grow-file-system", pool: "p1", volume: "v1" },
          ]),
        );
        // Without redundancy nothing can be pulled; a box that cannot attach the old drive then says so.
        const blocks = blocksOf(made);
        if (blocks.length > 0) {
          const reason = layout.takesNoSpare && how === "attached" ? "no-live-replacement" : "nothing-to-rebuild-from";
          expect(blocks.every((code) => code === reason || code === "not-a-member")).toBe(true);
          expect(blocks).toContain(reason);
          return;
        }
        const at = made.moments.at(-1)!.state.plan;
        const group = at.pools[0]!.groups[0]!;
        const atOnce: Plan = {
          ...plan,
          drives: plan.drives.map((drive) => ({ ...drive })),
          pools: [
            {
              ...plan.pools[0]!,
              volumes: [],
              groups: [{ id: "g1", layout: layout.id, drives: group.drives, options: group.options ?? {} }],
            },
          ],
        };
        const { pool } = made.moments.at(-1)!.capacities;
        if (layout.cutsAtSizes) {
          const swaps = order.map(({ i, size }) => [size, wanted[i]!] as const);
          expectHybrid(pool, layout.id === "hybrid-1" ? 1 : 2, swaps, rules);
        } else expect(pool).toBe(endOf(layout, made, atOnce));
      },
    ),
    { numRuns: 300 },
  );
});

test("data written at the beginning reads back at every moment, whichever drives fail within what is allowed then", () => {
  const small = fc.integer({ min: 3, max: 9 }).map((units) => units * 2 ** 30);
  fc.assert(
    fc.property(
      setId,
      fc.array(small, { minLength: 2, maxLength: 4 }),
      fc.array(small, { minLength: 2, maxLength: 3 }),
      fc.nat(),
      fc.nat(),
      (set, own, shelf, pick, failing) => {
        const rules = { ...rulesOf({ set }), systemReserveBytes: 0 };
        const offered = layouts.filter(
          (layout) => rules.layouts.includes(layout.id) && !wrongCount(layout, own.length, rules),
        );
        const layout = offered[pick % Math.max(1, offered.length)];
        if (!layout || rules.arrayFormat === "linux-raid") return;
        const made = boxWith(set, layout.id, own, shelf, {}, 9);
        const box = withRules(made, { systemReserveBytes: 0 });
        const up = ({ raid1: "raid5", raid5: "raid6", "hybrid-1": "hybrid-2", "copies-2": "copies-3" } as const)[
          layout.id as "raid5"
        ];
        const higher = up ? [level(up, ...(shelf.length > 2 ? ["x3"] : []))] : [];
        const walk = walkPlan(numbered(box, [pull("d1", "x1"), attach("d1", "x1"), claim(), widen("x2"), ...higher]));
        for (const moment of walk.moments) {
          const [pool] = moment.state.plan.pools;
          const bands = bandsOfPool(moment.state.plan, pool!, rulesOf(moment.state.plan.box.rules));
          const missing = moment.walked?.done ? moment.walked.cost.missing : [];
          const before = walk.moments[walk.moments.indexOf(moment) - 1];
          // While the step runs: the bands before it, without what is missing, and as many more as are said to be
          // allowed.
          if (missing.length > 0 && before) {
            const old = bandsOfPool(
              before.state.plan,
              before.state.plan.pools[0]!,
              rulesOf(before.state.plan.box.rules),
            );
            const ids = before.state.plan.pools[0]!.groups[0]!.drives.filter((id) => !missing.includes(id));
            const allowed = moment.walked!.exposure[0]?.redundancy ?? 0;
            expect(survivesForReal(old, new Set([...missing, ...pickSome(ids, allowed, failing)]), 2 ** 30)).toBe(true);
          }
          expect(
            survivesForReal(bands, new Set(pickSome(pool!.groups[0]!.drives, moment.tolerance[0]!, failing)), 2 ** 30),
          ).toBe(true);
        }
      },
    ),
    { numRuns: 200 },
  );
});

/** Some of a list, rotated by a number. */
const pickSome = (ids: readonly string[], count: number, by: number): string[] =>
  Array.from({ length: Math.min(count, ids.length) }, (_, i) => ids[(by + i) % ids.length]!);

test("a group's bands with everything claimed and balanced are those of its layout", () => {
  fc.assert(
    fc.property(
      setId,
      fc.array(sizes, { minLength: 2, maxLength: 6 }),
      fc.constantFrom(...layouts),
      (set, tb, layout) => {
        const rules = rulesOf({ set });
        const drives = TBs(tb, "d", 1);
        const bands = layOutGroup({ layout: layout.id, options: {} }, drives, rules);
        const far = layOutGroup(
          {
            layout: layout.id,
            options: {},
            reach: Object.fromEntries(drives.map((drive) => [drive.id, Number.MAX_SAFE_INTEGER])),
          },
          drives,
          rules,
        );
        expect(far).toEqual(bands);
      },
    ),
  );
});
