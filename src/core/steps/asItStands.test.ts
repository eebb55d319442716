import type { BoxRules, LayoutId, Plan, RuleSetId, StepBody } from "../document/plan";
import { bandsOfPool } from "../box/figures";
import { sizeCurve } from "../nextDrive/sizeCurve";
import { layouts } from "../layouts/registry";
import { ruleSets, rulesOf } from "../rules/ruleSets";
import { numbered } from "../testing/anySteps";
import { boxWith, withRules } from "../testing/boxWith";
import { attach, claim, create, pull, widen } from "../testing/stepsInShort";
import { walkPlan } from "../walk/walkPlan";

// What a step leaves as it is. Sizes are multiples of 10 GiB, and results are rounded to them.

const UNIT = 10 * 1024 ** 3;
const units = (bytes: number) => Math.round(bytes / UNIT);
const box = (set: RuleSetId, layout: LayoutId, sizes: number[], shelf: number[] = [], more = {}) =>
  boxWith(
    set,
    layout,
    sizes.map((each) => each * UNIT),
    shelf.map((each) => each * UNIT),
    more,
  );
const momentsOf = (plan: Plan, steps: StepBody[]) => walkPlan(numbered(plan, steps)).moments;
/** The pool before the steps and after each. */
const pools = (plan: Plan, ...steps: StepBody[]) =>
  momentsOf(plan, steps).map(({ capacities }) => units(capacities.pool));
const last = (plan: Plan, ...steps: StepBody[]) => momentsOf(plan, steps).at(-1)!.walked!;
const said = (plan: Plan, ...steps: StepBody[]) =>
  last(plan, ...steps).findings.map(({ severity, code }) => `${severity} ${code}`);

describe("a hybrid's bands are never cut anew", () => {
  const three = box("linux-host", "hybrid-1", [200, 200, 300], [250]);
  const small = withRules(box("linux-host", "hybrid-1", [209, 120], [96, 150, 209]), { joining: "any-size" });

  test("a drive joins the bands that it covers whole; above them all a new one is laid over what two have", () => {
    // 0 to 200 over four, and a mirror from 200 to 250 on the tops of two; a claim finds nothing more.
    expect(pools(three, widen("x1"), claim())).toEqual([400, 650, 650]);
    const { cost } = last(three, widen("x1"));
    // The bottom band is rewritten at 0.33 of 130 MB/s, the top one filled at 0.6 of 150 MB/s: its drives are larger.
    expect(cost.hours.expected).toBeCloseTo(
      (200 * UNIT) / (0.33 * 130e6 * 3600) + (50 * UNIT) / (0.6 * 150e6 * 3600),
      1,
    );
    expect(cost.work.map(({ drive, reads, writes }) => [drive, units(reads), units(writes)])).toEqual([
      ["d1", 200, 200],
      ["d2", 200, 200],
      ["d3", 250, 200],
      ["x1", 0, 250],
    ]);
  });
  test("one that covers no band is refused with the size that would help; nothing is rewritten for it", () => {
    const { findings, done } = last(small, widen("x1"));
    expect([done, pools(small, widen("x1"), claim())]).toEqual([false, [120, 120, 120]]);
    const block = findings.find(({ code }) => code === "nothing-gained")!;
    expect(block.severity).toBe("block");
    expect(block.message.replace(/\u00a0/g, " ")).toMatch(/^The 1\.03 TB drive .*One of 1\.29 TB would bring space\.$/);
    expect(pools(small, widen("x2"))).toEqual([120, 270]);
  });
  test("one that ends inside a band says how much of it is used, and which size is used whole", () => {
    const made = withRules(box("linux-host", "hybrid-1", [100, 300, 300], [200, 300]), { joining: "any-size" });
    expect(pools(made, widen("x1"))).toEqual([400, 500]);
    const warning = last(made, widen("x1")).findings.find(({ code }) => code === "ends-inside-a-band")!;
    expect(warning.message.replace(/\u00a0/g, " ")).toMatch(
      /^Of the 2\.15 TB drive .* 1\.07 TB will be used: .* 1\.07 TB stay unused .* One of 3\.22 TB would be used whole\.$/,
    );
    // What lies above the joined band stays as it was: only the bottom of the others is rewritten.
    expect(last(made, widen("x1")).cost.work.map(({ drive, writes }) => [drive, units(writes)])).toEqual([
      ["d1", 100],
      ["d2", 100],
      ["d3", 100],
      ["x1", 100],
    ]);
    expect(said(made, widen("x2"))).not.toContain("warn ends-inside-a-band");
    // The same of a drive that replaces one, and when it is claimed.
    expect(said(made, pull("d1", "x1"))).toContain("warn ends-inside-a-band");
    expect(said(made, pull("d1", "x2"))).not.toContain("warn ends-inside-a-band");
    expect(said(made, pull("d1", "x1"), claim())).toEqual(["warn ends-inside-a-band", "note claims-nothing"]);
    expect(pools(made, pull("d1", "x1"), claim())).toEqual([400, 400, 400]);
    expect(pools(made, pull("d1", "x2"), claim())).toEqual([400, 400, 600]);
  });
  test("the curve of the next drive knows it", () => {
    const pool = small.pools[0]!;
    const curve = sizeCurve(small, pool, { kind: "add", group: "g1" });
    const at = (tb: number) => curve.find(({ bytes }) => Math.round(bytes / 1e12) === tb)!;
    expect(at(1).outcome).toEqual({
      ok: false,
      reason: "It would bring nothing: it does not reach a height at which the group is cut.",
    });
    // 2 TB are 186 units: 120 in the band, and 66 as a mirror with the top of the first.
    expect(units(at(2).gainBytes)).toBe(186);
  });
});

