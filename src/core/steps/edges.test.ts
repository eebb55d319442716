import type { Backup, Plan, Pool, StepBody, StepKind } from "../document/plan";
import { numbered } from "../testing/anySteps";
import { testDrive } from "../testing/arbitraries";
import { boxWith } from "../testing/boxWith";
import { away } from "../testing/dataPlan";
import { attach, level, parityChanged, pull, widen } from "../testing/stepsInShort";
import { walkPlan } from "../walk/walkPlan";
import { attentionOf, boughtFor } from "./attention";
import { growSteps } from "./growSteps";
import { moduleOf } from "./registry";

// What lies at the edges of single steps: which drives they take in hand, and what they leave of options and places.

const walked = (plan: Plan, ...steps: StepBody[]) => walkPlan(numbered(plan, steps));
const after = (plan: Plan, ...steps: StepBody[]): Plan => walked(plan, ...steps).moments.at(-1)!.state.plan;
const groupAfter = (plan: Plan, ...steps: StepBody[]) => after(plan, ...steps).pools[0]!.groups[0]!;
const last = (plan: Plan, ...steps: StepBody[]) => walked(plan, ...steps).moments.at(-1)!.walked!;
const said = (plan: Plan, ...steps: StepBody[]) =>
  last(plan, ...steps).findings.map(({ severity, code, drives }) => `${severity} ${code} ${drives.join()}`.trim());
const volumes = (bytes: number, usedBytes?: number): Pool["volumes"] => [
  { id: "v1", name: "V", bytes, fileSystem: "ext4", ...(usedBytes === undefined ? {} : { usedBytes }) },
];
const changed = (plan: Plan, id: string, more: object): Plan => ({
  ...plan,
  drives: plan.drives.map((drive) => (drive.id === id ? { ...drive, ...more } : drive)),
});

const linux = boxWith("linux-host", "raid5", [4, 4, 4], [4, 8, 4]);
const parity = boxWith("parity-drive", "parity-drive-1", [4, 4, 8], [8, 12, 3]);

describe("the drives that a step takes in hand", () => {
  const fresh = { pool: "p2", group: "g2", name: "N", layout: "raid1" as const };
  test.each<[StepBody, string[]]>([
    [{ kind: "create-group", ...fresh, drives: ["x1", "x2"] }, ["x1", "x2"]],
    [{ kind: "add-group", ...fresh, pool: "p1", drives: ["x1", "x2"] }, ["x1", "x2"]],
    [{ kind: "mirror-drive", ...fresh, drive: "x1", by: "x2", also: ["x3"] }, ["x1", "x3", "x2"]],
    [widen("x1", "x2"), ["x1", "x2"]],
    [pull("d1", "x1"), ["x1"]],
    [level("raid6", "x1"), ["x1"]],
    [parityChanged("d3", "x1"), ["x1"]],
    [{ kind: "set-spare", pool: "p1", drive: "x1" }, ["x1"]],
    [{ kind: "test-drive", drive: "x1" }, ["x1"]],
    [{ kind: "wipe-drive", drive: "x1" }, ["x1"]],
    [{ kind: "rebuild-from-backup", pool: "p1", layout: "raid5", drives: ["d1", "x1"] }, ["d1", "x1"]],
    [{ kind: "remove-drive", drive: "d1" }, []],
    [{ kind: "remove-spare", drive: "x1" }, []],
    [{ kind: "back-up", pool: "p1", to: "b1" }, []],
    [{ kind: "grow-volume", pool: "p1", volume: "v1" }, []],
  ])("%j", (body, expected) => {
    const step = { ...body, id: "s1" } as Parameters<typeof boughtFor>[0];
    expect([...moduleOf(step).handles(step)]).toEqual(expected);
    // Those of them that are yet to be bought are waited for, and no others.
    const bought = changed(changed(linux, "x1", { toBuy: true }), "x2", { toBuy: false });
    expect(boughtFor(step, bought)).toEqual(expected.includes("x1") ? ["x1"] : []);
  });
  test("a drive that lies on the shelf is fetched, one in a bay is not", () => {
    const step = { id: "s1", kind: "test-drive" as const, drive: "x1" };
    const inBay = changed(linux, "x1", { place: { bay: 5 } });
    expect([linux, inBay].map((plan) => attentionOf(step, plan, plan))).toEqual(["box", "screen"]);
    expect(attentionOf({ ...step, drive: "nowhere" }, linux, linux)).toBe("screen");
    const toUsb = { id: "s1", kind: "back-up" as const, pool: "p1", to: "b1" };
    const withBackup = (kind: Backup["kind"]) => ({ ...linux, backups: [{ ...away, kind }] });
    const places = [linux, withBackup("usb-drive"), withBackup("box")].map((plan) => attentionOf(toUsb, plan, plan));
    expect(places).toEqual(["screen", "box", "screen"]);
  });
});

