import fc from "fast-check";
import { occupied } from "../bands/occupied";
import { bandsOfGroup } from "../box/figures";
import { groupOf } from "../box/find";
import { rulesOfBox } from "../box/rulesOfBox";
import type { Plan } from "../document/plan";
import { checkPlan } from "../document/readPlan";
import { layoutOf } from "../layouts/registry";
import { likelySeed, likelyWalk } from "../testing/likelyPlan";
import type { Walk, WalkedMoment } from "../walk/moment";
import { poolsAt } from "../walk/poolsAt";

// Plans of any box, with any rules, whose steps could be meant; in the soak many times as many.
const runs = (usual: number) => usual * Number(process.env.PROPERTY_TIMES ?? 1);

/** The first number in some value that is none, by its path; null where all are finite. */
function notFinite(value: unknown, path = ""): string | null {
  if (typeof value === "number") return Number.isFinite(value) ? null : path;
  if (typeof value !== "object" || value === null) return null;
  for (const [key, each] of Object.entries(value)) {
    const found = notFinite(each, `${path}/${key}`);
    if (found) return found;
  }
  return null;
}

/** The ledger sums to the bytes of the pool's drives, and its volumes have no more than the pool. */
function expectWhole(moment: WalkedMoment): void {
  const { plan } = moment.state;
  for (const pool of poolsAt(moment, "TB")) {
    const { groups, spares, volumes } = plan.pools.find(({ id }) => id === pool.id)!;
    const ids = [...groups.flatMap((group) => [...group.drives, ...(group.spares ?? [])]), ...spares];
    const bytes = plan.drives.filter(({ id }) => ids.includes(id)).reduce((sum, drive) => sum + drive.bytes, 0);
    expect(pool.ledger.reduce((sum, entry) => sum + entry.bytes, 0)).toBe(bytes);
    expect(volumes.reduce((sum, volume) => sum + volume.bytes, 0)).toBeLessThanOrEqual(pool.usableBytes);
    expect(notFinite({ ...pool, findings: [] })).toBeNull();
  }
}

test("no exception, no number that is not finite, every byte told, no volume above its pool; half is carried out", () => {
  fc.assert(
    fc.property(likelySeed, ([seed, steps]) => {
      const walk = likelyWalk(seed, steps);
      const checked = checkPlan(structuredClone(walk.plan));
      expect(checked.ok ? [] : checked.problems).toEqual([]);
      for (const moment of walk.moments) {
        expect(notFinite([moment.walked, moment.capacities, moment.tolerance])).toBeNull();
        expectWhole(moment);
      }
      const done = walk.moments.filter(({ walked }) => walked?.done).length;
      expect(done).toBeGreaterThanOrEqual(steps / 2);
    }),
    { numRuns: runs(2000) },
  );
});

/** What a file system has of its volume, in bytes, by the volume's id. */
const filesIn = (plan: Plan) =>
  new Map(
    plan.pools.flatMap(({ volumes }) =>
      volumes
        .filter(({ fileSystem }) => fileSystem !== "none")
        .map((volume) => [volume.id, Math.min(volume.bytes, volume.fileSystemBytes ?? volume.bytes)] as const),
    ),
  );

/** Groups that are there before and after a step, each with what it takes of its drives then and now. */
function groupsThrough(before: WalkedMoment, after: WalkedMoment) {
  const rules = rulesOfBox(after.state.plan);
  return after.state.plan.pools.flatMap(({ groups }) =>
    groups.flatMap((group) => {
      const was = groupOf(before.state.plan, group.id);
      if (!was) return [];
      const [then, now] = [bandsOfGroup(before.state.plan, was, rules), bandsOfGroup(after.state.plan, group, rules)];
      return [{ was, group, then, now, rules }];
    }),
  );
}

type Through = ReturnType<typeof groupsThrough>[number];

/** Where the bands of a group begin and end, from the drives' reserve up, as "from to". */
const cutsOf = (bands: ReturnType<typeof bandsOfGroup>) =>
  bands.map(({ members: [first], metadata }) => [first!.offset - metadata, first!.offset + first!.length] as const);

/** Space comes to drives that were there only by a step that works on them, where the box fills what it lays out. */
function expectFilled({ walked }: WalkedMoment, { was, group, then, now, rules }: Through): void {
  const layout = layoutOf(group.layout);
  const fills = rules.rebuilding === "whole-drive" && rules.firstFill === "at-once";
  if (!fills || layout.chunked || layout.independent || layout.nominalTolerance(group.options ?? {}) === 0) return;
  const [took, takes] = [occupied(then), occupied(now)];
  const grown = group.drives.filter((id) => was.drives.includes(id) && takes.get(id)! > took.get(id)!);
  const worked = new Set(walked!.cost.work.map(({ drive }) => drive));
  expect([walked!.step.kind, grown.filter((id) => !worked.has(id))]).toEqual([walked!.step.kind, []]);
}

/** What a hybrid was cut into stays so: new bands come only above all that there were. */
function expectCutsKept({ was, group, then, now }: Through): void {
  if (!layoutOf(group.layout).cutsAtSizes || was.layout !== group.layout) return;
  const cuts = cutsOf(then);
  const top = Math.max(0, ...cuts.map(([, to]) => to));
  for (const [from, to] of cutsOf(now))
    expect(from >= top || cuts.some(([low, high]) => low === from && to <= high)).toBe(true);
}

function expectToStand({ moments }: Walk): void {
  moments.slice(1).forEach((after, i) => {
    const before = moments[i]!;
    const { step, done } = after.walked!;
    if (!done || step.kind === "rebuild-from-backup") return;
    // File systems only grow by a step that grows them, or in a box that does so by itself.
    const files = filesIn(before.state.plan);
    if (rulesOfBox(before.state.plan).growing !== "by-itself" && step.kind !== "grow-file-system")
      for (const [id, bytes] of filesIn(after.state.plan))
        expect([id, bytes <= (files.get(id) ?? Infinity)]).toEqual([id, true]);
    for (const through of groupsThrough(before, after)) {
      expectFilled(after, through);
      expectCutsKept(through);
    }
    if (step.kind === "claim-space") expect(after.capacities.pool).toBeGreaterThanOrEqual(before.capacities.pool);
  });
}

test("what a step leaves as it is: files, space that nothing is written to, bands, the pool at a claim", () => {
  fc.assert(
    fc.property(likelySeed, ([seed, steps]) => expectToStand(likelyWalk(seed, steps))),
    { numRuns: runs(500) },
  );
});
