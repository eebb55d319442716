import type { Bytes } from "../bytes/bytes";
import { emptyPlan } from "../document/emptyPlan";
import type { Box, Group, Plan, Pool, Step, StepBody, Volume } from "../document/plan";
import { layouts } from "../layouts/registry";
import { freeIds } from "../records/freeId";
import { ruleSets, rulesOf } from "../rules/ruleSets";
import { listOf } from "../words/listOf";
import { plural } from "../words/counted";
import { BoxDrives } from "./boxDrives";
import { expectedBytes, standing } from "./levels";
import { foundGroups, groupInPlan, type FoundGroup } from "./poolsOfArrays";
import { ask, groupsOfDrives } from "./poolsOfDrives";
import { nameOf, type PrintedArray, type PrintedBox, type PrintedVolume } from "./printedBox";
import { layoutChoices, LEAVE_OUT, type Answers, type Question } from "./question";
import type { Reading } from "./readingSetting";
import { volumesOfPool } from "./volumesOfPool";

/** The size of an array as it is read, and as its members give it by the driver's own rule; in bytes. */
export interface ArraySize {
  array: string;
  group: string;
  readBytes: Bytes;
  predictedBytes: Bytes;
}

/** An array of which a group of the plan consists, alone or with others. */
export interface FoundArray {
  printed: PrintedArray;
  pool: string;
  group: string;
}

/** A box as it is, made out of what it has printed. */
export interface Recognised {
  /** The given plan with the box as it is, or a new one. */
  plan: Plan;
  /** What is under way, as steps that are at the beginning of the plan. */
  running: StepBody[];
  arrays: FoundArray[];
  sizes: ArraySize[];
  /** What could not be made out, and what was taken for something without being printed, each in a sentence. */
  notMadeOut: string[];
  questions: Question[];
  /** Groups and pools that the box shows. */
  foundGroups: ReadonlySet<string>;
  foundPools: ReadonlySet<string>;
  /** Whether the list prints serial numbers, without which no drive is told from another. */
  knowsSerials: boolean;
  /** Ids of the plan's drives by the kernel's names. */
  ids: ReadonlyMap<string, string>;
}

const namesIn = (array: PrintedArray): string[] =>
  [...array.places, ...array.spares, ...array.failed, ...array.joining].flatMap((member) =>
    member ? [nameOf(member)] : [],
  );

/** Arrays that are the box's own: the system lies on them, beside others that hold the data. */
function ownOf(arrays: readonly PrintedArray[]): Set<PrintedArray> {
  const others = new Set(arrays.filter((array) => !array.carriesSystem).flatMap(namesIn));
  return new Set(arrays.filter((array) => array.carriesSystem && namesIn(array).some((name) => others.has(name))));
}

/** Arrays that volumes join, with these volumes. */
interface Joined {
  arrays: PrintedArray[];
  volumes: PrintedVolume[];
}

/** Arrays that belong together: those that one volume joins, and those that lie on one drive. */
function joined(arrays: readonly PrintedArray[], volumes: readonly PrintedVolume[]): Joined[] {
  const setOf = new Map(arrays.map((array): [string, Joined] => [array.name, { arrays: [array], volumes: [] }]));
  const join = (names: readonly string[]): Joined | undefined => {
    const [first, ...others] = new Set(names.flatMap((name) => setOf.get(name) ?? []));
    for (const other of first ? others : []) {
      first?.arrays.push(...other.arrays);
      first?.volumes.push(...other.volumes);
      for (const { name } of other.arrays) setOf.set(name, first as Joined);
    }
    return first;
  };
  for (const volume of volumes) join(volume.on)?.volumes.push(volume);
  const onDrive = new Map<string, string[]>();
  for (const array of arrays)
    for (const drive of namesIn(array)) onDrive.set(drive, [...(onDrive.get(drive) ?? []), array.name]);
  for (const names of onDrive.values()) join(names);
  return [...new Set(setOf.values())];
}

