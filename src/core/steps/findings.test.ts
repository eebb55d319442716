import type { Backup, FileSystem, LayoutId, Plan, Pool, RuleSetId, Step, StepBody } from "../document/plan";
import { checkPlan } from "../document/readPlan";
import { choir } from "../document/samples/choir";
import { predict } from "../prediction/predict";
import { lateFindings } from "../schedule/demand";
import { boxWith } from "../testing/boxWith";
import { walkPlan } from "../walk/walkPlan";

// What stands against a step, and what is said beside it: each finding by a box and a step that ask for it, and none
// where they do not.

const volume = (bytes: number, more: Partial<Pool["volumes"][number]> = {}): Partial<Pool> => ({
  volumes: [{ id: "v1", name: "V", bytes, fileSystem: "ext4", ...more }],
});
const said = (plan: Plan, ...steps: StepBody[]) =>
  walkPlan({ ...plan, steps: steps.map((step, i) => ({ ...step, id: `s${i + 1}` }) as Step) })
    .moments.at(-1)!
    .walked!.findings.map((finding) => `${finding.severity} ${finding.code}`);
const box = (set: RuleSetId, layout: LayoutId, sizes: number[], shelf: number[] = [], more: Partial<Pool> = {}) =>
  boxWith(set, layout, sizes, shelf, more);
const over = (plan: Plan, overrides: NonNullable<Plan["box"]["rules"]["overrides"]>): Plan => ({
  ...plan,
  box: { ...plan.box, rules: { ...plan.box.rules, overrides } },
});

const raid5 = box("linux-host", "raid5", [4, 4, 4], [4, 4, 8]);
const copies = box("chunk-copies", "copies-2", [4, 4], [4], volume(3e12, { fileSystem: "btrfs", usedBytes: 1e12 }));
const parity = box("parity-drive", "parity-drive-1", [4, 4, 8], [8, 12, 4]);
const files = (fileSystem: FileSystem = "ext4") =>
  box("linux-host", "raid5", [4, 4, 4], [], volume(4e12, { fileSystem, usedBytes: 1e12 }));
const grow: StepBody = { kind: "grow-volume", pool: "p1", volume: "v1" };
const shrink = (bytes: number): StepBody => ({ kind: "shrink-volume", pool: "p1", volume: "v1", bytes });
const widen = (...drives: string[]): StepBody => ({ kind: "widen-group", group: "g1", drives });
const level = (layout: LayoutId, ...drives: string[]): StepBody => ({
  kind: "change-level",
  group: "g1",
  layout,
  drives,
});
const replace = (drive: string, by: string, how: "attached" | "pulled" = "pulled"): StepBody => ({
  kind: "replace-drive",
  drive,
  by,
  how,
});
const backUp: StepBody = { kind: "back-up", pool: "p1", to: "b1" };
const anew: StepBody = { kind: "rebuild-from-backup", pool: "p1", layout: "raid6", drives: ["d1", "d2", "d3", "x1"] };
const group = (kind: "create-group" | "add-group", pool: string, id: string): StepBody =>
  kind === "add-group"
    ? { kind, pool, group: id, layout: "raid1", drives: ["x1", "x2"] }
    : { kind, pool, group: id, name: "N", layout: "raid1", drives: ["x1", "x2"] };
const small: Backup = {
  id: "b1",
  name: "B",
  kind: "box",
  place: "here",
  everyDays: 1,
  keepsVersions: false,
  dataSets: [],
};

