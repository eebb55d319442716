import { create } from "../testing/stepsInShort";
import { coverage } from "../data/coverage";
import { outcomeWords } from "../data/coverageWords";
import type { DataSet, Plan, StepBody } from "../document/plan";
import { checkPlan } from "../document/readPlan";
import { DAY } from "../testing/dataPlan";
import { numbered } from "../testing/anySteps";
import { boxWith, withDrive } from "../testing/boxWith";
import { walkPlan } from "../walk/walkPlan";

/** Two drives of 1 TB that are filled by their file systems, and one of 2 TB, which is 10 838 016 B short of both. */
const SHORT = 10_838_016;
const MiB = 2 ** 20;
const set = (id: string, drive: string, bytes: number, worth: DataSet["worth"] = "useful"): DataSet => ({
  id,
  name: id,
  drive,
  bytes,
  worth,
});
const holding = (plan: Plan, id: string) => withDrive(plan, id, { label: id, contents: { kind: "data" } });
const small: Plan = {
  ...holding(holding(boxWith("linux-host", "raid1", [1, 1], [2]), "d1"), "d2"),
  pools: [],
  dataSets: [set("photos", "d1", 9e11, "precious"), set("music", "d2", 6e11)],
};
const mirror: StepBody = {
  kind: "mirror-drive",
  pool: "p1",
  group: "g1",
  name: "M",
  drive: "d1",
  by: "x1",
  also: ["d2"],
};
const walk = (plan: Plan, ...steps: StepBody[]) => walkPlan(numbered(plan, steps), "TB", undefined, DAY);
const last = (plan: Plan, ...steps: StepBody[]) => walk(plan, ...steps).moments.at(-1)!;

describe("two small drives mirrored onto a large one", () => {
  const refused = last(small, mirror).walked!.findings.find(({ code }) => code === "too-small")!;
  const command = refused.mend!.command;
  const shrink = command.kind === "insert-steps" ? command.steps[0]! : null;

  test("it is said to the byte what is missing; the file system with most room gives it up in whole MiB", () => {
    expect(refused.message.replaceAll(/[\u202f\u00a0]/g, " ")).toMatch(
      /too small by 10 838 016 B for what it is to mirror/,
    );
    const [, freest] = small.drives;
    const bytes = Math.floor((freest!.bytes - SHORT) / MiB) * MiB;
    expect(shrink).toEqual({ kind: "shrink-file-system", drive: "d2", bytes });
    expect(refused.mend!.label).toMatch(/^Shrink the file system of the 1.TB drive in bay 2/);
  });

  test("a box that keeps a part of each drive for itself leaves volumes that fit into the mirror", () => {
    const rules = { ...small.box.rules, overrides: { systemReserveBytes: 1e9 } };
    const kept = last({ ...small, box: { ...small.box, rules } }, shrink!, mirror);
    const volumes = kept.state.plan.pools[0]!.volumes.map(({ bytes }) => bytes);
    const shrunk = shrink!.kind === "shrink-file-system" ? shrink!.bytes : 0;
    expect(volumes).toEqual(
      [Math.floor((small.drives[0]!.bytes - 1e9) / MiB) * MiB, Math.min(shrunk, small.drives[1]!.bytes - 1e9)].map(
        (most) => Math.floor(most / MiB) * MiB,
      ),
    );
    expect(kept.capacities.pool).toBe(volumes[0]! + volumes[1]!);
  });

  test("after it the mirror is made of all of both, without an array's metadata, each with its own volume", () => {
    const { walked, state } = last(small, shrink!, mirror);
    expect(walked!.findings.filter(({ severity }) => severity === "block")).toEqual([]);
    const [pool] = state.plan.pools;
    expect(pool!.groups[0]!.reach).toEqual({ d2: shrink!.kind === "shrink-file-system" ? shrink!.bytes : 0 });
    expect(pool!.volumes.map(({ name, usedBytes }) => [name, usedBytes])).toEqual([
      ["d1", 9e11],
      ["d2", 6e11],
    ]);
    expect(state.plan.dataSets!.map(({ drive, volume }) => [drive, volume])).toEqual([
      [undefined, "v1"],
      [undefined, "v2"],
    ]);
    const volumes = pool!.volumes.reduce((sum, { bytes }) => sum + bytes, 0);
    expect(last(small, shrink!, mirror).capacities.pool).toBe(volumes);
    expect(checkPlan(structuredClone({ ...state.plan, steps: [] })).ok).toBe(true);
  });

  test("what one failed drive takes is seen before and after", () => {
    const words = (plan: Plan) =>
      coverage(plan, DAY).map(({ dataSet, outcomes }) => [dataSet, outcomeWords(outcomes["one-failure"], plan)]);
    expect(words(small)).toEqual([
      ["photos", "lost"],
      ["music", "lost"],
    ]);
    expect(words(last(small, shrink!, mirror).state.plan)).toEqual([
      ["photos", "nothing is lost"],
      ["music", "nothing is lost"],
    ]);
  });

  test("what is known to be stored must stay in; nobody's terabyte is taken for free", () => {
    const full = {
      ...small,
      dataSets: [set("photos", "d1", 1_000_204_000_000), set("music", "d2", 1_000_204_000_000)],
    };
    expect(last(full, mirror).walked!.findings.find(({ code }) => code === "too-small")!.mend).toBeUndefined();
    const cut: StepBody = { kind: "shrink-file-system", drive: "d1", bytes: 8e11 };
    expect(last(small, cut).walked!.findings.map(({ code }) => code)).toEqual(["does-not-fit"]);
    expect(last(small, { ...cut, bytes: 95e10 }).state.plan.drives[0]!.fileSystemBytes).toBe(95e10);
  });
});

