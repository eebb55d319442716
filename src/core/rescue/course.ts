import { bareIn } from "../data/precious";
import { destinationOf } from "../data/destination";
import { dataSetsIn } from "../data/stored";
import { leftOf } from "../failures/condition";
import { counted, plural } from "../words/counted";
import { parityOf } from "../bands/parityOf";
import { bandsOfGroup, fateOfPool } from "../box/figures";
import { drivesOf } from "../box/find";
import { goneIn, goneOf } from "../box/gone";
import type { Drive } from "../document/plan";
import { bayOf } from "../drives/drive";
import { worseBy } from "../drives/wear";
import { nameOfDrive } from "../drives/nameOfDrive";
import { afterwards, brokenHelpers, spentSpares, withoutSystem } from "./afterwards";
import { copying, finding, looking, oneCopyLeft, stopping, underWay } from "./atFirst";
import { bringBack, replacement } from "./bringingBack";
import { nameIn, type Course, type Draft } from "./drafts";
import { answerTo, gapsOf } from "./gaps";
import { isWorn } from "./isWorn";
import type { Instead, RescueChoices, RescueSetting } from "./rescue";
import { type Supplies, suppliesFor } from "./supplies";
import { whatFits } from "./whatFits";

/** Drives still in use that will not be for long: copied to another while they can be read. */
function failing(setting: RescueSetting, supplies: Supplies, choices: RescueChoices): Draft[] {
  const { plan, pool, rules, family } = setting;
  return pool.groups.flatMap((group) =>
    drivesOf(plan, group.drives)
      .filter((drive) => (drive.health.state === "failing" || worseBy(drive.health) > 0) && !goneIn(plan).has(drive.id))
      .flatMap((old): Draft[] => {
        const gap = { group, old };
        const planned = answerTo(setting, gap);
        const at = whatFits(setting, group, old).fits.find(({ id }) => !supplies.isTaken(id))?.id;
        const by = planned && "by" in planned ? planned.by : at;
        const { next, drafts } = replacement(setting, gap, by === undefined ? { buy: true } : { by }, supplies);
        if (!next) return [];
        const isParity = parityOf(bandsOfGroup(plan, group, rules)).includes(old.id);
        const how = planned && "how" in planned ? planned.how === "attached" : rules.replacing === "old-attached";
        const attached = choices.attached ?? how;
        return [
          ...drafts,
          ...(attached ? [] : beforePulling(setting, old)),
          {
            what: "replace",
            does: attached
              ? `Put ${nameIn(next, family)} beside ${nameOfDrive(old, family)}, have that one copied, and pull ` +
                "it only then."
              : `Replace ${nameOfDrive(old, family)}, which will not work for long, by ${nameIn(next, family)}.`,
            why: attached
              ? "As long as it can be read, protection stays whole."
              : "It is better replaced before it fails.",
            step: isParity
              ? { kind: "change-parity-drive", group: group.id, drive: old.id, by: next.id }
              : { kind: "replace-drive", drive: old.id, by: next.id, how: attached ? "attached" : "pulled" },
          },
        ];
      }),
  );
}

/** What is in one place only is copied away before a drive is pulled without which one more failure would lose data. */
function beforePulling(setting: RescueSetting, old: Drive): Draft[] {
  const { plan, pool, rules, day } = setting;
  const bare = bareIn(plan, pool.id, day);
  const isKept = dataSetsIn(plan, pool.id).length > 0 && bare.length === 0;
  if (leftOf(fateOfPool(plan, pool, rules, [old.id])) >= 1 || isKept) return [];
  const to = destinationOf(plan, pool);
  return [
    {
      what: "copy",
      does: "Back the pool up first: your box can replace a drive only after it is pulled.",
      why: "Until the new one is filled, one more failed drive would lose data.",
      step: { kind: "back-up", pool: pool.id, to },
    },
  ];
}

/** Drives that work and are worn: tested, and watched. */
function worn({ plan, pool, family }: RescueSetting): Draft[] {
  const members = drivesOf(
    plan,
    pool.groups.flatMap((group) => group.drives),
  );
  const bad = ({ health }: Drive) => (health.reallocatedSectors ?? 0) + (health.pendingSectors ?? 0);
  return members
    .filter((drive) => isWorn(drive) && worseBy(drive.health) === 0)
    .map((drive) => ({
      what: "test",
      does:
        `Run an extended self-test of ${nameOfDrive(drive, family)} where it is. If it fails, or the counts grow ` +
        "from one reading to the next, replace it while it can still be read; leave it in until the new one is " +
        "filled.",
      why:
        bad(drive) === 0
          ? "It is marked as worn."
          : `${counted(bad(drive), "sector")} of it ${plural(bad(drive), "is", "are")} worn out or cannot be read.`,
      step: { kind: "test-drive", drive: drive.id },
    }));
}

/**
 * The course for a pool of which nothing is lost, in the order of the trade: stop what writes, find the drive, copy
 * what is in one place only, look whether it is loose, replace, rebuild or restore, check, resume, a spare
 * again, a backup.
 *
 * @param instead what takes the place of each drive that is gone
 * @param isTested whether a new drive is tested first
 */
export function courseOfDegraded(
  setting: RescueSetting,
  instead: ReadonlyMap<string, Instead>,
  isTested: boolean,
  choices: RescueChoices,
): Course {
  const { plan, pool } = setting;
  const supplies = suppliesFor(setting);
  const gaps = gapsOf(setting);
  const used: (Drive | undefined)[] = [];
  const back = gaps.flatMap((gap) => {
    const { next, drafts } = replacement(setting, gap, instead.get(gap.old.id) ?? { buy: true }, supplies);
    used.push(next);
    const isNew = next !== undefined && bayOf(next) === null && next.id !== gap.old.id;
    return [...drafts, ...bringBack(setting, gap, next, isTested && isNew)];
  });
  const more = failing(setting, supplies, choices);
  const spent = spentSpares(setting, used);
  const tests = gaps.length === 0 ? worn(setting) : [];
  const helpers = brokenHelpers(setting);
  const system = withoutSystem(setting);
  const isWhole = goneOf(plan, pool).length === 0;
  if (isWhole && more.length === 0 && spent.length === 0)
    return { drafts: [...system, ...helpers, ...tests], buys: [] };
  const drafts = [
    ...system,
    ...(isWhole ? [] : [...underWay(setting), ...stopping(setting)]),
    ...gaps.map((gap) => finding(setting, gap)),
    ...oneCopyLeft(setting, gaps),
    ...(isWhole ? [] : copying(setting)),
    ...looking(
      setting,
      gaps.filter((gap) => answerTo(setting, gap) === undefined),
    ),
    ...back,
    ...tests,
    ...more,
    ...helpers,
    ...afterwards(setting, spent, supplies),
  ];
  return { drafts, buys: supplies.buys };
}