test.each<[string, Plan, StepBody[], string, boolean]>([
  [
    "a backup that is too small",
    { ...files(), backups: [{ ...small, bytes: 1e11 }] },
    [backUp],
    "block backup-too-small",
    true,
  ],
  [
    "a backup that is large enough",
    { ...files(), backups: [{ ...small, bytes: 1e12 }] },
    [backUp],
    "block backup-too-small",
    false,
  ],
  [
    "a volume of which nobody knows what it stores",
    box("linux-host", "raid5", [4, 4, 4], [], volume(1e12)),
    [backUp],
    "note stored-not-known",
    true,
  ],
  ["a volume of which it is known", files(), [backUp], "note stored-not-known", false],
  ["chunks that are balanced", copies, [{ kind: "rebalance", group: "g1" }], "note balanced", true],
  ["chunks after a drive more", copies, [widen("x1"), { kind: "rebalance", group: "g1" }], "note balanced", false],
  ["stripes rebalanced", raid5, [{ kind: "rebalance", group: "g1" }], "block no-chunks", true],
  ["a group that is not there", raid5, [{ kind: "rebalance", group: "g9" }], "block no-such-group", true],
  ["a pool that is not there", raid5, [{ kind: "verify", pool: "p9" }], "block no-such-pool", true],
  ["a volume that is not there", raid5, [grow], "block no-such-volume", true],
  [
    "a member of parity taken out for good",
    raid5,
    [{ kind: "remove-drive", drive: "d1" }],
    "block cannot-be-removed",
    true,
  ],
  [
    "one of chunks taken out",
    { ...copies, drives: copies.drives },
    [widen("x1"), { kind: "remove-drive", drive: "d1" }],
    "block cannot-be-removed",
    false,
  ],
  ["an independent drive taken out", parity, [{ kind: "remove-drive", drive: "d1" }], "warn move-its-data", true],
  [
    "a third copy taken out",
    box("linux-host", "raid1", [4, 4, 4]),
    [{ kind: "remove-drive", drive: "d1" }],
    "warn move-its-data",
    false,
  ],
  [
    "a claim where each drive has its own",
    over(raid5, { claiming: "per-drive" }),
    [{ kind: "claim-space", group: "g1" }],
    "block claim-per-drive",
    true,
  ],
  [
    "a claim where the box does it",
    over(raid5, { claiming: "by-itself" }),
    [{ kind: "claim-space", group: "g1" }],
    "note claims-by-itself",
    true,
  ],
  ["a claim of nothing", raid5, [{ kind: "claim-space", group: "g1" }], "note nothing-to-claim", true],
  [
    "a claim of a drive outside",
    raid5,
    [{ kind: "claim-space", group: "g1", drive: "x1" }],
    "block not-a-member",
    true,
  ],
  [
    "a claim after a larger drive",
    raid5,
    [replace("d1", "x3"), { kind: "claim-space", group: "g1" }],
    "note nothing-to-claim",
    false,
  ],
  ["a member wiped", raid5, [{ kind: "wipe-drive", drive: "d1" }], "block drive-in-use", true],
  ["a free drive wiped", raid5, [{ kind: "wipe-drive", drive: "x1" }], "block drive-in-use", false],
  ["a group's id made twice", raid5, [group("add-group", "p1", "g1")], "block group-exists", true],
  ["a pool's id made twice", raid5, [group("create-group", "p1", "g2")], "block pool-exists", true],
  ["a new pool", raid5, [group("create-group", "p2", "g2")], "block pool-exists", false],
  ["a further group of another layout", raid5, [group("add-group", "p1", "g2")], "warn mixed-layouts", true],
  ["a further group", raid5, [group("add-group", "p1", "g2")], "note stands-with-all", true],
  ["the parity drive replaced like any other", parity, [replace("d3", "x2")], "block is-the-parity-drive", true],
  ["a data drive replaced", parity, [replace("d1", "x1")], "block is-the-parity-drive", false],
  [
    "a data drive changed as if it were parity",
    parity,
    [{ kind: "change-parity-drive", group: "g1", drive: "d1", by: "x2" }],
    "block no-parity-drive",
    true,
  ],
  [
    "a parity drive that would be too small",
    parity,
    [{ kind: "change-parity-drive", group: "g1", drive: "d3", by: "x3" }],
    "block too-small",
    false,
  ],
  ["a level that its box refuses", raid5, [level("raid6")], "block level-refused", true],
  ["a level with a drive more", raid5, [level("raid6", "x1")], "block level-refused", false],
  ["the level that it has", raid5, [level("raid5", "x1")], "block same-level", true],
  ["any other level", raid5, [level("raid6", "x1")], "note riskiest", true],
  [
    "a pool of chunks that is nearly full, as far as is known",
    box("chunk-copies", "copies-2", [4, 4, 4], [], volume(5.9e12)),
    [level("copies-3")],
    "warn little-room-to-work",
    true,
  ],
  [
    "one with room",
    box("chunk-copies", "copies-2", [4, 4, 4], [], volume(3e12, { usedBytes: 1e12 })),
    [level("copies-3")],
    "warn little-room-to-work",
    false,
  ],
  [
    "a level that holds less",
    box("linux-host", "raid6", [4, 4, 4, 4], []),
    [{ kind: "change-level", group: "g1", layout: "raid5", drives: [], without: ["d1"] }],
    "note usable-falls",
    false,
  ],
  [
    "three copies instead of two",
    box("chunk-copies", "copies-2", [4, 4, 4], []),
    [level("copies-3")],
    "note usable-falls",
    true,
  ],
  ["a drive named twice", raid5, [widen("x1", "x1")], "block named-twice", true],
  ["no drive at all", raid5, [widen()], "block no-drives", true],
  ["a drive without a test", raid5, [widen("x1")], "note not-tested", true],
  ["a drive after its test", raid5, [{ kind: "test-drive", drive: "x1" }, widen("x1")], "note not-tested", false],
  ["the last redundancy pulled", raid5, [replace("d1", "x1")], "warn no-redundancy", true],
  [
    "one of two that may fail",
    box("linux-host", "raid6", [4, 4, 4, 4], [4]),
    [replace("d1", "x1")],
    "warn no-redundancy",
    false,
  ],
  [
    "no file system to grow",
    files("none"),
    [{ kind: "grow-file-system", pool: "p1", volume: "v1" }],
    "note no-file-system",
    true,
  ],
  [
    "a file system that fills its volume",
    files(),
    [{ kind: "grow-file-system", pool: "p1", volume: "v1" }],
    "note nothing-to-grow",
    true,
  ],
  [
    "a file system in a larger volume",
    files(),
    [grow, { kind: "grow-file-system", pool: "p1", volume: "v1" }],
    "note nothing-to-grow",
    false,
  ],
  ["a volume grown to less than it has", files(), [{ ...grow, bytes: 3e12 } as StepBody], "block not-larger", true],
  ["a volume that has all there is", files(), [grow, grow], "note nothing-to-grow", true],
  ["a volume made smaller to more than it has", files(), [shrink(4e12)], "block not-smaller", true],
  ["a volume made smaller than what it stores", files(), [shrink(1e12)], "block does-not-fit", true],
  ["a volume made a hair smaller", files(), [shrink(3.99e12)], "block not-smaller", false],
  ["XFS made smaller", files("xfs"), [shrink(3e12)], "block xfs-does-not-shrink", true],
  [
    "a box that makes nothing smaller",
    over(files(), { shrinkVolumes: false }),
    [shrink(3e12)],
    "block no-shrinking",
    true,
  ],
  ["a spare that is none", raid5, [{ kind: "remove-spare", drive: "x1" }], "block no-spare", true],
  [
    "a spare that is one",
    raid5,
    [
      { kind: "set-spare", pool: "p1", drive: "x1" },
      { kind: "remove-spare", drive: "x1" },
    ],
    "block no-spare",
    false,
  ],
  ["parity written at once synced", parity, [{ kind: "sync", pool: "p1" }], "note written-at-once", true],
  ["stripes synced", raid5, [{ kind: "sync", pool: "p1" }], "note no-parity-drives", true],
  [
    "scheduled parity synced",
    box("scheduled-parity", "parity-drive-1", [4, 4, 8]),
    [{ kind: "sync", pool: "p1" }],
    "note written-at-once",
    false,
  ],
  [
    "another box with a second pool here",
    { ...raid5, pools: [...raid5.pools, { ...raid5.pools[0]!, id: "p2", groups: [] }] },
    [backUp, { ...anew, box: { name: "N", bays: 6, rules: { set: "hybrid-box" } } } as StepBody],
    "block other-pools",
    true,
  ],
  [
    "the same box with a second pool",
    { ...raid5, pools: [...raid5.pools, { ...raid5.pools[0]!, id: "p2", groups: [] }] },
    [backUp, anew],
    "block other-pools",
    false,
  ],
])("%s", (_, plan, steps, finding, expected) => {
  const found = said(plan, ...steps);
  expect([finding, found.includes(finding), found]).toEqual([finding, expected, found]);
});

