import "../commands/rehearsalCommands";
import { conditionOf } from "../box/condition";
import { rulesOfBox } from "../box/rulesOfBox";
import { applyCommand } from "../commands/applyCommand";
import { coveredClinic } from "../document/samples/coveredClinic";
import type { DataSet, Plan, Step } from "../document/plan";
import { checkPlan } from "../document/readPlan";
import { away, clinicPlan, DAY, office, usb } from "../testing/dataPlan";
import { Dice } from "../testing/likelyPlan";
import { type Reached, steeredWalk } from "../testing/steeredPlan";
import type { Walk } from "../walk/moment";
import { walkPlan } from "../walk/walkPlan";
import { adviceFor } from "./errands";
import { keptOf, scriptOfKept } from "./kept";
import { COPY_MADE_FIRST } from "./losses";
import { judge, proposalsFor } from "./mends";
import { compareOutcomes, type Outcome, outcomeOf } from "./outcome";
import { adviceNow, playTo } from "./play";
import type { Answer, Owner, Script, Strike } from "./script";
import { begin, type Stage } from "./stage";
import { summaryOf } from "./summary";
import { planOfWayOut } from "./wayOut";
import { addCases, cellAt, type Cells, layOutTable, mergeTables, tallyOf, type Tried } from "./table";
import { type At, type Instant, prepare, type Prepared, scriptOf, tryPairs, trySingle } from "./trials";

const ADVISER = { family: "TB", day: DAY } as const;
const SEED = Number(process.env.PROPERTY_SEED ?? 20_261_127) % 1_000_003;
const TIMES = Number(process.env.PROPERTY_TIMES ?? 1);

/** A box that can copy a drive while it is in its bay. */
const FREE: Plan["box"] = {
  name: "x",
  bays: 6,
  rules: { set: "classic-raid", overrides: { replacing: "old-attached", hotSpares: "shared" } },
};

const swap = (how: "attached" | "pulled"): Step => ({ id: "s1", kind: "replace-drive", drive: "d1", by: "x1", how });

/** Four drives of single parity, of which one is replaced; images are kept at home as well, once a week. */
const growing = (how: "attached" | "pulled", more: Partial<Plan> = {}): Plan =>
  clinicPlan({ box: FREE, steps: [swap(how)], backups: [away], ...more });

const dies = (drive: string, hours: number): Strike => ({ step: "s1", hours, mishap: { kind: "drive-dies", drive } });

function played(plan: Plan, strikes: Strike[], answers: Answer[] = [], otherwise?: Script["otherwise"]): Stage {
  const script = { seed: 1, strikes, answers, ...(otherwise ? { otherwise } : {}) };
  const stage = begin(plan, { ...ADVISER, script });
  playTo(stage, Infinity);
  return stage;
}

const cases = ({ instants }: Prepared): At[] =>
  instants.flatMap(({ happenings }, instant) => happenings.map((_, happening) => ({ instant, happening })));

/** The table of all single mishaps of a plan. */
function tableFor(plan: Plan, owner: Owner = "advised"): { prepared: Prepared; cells: Cells } {
  const prepared = prepare(plan, { ...ADVISER, seed: 1, of: "singles" });
  const tried = cases(prepared).map((at): Tried => ({ ats: [at], outcome: trySingle(prepared, at, owner)! }));
  return { prepared, cells: addCases(new Map(), prepared, tried) };
}

/** What of an outcome has to be the same; sums of hours differ in their last digits. */
const inShort = ({ became, losses, degradedHours, passedOver, hours }: Outcome) => ({
  became,
  losses: losses.map(({ of, share, from, ageHours }) => [of, share.toFixed(6), from, ageHours?.toFixed(4)]),
  degradedHours: degradedHours.toFixed(4),
  passedOver,
  hours: hours.toFixed(4),
});

/** Plans of every layout, with steps of every kind. */
function* anyPlans(count: number): Generator<Plan> {
  // Not only boxes that lack a drive when they begin, which is what rebuilds ask for.
  const reached: Reached = new Map([
    ["rebuild", 4],
    ["restore-drive", 4],
  ]);
  for (let n = 0; n < count; n += 1) {
    const { plan } = steeredWalk(SEED + n * 7919, 4, reached);
    yield plan;
  }
}

