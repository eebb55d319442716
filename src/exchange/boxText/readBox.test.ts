import "@/core/commands/recordingCommands";
import fc from "fast-check";
import { nominalBytes } from "@/core/bytes/nominalBytes";
import { MiB } from "@/core/bytes/bytes";
import { checkPlan } from "@/core/document/readPlan";
import { emptyPlan } from "@/core/document/emptyPlan";
import type { Drive, Group, LayoutId, Plan, Pool, Step, StepBody, Volume } from "@/core/document/plan";
import { bandsOfGroup, usableIfWhole } from "@/core/box/figures";
import { rulesOfBox } from "@/core/box/rulesOfBox";
import { floorTo } from "@/core/bytes/floorTo";
import type { Layout } from "@/core/layouts/layout";
import { layoutOf, layouts } from "@/core/layouts/registry";
import { differencesOf } from "@/core/reading/differences";
import { recognise } from "@/core/reading/recognise";
import { lastReading } from "@/core/reading/asRead";
import { standingOf } from "@/core/reading/standing";
import { testDrive } from "@/core/testing/arbitraries";
import { walkPlan } from "@/core/walk/walkPlan";
import { answerReadBox } from "../readBox/answerReadBox";
import { printBox, type PrintedWork } from "./printBox";
import { MOST_BOX_CHARACTERS, readBoxText } from "./readBoxText";

const AT = "2026-11-26T10:00Z";

/** Layouts that a host's own texts tell; of others they tell too little, or the host makes none of them. */
const READABLE = layouts
  .filter(
    (layout) =>
      layout.kernelLevel !== undefined ||
      layout.cutsAtSizes === true ||
      layout.liesEndToEnd === true ||
      (layout.chunked === true && layout.stripe({}).parity === 0) ||
      (layout.independent === true && layout.nominalTolerance({}) < 2 && (layout.dedicatedParity ?? 1) === 1),
  )
  .map(({ id }) => id);

const TB = [1000, 2000, 3000, 4000, 8000, 12_000];

/** What of a box is drawn at random. */
interface Drawn {
  layout: LayoutId;
  sizes: number[];
  reserve: number;
  spare: boolean;
  gone: "failed" | "missing" | null;
  share: number;
  used: boolean;
}

const hasArrays = (layout: Layout) => layout.kernelLevel !== undefined || layout.cutsAtSizes === true;

/** The drives in their bays; the second has gone where the layout bears that, and the last stands by as a spare. */
function drivesOf({ layout: id, sizes: drawn, spare, gone }: Drawn): Drive[] {
  const layout = layoutOf(id);
  // Small drives end to end along one that is large enough for all of them.
  const sizes = layout.liesEndToEnd ? [...drawn.slice(0, 2).map((size) => Math.min(size, 4000)), 12_000] : drawn;
  const bears = hasArrays(layout) && layout.nominalTolerance({}) > 0;
  const count = layout.multiple === 2 ? 4 : sizes.length;
  const drives = sizes.slice(0, count).map((size, i): Drive => {
    const drive = testDrive(`CAR-${i + 1}`, nominalBytes(size), { serial: `CAR-${i + 1}`, place: { bay: i + 1 } });
    if (i !== 1 || gone === null || !bears) return drive;
    return gone === "failed"
      ? { ...drive, state: gone }
      : { ...drive, state: gone, place: { shelf: true }, lastBay: 2 };
  });
  const largest = Math.max(...drives.map(({ bytes }) => bytes));
  const standby = testDrive("CAR-S", largest, { serial: "CAR-S", place: { bay: count + 1 } });
  return spare && bears && !layout.cutsAtSizes ? [...drives, standby] : drives;
}