/** An array that does not run: its level is printed nowhere, so it is asked. */
function withAnswer(reading: Reading, array: PrintedArray): PrintedArray | null {
  const members = array.places.flatMap((place) => (place ? [nameOf(place)] : []));
  const choices = layouts.filter(({ kernelLevel }) => kernelLevel !== undefined);
  const old = groupInPlan(
    reading.plan,
    members.flatMap((name) => reading.drives.named(name)?.id ?? []),
  );
  const answer = ask(reading, {
    id: array.name,
    asks: `${array.name} over ${listOf(members)} does not run. Which level has it?`,
    choices: [
      ...layoutChoices(choices),
      { value: LEAVE_OUT, label: "Leave it out: its drives are taken, and no pool is made of them" },
    ],
    guess: choices.find(({ id }) => id === old?.layout)?.id ?? null,
    because: "the plan has it so",
  });
  const layout = choices.find(({ id }) => id === answer);
  if (!layout) return null;
  const count = Math.max(members.length, old?.drives.length ?? 0, layout.minimumDrives);
  return {
    ...array,
    level: layout.kernelLevel ?? null,
    copies: layout.chooses === "pairs" ? 2 : null,
    places: [...array.places, ...Array.from({ length: count - array.places.length }, () => null)],
  };
}

/** What the box keeps of every drive for the system, in bytes; null where it keeps nothing that is told. */
function reserveOf(data: readonly PrintedArray[], own: ReadonlySet<PrintedArray>): Bytes | null {
  if (own.size === 0) return null;
  const starts = data.flatMap(standing).flatMap((place) => (place ? [place.start] : []));
  return starts.length > 0 ? Math.min(...starts) : null;
}

/** The box of a plan that is made of a reading. */
function newBox(printed: PrintedBox, reserve: Bytes | null): Box {
  const overrides = reserve === null ? null : { systemReserveBytes: reserve, system: "on-all-drives" as const };
  return {
    name: printed.host.slice(0, 120) || "The box as it was read",
    bays: 1,
    rules: { set: "linux-host", ...(overrides ? { overrides } : {}) },
  };
}

/** The rules of a new box: those of one whose parity drives are written by schedule, where it has such. */
function rulesFor({ rules }: Box, pools: readonly Pool[]): Box["rules"] {
  const groups = pools.flatMap((pool) => pool.groups);
  const offered = new Set(rulesOf(rules).layouts);
  const lacking = [...new Set(groups.map(({ layout }) => layout))].filter((layout) => !offered.has(layout));
  if (lacking.length === 0) return rules;
  const withParity = ruleSets.find(
    ({ rules: own }) =>
      own.parityWrites === "by-schedule" && groups.every(({ layout }) => own.layouts.includes(layout)),
  );
  if (withParity) return { ...rules, set: withParity.id };
  return { ...rules, overrides: { ...rules.overrides, layouts: [...offered, ...lacking] } };
}

interface Made {
  pools: Pool[];
  running: StepBody[];
  arrays: FoundArray[];
}

/** Pools of the plan that the box does not show: what of them is still theirs. */
function notListed(given: Plan | null, pools: readonly Pool[]): Pool[] {
  const used = new Set(
    pools.flatMap((pool) => [
      ...pool.spares,
      ...(pool.helpers ?? []).map(({ drive }) => drive),
      ...pool.groups.flatMap((group) => [...group.drives, ...(group.spares ?? [])]),
    ]),
  );
  return (given?.pools ?? []).filter(
    (pool) =>
      !pools.some(({ id }) => id === pool.id) &&
      !pool.groups.some((group) => group.drives.some((drive) => used.has(drive))),
  );
}

/** Makes pools one by one, those of the plan under their ids and names. */
class Pools {
  readonly made: Made = { pools: [], running: [], arrays: [] };
  readonly newGroup: () => string;
  private readonly newPool: () => string;
  private readonly old: readonly Pool[];
  private readonly newVolume: () => string;
  private readonly used = new Set<string>();

  constructor(private readonly plan: Plan | null) {
    this.old = plan?.pools ?? [];
    this.newPool = freeIds(
      "p",
      this.old.map(({ id }) => id),
    );
    this.newGroup = freeIds(
      "g",
      this.old.flatMap((pool) => pool.groups.map(({ id }) => id)),
    );
    this.newVolume = freeIds(
      "v",
      this.old.flatMap((pool) => pool.volumes.map(({ id }) => id)),
    );
  }