test("what is said of a pool as it is", () => {
  const codes = (plan: Plan) => predict(plan).pools[0]!.findings.map((finding) => finding.code);
  expect(codes(copies)).toContain("chunk-placement");
  expect(codes(raid5)).not.toContain("chunk-placement");
  expect(codes(box("scheduled-parity", "parity-drive-1", [4, 4, 8]))).toContain("protected-as-of-last-sync");
  expect(codes(parity)).not.toContain("protected-as-of-last-sync");
  const two: Plan = {
    ...raid5,
    pools: [
      {
        ...raid5.pools[0]!,
        groups: [...raid5.pools[0]!.groups, { id: "g2", layout: "raid1", drives: ["x1", "x2"] }],
        spares: ["x3"],
      },
    ],
  };
  expect(codes(two)).toContain("mixed-layouts");
  expect(codes(over(two, { hotSpares: "per-group" }))).toContain("spare-of-one-group");
  expect(codes(over(two, { hotSpares: "shared" }))).not.toContain("spare-of-one-group");
  expect(codes(over(two, { hotSpares: "none" }))).toContain("spares-not-offered");
});

test("room that comes after a volume is full comes too late", () => {
  const rise = { step: "s1", first: "s1", capacity: 2e12, begins: 0, there: 40, fullWithout: 10, latestBegin: -30 };
  const demand = { volume: volume(1e12).volumes![0]!, capacity: 1e12, fullWithPlan: 10, fullWithoutPlan: 10 };
  expect(lateFindings([{ ...demand, rises: [rise] }], "2026-11-23", 3).get("s1")).toEqual([
    expect.objectContaining({
      code: "too-late",
      message: expect.stringMatching(/30 days too late.*on 2026-12-03.*on 2027-01-02.*Even begun/),
    }),
  ]);
  expect(lateFindings([{ ...demand, rises: [{ ...rise, there: 10 }] }], "2026-11-23", 3).size).toBe(0);
});