describe("a second drive dies", () => {
  test("in the hours in which one is pulled: all is lost, and the images come back from the backup, a week old", () => {
    const stage = played(
      growing("pulled", { backups: [away, { ...usb, dataSets: ["s2"] }] }),
      [dies("d2", 5)],
      ["advised"],
    );
    const { became, losses } = outcomeOf(stage);
    expect(became).toBe("restored");
    expect(losses.map(({ of, from, ageHours }) => [of, from, ageHours])).toEqual([
      ["s1", "b1", 7 * 24],
      ["s2", "b2", 30 * 24],
    ]);
    expect(losses.every(({ share }) => share > 0.4)).toBe(true);
    expect(stage.practice.said.map(({ what }) => what)).toContain("stopped");
  });

  test("what no backup holds is lost", () => {
    const { losses } = outcomeOf(played(growing("pulled"), [dies("d2", 5)], ["advised"]));
    expect(losses.find(({ of }) => of === office.id)).toMatchObject({ from: null, ageHours: null });
  });

  test("with the old drive in its bay: nothing is lost, and the plan is done with what stands there then", () => {
    const stage = played(growing("attached"), [dies("d2", 5)], ["advised"]);
    const usual = outcomeOf(played(growing("attached"), [], [], "advised"));
    const outcome = outcomeOf(stage);
    expect(outcome).toMatchObject({ became: "whole", losses: [], passedOver: [] });
    expect(outcome.degradedHours).toBeGreaterThan(usual.degradedHours + 5);
    expect(stage.plan.drives.find(({ id }) => id === "d2")?.state).toBe("failed");
    expect(stage.plan.pools[0]!.groups[0]!.drives).toHaveLength(4);
    expect(stage.plan.pools[0]!.groups[0]!.drives).not.toContain("d2");
    expect(stage.plan.pools[0]!.groups[0]!.drives).toContain("x1");
  });

  test("and the owner is asked where the script says nothing, and again after a wait", () => {
    const stage = begin(growing("pulled"), {
      ...ADVISER,
      script: { seed: 1, strikes: [dies("d2", 5)], answers: ["wait"] },
    });
    expect(playTo(stage, Infinity)).toBe("asks");
    expect(stage.practice.box.hours).toBeCloseTo(5 + 24, 6);
    expect(stage.troubles[0]).toEqual({ kind: "gone", drive: "d2", state: "failed" });
  });
});

test("in a box that takes new space into use by itself a pulled drive is missed only until the new one is filled", () => {
  // 4 TB of the new drive are filled in 12.3 h at 0.6 × 150 MB/s; what it brings is written for 32 h after that.
  const death = (hours: number): Strike => ({ step: "s3", hours, mishap: { kind: "drive-dies", drive: "d2" } });
  const plan = { ...coveredClinic, steps: coveredClinic.steps.filter(({ id }) => id === "s3") };
  expect(outcomeOf(played(plan, [death(12)], [], "advised")).became).not.toBe("whole");
  expect(outcomeOf(played(plan, [death(13)], [], "advised")).became).toBe("whole");
  // What is advised then is of the drives that stand there: the pulled one is on the shelf.
  const asked = played(plan, [death(13)], []);
  expect(asked.troubles).toHaveLength(1);
  const [rescue] = adviceNow(asked).rescues;
  expect(rescue?.wouldTake).toMatch(/12\sTB drive in bay 1,.*8\sTB drive in bay 3 .*12\sTB drive in bay 4/);
  expect(JSON.stringify(rescue)).not.toContain("in bay 1 (serial TJ4-0417)");
});

