import { exposedWords } from "../walk/exposedWords";
import { conditionOf } from "../box/condition";
import { driveOf } from "../box/find";
import { rulesOfBox } from "../box/rulesOfBox";
import type { Bytes } from "../bytes/bytes";
import type { UnitFamily } from "../bytes/formatBytes";
import type { BoxRules, Plan, Step, WorkKind } from "../document/plan";
import { bayOf } from "../drives/drive";
import { markOfDrive, shortSize } from "../drives/nameOfDrive";
import type { Finding } from "../findings/finding";
import { boxScreen } from "../prediction/boxScreen";
import { attentionOf } from "../steps/attention";
import { moduleOf } from "../steps/registry";
import { stepLabel } from "../steps/stepLabel";
import type { Attention } from "../steps/stepModule";
import { onlineWords } from "../steps/swapping";
import type { Hours } from "../time/hours";
import type { Walk } from "../walk/moment";
import { LOOKS_AHEAD } from "../walk/watchers/registry";
import { capital } from "../words/capital";
import { actsOf, type Acts } from "./acts";
import { driveCheck, type DriveCheck } from "./driveCheck";
import { expectedSize } from "./expectedSize";
import { stepNow, type StepNow } from "./stepNow";
import { workEnded, workShows } from "../logbook/workWords";

/** A step for whoever stands at the box: all that is needed to do it, in order. */
export interface Card {
  step: Step;
  label: string;
  does: string;
  why: string;
  where: Attention;
  /** Why it cannot be done on the box as the plan has it; empty where it can. */
  blocks: Finding[];
  warnings: Finding[];
  /** What to have at hand. */
  atHand: string[];
  /** Drives that have to be the right ones before it is begun. */
  checks: DriveCheck[];
  acts: Acts;
  /** What the box does by itself, and for how long; null where it is done with the acts. */
  work: { kind: WorkKind; hours: Hours; shows: string } | null;
  /** Whether the pool can be used meanwhile. */
  meanwhile: string;
  /** What not to do while it runs. */
  never: string[];
  /** How one knows that it has ended. */
  ended: string;
  /** What the box then shows; null where no size is concerned. */
  size: { of: string; bytes: Bytes; shown: string; same: boolean } | null;
  /** What to do if the box says something else. */
  otherwise: string;
}

/** What lies on the shelf or is still to be bought, and where a backup goes. */
function atHand({ step, before }: StepNow, family: UnitFamily): string[] {
  const { plan } = before.state;
  const drives = moduleOf(step)
    .handles(step)
    .flatMap((id) => {
      const drive = driveOf(plan, id);
      if (!drive || bayOf(drive) !== null) return [];
      const name = `the ${shortSize(drive, family)} drive`;
      return [
        drive.toBuy
          ? `${capital(name)} that is bought for it`
          : `${capital(name)} from the shelf (${markOfDrive(drive)})`,
      ];
    });
  const to = "to" in step ? plan.backups?.find(({ id, kind }) => id === step.to && kind === "usb-drive") : undefined;
  return to ? [...drives, `${capital(to.name)}, to be attached`] : drives;
}

/**
 * The drives that have to be the right ones: those that are overwritten, those that are pulled, first or when the work
 * has ended, and those that are put in and of which the plan does not know the serial number yet.
 */
function checksOf({ step, before, after, walked }: StepNow, family: UnitFamily): DriveCheck[] {
  const erased = new Set(walked.cost.erased);
  const handled = moduleOf(step).handles(step);
  return before.state.plan.drives.flatMap((drive) => {
    const then = driveOf(after.state.plan, drive.id);
    const bay = then ? bayOf(then) : null;
    const isPulled = bayOf(drive) !== null && bay === null;
    const isNew = drive.serial === undefined && bayOf(drive) === null && handled.includes(drive.id);
    const why = erased.has(drive.id) ? "erased" : isPulled ? "pulled" : isNew ? "new" : null;
    return why ? [driveCheck(drive, bay, why, family)] : [];
  });
}

function neverOf({ walked, before }: StepNow, rules: BoxRules): string[] {
  const { cost, exposure } = walked;
  const degraded = before.state.plan.pools.some(
    (pool) => conditionOf(before.state.plan, pool, rules).missing.length > 0,
  );
  return [
    ...(cost.boxWork ? ["Do not switch the box off, and start nothing that the plan does not say."] : []),
    ...exposure.map((each) => `Pull no drive: ${exposedWords(each, cost.hours.expected)}.`).slice(0, 1),
    ...(cost.missing.length > 0 || degraded
      ? [
          "Do not create, format or “initialise” anything if the box offers it, and let no repair of the file " +
            "system run.",
        ]
      : []),
    ...(cost.online === "offline" ? ["Let nobody use the pool until it has ended."] : []),
  ];
}

const AT_ONCE = "The box shows it as done at once.";

/** A step that is carried out on a certain box as a card. */
export function cardFrom(now: StepNow, family: UnitFamily): Card {
  const { step, walked } = now;
  const [before, after] = [now.before.state.plan, now.after.state.plan];
  const rules = rulesOfBox(before);
  const work = walked.cost.boxWork;
  const size = walked.done ? expectedSize(before, after, rulesOfBox(after)) : null;
  return {
    step,
    label: stepLabel(step, before, family),
    does: walked.does,
    why: walked.why,
    where: attentionOf(step, before, after),
    blocks: walked.findings.filter(({ severity }) => severity === "block"),
    warnings: walked.findings.filter(({ severity, code }) => severity === "warn" && !LOOKS_AHEAD.has(code)),
    atHand: atHand(now, family),
    checks: checksOf(now, family),
    acts: actsOf(step, { before, after, rules, family }),
    work: work ? { kind: work.kind, hours: work.hours, shows: workShows(work.kind, rules) } : null,
    meanwhile: `${capital(onlineWords(walked.cost, rules))}.`,
    never: neverOf(now, rules),
    ended: work ? workEnded(work.kind) : AT_ONCE,
    size: size && {
      of: size.of,
      bytes: size.bytes,
      shown: boxScreen(size.bytes, rulesOfBox(after)),
      same: size.bytes === size.before,
    },
    otherwise:
      moduleOf(step).ifADriveFails?.(step, before) ??
      "Change nothing more. See what the box shows, and read it with “Box now”: the plan is then set to how it is.",
  };
}

/**
 * A step on the box as it is now, as a card to work from.
 *
 * @returns null where the plan has no such step
 * @example cardOf(plan, "s1", "TB")?.acts.first // ["Switch the box off, and wait until its lights are out.", …]
 */
export function cardOf(plan: Plan, id: string, family: UnitFamily, today: string | null = null): Card | null {
  const now = stepNow(plan, id, family, today);
  return now && cardFrom(now, family);
}

/**
 * All steps of a plan as cards, each on the box as those before it leave it; skipped ones are left out.
 *
 * @example cardsOf(walkPlan(plan)).map(({ label }) => label)
 */
export const cardsOf = ({ moments, family }: Walk): Card[] =>
  moments.flatMap((after, i) => {
    const [before, walked] = [moments[i - 1], after.walked];
    return before && walked && !walked.step.disabled
      ? [cardFrom({ step: walked.step, before, after, walked }, family)]
      : [];
  });
