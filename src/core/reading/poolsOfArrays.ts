import type { Bytes } from "../bytes/bytes";
import type { Group, Plan, StepBody } from "../document/plan";
import { bandsOfGroup } from "../box/figures";
import { usableOf } from "../bands/contents";
import { rulesOfBox } from "../box/rulesOfBox";
import { layoutOf } from "../layouts/registry";
import { listOf } from "../words/listOf";
import { asPlanned, broughtBy, placedBy } from "./asPlanned";
import { endsOf, groupsOfArrays, keptOf, type ArrayGroup, type Seated } from "./arrayGroups";
import { levelOf, standing } from "./levels";
import { nameOf, type PrintedArray, type PrintedMember } from "./printedBox";
import type { Reading } from "./readingSetting";

/** A group that was made out, with the arrays that are it and the work that is under way on it. */
export interface FoundGroup {
  group: Group;
  arrays: PrintedArray[];
  spares: string[];
  logs: string[];
  running: StepBody[];
}

/** The group of the given plan that has most of these drives; undefined where none has any. */
export function groupInPlan(plan: Plan | null, drives: readonly string[]): Group | undefined {
  const groups = (plan?.pools ?? []).flatMap((pool) => pool.groups);
  const shared = (group: Group) => group.drives.filter((id) => drives.includes(id)).length;
  const [best] = [...groups].sort((a, b) => shared(b) - shared(a));
  return best && shared(best) > 0 ? best : undefined;
}

const idOf = ({ drives }: Reading, member: PrintedMember): string[] => {
  const id = drives.named(nameOf(member))?.id;
  return id === undefined ? [] : [id];
};

const isIn = (list: readonly PrintedMember[], member: PrintedMember) =>
  list.some(({ device }) => device === member.device);

/** Who stands in for the members that several arrays over the same drives lack: the same drive in each of them. */
class Gaps {
  /** Those that are not listed, by which of the empty places they stood in; the same in all arrays. */
  private readonly unlisted = new Map<number, string>();
  private readonly used = new Set<string>();

  constructor(
    private readonly reading: Reading,
    private readonly arrays: readonly PrintedArray[],
  ) {}

  /** The drive of the n-th empty place of an array, by its id. */
  of(array: PrintedArray, n: number): string {
    const thrown = [...array.failed, ...array.strangers];
    const member = thrown[n];
    const id = member ? this.thrownOut(array, member) : null;
    return id ?? this.gone(array, n - thrown.length);
  }

  private thrownOut(array: PrintedArray, member: PrintedMember): string | null {
    const { drives, notMadeOut } = this.reading;
    const name = nameOf(member);
    const id = drives.use(name);
    if (id === null) return null;
    drives.fail(name);
    if (isIn(array.strangers, member) && !this.used.has(id))
      notMadeOut.push(
        `${member.device} carries the marks of ${array.name} and is no part of it now: it is taken for the ` +
          `drive that ${array.name} lacks.`,
      );
    this.used.add(id);
    return id;
  }

  /** One that is not listed: of the plan's group where that is known, or a drive of which nothing is known. */
  private gone(array: PrintedArray, n: number): string {
    const { drives, plan, notMadeOut } = this.reading;
    const known = this.unlisted.get(n);
    if (known !== undefined) return known;
    const listed = this.arrays
      .flatMap((each) => standing(each))
      .flatMap((place) => drives.named(place?.drive ?? null)?.id ?? []);
    const taken = new Set(this.unlisted.values());
    const inPlan = groupInPlan(plan, listed)?.drives.find(
      (id) => !this.used.has(id) && !drives.isListed(id) && !taken.has(id),
    );
    const id = (inPlan === undefined ? null : drives.missing(inPlan)) ?? this.invented(array);
    this.unlisted.set(n, id);
    if (id !== inPlan)
      notMadeOut.push(
        `A drive of ${array.name} is missing. Its serial number and size are printed nowhere: it is taken to ` +
          "be as large as the smallest of the others.",
      );
    return id;
  }

  /** As large as what it must at least have held: the least that the others give to each array that lacks one. */
  private invented(array: PrintedArray): string {
    const least = (each: PrintedArray) =>
      Math.min(
        ...standing(each).flatMap((place) => {
          const whole = place && place.device === place.drive ? this.reading.drives.named(place.drive)?.bytes : null;
          return place && place.bytes !== null ? [whole ?? place.start + place.bytes] : [];
        }),
      );
    const lacking = this.arrays.filter((each) => standing(each).some((place) => !place || isIn(each.filling, place)));
    const sizes = lacking.map(least).filter(Number.isFinite);
    return this.reading.drives.unknown(array.name, Math.max(1, ...sizes));
  }
}

