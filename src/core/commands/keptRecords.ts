import { MOST_HISTORY, MOST_LOG, MOST_RECORD_CHARACTERS } from "../document/limits";
import type { Plan } from "../document/plan";
import { recordCharacters } from "../document/recordCharacters";
import { freeRecordId } from "../logbook/records";
import { refuse } from "./refusal";

const TOO_MANY = "The logbook is full: on its page, save the oldest entries as CSV and take them out.";

const countOf = ({ history = [], log = [] }: Plan): number => history.length + log.length;

/** Refuses a command after which the records would be more than a plan holds. */
export function refuseTooMany(before: Plan, { history = [], log = [] }: Plan): void {
  if (history.length + log.length <= countOf(before)) return;
  if (history.length > MOST_HISTORY || log.length > MOST_LOG) refuse(TOO_MANY);
  if (recordCharacters({ history, log }) > MOST_RECORD_CHARACTERS) refuse(TOO_MANY);
}

/**
 * A step that is under way and that a command has taken out of the plan (a rebuild whose drive has failed) is not
 * forgotten: it has stopped, as far as is known when it was last heard of.
 */
export function stopWhatIsGone(before: Plan, plan: Plan): void {
  const { underWay } = before;
  if (!underWay || underWay.length === 0) return;
  const there = new Set(plan.steps.map(({ id }) => id));
  const gone = underWay.filter(({ step }) => !there.has(step) && plan.underWay?.some((each) => each.step === step));
  if (gone.length === 0) return;
  const history = (plan.history ??= []);
  for (const { step, start, readings = [] } of gone) {
    const kind = before.steps.find(({ id }) => id === step)?.kind ?? "verify";
    history.push({
      id: freeRecordId("h", history),
      step,
      kind,
      label: kind.replaceAll("-", " "),
      start,
      end: readings.at(-1)?.at ?? start,
      outcome: "stopped",
      why: "It was taken out of the plan.",
    });
  }
  const left = plan.underWay?.filter(({ step }) => there.has(step)) ?? [];
  if (left.length > 0) plan.underWay = left;
  else delete plan.underWay;
}