describe("what random plans have found", () => {
  test("a smaller drive is not taken into a stripe, whatever the rule for joining", () => {
    const stripe = withRules(box("parity-drive", "raid0", [200, 200], [120]), { layouts: ["raid0"] });
    expect(said(stripe, widen("x1"))).toContain("block too-small");
  });
  test("a box that claims by itself fills what it has gained after a copy, and after a removal", () => {
    const rules = { claiming: "by-itself", rebuilding: "whole-drive", replacing: "old-attached" } as const;
    const made = withRules(box("linux-host", "raid1", [100, 300], [300]), rules);
    const { cost } = last(made, attach("d1", "x1"));
    // 100 are copied, then the 200 more are written to both.
    expect(cost.work.map(({ drive, reads, writes }) => [drive, units(reads), units(writes)])).toEqual([
      ["d1", 100, 0],
      ["x1", 0, 300],
      ["d2", 0, 200],
    ]);
    expect(cost.hours.expected).toBeCloseTo(
      (100 * UNIT) / (0.6 * 130e6 * 3600) + (200 * UNIT) / (0.6 * 150e6 * 3600),
      1,
    );
    const three = withRules(box("linux-host", "raid1", [100, 300, 300]), rules);
    const removed = last(three, { kind: "remove-drive", drive: "d1" }).cost;
    expect(removed.work.map(({ drive, writes }) => [drive, units(writes)])).toEqual([
      ["d2", 200],
      ["d3", 200],
    ]);
  });
  test("the bands of a hybrid lie to the byte where they lay, the rounding between them included", () => {
    const made = boxWith("linux-host", "hybrid-1", [120e9, 209e9, 250e9, 400e9], [209_000_127_488]);
    const { moments } = walkPlan(numbered(made, [attach("d1", "x1")]));
    const bands = moments.map(({ state }) => bandsOfPool(state.plan, state.plan.pools[0]!, rulesOf(made.box.rules)));
    const lie = bands.map((each) => each.map(({ members }) => [members[0]!.offset, members[0]!.length]));
    expect(lie[1]).toEqual(lie[0]);
  });
  test("small drives that are mirrored end to end onto a large one claim nothing: the next one lies above", () => {
    const made = box("linux-host", "mirror-onto-one", [120, 250, 150], [209]);
    expect(pools(made, pull("d1", "x1"), claim())).toEqual([250, 250, 250]);
    expect(said(made, pull("d1", "x1"), claim())).toEqual(["note claims-nothing"]);
    expect(said(made, claim())).toEqual(["note nothing-to-claim"]);
  });
});

test.each<[RuleSetId, number[]]>([
  ["linux-host", [126, 126, 262]],
  ["classic-raid", [126, 126, 262]],
  ["desktop-mirror", [126, 126, 262]],
])("a three-way mirror on a %s keeps its size when its smallest drive leaves, until a claim", (set, expected) => {
  const made = withRules(box(set, "raid1", [126, 262, 262]), { mostDrives: null });
  expect(pools(made, { kind: "remove-drive", drive: "d1" }, claim())).toEqual(expected);
});

describe("a file system never grows by a shrinking", () => {
  const volumes = [{ id: "v1", name: "V", bytes: 100 * UNIT, fileSystem: "ext4" as const, usedBytes: 10 * UNIT }];
  const made = box("linux-host", "raid5", [200, 200, 200], [], { volumes });
  const grow: StepBody = { kind: "grow-volume", pool: "p1", volume: "v1", bytes: 200 * UNIT };
  const shrink = (to: number): StepBody => ({ kind: "shrink-volume", pool: "p1", volume: "v1", bytes: to * UNIT });
  const files = (...steps: StepBody[]) =>
    momentsOf(made, steps).map(({ state }) => {
      const [volume] = state.plan.pools[0]!.volumes;
      return units(volume!.fileSystemBytes ?? volume!.bytes);
    });

  test("after it, it reaches as far as the smaller of what it reached and the volume", () => {
    expect(files(grow, shrink(150))).toEqual([100, 100, 100]);
    expect(files(grow, shrink(80), { ...grow, bytes: 120 * UNIT })).toEqual([100, 100, 80, 80]);
    expect(files(shrink(50))).toEqual([100, 50]);
  });
  test("so the forgotten step is still found", () => {
    const found = momentsOf(made, [grow, shrink(150)]).map(({ walked }) => walked?.findings.map(({ code }) => code));
    expect(found).toEqual([undefined, ["file-system-not-grown"], []]);
  });
});