test("a drive of a pool of separate drives shrinks with the volume that is its own", () => {
  const volumes = ["v1", "v2"].map((id) => ({
    id,
    name: id,
    bytes: 1e12,
    fileSystem: "ext4" as const,
    usedBytes: 4e11,
  }));
  const pool = boxWith("linux-host", "single", [1, 1], [2], { volumes });
  const { state, walked } = last(pool, { kind: "shrink-file-system", drive: "d2", bytes: 5e11 });
  expect([walked!.cost.online, state.plan.pools[0]!.volumes.map(({ bytes }) => bytes)]).toEqual([
    "offline",
    [1e12, 5e11],
  ]);
});

describe("precious data on a drive that is erased", () => {
  const made = create("raid1", "d1", "x1");
  test("is a block without a backup, which the owner can lift in writing; then it is lost here", () => {
    const blocked = last(small, made).walked!;
    expect([blocked.done, blocked.findings[0]!.code]).toEqual([false, "precious-without-backup"]);
    const lifted = { ...made, lifted: { on: DAY, words: "Copied." } } as StepBody;
    const { state, walked } = last(small, lifted);
    expect([
      walked!.done,
      coverage(state.plan, DAY).find(({ dataSet }) => dataSet === "photos")!.outcomes.deletion,
    ]).toEqual([true, { kind: "lost" }]);
  });
  test("what can be had again is only warned of", () =>
    expect(last({ ...small, dataSets: [set("music", "d1", 1e11)] }, made).walked!.done).toBe(true));
});

test("a data set names a volume or a drive, one of the two, that is there", () => {
  const problems = (changes: Partial<DataSet>) => {
    const result = checkPlan({ ...structuredClone(small), dataSets: [{ ...set("s", "d1", 1), ...changes }] });
    return result.ok ? [] : result.problems.map(({ code }) => code);
  };
  expect([problems({}), problems({ drive: "gone" }), problems({ volume: "v1" })]).toEqual([
    [],
    ["no-such-drive"],
    ["no-one-place"],
  ]);
});
