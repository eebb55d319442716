import { contentsOf, usableOf } from "../bands/contents";
import { GiB } from "../bytes/bytes";
import type { ArrayFormat } from "../document/plan";
import schema from "../document/schema/plan-1.json";
import { roomOf } from "../drives/room";
import { fateOf } from "../failures/fate";
import { ruleSets, rulesOf } from "../rules/ruleSets";
import { testDrive } from "../testing/arbitraries";
import { survivesForReal } from "../testing/codedBytes";
import { isSeparate } from "./isSeparate";
import type { Layout } from "./layout";
import { fewestDrives } from "./problemsOfLayout";
import { layoutOf, layouts } from "./registry";

// Laws over the catalogue: what a layout says of itself against what its bands do, so that a new one cannot say it
// wrong.

const rules = rulesOf({ set: "linux-host", overrides: { arrayFormat: "plain", minimumDrives: {} } });
const each = layouts.map((layout): [string, Layout] => [layout.id, layout]);

test("the catalogue and the plan schema name the same layouts, each once", () => {
  expect(layouts.map((layout) => layout.id).sort()).toEqual([...schema.$defs.layoutId.enum].sort());
  expect(() => layoutOf("raid9" as Layout["id"])).toThrow("No layout is called raid9.");
});

describe.each(each)("what %s says of itself", (_, layout) => {
  const count = Math.max(fewestDrives(layout, rules), layout.multiple ?? 1);
  const equal = (n: number) => Array.from({ length: n }, (_, i) => testDrive(`d${i + 1}`, 4 * GiB));
  const drives = equal(count);
  const layOut = (some: readonly { id: string; bytes: number }[], arrayFormat: ArrayFormat = "plain") =>
    layout.layOut(
      some.map((drive) => roomOf(drive, rules)),
      { arrayFormat, options: {} },
    );
  const bands = layOut(drives);
  const sets = Array.from({ length: 2 ** count }, (_, bits) =>
    drives.map(({ id }) => id).filter((_, i) => bits & (1 << i)),
  );

  test("its names, and that some kind of box offers it", () => {
    expect(layouts.filter((other) => other.name === layout.name || other.shortName === layout.shortName)).toEqual([
      layout,
    ]);
    expect(layout.summary).toMatch(/^[A-Z].+\.$/);
    expect(ruleSets.filter((set) => set.rules.layouts.includes(layout.id))).not.toEqual([]);
  });

  test("the tolerance is that of coded bytes, written, lost and worked out again", () => {
    const bears = (size: number) =>
      sets.filter((set) => set.length === size).every((set) => survivesForReal(bands, new Set(set), GiB));
    const tolerance = layout.nominalTolerance({});
    expect([tolerance, bears(tolerance), bears(tolerance + 1)]).toEqual([tolerance, true, false]);
  });

  test("what a stripe holds is the share of equal drives that is usable", () => {
    const { data, copies, parity } = layout.stripe({});
    const times = copies === "all" ? count : copies;
    const width = data === "rest" ? count : data * times + parity;
    const share = (width - parity) / width / times;
    const taken = bands.flatMap((band) => band.members).reduce((sum, member) => sum + member.length, 0);
    expect(usableOf(bands) / taken).toBeCloseTo(share, 6);
    // The smallest hybrids are mirrors: whether there is parity shows with more drives.
    const held = layOut(equal(count + 2)).map(contentsOf);
    expect(held.some((contents) => contents.parity > 0)).toBe(parity > 0);
  });

  test("independent drives keep what was on the others", () => {
    const all = new Set(drives.map(({ id }) => id));
    expect(fateOf(bands, all).kind).toBe(layout.independent ? "partly-lost" : "lost");
    expect(isSeparate(layout)).toBe(layout.independent === true && !survivesForReal(bands, new Set(["d1"]), GiB));
  });

  test("drives dedicated to parity hold nothing else", () => {
    const members = new Set(bands.flatMap((band) => band.members.map((member) => member.drive)));
    const fate = fateOf(bands, members);
    const lost = fate.kind === "partly-lost" ? fate.lostDrives : [...members];
    // The large drive of a mirror onto one holds only the copies of the others.
    expect(members.size - lost.length).toBe(layout.dedicatedParity ?? Number(layout.liesEndToEnd ?? 0));
  });

  test("what it becomes is there, is another, and is asked for once", () => {
    const to = layout.becomes.map((path) => path.to);
    expect(new Set(to).size).toBe(to.length);
    for (const id of to) expect(layoutOf(id)).not.toBe(layout);
    expect(layout.becomes.filter((path) => path.rung).length).toBeLessThanOrEqual(1);
  });

  test("where every drive counts as the smallest a larger one gains nothing; where bands end at sizes it does", () => {
    const more = equal(count + (layout.multiple ?? 1));
    const larger = more.map((drive, i) => (i === 0 ? drive : { ...drive, bytes: 8 * GiB }));
    const gains = (["plain", "linux-raid"] as const).some(
      (format) => usableOf(layOut(larger, format)) > usableOf(layOut(more, format)),
    );
    expect(layout.countsSmallest === true).toBe(!gains);
    const endsAtSizes = layOut(larger).length > layOut(more).length;
    const tied = !layout.chunked && !layout.independent && layout.nominalTolerance({}) > 0;
    expect(layout.cutsAtSizes === true).toBe(endsAtSizes && tied);
  });

  test("chunks are given out whole", () => {
    const odd = layOut(drives.map((drive) => ({ ...drive, bytes: 4 * GiB + 5e8 })));
    expect(usableOf(odd) % GiB === 0 && layout.nominalTolerance({}) > 0).toBe(layout.chunked === true);
    expect(layout.allocationUnit).toBe(layout.chunked ? GiB : undefined);
  });

  test("of fewer drives than it needs it is the caller's mistake", () => {
    expect(() => layOut(drives.slice(0, layout.minimumDrives - 1))).toThrow(RangeError);
  });
});