test.each<[string, Partial<Plan>, string, string]>([
  [
    "a backup of what is not there",
    { backups: [{ ...small, dataSets: ["s9"] }] },
    "no-such-data-set",
    "/backups/0/dataSets/0",
  ],
  [
    "a backup on a drive that is not there",
    { backups: [{ ...small, drive: "d9" }] },
    "no-such-drive",
    "/backups/0/drive",
  ],
  [
    "a day that there is not",
    { backups: [{ ...small, lastVerified: "2027-02-29" }] },
    "no-such-day",
    "/backups/0/lastVerified",
  ],
  [
    "data on no volume",
    { dataSets: [{ id: "s1", name: "", volume: "v9", bytes: 1, worth: "useful" }] },
    "no-such-volume",
    "/dataSets/0/volume",
  ],
  [
    "a pool that lands for itself",
    { pools: [{ ...choir.pools[0]!, landsFor: "p1" }] },
    "no-such-pool",
    "/pools/0/landsFor",
  ],
  [
    "a zone that there is not",
    { calendar: calendar({ timeZone: "Moon/Base" }) },
    "no-such-time-zone",
    "/calendar/timeZone",
  ],
  [
    "hours that end before they begin",
    { calendar: calendar({ hands: [{ days: [1], from: "22:00", to: "18:00" }] }) },
    "hours-backwards",
    "/calendar/hands/0",
  ],
  [
    "days that end before they begin",
    { calendar: calendar({ excluded: [{ from: "2027-01-02", to: "2027-01-01" }] }) },
    "days-backwards",
    "/calendar/excluded/0",
  ],
])("a plan file with %s contradicts itself", (_, more, code, pointer) => {
  expect(checkPlan({ ...choir, ...more })).toMatchObject({
    kind: "impossible",
    problems: expect.arrayContaining([expect.objectContaining({ code, pointer })]),
  });
});

function calendar(more: Partial<NonNullable<Plan["calendar"]>>): NonNullable<Plan["calendar"]> {
  const hands = [{ days: [1], from: "18:00", to: "22:00" }];
  return { id: "c1", start: "2026-11-23", timeZone: "Europe/Lisbon", deliveryDays: 3, hands, excluded: [], ...more };
}

test("a plan of a newer version is not taken apart", () => {
  expect(checkPlan({ ...choir, version: 2 })).toMatchObject({ kind: "newer", problems: [{ code: "newer-version" }] });
});