describe("what the owner does decides", () => {
  const loose = (hours: number): Strike => ({ step: "s1", hours, mishap: { kind: "goes-missing", drive: "d2" } });
  test("a drive that was only loose is put back, and the box goes on where it stood still", () => {
    const advised = outcomeOf(played(growing("pulled"), [loose(5)], ["put-back"]));
    const usual = outcomeOf(played(growing("pulled"), [], [], "advised"));
    expect(advised.became).toBe("whole");
    expect(advised.hours).toBeCloseTo(usual.hours, 3);
  });

  test("the next drive pulled though one is dead: lost; with advice first: nothing", () => {
    const steps: Step[] = [
      { id: "s1", kind: "verify", pool: "p1" },
      { ...swap("pulled"), id: "s2" },
    ];
    const plan = growing("pulled", { steps });
    expect(outcomeOf(played(plan, [dies("d3", 1)], [], "go-on")).became).toBe("lost");
    expect(outcomeOf(played(plan, [dies("d3", 1)], [], "advised"))).toMatchObject({ became: "whole", passedOver: [] });
  });

  test("a deletion is taken back from a backup with older states, noticed at once or at the end", () => {
    const deletion: Strike = { step: "s1", hours: 1, mishap: { kind: "deletion", volume: "v1" } };
    const plan = growing("attached", { backups: [{ ...usb, everyDays: 1 }] });
    const week = growing("attached", { dataSets: plan.dataSets!.slice(0, 1) });
    expect(outcomeOf(played(week, [deletion], [], "go-on")).losses).toMatchObject([{ from: "b1", ageHours: 168 }]);
    // One without older states is overwritten the next day, while the owner has not seen it yet.
    expect(outcomeOf(played(plan, [deletion], [], "advised")).losses[0]).toMatchObject({ from: "b2", ageHours: 24 });
    const steps: Step[] = [
      swap("attached"),
      ...["a", "b", "c"].map((id): Step => ({ id, kind: "verify", pool: "p1" })),
    ];
    expect(outcomeOf(played({ ...plan, steps }, [deletion], [], "go-on")).became).toBe("lost");
  });

  test("a fire leaves what is elsewhere", () => {
    const plan = growing("attached", { backups: [away, usb] });
    const { losses } = outcomeOf(played(plan, [{ hours: 0, mishap: { kind: "fire" } }], [], "advised"));
    expect(losses.map(({ of, from }) => [of, from])).toEqual([
      ["s1", "b1"],
      ["s2", null],
    ]);
  });

  test("a new drive that is short is changed for another, and the step done; passed over by whoever goes on", () => {
    const short: Strike = { step: "s1", hours: 0, mishap: { kind: "short", drive: "x1", bytes: 5e12 } };
    const stage = played(growing("attached"), [short], [], "advised");
    expect(outcomeOf(stage)).toMatchObject({ became: "whole", passedOver: [] });
    expect(stage.plan.pools[0]!.groups[0]!.drives).toContain("b1");
    expect(outcomeOf(played(growing("attached"), [short], [], "go-on")).passedOver).toEqual(["s1"]);
  });

  test("a new drive that dies while it is filled leaves its group with a drive too few, and another comes", () => {
    const young: Strike = { step: "s1", hours: 5, mishap: { kind: "dies-young", drive: "x1" } };
    const stage = played(growing("pulled"), [young], [], "advised");
    expect(outcomeOf(stage)).toMatchObject({ became: "whole", passedOver: [] });
    expect(stage.practice.box.drives.find(({ id }) => id === "x1")?.state).toBe("failed");
  });
});

describe("a copy that the advice asks for first", () => {
  const steps: Step[] = [
    { id: "s1", kind: "verify", pool: "p1" },
    { id: "s2", kind: "verify", pool: "p1" },
  ];
  // One failure leaves nothing to spare: the images, which are nowhere else, are copied away before anything.
  const plan = growing("pulled", {
    steps,
    backups: [{ ...usb, dataSets: ["s2"] }],
    drives: clinicPlan().drives.slice(0, 4),
  });
  const first: Strike = { step: "s1", hours: 1, mishap: { kind: "drive-dies", drive: "d1" } };
  const lostWith = (hours: number) => {
    const stage = played(
      plan,
      [first, { step: "s1", hours, mishap: { kind: "drive-dies", drive: "d2" } }],
      [],
      "advised",
    );
    return outcomeOf(stage).losses.map(({ of, from }) => [of, from]);
  };

  test("holds nothing while it is made", () => {
    expect(lostWith(12)).toEqual([
      ["s1", null],
      ["s2", "b2"],
    ]);
  });

  test("holds what was in one place only once it is there, and nothing that a backup has", () => {
    expect(lostWith(36)).toEqual([
      ["s1", COPY_MADE_FIRST],
      ["s2", "b2"],
    ]);
  });
});

