import type { CommandModule } from "../commandModule";
import type { StepUnderWay } from "../../document/plan";
import { need, refuse } from "../refusal";

/** A step under way that was begun at another time. */
function begunAt(running: StepUnderWay, start: string): void {
  const [first] = running.readings ?? [];
  if (first && Date.parse(first.at) < Date.parse(start))
    refuse("Its progress was read before that. Give an earlier time.");
  running.start = start;
}

/** Corrected times, or whether a time counts, of a step under way or an entry of the logbook. */
export const correctRecord: CommandModule<"correct-record"> = {
  apply: (plan, { record, changes }) => {
    const running = plan.underWay?.find(({ step }) => step === record);
    if (running) return begunAt(running, changes.start ?? running.start);
    const { history = [], log = [] } = plan;
    const entry = need(
      [...history, ...log].find(({ id }) => id === record),
      "That entry of the logbook",
    );
    const { start = entry.start, end = entry.end, leftOut } = changes;
    if (end !== undefined && Date.parse(end) < Date.parse(start)) refuse("It would end before it begins.");
    entry.start = start;
    if (end !== undefined) entry.end = end;
    if (leftOut === true) entry.leftOut = true;
    else if (leftOut === false) delete entry.leftOut;
  },
  describe: ({ changes: { leftOut } }) =>
    leftOut === undefined
      ? "corrected a time"
      : leftOut
        ? "left a time out of what is expected"
        : "counted a time for what is expected",
};
