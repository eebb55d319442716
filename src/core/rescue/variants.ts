import type { Condition } from "../failures/condition";
import { ownValue } from "../records/ownValue";
import { courseOfDegraded } from "./course";
import type { Course } from "./drafts";
import { gapsOf, insteadOf } from "./gaps";
import { courseOfLost, courseOfPartlyLost } from "./lostCourse";
import type { Instead, RescueChoices, RescueSetting } from "./rescue";
import { tryCourse, type Tried } from "./tried";
import { whatFits } from "./whatFits";

/** One way through: what takes the place of each drive that is gone, and whether it is tested. */
export interface Variant {
  instead: ReadonlyMap<string, Instead>;
  test: boolean;
  course: Course;
  tried: Tried;
}

export const isSame = (one: Instead, other: Instead): boolean => JSON.stringify(one) === JSON.stringify(other);

/** All ways to fill the gaps, a drive at hand in one place only. */
function fillings(setting: RescueSetting, choices: RescueChoices): ReadonlyMap<string, Instead>[] {
  let ways: ReadonlyMap<string, Instead>[] = [new Map()];
  for (const gap of gapsOf(setting)) {
    const asked = ownValue(choices.instead, gap.old.id);
    const reserved = Object.entries(choices.instead ?? {}).flatMap(([drive, each]) =>
      drive !== gap.old.id && "by" in each ? [each.by] : [],
    );
    ways = ways.flatMap((way) => {
      const taken = new Set([...reserved, ...[...way.values()].flatMap((each) => ("by" in each ? [each.by] : []))]);
      const { fits } = whatFits(setting, gap.group, gap.old);
      const next = fits.find(({ id }) => !taken.has(id));
      const free = insteadOf(setting, gap).flatMap((each): Instead[] =>
        "by" in each && taken.has(each.by) ? (next ? [{ by: next.id }] : []) : [each],
      );
      // What is at hand is never later there than what has to be bought first.
      const open = free.some((each) => "by" in each) ? free.filter((each) => !("buy" in each)) : free;
      return (asked ? [asked] : open).map((each) => new Map([...way, [gap.old.id, each]]));
    });
  }
  return ways.slice(0, MOST_WAYS);
}

/** No more ways than this are tried; with three drives gone there are fewer. */
const MOST_WAYS = 27;

function courseFor(
  setting: RescueSetting,
  condition: Condition,
  instead: ReadonlyMap<string, Instead>,
  test: boolean,
  choices: RescueChoices,
): Course {
  if (condition.state === "lost") return courseOfLost(setting, instead);
  if (condition.state === "partly-lost") return courseOfPartlyLost(setting, instead, choices);
  return courseOfDegraded(setting, instead, test, choices);
}

/** Whether one way is better than another: it can be done, makes it whole, is least exposed, tests, and is quicker. */
function isBetter(one: Variant, other: Variant): boolean {
  const key = ({ tried, test }: Variant) => [
    tried.blocks.length > 0 ? 1 : 0,
    tried.endsWhole ? 0 : 1,
    tried.bareHours,
    test ? 0 : 1,
    tried.hours.expected,
  ];
  const [a, b] = [key(one), key(other)];
  for (let i = 0; i < a.length; i += 1) {
    const difference = (a[i] ?? 0) - (b[i] ?? 0);
    if (Math.abs(difference) > 1e-9) return difference < 0;
  }
  return false;
}

/** What has been tried of a rescue already: each answer to a question asks for much of the same. */
const known = new WeakMap<RescueSetting, Map<string, Variant>>();

function triesOf(setting: RescueSetting): Map<string, Variant> {
  const tries = known.get(setting) ?? new Map<string, Variant>();
  known.set(setting, tries);
  return tries;
}

/** Every way through that the owner has left open. */
export function variantsOf(setting: RescueSetting, condition: Condition, choices: RescueChoices): Variant[] {
  const tries = triesOf(setting);
  const variant = (instead: Variant["instead"], test: boolean): Variant => {
    const key = JSON.stringify([[...instead], test, choices.from, choices.attached]);
    const old = tries.get(key);
    if (old) return old;
    const course = courseFor(setting, condition, instead, test, choices);
    const made = { instead, test, course, tried: tryCourse(setting, course) };
    tries.set(key, made);
    return made;
  };
  return fillings(setting, choices).flatMap((instead) => {
    if (choices.test !== undefined) return [variant(instead, choices.test)];
    const untested = variant(instead, false);
    const tests = untested.course.drafts.some(({ what }) => what === "swap") && condition.redundancyLeft >= 0;
    return tests ? [variant(instead, true), untested] : [untested];
  });
}

export const bestOf = (variants: readonly Variant[]): Variant | undefined =>
  variants.reduce<Variant | undefined>((best, each) => (best && !isBetter(each, best) ? best : each), undefined);