test("data on a drive of its own comes back from its backup, after a fire from one that is elsewhere", () => {
  const [x1] = clinicPlan().drives.filter(({ id }) => id === "x1");
  const films: DataSet = { id: "s3", name: "Films", drive: "x1", bytes: 1e12, worth: "useful" };
  const plan = growing("pulled", {
    steps: [{ id: "s1", kind: "verify", pool: "p1" }],
    drives: [
      ...clinicPlan().drives.filter(({ id }) => id !== "x1"),
      { ...x1!, contents: { kind: "data" }, place: { bay: 5 } },
    ],
    dataSets: [films],
    backups: [
      { ...usb, dataSets: ["s3"] },
      { ...away, id: "b3", everyDays: 60, dataSets: ["s3"] },
    ],
  });
  const after = (mishap: Strike["mishap"]) => outcomeOf(played(plan, [{ hours: 0, mishap }], [], "advised")).losses;
  expect(after({ kind: "drive-dies", drive: "x1" })).toMatchObject([{ of: "s3", from: "b2", ageHours: 30 * 24 }]);
  const fire = after({ kind: "fire" }).filter(({ of }) => of === "s3");
  expect(fire).toMatchObject([{ from: "b3", ageHours: 60 * 24 }]);
});

describe("the way out as a plan of its own", () => {
  test.each(["pulled", "attached"] as const)("%s: each of its steps can be done, and it ends whole", (how) => {
    const stage = played(growing(how), [dies("d2", 5)], [], "advised");
    const plan = planOfWayOut(stage, "Way out")!;
    expect(checkPlan(plan)).toMatchObject({ ok: true });
    const { moments } = walkPlan(plan, "TB", undefined, DAY);
    // It begins with the box as it was: with the drive that is dead, and without the one that was pulled.
    const gone = plan.drives.flatMap(({ id, state }) => (state ? [`${id} ${state}`] : []));
    expect(gone.sort()).toEqual(how === "pulled" ? ["d1 missing", "d2 failed"] : ["d2 failed"]);
    expect(moments.slice(1).map(({ walked }) => [walked!.step.kind, walked!.done])).toEqual(
      plan.steps.map(({ kind }) => [kind, true]),
    );
    const last = moments.at(-1)!.state.plan;
    expect(conditionOf(last, last.pools[0]!, rulesOfBox(last)).state).toBe("whole");
  });
});

test("two pools that lack a drive are each given one of their own", () => {
  const base = growing("pulled", { steps: [] });
  const [pool] = base.pools;
  const mirror = (id: string, drives: string[]) => ({
    ...pool!,
    id,
    groups: [{ id: `g-${id}`, layout: "raid1" as const, drives, options: {} }],
    volumes: [],
  });
  const plan: Plan = {
    ...base,
    drives: base.drives
      .filter(({ id }) => id.startsWith("d"))
      .map((drive) => (drive.id === "d1" || drive.id === "d3" ? { ...drive, state: "failed" as const } : drive)),
    pools: [mirror("p1", ["d1", "d2"]), mirror("p2", ["d3", "d4"])],
    dataSets: [],
  };
  const errands = adviceFor(plan, ADVISER).errands;
  const bought = errands.flatMap((errand) => ("brings" in errand ? [errand.brings.id] : []));
  const used = errands.flatMap((errand) => ("does" in errand && "by" in errand.does ? [errand.does.by] : []));
  expect(new Set(bought).size).toBe(2);
  expect(used.sort()).toEqual(bought.sort());
});

