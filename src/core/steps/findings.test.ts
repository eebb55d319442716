import { readFileSync } from "node:fs";
import type { Backup, FileSystem, LayoutId, Plan, Pool, RuleSetId, StepBody } from "../document/plan";
import { checkPlan } from "../document/readPlan";
import { choir } from "../document/samples/choir";
import { predict } from "../prediction/predict";
import { lateFindings } from "../schedule/demand";
import { numbered } from "../testing/anySteps";
import { testDrive } from "../testing/arbitraries";
import { boxWith, withDrive, withRules } from "../testing/boxWith";
import { away } from "../testing/dataPlan";
import { walkPlan } from "../walk/walkPlan";

// What stands against a step, and what is said beside it: of which drives, in which words, and how it is mended.

const volume = (bytes: number, more: Partial<Pool["volumes"][number]> = {}): Partial<Pool> => ({
  volumes: [{ id: "v1", name: "V", bytes, fileSystem: "ext4", ...more }],
});
const box = (set: RuleSetId, layout: LayoutId, sizes: number[], shelf: number[] = [], more: Partial<Pool> = {}) =>
  boxWith(set, layout, sizes, shelf, more);
const files = (fileSystem: FileSystem = "ext4") =>
  box("linux-host", "raid5", [4, 4, 4], [4, 8], volume(4e12, { fileSystem, usedBytes: 1e12 }));
const small: Backup = { ...away, name: "B", place: "here", dataSets: [] };
const full = (plan: Plan): Plan => ({ ...plan, box: { ...plan.box, bays: plan.pools[0]!.groups[0]!.drives.length } });
const raid5 = box("linux-host", "raid5", [4, 4, 4], [4, 4, 8, 3]);
const parity = box("parity-drive", "parity-drive-1", [4, 4, 8], [8, 12, 4, 3]);
const copies = box("chunk-copies", "copies-2", [4, 4], [4], volume(3e12, { fileSystem: "btrfs", usedBytes: 1e12 }));
const mirror = box("linux-host", "raid1", [4, 4], [4, 4, 3], volume(4e12, { usedBytes: 1e12 }));
const held = (plan: Plan): Plan => ({
  ...plan,
  drives: [
    ...plan.drives,
    testDrive("h1", 4_000_787_030_016, { contents: { kind: "data" } }),
    testDrive("h2", 4_000_787_030_016, { contents: { kind: "system" } }),
  ],
});
const BOXES: Record<string, Plan> = {
  raid5,
  parity,
  copies,
  mirror,
  files: files(),
  "files without": files("none"),
  "files xfs": files("xfs"),
  "files, backup small": { ...files(), backups: [{ ...small, bytes: 1e11 }] },
  "files, backup large": { ...files(), backups: [{ ...small, bytes: 1e12 }] },
  "not known": box("linux-host", "raid5", [4, 4, 4], [], volume(1e12)),
  "mirror of three": box("linux-host", "raid1", [4, 4, 4], []),
  "claims each": withRules(raid5, { claiming: "per-drive" }),
  "claims itself": withRules(raid5, { claiming: "by-itself" }),
  "nearly full": box("chunk-copies", "copies-2", [4, 4, 4], [], volume(5.9e12)),
  "full chunks": box("chunk-copies", "copies-2", [4, 4, 4], [], volume(5.9e12, { usedBytes: 5.9e12 })),
  "three copies": box("chunk-copies", "copies-2", [4, 4, 4], [], volume(3e12, { usedBytes: 1e12 })),
  raid6: box("linux-host", "raid6", [4, 4, 4, 4], [4], volume(7e12, { usedBytes: 7e12 })),
  scheduled: box("scheduled-parity", "parity-drive-1", [4, 4, 8]),
  "no shrinking": withRules(files(), { shrinkVolumes: false }),
  "second pool": { ...raid5, pools: [...raid5.pools, { ...raid5.pools[0]!, id: "p2", groups: [] }] },
  "no bay": full(raid5),
  "one bay": { ...raid5, box: { ...raid5.box, bays: 4 } },
  "no bay, parity": full(parity),
  stripe: box("linux-host", "raid0", [4, 4], [4, 3]),
  "unequal stripe": box("linux-host", "raid0", [4, 8], [8]),
  classic: box("classic-raid", "raid5", [4, 4, 4], [4, 8, 4_000_787_030_000], volume(8e12)),
  "classic mirror": box("classic-raid", "raid1", [4, 4], [4, 4]),
  fixed: box("fixed-group", "raid5", [4, 4, 4], [4, 4]),
  "fixed mirror": box("fixed-group", "raid1", [4, 4], [4]),
  "parity full": box("parity-drive", "parity-drive-1", [4, 4], [4], volume(3e12, { usedBytes: 2e12 })),
  hybrid: box("hybrid-box", "hybrid-1", [4, 4, 8], [4, 8, 12]),
  suspect: withDrive(withDrive(raid5, "x1", { health: { state: "failing" } }), "x2", {
    shingled: true,
    medium: "hdd",
    contents: { kind: "data" },
  }),
  mixed: withDrive(withDrive(box("classic-raid", "raid5", [4, 4, 4], [4, 4]), "x1", { medium: "ssd" }), "x2", {
    logicalSector: 4096,
  }),
  holders: held(box("linux-host", "raid5", [4, 4, 4], [4, 3])),
  separate: box("linux-host", "single", [4, 4], [8, 4], volume(8e12)),
  spared: box("linux-host", "raid5", [4, 4, 4], [4, 3], { spares: ["x1"] }),
  "no spares": withRules(raid5, { hotSpares: "none" }),
  "spare per group": withRules(raid5, { hotSpares: "per-group" }),
  chunks5: box("chunk-copies", "chunk-parity", [4, 4, 4], [4], volume(1e12, { usedBytes: 1e11 })),
  "one raid1": box("classic-raid", "raid1", [4, 4], [4, 8], volume(1e12)),
  desktop: box("desktop-mirror", "raid1", [4, 4], [4]),
  "chunk pair": box("chunk-copies", "copies-2", [4, 4]),
  "chunks stored": box("chunk-copies", "copies-2", [4, 4, 4], [], volume(5.9e12, { usedBytes: 5.5e12 })),
  "striped mirrors": box("classic-raid", "raid10", [4, 4, 4, 4], [4]),
  "no pool": { ...raid5, pools: [] },
};