/** The drives in the places of an array; what is being filled is put into the place of what it stands in for. */
function seat(reading: Reading, gaps: Gaps, array: PrintedArray, rebuilds: Map<string, string>): Seated | null {
  const layout = levelOf(array);
  if (!layout) return null;
  let empty = 0;
  const drives = standing(array).map((place) => {
    if (place && !isIn(array.filling, place)) return reading.drives.use(nameOf(place)) ?? gaps.of(array, empty++);
    const id = gaps.of(array, empty++);
    const by = place ? reading.drives.use(nameOf(place)) : null;
    if (by !== null) rebuilds.set(id, by);
    return id;
  });
  return { array, layout, drives };
}

/** The group as it stands on its drives: with what its arrays keep where the rules alone would make another of it. */
function withFigures({ plan: _given, ...reading }: Reading, group: Group, arrays: readonly PrintedArray[]): Group {
  const { drives, box } = reading;
  const rules = rulesOfBox({ box } as Plan);
  const plan = { box, drives: drives.of(group.drives) } as Plan;
  const bytes = arrays.map((array) => array.bytes);
  const fits = (made: Group) => {
    const bands = bandsOfGroup(plan, made, rules);
    // Zones of a stripe, and the parts of a span, are one array.
    if (bytes.length === 1) return usableOf(bands) === bytes[0];
    return bands.length === bytes.length && bands.every((band, i) => usableOf([band]) === bytes[i]);
  };
  if (bytes.some((each) => each === 0) || fits(group)) return group;
  const kept = arrays.map((array) => keptOf(array, rules.systemReserveBytes));
  if (kept.some((each) => each === null)) return group;
  const withKept: Group = { ...group, kept: kept.flatMap((each) => each ?? []).sort((a, b) => a.from - b.from) };
  const ends = new Map(
    [...endsOf(arrays, rules.systemReserveBytes)].flatMap(([name, end]) => {
      const drive = drives.named(name);
      return drive && group.drives.includes(drive.id) ? [[drive.id, end] as const] : [];
    }),
  );
  return arrays.length > 1 ? withReach(withKept, ends, fits) : withKept;
}

/**
 * A hybrid whose drives reach higher than its bands: as few as will do are taken in only as far as they are used, since
 * the top of the largest lies idle by its layout.
 */
function withReach(group: Group, ends: ReadonlyMap<string, Bytes>, fits: (made: Group) => boolean): Group {
  if (fits(group)) return group;
  let reach = Object.fromEntries(ends);
  for (const id of [...group.drives].reverse()) {
    const { [id]: _whole, ...less } = reach;
    if (fits({ ...group, reach: less })) reach = less;
  }
  return { ...group, reach };
}

/** The plan's next step, where it is that one drive comes in the place of another. */
function plannedPlace({ plan }: Reading, drive: string, by: string): StepBody | null {
  const places = placedBy(plan);
  return places?.drive === drive && places.by === by ? places.body : null;
}

/** The plan's next step, where it is that a drive is copied which an array prints to be taking another's place. */
function copied({ plan, drives }: Reading, arrays: readonly PrintedArray[]): StepBody[] {
  const places = placedBy(plan);
  const isIt = (member: PrintedMember) => drives.named(nameOf(member))?.id === places?.by;
  return places && arrays.some((array) => array.replacing.some(isIt)) ? [places.body] : [];
}

/**
 * Arrays that share their drives are filled one after the other: where a drive already stands in one and is still to be
 * filled in another, the group has the one that it replaces.
 */
function untilAllAreFilled(
  reading: Reading,
  seated: readonly Seated[],
  rebuilds: ReadonlyMap<string, string>,
): Seated[] {
  const replaced = new Map([...rebuilds].map(([gone, by]) => [by, gone]));
  const arrays = seated.map(({ array }) => array);
  const places = copied(reading, arrays).length > 0 ? placedBy(reading.plan) : null;
  if (places) replaced.set(places.by, places.drive);
  return seated.map((each) => ({ ...each, drives: each.drives.map((id) => replaced.get(id) ?? id) }));
}