/** How many more drives a pool bears so far into a step, as predicted: before, during and after it. */
function bears({ moments }: Walk, { step, share }: Pick<Instant, "step" | "share">, pool: string): number {
  const at = step === undefined ? 0 : moments.findIndex(({ walked }) => walked?.step.id === step);
  const near = step === undefined ? [moments[0]!] : [moments[at - 1]!, moments[at]!];
  const during =
    moments[at]?.walked?.exposure
      // A drive is missing for a part of the hours only where the box then takes new space into use by itself.
      .filter((each) => each.pool === pool && share <= (each.share ?? 1) + 0.02)
      .map((each) => each.redundancy) ?? [];
  const rest = near.flatMap(({ state, tolerance }) =>
    state.plan.pools.flatMap(({ id }, p) => (id === pool ? [tolerance[p] ?? 0] : [])),
  );
  const lacks = near.some(({ state }) => state.plan.drives.some((drive) => drive.state !== undefined));
  return Math.min(99, ...(lacks ? [-1] : []), ...during, ...rest);
}

test("any plan: cells are what single runs come to, prediction holds, and advice is never worse than going on", () => {
  let [compared, borne] = [0, 0];
  for (const plan of anyPlans(8 * TIMES)) {
    const dice = new Dice(SEED + compared);
    const walk = walkPlan(plan);
    const lacks = plan.drives.some(({ state }) => state !== undefined);
    const singles = prepare(plan, { ...ADVISER, seed: 7, of: "singles", blocks: 256 });
    const pairs = prepare(plan, { ...ADVISER, seed: 7, of: "pairs", blocks: 256 });
    const single = (prepared: Prepared, ats: At[], owner: Owner) => {
      const stage = begin(plan, { ...ADVISER, script: scriptOf(prepared, ats, owner) }, 256);
      playTo(stage, Infinity);
      return outcomeOf(stage);
    };
    for (const at of dice.some(cases(singles), 12)) {
      const owner = dice.one(["advised", "go-on"] as const)!;
      const outcome = trySingle(singles, at, owner)!;
      expect({ plan, at, ...inShort(outcome) }).toEqual({ plan, at, ...inShort(single(singles, [at], owner)) });
      compared += 1;
    }
    for (const at of dice.some(cases(singles), 40)) {
      const { step, happenings } = singles.instants[at.instant]!;
      const { kind, of } = happenings[at.happening]!;
      if (kind !== "drive-dies" && kind !== "dies-young") continue;
      const advised = trySingle(singles, at, "advised")!;
      const pool = plan.pools[0]?.id ?? "";
      if (
        plan.pools.length === 1 &&
        bears(walk, singles.instants[at.instant]!, pool) >= (kind === "drive-dies" ? 1 : 0)
      ) {
        borne += 1;
        expect({ plan, step, of, became: advised.became }).toEqual({ plan, step, of, became: "whole" });
      }
      const went = trySingle(singles, at, "go-on")!;
      const lostMore = (one: Outcome) => ["whole", "restored", "lost"].indexOf(one.became);
      if (!lacks && lostMore(advised) > lostMore(went))
        expect({ plan, step, of, advised, went }).toBe("no worse with advice");
    }
    for (const first of dice.some(cases(pairs), 2))
      for (const { second, outcome } of dice.some(tryPairs(pairs, first, "advised"), 4))
        expect({ plan, first, second, ...inShort(outcome) }).toEqual({
          plan,
          first,
          second,
          ...inShort(single(pairs, [first, second], "advised")),
        });
  }
  process.stdout.write(`${compared} cases run anew; ${borne} deaths that are borne by the prediction\n`);
  expect(compared).toBeGreaterThan(60);
  expect(borne).toBeGreaterThan(20);
});

