import type { Backup, Plan } from "../document/plan";
import { drivesOfTB, testDrive } from "../testing/arbitraries";
import { away, clinicPlan, DAY, images, office, TB, usb } from "../testing/dataPlan";
import { walkPlan } from "../walk/walkPlan";
import { fillingFindings } from "../schedule/backupsFilling";
import { backupFullAfter, currentBackups, troubleOf } from "./backup";
import { coverage, THREATS } from "./coverage";
import { loseBackups } from "./coverageChange";
import { outcomeWords } from "./coverageWords";
import { fullWords, growthWords, WORTH_WORDS } from "./dataWords";
import { ANY_DESTINATION, destinationOf } from "./destination";
import { bareIn, preciousFindings } from "./precious";
import { dataSetsIn } from "./stored";

const sets = [images, office];

describe("whether a backup can be counted on", () => {
  const verified = (lastVerified: string | undefined, more: Partial<Backup> = {}) => {
    const { lastVerified: _old, ...rest } = away;
    return { ...rest, ...(lastVerified ? { lastVerified } : {}), ...more };
  };
  test.each<[string, Backup, string | null, ReturnType<typeof troubleOf>]>([
    ["found whole 35 days ago", verified("2026-10-19"), DAY, null],
    ["found whole 36 days ago", verified("2026-10-18"), DAY, "verified-long-ago"],
    ["dated one day ahead, as in another time zone", verified("2026-11-24"), DAY, null],
    ["dated two days ahead, a slip of the hand", verified("2026-11-25"), DAY, "verified-long-ago"],
    ["old, where the age is not judged", verified("2020-01-01"), null, null],
    ["never found whole", verified(undefined), DAY, "never-verified"],
    ["just large enough for its own sets", verified("2026-11-01", { bytes: 9 * TB }), DAY, null],
    ["a byte too small", verified("2026-11-01", { bytes: 9 * TB - 1 }), DAY, "does-not-fit"],
  ])("%s", (_, backup, day, trouble) => expect(troubleOf(backup, { dataSets: sets }, day)).toBe(trouble));

  test("what it has to hold grows with its sets", () => {
    const exact = { ...away, bytes: 9 * TB };
    expect([troubleOf(exact, { dataSets: sets }, DAY, 0), troubleOf(exact, { dataSets: sets }, DAY, 31)]).toEqual([
      null,
      "does-not-fit",
    ]);
  });
  test("those of a set, and of no other", () => {
    const plan = clinicPlan({ backups: [away, usb] });
    expect(currentBackups(plan, office, DAY).map((backup) => backup.id)).toEqual(["b2"]);
    expect(currentBackups({}, office, DAY)).toEqual([]);
    // One on a drive that has failed holds nothing any more.
    const drives = [testDrive("d9", 4e12, { state: "failed" })];
    const onDead = { ...plan, backups: [away, usb].map((backup) => ({ ...backup, drive: "d9" })), drives };
    expect(currentBackups(onDead, office, DAY)).toEqual([]);
    expect(troubleOf(onDead.backups[0]!, onDead, DAY)).toBe("drive-gone");
  });
});

describe("what each mishap would take", () => {
  const outcomes = (plan: Plan, set = "s1") => coverage(plan, DAY).find((each) => each.dataSet === set)!.outcomes;
  test("the one with the newest copy, the one elsewhere, the one with versions: each for its own mishap", () => {
    const monthly: Backup = { ...away, id: "b3", everyDays: 30 };
    const found = outcomes(clinicPlan({ backups: [monthly, { ...usb, everyDays: 1 }, away] }));
    expect(found["two-failures"]).toMatchObject({ kind: "from-backup", backup: "b2", days: 1, share: 1 });
    expect(found["theft-or-fire"]).toEqual({ kind: "from-backup", backup: "b1", days: 7, share: 1 });
    expect(found.deletion).toEqual({ kind: "from-backup", backup: "b1", days: 7, share: 1 });
    expect(outcomes(clinicPlan({ backups: [usb] })).deletion).toEqual({
      kind: "until-next-copy",
      backup: "b2",
      days: 30,
    });
    expect(outcomes(clinicPlan())).toEqual({
      "one-failure": { kind: "kept" },
      "two-failures": { kind: "lost" },
      "theft-or-fire": { kind: "lost" },
      deletion: { kind: "lost" },
    });
    expect(Object.keys(outcomes(clinicPlan()))).toEqual([...THREATS]);
  });
  test("lost for some choices of drives only: by its share", () => {
    const drives = drivesOfTB(4, 4, 4, 4);
    const [pool] = clinicPlan().pools;
    const striped: Plan = {
      ...clinicPlan({ drives }),
      pools: [{ ...pool!, groups: [{ id: "g1", layout: "raid10", drives: drives.map((drive) => drive.id) }] }],
    };
    expect(outcomes(striped)["two-failures"]).toEqual({ kind: "partly", share: 2 / 6 });
    expect(outcomes({ ...striped, backups: [away] })["two-failures"]).toMatchObject({
      kind: "from-backup",
      share: 2 / 6,
    });
  });
  test("the whole tolerance of a pool is told, also beyond two failures", () => {
    const drives = drivesOfTB(4, 4, 4, 4, 4, 4);
    const [pool] = clinicPlan().pools;
    const plan: Plan = {
      ...clinicPlan({ drives }),
      pools: [{ ...pool!, groups: [{ id: "g1", layout: "triple-parity", drives: drives.map((drive) => drive.id) }] }],
    };
    expect(coverage(plan, DAY)[0]).toMatchObject({ tolerance: 3, outcomes: { "two-failures": { kind: "kept" } } });
  });
  test("pools without data sets have nothing to cover", () => {
    const { dataSets: _none, ...plan } = clinicPlan();
    expect(coverage(plan, DAY)).toEqual([]);
    expect([dataSetsIn(plan, "p1"), dataSetsIn(clinicPlan(), "p9")]).toEqual([[], []]);
  });
});