/** What a rewrite, a rebuild or a check that is under way is as steps. */
function runningSteps(
  reading: Reading,
  found: ArrayGroup,
  id: string,
  pool: string,
  rebuilds: Map<string, string>,
): StepBody[] {
  const joining = [
    ...new Set(
      found.arrays.flatMap((array) => array.joining.flatMap((each) => reading.drives.use(nameOf(each)) ?? [])),
    ),
  ];
  const levels = found.arrays.filter((array) => array.levelBefore !== null);
  const [rewritten] = levels;
  const to = rewritten ? levelOf({ ...rewritten, levelBefore: null }) : null;
  const checked = found.arrays.some((array) => array.running?.kind === "check");
  const brings = broughtBy(reading.plan, id);
  const planned = brings && joining.some((drive) => brings.drives.includes(drive)) ? brings.body : null;
  return [
    ...[...rebuilds].map(
      ([drive, by]): StepBody => plannedPlace(reading, drive, by) ?? { kind: "rebuild", group: id, drive, by },
    ),
    ...copied(reading, found.arrays),
    ...(planned
      ? [planned]
      : to
        ? [{ kind: "change-level" as const, group: id, layout: to.id, drives: joining }]
        : joining.length > 0
          ? [{ kind: "widen-group" as const, group: id, drives: joining }]
          : []),
    ...(checked ? [{ kind: "verify" as const, pool }] : []),
  ];
}

/** Arrays with what the plan's next step tells of the work that is under way on them. */
function toldByPlan(reading: Reading, arrays: readonly PrintedArray[]): PrintedArray[] {
  const listed = arrays.flatMap(({ places }) => places.flatMap((place) => (place ? idOf(reading, place) : [])));
  const group = groupInPlan(reading.plan, listed);
  return arrays.map((array) => asPlanned(reading, array, group));
}

/**
 * The groups that arrays are on which one set of volumes lies.
 *
 * @param pool the id of their pool
 * @param freeGroup gives the id of a group that the plan does not have
 * @returns null where they are no layout of the catalogue, which is said among what could not be made out
 */
export function foundGroups(
  reading: Reading,
  arrays: readonly PrintedArray[],
  pool: string,
  freeGroup: () => string,
): FoundGroup[] | null {
  const names = listOf(arrays.map(({ name }) => name));
  const strange = arrays.find((array) => !levelOf(array));
  if (strange) {
    const copies = strange.copies !== null && strange.copies !== 2 ? ` with ${strange.copies} copies` : "";
    reading.notMadeOut.push(
      `${strange.name} is ${strange.level ?? "an array"}${copies}, which Cortijo does not lay out. Its drives ` +
        "are taken, and no pool is made of them.",
    );
    return null;
  }
  const told = toldByPlan(reading, arrays);
  const gaps = new Gaps(reading, told);
  const rebuildsOf = new Map<string, string>();
  const seats = told.flatMap((array) => seat(reading, gaps, array, rebuildsOf) ?? []);
  const seated = untilAllAreFilled(reading, seats, rebuildsOf);
  const planned = groupInPlan(
    reading.plan,
    seated.flatMap(({ drives }) => drives),
  );
  const groups = groupsOfArrays(seated, planned ? layoutOf(planned.layout) : null);
  if (!groups) {
    reading.notMadeOut.push(
      `${names} lie on some of the same drives in a way that is no layout of the catalogue. Their drives are ` +
        "taken, and no pool is made of them.",
    );
    return null;
  }
  return groups.map((found): FoundGroup => {
    const old = groupInPlan(reading.plan, found.drives);
    const id = old?.id ?? freeGroup();
    const rebuilds = new Map([...rebuildsOf].filter(([gone]) => found.drives.includes(gone)));
    const use = (members: readonly PrintedMember[]) => [
      ...new Set(members.flatMap((member) => reading.drives.use(nameOf(member)) ?? [])),
    ];
    const spares = use(found.arrays.flatMap((array) => array.spares));
    const logs = use(found.arrays.flatMap((array) => array.journals));
    const plain: Group = {
      id,
      layout: found.layout.id,
      drives: found.drives,
      ...(found.layout.chooses === "pairs" ? { options: { pairs: "as-named" } } : {}),
    };
    const running = runningSteps(reading, found, id, pool, rebuilds);
    for (const member of found.arrays.flatMap((array) => array.replacing)) {
      use([member]);
      if (copied(reading, found.arrays).length > 0) continue;
      reading.notMadeOut.push(
        `${member.device} is being filled to take the place of another drive. Which one is printed nowhere.`,
      );
    }
    return { group: withFigures(reading, plain, found.arrays), arrays: found.arrays, spares, logs, running };
  });
}