describe("the table", () => {
  const plan = growing("pulled");
  const { prepared, cells } = tableFor(plan);

  test("has each case once, whatever the order in which its parts come", () => {
    const all = cases(prepared).map((at): Tried => ({ ats: [at], outcome: trySingle(prepared, at, "advised")! }));
    const parts = [
      all.filter((_, i) => i % 3 === 2),
      all.filter((_, i) => i % 3 === 0),
      all.filter((_, i) => i % 3 === 1),
    ];
    const merged = parts.reduce<Cells>(
      (into, part) => mergeTables(into, addCases(new Map(), prepared, part.reverse()), prepared.usual),
      new Map(),
    );
    expect([...merged].sort()).toEqual([...cells].sort());
    expect(tallyOf(cells.values()).tried).toBe(all.length);
  });

  test("the worst stands first, and is the worst of all cases", () => {
    const { rows, columns } = layOutTable(cells, ["s1"], prepared.usual);
    const worst = cases(prepared)
      .filter(({ instant }) => prepared.instants[instant]!.step !== undefined)
      .map((at) => trySingle(prepared, at, "advised")!)
      .reduce((a, b) => (compareOutcomes(b, a, prepared.usual.degradedHours) > 0 ? b : a));
    // A fire takes all in any step; in this one a drive that dies does too.
    expect(rows[0]).toBe("s1");
    const { outcome } = cellAt(cells, rows[0]!, columns[0]!)!.worst;
    expect(compareOutcomes(outcome, worst, prepared.usual.degradedHours)).toBe(0);
  });

  test("what it says of each data set is what so many single cases took of it", () => {
    const outcomes = cases(prepared).map((at) => trySingle(prepared, at, "advised")!);
    const { tolls } = tallyOf(cells.values());
    for (const set of ["s1", "s2"]) {
      const losses = outcomes.flatMap((outcome) => outcome.losses.filter(({ of }) => of === set));
      expect(tolls.get(set)).toMatchObject({
        lost: losses.filter(({ from }) => from === null).length,
        restored: losses.filter(({ from }) => from !== null).length,
        oldest: Math.max(0, ...losses.map(({ ageHours }) => ageHours ?? 0)),
      });
    }
    // While one drive is pulled nothing can stand in for a sector that cannot be read on another.
    expect(cellAt(cells, "s1", "unreadable")!.lost).toBeGreaterThan(0);
  });

  test("its sentence says its counts, and where they fall", () => {
    const { tried, whole, tolls } = tallyOf(cells.values());
    const sentence = summaryOf([...cells.values()], plan);
    expect(sentence).toContain(`${tried} mishaps tried: nothing is lost in ${whole}`);
    const images = tolls.get("s1")!;
    expect(images.restored).toBeGreaterThan(0);
    expect(sentence).toContain(`X-rays: in ${images.restored} back from Box at home, up to 7 days old.`);
    expect(sentence).toContain(`Office: in ${tolls.get("s2")!.lost} lost for good, in part or all of it.`);
    expect(sentence).toMatch(/These fall into every step\.$/);
  });
});

