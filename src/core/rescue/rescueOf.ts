import { conditionOf } from "../box/condition";
import { poolOf } from "../box/find";
import { goneIn } from "../box/gone";
import { rulesOfBox } from "../box/rulesOfBox";
import { systemFate } from "../box/systemFate";
import { unprotectedOf, unprotectedWords } from "../data/unprotected";
import { worseBy } from "../drives/wear";
import { hasParitySchedule } from "../layouts/hasParitySchedule";
import type { UnitFamily } from "../bytes/formatBytes";
import type { Command } from "../document/command";
import type { Plan, Pool } from "../document/plan";
import { NO_HOURS } from "../time/hours";
import { aboutTheDead } from "./afterwards";
import type { Course } from "./drafts";
import { gapsOf } from "./gaps";
import { aboutBackups } from "./lostCourse";
import { questionsOf } from "./questions";
import type { Rescue, RescueChoices, RescueSetting } from "./rescue";
import { commandOf, type Tried } from "./tried";
import { bestOf, variantsOf } from "./variants";
import { firstWords, neverDo, readableNow, whatWouldTakeIt } from "./whatItMeans";
import { leastToBuy, whatFits } from "./whatFits";

/** What a rescue is worked out for, of a pool of a plan; undefined for one that is not there. */
export function settingOf(plan: Plan, pool: string, family: UnitFamily, day: string | null): RescueSetting | undefined {
  const found = poolOf(plan, pool);
  return found && { plan, pool: found, rules: rulesOfBox(plan), family, day };
}

/**
 * The pools of a plan that ask for a rescue: they lack drives, a spare, cache or log of theirs has failed, or one of
 * their drives is failing or gets worse.
 *
 * @example poolsToRescue(plan).map(({ id }) => id) // ["p1"]
 */
export function poolsToRescue(plan: Plan): Pool[] {
  const gone = goneIn(plan);
  // Without its system the box does not start, and no pool of it is there.
  if (gone.size > 0 && systemFate(plan, gone, rulesOfBox(plan)) === "gone") return plan.pools;
  const failing = new Set(
    plan.drives.filter(({ health }) => health.state === "failing" || worseBy(health) > 0).map(({ id }) => id),
  );
  return plan.pools.filter((pool) => {
    const members = pool.groups.flatMap((group) => group.drives);
    const spares = [...pool.spares, ...pool.groups.flatMap((group) => group.spares ?? [])];
    const beside = [...spares, ...(pool.helpers ?? []).map(({ drive }) => drive)];
    return members.some((id) => gone.has(id) || failing.has(id)) || beside.some((id) => gone.has(id));
  });
}

/** A rescue, and the command that puts its steps into the plan; null where they are all there. */
export interface PlannedRescue {
  rescue: Rescue;
  command: Extract<Command, { kind: "insert-sequence" }> | null;
}

/** Of a pool that asks for nothing. */
const NOTHING: { course: Course; tried: Tried } = {
  course: { drafts: [], buys: [] },
  tried: { acts: [], hours: NO_HOURS, bareHours: 0, blocks: [], endsWhole: true },
};

/** Which drives at hand fit, why the others do not, and what has to be bought at least where the course buys one. */
function shopping(setting: RescueSetting, { drafts }: Course): Pick<Rescue, "buy" | "fits" | "fitsNot"> {
  const about = gapsOf(setting).map(({ group, old }) => ({
    ...whatFits(setting, group, old),
    buy: leastToBuy(setting, group, old),
  }));
  const fits = new Set(about.flatMap((each) => each.fits.map(({ id }) => id)));
  const fitsNot = new Map(
    about.flatMap((each) => each.fitsNot.map(({ drive, why }): [string, string] => [drive, why])),
  );
  const [largest] = about.map(({ buy }) => buy).sort((a, b) => b.leastBytes - a.leastBytes);
  return {
    buy: drafts.some(({ what }) => what === "buy") ? (largest ?? null) : null,
    fits: [...fits],
    fitsNot: [...fitsNot].filter(([drive]) => !fits.has(drive)).map(([drive, why]) => ({ drive, why })),
  };
}

/**
 * What to do now for a pool: whether its data can be read, what would take it, what must not be done, and the course of
 * work that is least exposed to a further failure, tried on the plan itself; with what the owner may choose otherwise.
 *
 * @param choices what the owner has chosen already
 * @example rescueOf(setting, {}).rescue.acts[0].what // "stop"
 */
export function rescueOf(setting: RescueSetting, choices: RescueChoices = {}): PlannedRescue {
  const { plan, pool, rules } = setting;
  const next = plan.steps.find((step) => !step.disabled);
  const condition = conditionOf(plan, pool, rules, next);
  const best = bestOf(variantsOf(setting, condition, choices));
  const { course, tried } = best ?? NOTHING;
  const rescue: Rescue = {
    pool: pool.id,
    condition,
    readable: readableNow(condition),
    first: firstWords(setting, condition),
    wouldTake: whatWouldTakeIt(setting, condition),
    never: neverDo(setting, condition),
    acts: tried.acts,
    buys: course.buys,
    ...shopping(setting, course),
    questions: best ? questionsOf({ setting, condition, choices, best }) : [],
    hours: tried.hours,
    bareHours: tried.bareHours,
    blocks: tried.blocks,
    comesBack: [
      ...(condition.redundancyLeft < 0 ? aboutBackups(setting) : []),
      ...(condition.missing.length > 0 && hasParitySchedule(pool, rules) && condition.state !== "lost"
        ? [unprotectedWords(unprotectedOf(plan, pool, null), setting.family)]
        : []),
    ],
    afterwards: aboutTheDead(setting),
  };
  return { rescue, command: commandOf(plan, course, `Rescue of ${pool.name || "the pool"}`) };
}