  /** The pool of the plan that has most of these drives, or a new one. */
  of(drives: readonly string[]): { id: string; old: Pool | undefined } {
    const group = groupInPlan(this.plan, drives);
    const pool = this.old.find((each) => each.groups.some(({ id }) => id === group?.id));
    const old = pool && !this.used.has(pool.id) ? pool : undefined;
    const id = old?.id ?? this.newPool();
    this.used.add(id);
    return { id, old };
  }

  /** Volumes of the plan that are not printed, and that its data sets are on: what is known of them is not lost. */
  private keptOf(old: Pool | undefined, printed: readonly Volume[]): Volume[] {
    const holding = new Set((this.plan?.dataSets ?? []).flatMap(({ volume }) => volume ?? []));
    return (old?.volumes ?? []).filter(({ id }) => holding.has(id) && !printed.some((volume) => volume.id === id));
  }

  put(
    { id, old }: { id: string; old: Pool | undefined },
    groups: Group[],
    volumes: readonly PrintedVolume[],
    name: string,
    more: Partial<Pool> = {},
  ): void {
    const made = volumesOfPool(volumes, old, this.newVolume);
    this.made.pools.push({
      ...(old ?? {}),
      id,
      name: old?.name ?? name.slice(0, 120),
      groups,
      spares: [],
      ...more,
      volumes: [...made, ...this.keptOf(old, made)],
    });
  }
}

/** The pool that arrays are which the same volumes lie on. */
function poolOfArrays(reading: Reading, pools: Pools, { arrays, volumes }: Joined): void {
  const listed = arrays.flatMap(namesIn).flatMap((name) => reading.drives.named(name)?.id ?? []);
  const pool = pools.of(listed);
  const found = foundGroups(reading, arrays, pool.id, pools.newGroup);
  if (!found) return;
  const name = (volumes.length > 1 ? volumes[0]?.set : volumes[0]?.name) || (arrays[0]?.name ?? "Pool");
  pools.put(pool, withSpares(found), volumes, name, sparesOf(found));
  pools.made.running.push(...found.flatMap(({ running }) => running));
  for (const { group, arrays: own } of found)
    pools.made.arrays.push(...own.map((printed) => ({ printed, pool: pool.id, group: group.id })));
}

/** The pools of a box: those of arrays, then those of drives without any. */
function poolsOf(reading: Reading, sets: readonly Joined[], free: (name: string) => boolean): Made {
  const pools = new Pools(reading.plan);
  for (const set of sets) poolOfArrays(reading, pools, set);
  for (const { group, volumes, name } of groupsOfDrives(reading, free)) {
    const same = groupInPlan(reading.plan, group.drives);
    pools.put(pools.of(group.drives), [{ ...group, id: same?.id ?? pools.newGroup() }], volumes, name);
  }
  return pools.made;
}

/** The groups of a pool; where there are several, each keeps the spares of its own arrays. */
const withSpares = (found: readonly FoundGroup[]): Group[] =>
  found.map(({ group, spares }) => (found.length > 1 && spares.length > 0 ? { ...group, spares } : group));

const sparesOf = (found: readonly FoundGroup[]): Partial<Pool> => {
  const logs = found.flatMap((each) => each.logs);
  return {
    spares: found.length === 1 ? (found[0]?.spares ?? []) : [],
    ...(logs.length > 0 ? { helpers: logs.map((drive) => ({ drive, role: "write-log" as const })) } : {}),
  };
};

/** Whether the plan begins with a step that is already what is under way. */
const isSame = (step: Step | undefined, body: StepBody): boolean =>
  step !== undefined &&
  step.kind === body.kind &&
  ("group" in step && "group" in body ? step.group === body.group : true) &&
  ("pool" in step && "pool" in body ? step.pool === body.pool : true);