describe("no data drive is larger than the parity drive, in any kind of box", () => {
  const sets = ruleSets.map(({ id }) => id).filter((id) => rulesOf({ set: id }).layouts.includes("parity-drive-1"));
  const kinds = [...sets, "classic-raid" as const].flatMap((set) =>
    (["as-smallest-member", "as-largest-member", "up-to-parity", "any-size"] as const).map(
      (joining) => [set, joining] as const,
    ),
  );
  test.each(kinds)("%s, %s: made, widened, replaced or claimed", (set, joining) => {
    const made = withRules(box(set, "parity-drive-1", [200, 200, 300], [400]), {
      joining,
      layouts: ["parity-drive-1"],
      widening: "several-drives",
    });
    expect(said(made, widen("x1"))).toContain("block larger-than-parity");
    expect(said(made, pull("d1", "x1"))).toContain("block larger-than-parity");
    const fresh = create("parity-drive-1", "d1", "x1");
    const empty = { ...made, pools: [] };
    expect(said({ ...empty }, { ...fresh, options: { parityDrives: ["d1"] } })).toContain("block larger-than-parity");
    expect(said(empty, fresh)).not.toContain("block larger-than-parity");
    const named = box(set, "parity-drive-1", [400, 200, 300]);
    named.pools[0]!.groups[0]!.options = { parityDrives: ["d3"] };
    named.pools[0]!.groups[0]!.reach = { d1: 200 * UNIT };
    expect(said(withRules(named, { claiming: "whole-group" }), claim())).toEqual(["block larger-than-parity"]);
  });
  test("the larger one becomes the parity drive by a press, and the old one joins in its place", () => {
    const made = box("parity-drive", "parity-drive-1", [200, 200, 300], [400]);
    for (const step of [widen("x1"), pull("d1", "x1")]) {
      const { mend } = last(made, step).findings.find(({ code }) => code === "larger-than-parity")!;
      if (mend?.command.kind !== "replace-step") throw new Error("No mend.");
      const moments = momentsOf(made, mend.command.by);
      expect(moments.slice(1).map(({ walked }) => walked!.done)).toEqual([true, true]);
      expect(units(moments.at(-1)!.capacities.pool)).toBe(step.kind === "widen-group" ? 700 : 500);
    }
  });
});

describe("what a box's rules refuse holds for every layout, or the layout says why not", () => {
  test.each(layouts.map((layout) => [layout.id, layout] as const))("%s", (id, layout) => {
    const sizes = Array.from({ length: Math.max(4, layout.usualDrives) }, () => 200);
    const volumes = [{ id: "v1", name: "V", bytes: 100 * UNIT, fileSystem: "ext4" as const, usedBytes: UNIT }];
    const made = box("linux-host", id, sizes, [200, 200], { volumes });
    const blocks = (rules: Partial<BoxRules>, step: StepBody) =>
      said(withRules(made, { layouts: [id], ...rules }), step).flatMap((each) =>
        each.startsWith("block ") ? [each.slice(6)] : [],
      );
    const widens = layout.widening !== "never";
    // A copy more can be attached to a mirror wherever groups keep their width.
    expect(blocks({ widening: "further-group" }, widen("x1"))).toEqual(
      layout.widening === "copies" ? [] : expect.arrayContaining(["no-widening"]),
    );
    const oneDrive = blocks({ widening: "one-drive" }, widen("x1", "x2"));
    expect(oneDrive).toContain(widens ? "one-at-a-time" : "no-widening");
    // Where drives go in by twos, two count as one.
    const byTwos: Partial<BoxRules> = { widening: "one-drive", arrayFormat: "plain" };
    if (layout.multiple === 2) expect(blocks(byTwos, widen("x1", "x2"))).toEqual([]);
    expect(blocks({ widening: "several-drives" }, widen("x1", "x2"))).toEqual(widens ? [] : ["no-widening"]);
    const copied = attach("d1", "x1");
    const refused = layout.takesNoSpare ? "no-live-replacement" : "not-attached";
    expect(blocks({ replacing: "pull-first" }, copied)).toContain(refused);
    expect(blocks({ replacing: "old-attached" }, copied)).not.toContain("not-attached");
    const spare: StepBody = { kind: "set-spare", pool: "p1", drive: "x1" };
    expect(blocks({ hotSpares: "none" }, spare)).toContain("spares-not-offered");
    const shrink: StepBody = { kind: "shrink-volume", pool: "p1", volume: "v1", bytes: 50 * UNIT };
    expect([blocks({ shrinkVolumes: false }, shrink), blocks({}, shrink)]).toEqual([["no-shrinking"], []]);
    expect(blocks({ claiming: "per-drive" }, claim())).toEqual(["claim-per-drive"]);
    expect(blocks({ claiming: "whole-group" }, claim())).toEqual(layout.chunked ? ["claim-per-drive"] : []);
    const make = create(id, "x1", "x2");
    expect(blocks({ layouts: [] }, make)).toContain("layout-not-offered");
  });
});