const without = (plan: Plan, ...ids: string[]): Plan =>
  ids.reduce((then, id) => withDrive(then, id, { state: "failed" }), plan);
const paused: Partial<Pool> = { paritySchedule: { everyHours: 24, paused: true } };
Object.assign(BOXES, {
  "raid5 without d1": without(raid5, "d1"),
  "raid5 without d1, d2": without(files(), "d1", "d2"),
  "raid6 without d1": without(BOXES.raid6!, "d1"),
  "mirror, d2 missing": withDrive(mirror, "d2", { state: "missing", place: { shelf: true }, lastBay: 2 }),
  "mixed without d1": without(BOXES.mixed!, "d1"),
  "full, d3 gone": withDrive(BOXES["no bay"]!, "d3", { state: "missing", place: { shelf: true } }),
  "parity without d1": without(parity, "d1"),
  "scheduled without d1": without(box("scheduled-parity", "parity-drive-1", [4, 4, 8], [4, 12, 2, 8], paused), "d1"),
  "scheduled running": without(box("scheduled-parity", "parity-drive-1", [4, 4, 8], [4]), "d1"),
  "scheduled without d3": without(box("scheduled-parity", "parity-drive-1", [4, 4, 8], [4, 8], paused), "d3"),
  "scheduled without two": without(box("scheduled-parity", "parity-drive-1", [4, 4, 8], [4], paused), "d1", "d2"),
  "separate without d2": { ...without(box("linux-host", "single", [4, 4], [4]), "d2"), backups: [small] },
  "stripe without d1": {
    ...without(box("linux-host", "raid0", [4, 4], [4], volume(6e12, { usedBytes: 1e12 })), "d1"),
    dataSets: [{ id: "s1", name: "Letters", volume: "v1", bytes: 1e12, worth: "precious" as const }],
    backups: [small],
  },
  "copies without d1": without(copies, "d1"),
});