function volumesOf({ share, used }: Drawn, layout: Layout, usable: number): Volume[] {
  const bytes = share === 1 ? usable : floorTo(usable * share, MiB);
  const usedBytes = floorTo(bytes / 3, MiB);
  if (layout.chunked) return [{ id: "v1", name: "logs", bytes: usable, fileSystem: "btrfs", usedBytes }];
  if (!hasArrays(layout)) return [];
  return [{ id: "v1", name: "logs", bytes, fileSystem: "ext4", ...(used ? { usedBytes } : {}) }];
}

function boxOf(drawn: Drawn): Plan {
  const layout = layoutOf(drawn.layout);
  const drives = drivesOf(drawn);
  const own = drives.filter(({ id }) => id !== "CAR-S");
  const largest = [...own].sort((a, b) => b.bytes - a.bytes)[0]?.id ?? "";
  const overrides = { systemReserveBytes: drawn.reserve, system: "on-all-drives" as const };
  const group: Group = {
    id: "g1",
    layout: drawn.layout,
    drives: own.map(({ id }) => id),
    ...(layout.chooses === "pairs" ? { options: { pairs: "as-named" } } : {}),
    ...(layout.dedicatedParity ? { options: { parityDrives: [largest] } } : {}),
  };
  const spares = drives.length > own.length ? ["CAR-S"] : [];
  const pool: Pool = { id: "p1", name: "Logs", groups: [group], spares, volumes: [] };
  const plan: Plan = {
    ...emptyPlan("Boat house"),
    box: {
      name: "Boat house",
      bays: 8,
      rules: {
        set: layout.dedicatedParity ? "scheduled-parity" : "linux-host",
        ...(drawn.reserve > 0 && hasArrays(layout) ? { overrides } : {}),
      },
    },
    drives,
    pools: [pool],
  };
  const usable = usableIfWhole(plan, pool, rulesOfBox(plan));
  return { ...plan, pools: [{ ...pool, volumes: volumesOf(drawn, layout, usable) }] };
}

/** Any box whose texts tell all of it: layout, drives of mixed sizes, spares, failed and missing ones, volumes. */
const anyBox = fc
  .record<Drawn>({
    layout: fc.constantFrom(...READABLE),
    sizes: fc.array(fc.constantFrom(...TB), { minLength: 4, maxLength: 7 }),
    reserve: fc.constantFrom(0, 0, 10 * 2 ** 30),
    spare: fc.boolean(),
    gone: fc.constantFrom(null, null, "failed" as const, "missing" as const),
    share: fc.constantFrom(1, 0.5),
    used: fc.boolean(),
  })
  .map(boxOf);

function read(plan: Plan, given: Plan | null, work: PrintedWork[] = []) {
  const texts = printBox(plan, work);
  const result = readBoxText(`${texts.blockDevices}\n${texts.arrays}`);
  if (!result.ok) throw new Error(result.message);
  return { printed: result.printed, ...recognise(result.printed, given) };
}

/** What of a plan its texts tell: who is missing is not printed. */
function told(plan: Plan) {
  const [pool] = plan.pools;
  if (!pool) throw new Error("There is no pool.");
  const stateOf = (id: string) => plan.drives.find((drive) => drive.id === id)?.state;
  const levels = (group: Group) =>
    bandsOfGroup(plan, group, rulesOfBox(plan)).map(({ scheme }) => JSON.stringify(scheme));
  return {
    groups: pool.groups.map((group) => ({
      layout: group.layout,
      bands: layoutOf(group.layout).chunked ? [] : levels(group),
      drives: group.drives.map((id) => (stateOf(id) === "missing" ? "missing" : id)),
      options: group.options ?? {},
    })),
    spares: pool.spares,
    volumes: pool.volumes.map(({ bytes, fileSystem, usedBytes, fileSystemBytes }) => ({
      bytes,
      fileSystem,
      usedBytes,
      fileSystemBytes,
    })),
    usable: usableIfWhole(plan, pool, rulesOfBox(plan)),
    failed: plan.drives.flatMap((drive) => (drive.state === "failed" ? [drive.id] : [])),
  };
}