describe("in words", () => {
  const plan = { backups: [away] };
  test("what becomes of data", () => {
    expect(outcomeWords({ kind: "kept" }, plan)).toBe("nothing is lost");
    expect(outcomeWords({ kind: "lost" }, plan)).toBe("lost");
    expect(outcomeWords({ kind: "partly", share: 0.25 }, plan)).toBe("lost in 25 % of cases");
    expect(outcomeWords({ kind: "from-backup", backup: "b1", days: 1, share: 1 }, plan)).toBe(
      "restored from Box at home as it was up to a day earlier",
    );
    expect(outcomeWords({ kind: "from-backup", backup: "b9", days: 7, share: 0.5 }, {})).toBe(
      "in 50 % of cases lost, then restored from a backup as it was up to 7 days earlier",
    );
    expect(outcomeWords({ kind: "until-next-copy", backup: "b1", days: 30 }, plan)).toBe(
      "restored from Box at home, but only if you notice before the next backup (30 days at most)",
    );
  });
  test("how it grows, when it is full, how bad its loss would be", () => {
    expect(growthWords({}, "TB")).toBe("does not grow");
    expect(growthWords({ growth: { sharePerYear: 0.125 } }, "TB")).toBe("12.5 % a year");
    expect(growthWords({ growth: { bytesPerMonth: 220e9 } }, "TB")).toMatch(/^220(\.0)?\sGB a month$/);
    expect([null, 0, -3, 20].map((days) => fullWords(days, DAY))).toEqual([
      "not within 50 years",
      "now",
      "now",
      "13 Dec 2026",
    ]);
    expect(new Set(Object.values(WORTH_WORDS)).size).toBe(3);
  });
});

describe("where a pool is best backed up to", () => {
  const [pool] = clinicPlan().pools;
  const to = (...backups: Backup[]) => destinationOf(clinicPlan({ backups }), pool!);
  test("elsewhere before here, and only where all of it fits", () => {
    expect(to(usb, away)).toBe("b1");
    expect(to(usb)).toBe("b2");
    expect(to({ ...away, bytes: 9 * TB }, usb)).toBe("b2");
    expect(to({ ...away, bytes: 9.6 * TB })).toBe("b1");
    // What it holds besides has to fit as well.
    expect(to({ ...away, bytes: 9.6 * TB, dataSets: ["s1", "s2"] })).toBe("b1");
    expect(to({ ...away, bytes: 5 * TB })).toBe(ANY_DESTINATION);
    expect(destinationOf(clinicPlan(), pool!)).toBe(ANY_DESTINATION);
  });
});

describe("precious data before a risky step", () => {
  const step = { id: "s1", kind: "verify", pool: "p1" } as const;
  const plan = clinicPlan({ backups: [{ ...usb, dataSets: ["s2"] }] });
  test("blocks where no current backup holds it, and offers to back it up", () => {
    expect(bareIn(plan, "p1", DAY).map((set) => set.id)).toEqual(["s1"]);
    const [found, ...more] = preciousFindings(plan, step, "p1", "This rewrites it", DAY);
    expect(more).toEqual([]);
    expect(found).toMatchObject({
      code: "precious-without-backup",
      severity: "block",
      drives: [],
      message: expect.stringMatching(/^This rewrites it, and no current backup holds X-rays, which cannot/),
      mend: {
        command: { kind: "insert-steps", before: "s1", steps: [{ kind: "back-up", pool: "p1", to: "b2" }] },
      },
    });
    expect(preciousFindings(clinicPlan({ backups: [away] }), step, "p1", "", DAY)).toEqual([]);
    expect(preciousFindings(plan, step, "p9", "", DAY)).toEqual([]);
  });
  test("once lifted in writing it warns with what was said, which can be taken back", () => {
    const lifted = { on: "2026-11-20", words: "They are on film as well." };
    expect(preciousFindings(plan, { ...step, lifted }, "p1", "This rewrites it", DAY)).toEqual([
      {
        code: "lifted-in-writing",
        severity: "warn",
        drives: [],
        message: expect.stringContaining("On 2026-11-20 you wrote: “They are on film as well.”"),
        mend: { label: "Take that back", command: { kind: "edit-step", step: "s1", changes: { lifted: null } } },
      },
    ]);
  });
});