describe("what a change of level leaves", () => {
  test("a stripe that becomes striped mirrors pairs each old drive with a new one", () => {
    const stripe = boxWith("linux-host", "raid0", [4, 4], [4, 4]);
    const { drives, options } = groupAfter(stripe, level("raid10", "x1", "x2"));
    expect([drives, options]).toEqual([["d1", "x1", "d2", "x2"], { pairs: "as-named" }]);
  });
  test("a second parity drive is named beside the first", () => {
    expect(groupAfter(parity, level("parity-drive-2", "x2")).options).toEqual({ parityDrives: ["d3", "x2"] });
    expect(groupAfter(linux, level("raid6", "x1")).options).toEqual({});
  });
  test("its arrays are rewritten where drives come or go, and stay where only their use changes", () => {
    const rewritten = (plan: Plan, ...steps: StepBody[]) => groupAfter(plan, ...steps).kept?.[0]?.rewritten ?? false;
    expect(rewritten(linux, level("raid6", "x1"))).toBe(true);
    const pair = boxWith("linux-host", "raid1", [4, 4], [4]);
    expect([rewritten(pair, level("raid5")), rewritten(pair, level("raid5", "x1"))]).toEqual([false, true]);
    const raid6 = boxWith("linux-host", "raid6", [4, 4, 4, 4]);
    const without: StepBody = { kind: "change-level", group: "g1", layout: "raid5", drives: [], without: ["d1"] };
    expect(rewritten(raid6, without)).toBe(true);
    expect(groupAfter(raid6, without).drives).toEqual(["d2", "d3", "d4"]);
  });
});

describe("another parity drive", () => {
  test("takes the bay and the name of the old one, which goes to the shelf", () => {
    const made = after(parity, parityChanged("d3", "x2"));
    const place = (id: string) => made.drives.find((drive) => drive.id === id)!.place;
    expect([place("d3"), place("x2")]).toEqual([{ shelf: true }, { bay: 3 }]);
    expect(made.pools[0]!.groups[0]).toMatchObject({ drives: ["d1", "d2", "x2"], options: { parityDrives: ["x2"] } });
    const two = boxWith("parity-drive", "parity-drive-2", [4, 4, 8, 8], [12]);
    expect(groupAfter(two, parityChanged("d4", "x1")).options!.parityDrives).toEqual(["d3", "x1"]);
  });
  test("goes into a free bay, or stays in its own, where the box fills it beside the old one", () => {
    const attaching = {
      ...parity,
      box: {
        ...parity.box,
        rules: { set: "parity-drive" as const, overrides: { replacing: "old-attached" as const } },
      },
    };
    const bayOf = (plan: Plan) => after(plan, parityChanged("d3", "x2")).drives.find(({ id }) => id === "x2")!.place;
    expect(bayOf(attaching)).toEqual({ bay: 4 });
    expect(bayOf(changed(attaching, "x2", { place: { bay: 7 } }))).toEqual({ bay: 7 });
    expect(bayOf({ ...attaching, box: { ...attaching.box, bays: 3 } })).toEqual({ bay: 3 });
  });
  test("must be as large as each data drive, and healthy", () => {
    expect(said(parity, parityChanged("d3", "x3"))).toEqual(["block too-small x3", "note not-tested x3"]);
    expect(said(changed(parity, "x2", { health: { state: "failing" } }), parityChanged("d3", "x2"))).toContain(
      "block drive-failing x2",
    );
    expect(said(parity, parityChanged("d3", "nowhere"))).toEqual(["block no-such-drive"]);
  });
});