test("every layout that can be read is tried, and which they are", () => {
  expect(READABLE.join(" ")).toBe(
    "raid1 raid10 raid5 raid6 hybrid-1 hybrid-2 parity-drive-1 copies-2 copies-3 mirror-onto-one single span raid0",
  );
});

test("what a box in any state prints is read back to that state, for every layout that can be read", () => {
  fc.assert(
    fc.property(anyBox, (plan) => {
      const { plan: made, sizes } = read(plan, null);
      const [expected, found] = [told(plan), told(made)];
      // Drives with file systems of their own have a volume each; a file system over several shows its own figure.
      if (sizes.length === 0) for (const side of [expected, found]) side.volumes = [];
      const sameLevel = (side: typeof expected) =>
        side.groups.map((group) => (group.bands.length === 1 ? { ...group, layout: null } : group));
      expect({ ...found, groups: sameLevel(found) }).toEqual({ ...expected, groups: sameLevel(expected) });
      for (const { readBytes, predictedBytes } of sizes) expect(predictedBytes).toBe(readBytes);
    }),
    { numRuns: 400 },
  );
});

test("read again with nothing changed, no box differs from its plan", () => {
  fc.assert(
    fc.property(anyBox, (plan) => {
      if (plan.pools[0]!.volumes.some((volume) => volume.fileSystem === "btrfs")) return;
      // The plan as it was read for the first time, as its owner has taken it.
      const taken = read(plan, null).plan;
      const { printed } = read(plan, null);
      const standing = standingOf(printed, taken, "TB", AT);
      expect([standing.at, standing.differences]).toEqual([0, []]);
      expect(standing.recognised.plan.pools).toEqual(taken.pools);
      expect(lastReading(standing.recognised, [], AT).arrays.every(({ group }) => group === "g1")).toBe(true);
    }),
    { numRuns: 150 },
  );
});

/** Three drives of 4 TB under single parity, one volume on all of it, and a drive on the shelf; as a box has it. */
const boathouse = (more: Partial<Drawn> = {}): Plan => {
  const plan = boxOf({
    layout: "raid5",
    sizes: [4000, 4000, 4000],
    reserve: 0,
    spare: false,
    gone: null,
    share: 1,
    used: true,
    ...more,
  });
  return { ...plan, drives: [...plan.drives, testDrive("CAR-9", nominalBytes(4000), { serial: "CAR-9" })] };
};

/** What the box in one state shows, held against the plan of another. */
function held(box: Plan, plan: Plan, work: PrintedWork[] = []) {
  const texts = printBox(box, work);
  const result = readBoxText(texts.blockDevices + texts.arrays);
  if (!result.ok) throw new Error(result.message);
  return standingOf(result.printed, plan, "TB", AT);
}
const codes = ({ differences }: ReturnType<typeof held>) => differences.map(({ code, drives }) => [code, ...drives]);
/** The first step that the press on a difference plans: whether it can be carried out, and what is said against it. */
function firstStep({ differences }: ReturnType<typeof held>, plan: Plan) {
  const command = differences[0]?.mend?.command;
  const as = command?.kind === "take-reading" ? command.as : null;
  const walked = walkPlan({ ...plan, ...as }).moments[1]?.walked;
  return [walked?.step.kind, walked?.done, walked?.findings.filter(({ severity }) => severity === "block") ?? []];
}
const withState = (plan: Plan, id: string, changes: Partial<Drive>): Plan => ({
  ...plan,
  drives: plan.drives.map((drive) => (drive.id === id ? { ...drive, ...changes } : drive)),
});
const withGroup = (plan: Plan, changes: Partial<Group>): Plan => ({
  ...plan,
  pools: plan.pools.map((pool) => ({ ...pool, groups: pool.groups.map((group) => ({ ...group, ...changes })) })),
});
const withVolume = (plan: Plan, changes: Partial<Volume>): Plan => ({
  ...plan,
  pools: plan.pools.map((pool) => ({ ...pool, volumes: pool.volumes.map((volume) => ({ ...volume, ...changes })) })),
});