describe("backups on drives that a step erases", () => {
  const onX1: Backup = { ...usb, drive: "x1" };
  const plan = clinicPlan({ backups: [away, onX1] });
  test("are gone, by name; what has no second place any more is said", () => {
    const { plan: then, findings } = loseBackups(plan, plan, ["x1"], DAY, "TB");
    expect(then.backups).toEqual([away]);
    expect(findings).toEqual([
      {
        code: "backup-erased",
        severity: "warn",
        drives: ["x1"],
        message: expect.stringMatching(
          /^The 8\sTB drive on the shelf \(x1\) was the backup “USB drive” of X-rays and Office; that copy is erased\. Office has no second place any more: .* takes it\.$/,
        ),
      },
    ]);
    const alone = clinicPlan({ backups: [onX1] });
    const last = loseBackups(alone, alone, ["x1"], DAY, "TB");
    expect("backups" in last.plan).toBe(false);
    expect(last.findings[0]!.message).toMatch(/X-rays and Office have no second place any more: .* takes them\.$/);
  });
  test("where the drive joins the pool of its data, redundancy takes over", () => {
    const made = walkPlan(
      {
        ...plan,
        box: { ...plan.box, rules: { set: "linux-host" } },
        steps: [{ id: "s1", kind: "change-level", group: "g1", layout: "raid6", drives: ["x1"] }],
      },
      "TB",
      undefined,
      DAY,
    ).moments[1]!.walked!;
    expect(made.findings.map((each) => each.code)).toContain("backup-becomes-redundancy");
    const joined: Plan = {
      ...plan,
      pools: plan.pools.map((pool) => ({
        ...pool,
        groups: [{ ...pool.groups[0]!, drives: ["d1", "d2", "d3", "d4", "x1"] }],
      })),
    };
    const [finding] = loseBackups(plan, joined, ["x1"], DAY, "TB").findings;
    expect(finding).toMatchObject({ code: "backup-becomes-redundancy" });
    expect(finding!.message).toMatch(/one failed drive no longer costs X-rays and Office/);
  });
  test("nothing is said of others, nor of a backup that holds nothing", () => {
    expect(loseBackups(plan, plan, ["x2"], DAY, "TB")).toEqual({ plan, findings: [] });
    expect(loseBackups(clinicPlan(), clinicPlan(), ["x1"], DAY, "TB").findings).toEqual([]);
    const empty = clinicPlan({ backups: [{ ...onX1, dataSets: [] }] });
    expect(loseBackups(empty, empty, ["x1"], DAY, "TB").findings[0]!.message).toMatch(
      /was the backup “USB drive”; that copy is erased\.$/,
    );
  });
});

describe("a backup fills up, as its data grows, with the older states that it keeps", () => {
  // 9 TB and 220 GB a month: 12 TB are passed after 13.6 months, 10 TB with a fifth on top are too little today.
  const small = { ...away, bytes: 12 * TB };
  test.each<[string, Backup, number | null]>([
    ["without older states", { ...small, keepsVersions: false }, 416],
    ["with none said", small, 416],
    ["with a tenth on top", { ...small, versionsShare: 0.1 }, 265],
    ["too small today", { ...small, bytes: 10 * TB, versionsShare: 0.2 }, 0],
    ["of data that hardly grows", { ...small, dataSets: ["s2"], bytes: 99 * TB }, null],
    ["where room is no question", away, null],
  ])("%s", (_, backup, days) => expect(backupFullAfter(backup, [images, office])).toBe(days));

  test("said of the step by which it is full, and over HTTP with its day", () => {
    const wait = { kind: "verify" as const, pool: "p1", id: "s2", notBefore: "2028-02-01" };
    const plan = clinicPlan({ backups: [small], steps: [{ kind: "verify", pool: "p1", id: "s1" }, wait] });
    const walk = walkPlan(plan, "TB", undefined, DAY);
    const times = [
      { start: 0, end: 1 },
      { start: 435, end: 436 },
    ];
    expect([...fillingFindings(walk, times, DAY)]).toEqual([
      [
        "s2",
        [expect.objectContaining({ code: "backup-fills-up", message: expect.stringMatching(/^From 13 Jan 2028 on/) })],
      ],
    ]);
    expect([...fillingFindings(walk, [times[0]!, { start: 2, end: 3 }], DAY)]).toEqual([]);
  });
});