/** The last of some steps on a box, and every finding of it: how weighty, its code, its drives, its words, its mend. */
const SAID = readFileSync("src/core/steps/findings.txt", "utf8");
const CASES = SAID.trim()
  .split(/\n(?=\S)/)
  .map((paragraph) => {
    const [first = "", ...expected] = paragraph.split("\n");
    const at = first.indexOf(": [");
    return [first.slice(0, at), JSON.parse(first.slice(at + 2)) as StepBody[], expected] as const;
  });

test.each(CASES)("on %s: %j", (name, steps, expected) => {
  const { findings } = walkPlan(numbered(BOXES[name]!, steps)).moments.at(-1)!.walked!;
  // That a drive joins without a test is said of most: only where nothing else is.
  const others = findings.filter(({ code }) => code !== "not-tested");
  const said = (others.length > 0 ? others : findings).map(
    ({ severity, code, drives, message, mend }) =>
      `  ${severity} ${code} [${drives.join()}] ${message}${mend ? ` > ${JSON.stringify(mend)}` : ""}`,
  );
  expect(said.map((line) => line.replaceAll("\u00a0", " "))).toEqual(expected);
});

test("what is said of a pool as it is", () => {
  const codes = (plan: Plan) => predict(plan).pools[0]!.findings.map((finding) => finding.code);
  expect(codes(copies)).toContain("chunk-placement");
  expect(codes(raid5)).not.toContain("chunk-placement");
  expect(codes(box("scheduled-parity", "parity-drive-1", [4, 4, 8]))).toContain("protected-as-of-last-update");
  expect(codes(parity)).not.toContain("protected-as-of-last-update");
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
  expect(codes(withRules(two, { hotSpares: "per-group" }))).toContain("spare-of-one-group");
  expect(codes(withRules(two, { hotSpares: "shared" }))).not.toContain("spare-of-one-group");
  expect(codes(withRules(two, { hotSpares: "none" }))).toContain("spares-not-offered");
});

test("room that comes after a volume is full comes too late", () => {
  const rise = { step: "s1", first: "s1", capacity: 2e12, begins: 0, there: 40, fullWithout: 10, latestBegin: -30 };
  const demand = { volume: volume(1e12).volumes![0]!, capacity: 1e12, fullWithPlan: 10, fullWithoutPlan: 10 };
  expect(lateFindings([{ ...demand, rises: [rise] }], "2026-11-23", 3).get("s1")).toEqual([
    expect.objectContaining({
      code: "too-late",
      message: expect.stringMatching(/on 2 Jan 2027, 30 days after V reaches its reserve \(3 Dec 2026\).*Even begun/),
    }),
  ]);
  expect(lateFindings([{ ...demand, rises: [{ ...rise, there: 10 }] }], "2026-11-23", 3).size).toBe(0);
});

test.each<[Partial<Plan>, string, string]>([
  [{ backups: [{ ...small, dataSets: ["s9"] }] }, "no-such-data-set", "/backups/0/dataSets/0"],
  [{ backups: [{ ...small, drive: "d9" }] }, "no-such-drive", "/backups/0/drive"],
  [{ backups: [{ ...small, lastVerified: "2027-02-29" }] }, "no-such-day", "/backups/0/lastVerified"],
  [
    { dataSets: [{ id: "s1", name: "", volume: "v9", bytes: 1, worth: "useful" }] },
    "no-such-volume",
    "/dataSets/0/volume",
  ],
  [{ pools: [{ ...choir.pools[0]!, landsFor: "p1" }] }, "no-such-pool", "/pools/0/landsFor"],
  [
    { calendar: calendar({ hands: [{ days: [6], from: "10:00", to: "10:44" }] }) },
    "hours-too-short",
    "/calendar/hands/0",
  ],
  [{ calendar: calendar({ timeZone: "Moon/Base" }) }, "no-such-time-zone", "/calendar/timeZone"],
  [
    { calendar: calendar({ hands: [{ days: [1], from: "22:00", to: "18:00" }] }) },
    "hours-backwards",
    "/calendar/hands/0",
  ],
  [
    { calendar: calendar({ excluded: [{ from: "2027-01-02", to: "2027-01-01" }] }) },
    "days-backwards",
    "/calendar/excluded/0",
  ],
])("a plan file with %j contradicts itself: %s", (more, code, pointer) => {
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
