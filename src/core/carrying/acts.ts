import { freeBay } from "../box/bays";
import { driveOf } from "../box/find";
import type { UnitFamily } from "../bytes/formatBytes";
import type { BoxRules, Drive, Plan, Step } from "../document/plan";
import { bayOf } from "../drives/drive";
import { isGone } from "../drives/driveState";
import { markOfDrive, shortSize } from "../drives/nameOfDrive";
import { moduleOf } from "../steps/registry";
import { tellNamesOf } from "../steps/tellNamesOf";

/** The acts of a step at the box, each a sentence: those before its work begins, and those after it has ended. */
export interface Acts {
  first: string[];
  last: string[];
}

/** The box before and after a step, and what it can do. */
export interface ActSetting {
  before: Plan;
  after: Plan;
  rules: BoxRules;
  family: UnitFamily;
}

const nameOf = (drive: Drive, family: UnitFamily) => `the ${shortSize(drive, family)} drive (${markOfDrive(drive)})`;

/** Changes of drives as a box wants them: with it switched off, with its pool stopped, or as it runs. */
function changing(changes: readonly string[], { before, rules }: ActSetting): string[] {
  if (changes.length === 0) return [];
  if (before.pools.length === 0 || rules.swapping === "hot-swap") return [...changes];
  return rules.swapping === "power-off"
    ? [
        "Switch the box off, and wait until its lights are out.",
        ...changes,
        "Switch the box on again, and wait until it answers.",
      ]
    : ["Stop the pool on the box.", ...changes, "Start the pool again."];
}

/** Which drives change their bay in a step. */
function movesOf({ before, after }: ActSetting): { drive: Drive; from: number | null; to: number | null }[] {
  return before.drives.flatMap((drive) => {
    const then = driveOf(after, drive.id);
    const [from, to] = [bayOf(drive), then ? bayOf(then) : null];
    return from === to ? [] : [{ drive, from, to }];
  });
}

/** What lies on the shelf and stays there is attached for its step all the same: without power nothing can be done. */
function attaching(step: Step, { before, after, family }: ActSetting): string[] {
  return moduleOf(step)
    .handles(step)
    .flatMap((id) => {
      const [drive, then] = [driveOf(before, id), driveOf(after, id)];
      if (!drive || !then || isGone(drive) || bayOf(drive) !== null || bayOf(then) !== null) return [];
      const bay = freeBay(before);
      const name = nameOf(drive, family);
      return [
        bay === null
          ? `Attach ${name} by an adapter, on USB for instance.`
          : `Put ${name} into bay ${bay}, or attach it by an adapter.`,
      ];
    });
}

/**
 * What is to be done at the box for a step, in order: switched off or stopped where the box wants that, drives pulled
 * and put in, the box told; and afterwards the drives pulled that had to stay until then.
 *
 * @example actsOf(replacePulled, setting).first[1] // "Pull the 4 TB drive (…4418) out of bay 1."
 */
export function actsOf(step: Step, setting: ActSetting): Acts {
  const { before, after, rules, family } = setting;
  const own = moduleOf(step);
  const moves = movesOf(setting);
  const out = moves
    .filter(({ to }) => to === null)
    .map(({ drive, from }) => `Pull ${nameOf(drive, family)} out of bay ${from}.`);
  const into = moves.flatMap(({ drive, from, to }) =>
    to === null
      ? []
      : [
          from === null
            ? `Put ${nameOf(drive, family)} into bay ${to}.`
            : `Move ${nameOf(drive, family)} from bay ${from} to bay ${to}.`,
        ],
  );
  const later = own.pullsLast?.(step) ?? false;
  return {
    first: [
      ...changing([...(later ? [] : out), ...into, ...attaching(step, setting)], setting),
      ...own.tells(step, tellNamesOf(before, after, rules, family)),
    ],
    last: later ? changing(out, setting) : [],
  };
}