describe("what is said of drives that join", () => {
  test("too small by a hair, and by more", () => {
    const hair = boxWith("linux-host", "raid5", [4, 4, 4], [4_000_787_030_016 - 2 ** 21, 3_990_000_000_000]);
    const words = (by: string) => last(hair, pull("d1", by)).findings[0]!.message.replace(/\u00a0/g, " ");
    expect(words("x1")).toMatch(/too small by 1.744.896 B: .* Next time leave 0\.1 % of each drive unused/);
    expect(words("x2")).toMatch(/too small by 10\.79 GB: the group uses 4\.00 TB of the drive it replaces\.$/);
  });
  test("shingled under parity only; flash needs no test; what the others have among them is not said again", () => {
    const shingled = (plan: Plan) => changed(plan, "x1", { shingled: true });
    expect(said(shingled(linux), widen("x1"))).toContain("warn shingled-in-parity x1");
    expect(said(shingled(boxWith("linux-host", "raid1", [4, 4], [4])), widen("x1")).join()).not.toContain("shingled");
    const flash = changed(linux, "x1", { medium: "ssd" });
    expect(said(flash, widen("x1")).join()).not.toContain("not-tested");
    expect(said(flash, widen("x1", "x2"))).toContain("note not-tested x2");
    const mixedAlready = changed(boxWith("linux-host", "raid5", [4, 4, 4], [4]), "d1", { medium: "ssd" });
    expect(said(mixedAlready, widen("x1")).join()).not.toContain("mixed-media");
  });
  test("a rewrite asks for a backup, unless what is stored is nothing, replaceable, or backed up", () => {
    const asked = (more: Partial<Plan>, pool: Partial<Pool> = {}) =>
      said({ ...boxWith("linux-host", "raid5", [4, 4, 4], [4], pool), ...more }, widen("x1")).some((each) =>
        each.startsWith("warn no-backup"),
      );
    const set = { id: "s1", name: "S", volume: "v1", bytes: 1e12, worth: "useful" as const };
    const full = { volumes: volumes(4e12, 1e12) };
    expect(asked({}, full)).toBe(true);
    expect(asked({}, { volumes: volumes(4e12, 0) })).toBe(false);
    expect(asked({ dataSets: [{ ...set, worth: "replaceable" }] }, full)).toBe(false);
    expect(asked({ dataSets: [set] }, full)).toBe(true);
    expect(asked({ dataSets: [set], backups: [{ ...away, lastVerified: "2026-11-20" }] }, full)).toBe(false);
    expect(
      asked({ dataSets: [set, { ...set, id: "s2" }], backups: [{ ...away, lastVerified: "2026-11-20" }] }, full),
    ).toBe(true);
    expect(
      said(boxWith("linux-host", "raid5", [4, 4, 4], [4], full), { kind: "back-up", pool: "p1", to: "b" }, widen("x1")),
    ).toEqual(["warn volume-not-grown", "note not-tested x1"]);
  });
});

test("spares of a group go as those of a pool; a pool made anew keeps those it does not use", () => {
  const grouped: Plan = {
    ...linux,
    pools: [{ ...linux.pools[0]!, groups: [{ ...linux.pools[0]!.groups[0]!, spares: ["x1", "x2"] }], spares: ["x3"] }],
  };
  const left = after(grouped, { kind: "remove-spare", drive: "x1" }).pools[0]!;
  expect([left.groups[0]!.spares, left.spares]).toEqual([["x2"], ["x3"]]);
  const spared: Plan = { ...linux, pools: [{ ...linux.pools[0]!, spares: ["x1", "x3"] }] };
  const anew = (drives: string[], box?: Plan["box"]): StepBody[] => [
    { kind: "back-up", pool: "p1", to: "b" },
    { kind: "rebuild-from-backup", pool: "p1", layout: "raid6", drives, ...(box ? { box } : {}) },
  ];
  expect(after(spared, ...anew(["d1", "d2", "d3", "x2"])).pools[0]!.spares).toEqual(["x1", "x3"]);
  const elsewhere = { name: "N", bays: 5, rules: { set: "linux-host" as const } };
  const moved = after(spared, ...anew(["d1", "d2", "d3", "x2"], elsewhere));
  expect([moved.pools[0]!.spares, moved.box.bays, moved.drives.map(({ place }) => place)]).toEqual([
    [],
    5,
    [{ bay: 1 }, { bay: 2 }, { bay: 3 }, { shelf: true }, { bay: 4 }, { shelf: true }],
  ]);
  const two: Plan = {
    ...linux,
    pools: [
      linux.pools[0]!,
      { id: "p2", name: "Q", groups: [{ id: "g2", layout: "raid1", drives: ["x1", "x2"] }], spares: [], volumes: [] },
    ],
  };
  expect(said(two, ...anew(["d1", "d2", "d3", "x1"]))).toContain("block drive-taken x1");
});