describe("changes of the plan", () => {
  const plan: Plan = {
    ...coveredClinic,
    box: { ...coveredClinic.box, rules: { set: "hybrid-box", overrides: { replacing: "old-attached" } } },
    prices: [{ bytes: 12_000_138_625_024, price: 250, medium: "hdd", bus: "sata", label: "Cal" }],
    steps: coveredClinic.steps.filter(({ id }) => id === "s3" || id === "s5"),
  };
  const before = tableFor(plan);
  const proposals = proposalsFor(plan, before.cells, before.prepared.usual, ADVISER);
  const mends = proposals.flatMap((each) => {
    const after = tableFor(each.plan);
    return (
      judge(
        each,
        { cells: before.cells, usual: before.prepared.usual },
        { cells: after.cells, usual: after.prepared.usual },
      ) ?? []
    );
  });

  test("that are offered lower the cells that they are for, as tried again from the beginning", () => {
    expect(mends.map(({ kind }) => kind)).toContain("attached");
    for (const { kind, step, plan: changed, before: was, after } of mends) {
      const bad = ({ lost, restored }: typeof was) => lost + restored;
      const oldest = ({ tolls }: typeof was) => Math.max(0, ...[...tolls.values()].map((toll) => toll.oldest));
      const better = [after.lost < was.lost, bad(after) < bad(was), oldest(after) < oldest(was)];
      expect([...better, after.longest < was.longest]).toContain(true);
      if (kind !== "attached") continue;
      // By runs that share nothing with the table: each drive that dies half-way.
      const prepared = prepare(changed, { ...ADVISER, seed: 1, of: "singles" });
      for (const at of cases(prepared)) {
        const instant = prepared.instants[at.instant]!;
        if (instant.step !== step || instant.happenings[at.happening]!.kind !== "drive-dies") continue;
        const stage = begin(changed, { ...ADVISER, script: scriptOf(prepared, [at], "advised") });
        playTo(stage, Infinity);
        expect(outcomeOf(stage).became).toBe("whole");
      }
    }
  });

  test("cost hours and money, and fit the plan as commands", () => {
    for (const { command, plan: changed } of mends)
      expect(applyCommand(plan, command)).toMatchObject({ ok: true, plan: changed });
    const kinds = proposals.map(({ kind }) => kind);
    for (const kind of ["attached", "backup", "verify", "spare", "order"]) expect(kinds).toContain(kind);
    for (const { kind, hours } of mends) if (kind === "attached") expect(hours).toBeLessThan(0.01);
  });

  test("a spare at hand spares the days of a delivery, at its price", () => {
    const steps: Step[] = [{ id: "s1", kind: "verify", pool: "p1" }];
    const prices: Plan["prices"] = [
      { bytes: 4_000_787_030_016, price: 110, medium: "hdd", bus: "sata", label: "Cal 4" },
    ];
    const bare = growing("pulled", { steps, prices, drives: growing("pulled").drives.slice(0, 4) });
    const [was, spare] = [tableFor(bare), proposalsFor];
    const proposal = spare(bare, was.cells, was.prepared.usual, ADVISER).find(({ kind }) => kind === "spare")!;
    const is = tableFor(proposal.plan);
    const mend = judge(
      proposal,
      { cells: was.cells, usual: was.prepared.usual },
      { cells: is.cells, usual: is.prepared.usual },
    );
    expect(mend?.money).toBe(110);
    // The delivery takes two days, and the drive is tested before it is filled.
    expect(mend!.before.longest - mend!.after.longest).toBeGreaterThan(40);
  });

  test("a battery supply keeps a power cut from a rewrite that cannot bear one", () => {
    const steps: Step[] = [{ id: "s1", kind: "change-level", group: "g1", layout: "raid6", drives: ["x2"] }];
    const risky = clinicPlan({ steps, backups: [away] });
    const table = tableFor(risky);
    expect(cellAt(table.cells, "s1", "power-cut")!.whole).toBeLessThan(3);
    const ups = proposalsFor(risky, table.cells, table.prepared.usual, ADVISER).find(({ kind }) => kind === "ups")!;
    const after = tableFor(ups.plan);
    expect(cellAt(after.cells, "s1", "power-cut")!.whole).toBe(3);
  });
});

test("a rehearsal that is kept in the plan comes to the same when it is played again", () => {
  const plan = growing("pulled");
  const { prepared } = tableFor(plan);
  const withIt = prepared.instants.flatMap(({ happenings }, instant) =>
    happenings.map(({ kind }, happening) => ({ kind, at: { instant, happening } })),
  );
  for (const kind of new Set(withIt.map((each) => each.kind))) {
    const { at } = withIt.find((each) => each.kind === kind)!;
    const script = scriptOf(prepared, [at], "advised");
    const kept = applyCommand(plan, { kind: "keep-rehearsal", rehearsal: keptOf(script, kind) });
    if (!kept.ok) throw new Error(kept.reason);
    const again = scriptOfKept(kept.plan.rehearsals![0]!);
    const stage = begin(kept.plan, { ...ADVISER, script: again });
    playTo(stage, Infinity);
    expect({ kind, ...inShort(outcomeOf(stage)) }).toEqual({ kind, ...inShort(trySingle(prepared, at, "advised")!) });
    const gone = applyCommand(kept.plan, { kind: "remove-rehearsal", rehearsal: "r1" });
    expect(gone.ok && gone.plan.rehearsals).toBeUndefined();
  }
});