describe("what differs between a box and its plan, with where it leads", () => {
  const plan = boathouse();

  test("as planned; also a hybrid of one band, which prints as an array like any other", () => {
    const hybrid = boathouse({ layout: "hybrid-1" });
    expect([codes(held(plan, plan)), codes(held(hybrid, hybrid))]).toEqual([[], []]);
  });

  test("drives of which the plan does not know the serials yet are known by their sizes, and get them", () => {
    const nameless = {
      ...plan,
      drives: plan.drives.map(({ serial: _serial, ...drive }, i) => ({ ...drive, id: `d${i}` })),
    };
    const unknown = withGroup(nameless, { drives: ["d0", "d1", "d2"] });
    const standing = held(plan, unknown);
    expect(codes(standing)).toEqual([]);
    expect(standing.recognised.plan.drives.map(({ serial }) => serial)).toEqual(["CAR-1", "CAR-2", "CAR-3", undefined]);
  });

  test("a drive of no pool that is not listed is missing too, where the plan is set to how the box is", () => {
    const idle = withState(plan, "CAR-9", { place: { bay: 6 } });
    const standing = held(plan, idle);
    expect(codes(standing)).toEqual([["drive-missing", "CAR-9"]]);
    expect(standing.differences[0]?.leadsToRescue).toBeUndefined();
    expect(standing.recognised.plan.drives.at(-1)).toMatchObject({ id: "CAR-9", state: "missing", lastBay: 6 });
  });

  test("a drive that is not listed: drive-missing, which can be said at a press and leads to what to do", () => {
    const standing = held(withState(plan, "CAR-2", { state: "missing", place: { shelf: true } }), plan);
    expect(codes(standing)).toEqual([["drive-missing", "CAR-2"]]);
    expect(standing.differences[0]).toMatchObject({
      mend: { command: { kind: "set-drive-state", drives: ["CAR-2"], state: "missing", since: AT } },
      leadsToRescue: true,
    });
  });

  test("a drive that was thrown out and is still there: array-degraded, and no drive-missing", () => {
    const standing = held(withState(plan, "CAR-2", { state: "failed" }), plan);
    expect(codes(standing)).toEqual([["array-degraded", "CAR-2"]]);
    expect(standing.differences[0]?.mend?.command).toMatchObject({ kind: "set-drive-state", state: "failed" });
    // What the plan knows already is no difference.
    expect(
      codes(held(withState(plan, "CAR-2", { state: "failed" }), withState(plan, "CAR-2", { state: "failed" }))),
    ).toEqual([]);
  });

  test("a drive that the plan takes to be gone and that works again: said, and taken over", () => {
    const missing = withState(plan, "CAR-2", {
      state: "missing",
      place: { shelf: true },
      lastBay: 2,
      since: "2026-11-20",
    });
    const standing = held(plan, missing);
    expect(codes(standing)).toEqual([["drive-unknown", "CAR-2"]]);
    expect(standing.differences[0]?.mend?.command).toEqual({
      kind: "set-drive-state",
      drives: ["CAR-2"],
      state: null,
      since: expect.any(String),
    });
    expect(standing.recognised.plan.drives).toEqual(plan.drives);
  });

  test("a drive that the plan takes to be dead and that is not even listed stays as it is", () => {
    const dead = withState(plan, "CAR-2", { state: "failed", since: "2026-11-20" });
    const standing = held(withState(plan, "CAR-2", { state: "missing", place: { shelf: true } }), dead);
    expect([codes(standing), standing.recognised.plan.drives]).toEqual([[], dead.drives]);
    // Listed, and in no array: that alone does not say that it works.
    const idle = withState(plan, "CAR-9", { state: "failed", place: { bay: 6 } });
    const listed = held(withState(plan, "CAR-9", { place: { bay: 6 } }), idle);
    expect([codes(listed), listed.recognised.plan.drives.at(-1)?.state]).toEqual([[], "failed"]);
  });

  test("one that is back finds its bay taken: it gets another", () => {
    const missing = withState(plan, "CAR-2", { state: "missing", place: { shelf: true }, lastBay: 2 });
    const moved = withState(missing, "CAR-9", { place: { bay: 2 } });
    const box = withState(withState(plan, "CAR-9", { place: { bay: 2 } }), "CAR-2", { place: { bay: 5 } });
    const { drives } = held(box, moved).recognised.plan;
    expect(new Set(drives.map(({ place }) => JSON.stringify(place))).size).toBe(drives.length);
  });

  test("another drive in the place of one: other-serial, of both", () => {
    const box = withGroup(
      {
        ...withState(plan, "CAR-2", { place: { shelf: true } }),
        drives: [
          ...withState(plan, "CAR-2", { place: { shelf: true } }).drives,
          testDrive("CAR-7", nominalBytes(4000), { serial: "CAR-7", place: { bay: 2 } }),
        ],
      },
      { drives: ["CAR-1", "CAR-7", "CAR-3"] },
    );
    expect(codes(held(box, plan))[0]).toEqual(["other-serial", "CAR-2", "CAR-7"]);
  });

  test("a drive that the plan does not have: drive-unknown, which is added at a press", () => {
    const box = {
      ...plan,
      drives: [...plan.drives, testDrive("CAR-7", nominalBytes(8000), { serial: "CAR-7", place: { bay: 5 } })],
    };
    const standing = held(box, plan);
    expect(codes(standing)).toEqual([["drive-unknown", "CAR-7"]]);
    expect(standing.differences[0]?.mend?.command).toMatchObject({ kind: "add-drives", drives: [{ serial: "CAR-7" }] });
  });

  test("a rebuild: array-running, with how much of the plan's step is left, and between what", () => {
    const failed = withState(plan, "CAR-2", { state: "failed" });
    const rebuild: StepBody = { kind: "rebuild", group: "g1", drive: "CAR-2", by: "CAR-9" };
    const planned: Plan = { ...withState(failed, "CAR-9", { place: { bay: 4 } }), steps: [{ ...rebuild, id: "s1" }] };
    const work: PrintedWork = {
      group: "g1",
      kind: "recovery",
      done: 0.25,
      minutesLeft: 300,
      by: "CAR-9",
      drive: "CAR-2",
    };
    const standing = held(planned, planned, [work]);
    expect(codes(standing)).toEqual([["array-running", "CAR-9"]]);
    expect(standing.differences[0]?.message).toContain(
      "the rebuild is 25.0\u00a0% done and ends in about 5 hours, by the kernel",
    );
    const whole = walkPlan(planned).moments[1]!.walked!.cost.hours;
    expect(standing.running?.step.id).toBe("s1");
    expect(standing.running?.left.expected).toBe(5);
    expect(standing.running?.left.low).toBeCloseTo(Math.min(5, whole.low * 0.75), 3);
    expect(standing.running?.left.high).toBeCloseTo(Math.max(5, whole.high * 0.75), 3);
    // A rebuild that no step speaks of becomes one, at the beginning, where the plan is set to how the box is.
    const unplanned = held(planned, { ...planned, steps: [] }, [work]);
    expect(unplanned.recognised.plan.steps).toEqual([{ ...rebuild, id: expect.any(String) }]);
  });

  test("larger drives of which the array does not know: not-claimed, unless the plan has it so", () => {
    const large = withState(
      withState(withState(plan, "CAR-1", { bytes: nominalBytes(8000) }), "CAR-2", { bytes: nominalBytes(8000) }),
      "CAR-3",
      { bytes: nominalBytes(8000) },
    );
    const kept = [{ from: 0, offset: 135_266_304, chunk: 524_288, used: 4_000_651_411_456 }];
    const box = withGroup(large, { kept });
    const standing = held(box, large);
    expect(codes(standing)[0]).toEqual(["not-claimed", "CAR-1", "CAR-2", "CAR-3"]);
    expect(firstStep(standing, large)).toEqual(["claim-space", true, []]);
    expect(codes(held(box, box))).toEqual([]);
  });

  test("a file system smaller than its volume: not-grown, unless the plan has it so", () => {
    const box = withVolume(plan, { fileSystemBytes: 4e12 });
    const standing = held(box, plan);
    expect(codes(standing)).toEqual([["not-grown"]]);
    expect(firstStep(standing, plan)).toEqual(["grow-file-system", true, []]);
    expect(codes(held(box, box))).toEqual([]);
  });

  test("a volume that is not printed stays where the plan says what is stored on it", () => {
    const dataSets = [{ id: "s1", name: "Logs of the races", volume: "v1", bytes: 1e12, worth: "precious" as const }];
    const bare = { ...plan, pools: plan.pools.map((pool) => ({ ...pool, volumes: [] })) };
    const { recognised } = held(bare, { ...plan, dataSets });
    expect(recognised.plan.pools[0]?.volumes.map(({ id }) => id)).toEqual(["v1"]);
    expect(held(bare, plan).recognised.plan.pools[0]?.volumes).toEqual([]);
    expect(checkPlan(recognised.plan)).toMatchObject({ ok: true });
  });

  test("another level: level-differs; another size: size-differs", () => {
    const six = boathouse({ layout: "raid6", sizes: [4000, 4000, 4000, 4000] });
    const five = withGroup(six, { layout: "raid5" });
    expect(codes(held(six, five))[0]).toEqual(["level-differs", "CAR-1", "CAR-2", "CAR-3", "CAR-4"]);
    const smaller = withGroup(plan, {
      kept: [{ from: 0, offset: 135_266_304, chunk: 524_288, used: 4_000_651_411_456 - 524_288 }],
    });
    // It could be larger by a chunk: the same code as for any space that is not in use.
    expect(codes(held(smaller, plan))[0]?.[0]).toBe("not-claimed");
    const larger = withGroup(plan, {
      kept: [{ from: 0, offset: 136_314_880, chunk: 524_288, used: 3_999_000_000_512 }],
    });
    expect(codes(held(plan, larger))[0]?.[0]).toBe("size-differs");
  });

  test("a box that has some steps behind it is held against the moment after them", () => {
    const steps: Step[] = [
      { id: "s1", kind: "widen-group", group: "g1", drives: ["CAR-9"] },
      { id: "s2", kind: "verify", pool: "p1" },
    ];
    const planned: Plan = { ...plan, steps };
    const after = walkPlan(planned).moments[1]!.state.plan;
    expect(held(after, planned).at).toBe(1);
    expect(codes(held(after, planned))).toEqual([]);
    expect(held(plan, planned).at).toBe(0);
    // As much differs after a check as before it: then the plan is where it was.
    const checked: Plan = { ...plan, steps: [{ id: "s2", kind: "verify", pool: "p1" }] };
    expect(held(withState(plan, "CAR-2", { state: "failed" }), checked).at).toBe(0);
    // Half-way: the kernel prints four drives and the old size.
    expect(held(after, planned).recognised.plan.steps.map(({ id }) => id)).toEqual(["s2"]);
  });

  test("without a plan, what is not as it should be by itself", () => {
    const texts = printBox(withVolume(withState(plan, "CAR-2", { state: "failed" }), { fileSystemBytes: 4e12 }));
    const result = readBoxText(texts.blockDevices + texts.arrays);
    if (!result.ok) throw new Error(result.message);
    expect(differencesOf(recognise(result.printed, null), null, "TB", AT).map(({ code }) => code)).toEqual([
      "array-degraded",
      "not-grown",
    ]);
  });
});