/** What else is to be said of a list as a whole. */
function aboutAll(reading: Reading, own: ReadonlySet<PrintedArray>): string[] {
  const aside = reading.drives.aside();
  const { doubled } = reading.drives;
  const system = [...own].map(({ name }) => name);
  return [
    ...(reading.printed.knowsContents
      ? []
      : [
          "The list tells nothing of what is on the drives, not even their serial numbers: none of them is " +
            "known to be empty.",
          ...(reading.plan ? ["The drives of the plan are told from each other by their size and order only."] : []),
        ]),
    ...(doubled.length > 0
      ? [
          `${listOf(doubled)} ${plural(doubled.length, "prints", "print")} the serial number of another drive, ` +
            `and ${plural(doubled.length, "is", "are")} taken without one.`,
        ]
      : []),
    ...(aside.length > 0
      ? [
          `${listOf(aside)} ${plural(aside.length, "is", "are")} left out: the system runs from there, or it ` +
            "hangs on USB.",
        ]
      : []),
    ...(system.length > 0
      ? [`${listOf(system)} ${plural(system.length, "holds", "hold")} the system, on the first part of every drive.`]
      : []),
  ];
}

/**
 * Makes out what a box is from what it has printed: its drives, its pools with their groups, spares, failed and missing
 * drives and volumes, and the work that is under way. Drives, pools, groups and volumes of a given plan keep their ids.
 * What no text prints is guessed and said to be, or asked.
 *
 * @param given the plan that the box is held against; null makes a new one
 * @param answers to questions of an earlier recognition
 * @example recognise(printed, null, {}).plan.pools[0].groups[0].layout // "raid5"
 */
export function recognise(printed: PrintedBox, given: Plan | null, answers: Answers = {}): Recognised {
  const own = ownOf(printed.arrays);
  const data = printed.arrays.filter((array) => !own.has(array));
  const box = given?.box ?? newBox(printed, reserveOf(data, own));
  const reading: Reading = {
    printed,
    plan: given,
    box,
    answers,
    drives: new BoxDrives(printed, given),
    notMadeOut: [...printed.notMadeOut],
    questions: [],
  };
  const known = data.flatMap((array) => (array.level === null ? (withAnswer(reading, array) ?? []) : [array]));
  const inArrays = new Set(printed.arrays.flatMap((array) => [...namesIn(array), ...array.strangers.map(nameOf)]));
  const system = new Set(reading.drives.aside());
  const free = (name: string) => !inArrays.has(name) && !system.has(name) && reading.drives.named(name) !== null;
  const made = poolsOf(reading, joined(known, printed.volumes), free);
  const { drives, bays } = reading.drives.seated(box.bays);
  const base = given ?? emptyPlan(box.name);
  const newStep = freeIds(
    "s",
    base.steps.map(({ id }) => id),
  );
  const first = base.steps.find((step) => !step.disabled);
  const added = made.running.filter((body) => !isSame(first, body));
  const plan: Plan = {
    ...base,
    box: given ? { ...box, bays } : { ...box, bays, rules: rulesFor(box, made.pools) },
    drives,
    pools: [...made.pools, ...notListed(given, made.pools)],
    steps: [...added.map((body) => ({ ...body, id: newStep() }) as Step), ...base.steps],
  };
  return {
    plan,
    running: made.running,
    arrays: made.arrays,
    sizes: made.arrays.flatMap(({ printed: array, group }) => {
      const predictedBytes = expectedBytes(array);
      return predictedBytes === null || array.bytes === 0
        ? []
        : [{ array: array.name, group, readBytes: array.bytes, predictedBytes }];
    }),
    notMadeOut: [...reading.notMadeOut, ...aboutAll(reading, own)],
    questions: reading.questions,
    foundGroups: new Set(made.pools.flatMap((pool) => pool.groups.map(({ id }) => id))),
    foundPools: new Set(made.pools.map(({ id }) => id)),
    knowsSerials: printed.drives.length === 0 || printed.drives.some(({ drive }) => drive.serial !== undefined),
    ids: new Map(
      printed.drives.flatMap(({ name }) => {
        const id = reading.drives.named(name)?.id;
        return id === undefined ? [] : [[name, id] as const];
      }),
    ),
  };
}