test("what is grown after a gain: the last volume and its files, where the box leaves that to its owner", () => {
  const pool = { ...linux.pools[0]!, volumes: [...volumes(1), { ...volumes(1)[0]!, id: "v2" }] };
  const kinds = (fileSystem: "ext4" | "none", growing: "by-hand" | "by-itself") =>
    growSteps({ ...pool, volumes: pool.volumes.map((each) => ({ ...each, fileSystem })) }, { growing }).map((step) =>
      Object.values(step).join(" "),
    );
  expect(kinds("ext4", "by-hand")).toEqual(["grow-volume p1 v2", "grow-file-system p1 v2"]);
  expect(kinds("none", "by-hand")).toEqual(["grow-volume p1 v2"]);
  expect(kinds("ext4", "by-itself")).toEqual([]);
});

test("what menus offer on drives and pools", () => {
  const plan: Plan = {
    ...linux,
    drives: [
      ...linux.drives,
      testDrive("h1", 4_000_787_030_016, { contents: { kind: "data" }, label: "Photos" }),
      testDrive("h2", 1e12, { contents: { kind: "mounted" } }),
    ],
  };
  const offersOf = (kind: StepKind, pool: Pool, claiming: "per-drive" | "whole-group") => {
    const { menu } = moduleOf({ kind });
    return menu.under === "pool"
      ? menu.offers(pool, { rules: { claiming } } as never).flatMap(({ steps }) => steps)
      : [];
  };
  const { menu } = moduleOf({ kind: "mirror-drive" });
  const offers = menu.under === "drives" ? menu.offers({ plan, unit: "TB" } as never) : [];
  // The smallest free drive that is large enough.
  expect(offers.map(({ label, steps: [step] }) => [label.replace(/\u00a0/g, " "), step])).toMatchObject([
    ["Mirror 4 TB with its data on 4 TB", { pool: "p-h1", group: "g-h1", name: "Photos", drive: "h1", by: "x1" }],
    ["Mirror 1 TB with its data on 4 TB", { pool: "p-h2", group: "g-h2", name: "Mirror", drive: "h2", by: "x1" }],
  ]);
  const waiting = { ...plan.pools[0]!, groups: [{ ...plan.pools[0]!.groups[0]!, reach: { d1: 1, d2: 1 } }] };
  expect(offersOf("claim-space", waiting, "per-drive")).toEqual([
    { kind: "claim-space", group: "g1", drive: "d1" },
    { kind: "claim-space", group: "g1", drive: "d2" },
  ]);
  expect(offersOf("claim-space", waiting, "whole-group")).toEqual([{ kind: "claim-space", group: "g1" }]);
  expect(offersOf("claim-space", plan.pools[0]!, "per-drive")).toEqual([{ kind: "claim-space", group: "g1" }]);
});

test("a copy beside the old drive takes the new one's bay, a free one, and leaves the old one's reach behind", () => {
  const made = after(linux, attach("d1", "x2"), attach("x2", "x1"));
  expect(made.pools[0]!.groups[0]!.reach).toBeUndefined();
  expect(made.drives.map(({ place }) => ("bay" in place ? place.bay : 0))).toEqual([0, 2, 3, 1, 0, 0]);
});