describe("what is no such text, or cut off", () => {
  const texts = printBox(boathouse());
  const message = (text: string) => {
    const result = readBoxText(text);
    return result.ok ? null : result.message;
  };

  test("each gets a sentence", () => {
    expect(message("")).toMatch(/^There is nothing in it/);
    expect(message(texts.arrays)).toMatch(/without the list of devices/);
    expect(message(texts.blockDevices.slice(0, -40))).toMatch(/ends in its middle/);
    expect(message(texts.blockDevices.replace('"size"', '"size": {}, "x"'))).toMatch(/not what lsblk prints/);
    expect(message("x".repeat(MOST_BOX_CHARACTERS + 1))).toMatch(/more than 8 MB/);
    expect(message(`${texts.blockDevices}${texts.blockDevices}`)).toBeNull();
  });

  test("cut anywhere, spoilt anywhere, or nothing but brackets, it never throws and never hangs", () => {
    const both = `${texts.blockDevices}\n${texts.arrays}`;
    const spoilt = fc.tuple(fc.nat(both.length), fc.nat(40), fc.string({ maxLength: 12 }));
    fc.assert(
      fc.property(spoilt, ([at, gone, put]) => {
        const result = readBoxText(both.slice(0, at) + put + both.slice(at + gone));
        if (result.ok) recognise(result.printed, boathouse());
      }),
      { numRuns: 300 },
    );
    for (const nasty of [
      '{"blockdevices":'.repeat(200_000),
      "[".repeat(1e6),
      `md0 : active raid5 ${"a".repeat(90_000)}[`,
      "md0 : active ".repeat(1e5),
    ]) {
      const begun = performance.now();
      message(nasty);
      expect(performance.now() - begun).toBeLessThan(2000);
    }
  });
});

