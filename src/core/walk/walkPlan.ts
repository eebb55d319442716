import { rulesOfBox } from "../box/rulesOfBox";
import { type UnitFamily } from "../bytes/formatBytes";
import { CURRENT_DAYS } from "../data/currentDays";
import type { Plan } from "../document/plan";
import { daysBetween } from "../time/days";
import { firstMoment, momentOf } from "./firstMoment";
import type { Walk, WalkedMoment } from "./moment";
import { walkStep } from "./walkStep";
import { lookAhead, LOOKS_AHEAD } from "./watchers/registry";

/** What a walk begins with, beside the steps; the hours of a box are learned from its history and log. */
const BEGINS_WITH = [
  "box",
  "drives",
  "pools",
  "dataSets",
  "backups",
  "doneBefore",
  "history",
  "log",
  "ratesOnly",
] as const satisfies readonly (keyof Plan)[];

/** A plan without the backups that were made too long ago to hold what came since. */
function withCurrentBackups(plan: Plan, day: string | null): Plan {
  const { doneBefore } = plan;
  if (!doneBefore?.backedUp || day === null) return plan;
  const backedUp = doneBefore.backedUp.filter(({ at }) => daysBetween(at.slice(0, 10), day) <= CURRENT_DAYS);
  return { ...plan, doneBefore: { ...doneBefore, backedUp } };
}

/**
 * Walks a plan through its steps to its moments: what each does, takes and risks, and what pool, volumes and file
 * systems hold after it. Steps that cannot be carried out say why and change nothing; the later ones are walked on from
 * there.
 *
 * @param family the units in which findings and sentences speak
 * @param earlier a walk of an earlier state of the same plan: as far as the box and the steps are the same, it is taken
 * over
 * @param today as YYYY-MM-DD; the age of backups is judged by it, or by the plan's first day where it has a calendar
 * @example walk(plan).moments.at(-1).capacities.pool // what the pools hold in the end
 */
export function walkPlan(plan: Plan, family: UnitFamily = "TB", earlier?: Walk, today: string | null = null): Walk {
  const day = plan.calendar?.start ?? today;
  const moments: WalkedMoment[] = [];
  const sameStart =
    earlier?.family === family && earlier.day === day && BEGINS_WITH.every((key) => earlier.plan[key] === plan[key]);
  const first = (sameStart ? earlier.moments[0] : undefined) ?? firstMoment(withCurrentBackups(plan, day));
  moments.push(first);
  let { state } = first;
  let same = sameStart;
  let end = 0;
  plan.steps.forEach((step, i) => {
    const previous = moments[i];
    const old = earlier?.moments[i + 1];
    same &&= old?.walked?.step === step;
    if (same && old?.walked) {
      // What looks ahead is said anew.
      const walked = {
        ...old.walked,
        findings: old.walked.findings.filter((finding) => !LOOKS_AHEAD.has(finding.code)),
      };
      moments.push({ ...old, walked });
      state = old.state;
    } else {
      const setting = { rules: rulesOfBox(state.plan), family, day };
      const before = step.together ? moments.flatMap((moment) => moment.walked ?? []) : [];
      const next = walkStep(state, step, end, before, setting);
      state = next.state;
      moments.push(momentOf(state, next.walked, previous));
    }
    end = Math.max(end, moments.at(-1)?.walked?.to ?? end);
  });
  lookAhead(moments, { rules: rulesOfBox(state.plan), family });
  return { plan, family, day, moments };
}