test("over HTTP: the plan, what differs, and what is wrong with a request", () => {
  const plan = boathouse();
  const texts = printBox(withState(plan, "CAR-2", { state: "missing", place: { shelf: true } }));
  const ask = (body: unknown) => {
    const { status, body: bytes } = answerReadBox(typeof body === "string" ? body : JSON.stringify(body), AT);
    return { status, answer: JSON.parse(new TextDecoder().decode(bytes)) };
  };
  const { status, answer } = ask({ ...texts, plan });
  expect([status, answer.differences.map(({ code }: { code: string }) => code), answer.stepsDone]).toEqual([
    200,
    ["drive-missing"],
    0,
  ]);
  expect(answer.plan.lastReading).toMatchObject({ at: AT, arrays: [{ name: "md0", group: "g1", lacks: 1 }] });
  expect(answer.plan.drives.map(({ id, state }: Drive) => [id, state])).toEqual([
    ["CAR-1", undefined],
    ["CAR-2", "missing"],
    ["CAR-3", undefined],
    ["CAR-9", undefined],
  ]);
  expect(ask({ ...printBox(plan) }).answer.sizes).toMatchObject([{ array: "md0", group: "g1" }]);
  const pointers = (body: unknown) => [
    ask(body).status,
    (ask(body).answer.errors ?? []).map(({ pointer }: { pointer: string }) => pointer),
  ];
  expect(pointers("{")).toEqual([400, [""]]);
  expect(pointers({ arrays: 3, strange: 1 })).toEqual([400, ["/arrays", "/blockDevices", "/strange"]]);
  expect(pointers({ ...texts, plan: { ...plan, version: 1, drives: 3 } })).toEqual([400, ["/plan/drives"]]);
  expect(ask({ blockDevices: "nothing" }).status).toBe(422);
  expect(ask({ ...texts, plan: { ...plan, pools: [...plan.pools, ...plan.pools] } }).status).toBe(422);
  expect(ask({ blockDevices: "x".repeat(MOST_BOX_CHARACTERS + 1) }).status).toBe(413);
});
