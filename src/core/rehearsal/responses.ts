import { hasParitySchedule } from "../layouts/hasParitySchedule";
import { rulesOfBox } from "../box/rulesOfBox";
import type { Pool } from "../document/plan";
import type { Answer } from "./script";
import { again, schedule, type Stage, takeLosses, type Trouble } from "./stage";

/** After how long a drive that is only out goes in again, in hours: at once by whoever looks, else the next day. */
const SOON = 1 / 6;
const NEXT_DAY = 24;

/** The pool of a drive, as the box is. */
const poolOf = ({ plan }: Stage, drive: string): Pool | undefined =>
  plan.pools.find(({ groups }) => groups.some((group) => group.drives.includes(drive)));

/** A drive that is gone. What is only out is put back; for what has failed there is advice, or nothing is done. */
function gone(stage: Stage, { drive, state }: Extract<Trouble, { kind: "gone" }>, given: Answer): void {
  const { box } = stage.practice;
  if (state === "missing") {
    const after = given === "put-back" ? 0 : given === "advised" ? SOON : NEXT_DAY;
    schedule(stage, { at: box.hours + after, mishap: { kind: "comes-back", drive } });
    if (given !== "go-on") stage.waitsUntil = Math.max(stage.waitsUntil, box.hours + after);
    return;
  }
  if (given !== "go-on") {
    stage.needsAdvice = true;
    return;
  }
  // Nobody has stopped the schedule: the next update of the parity records the loss.
  const pool = poolOf(stage, drive);
  if (pool && hasParitySchedule(pool, rulesOfBox(stage.play.plan)))
    schedule(stage, {
      at: box.hours + (pool.paritySchedule?.everyHours ?? NEXT_DAY),
      mishap: { kind: "parity-updated", pool: pool.id },
    });
}

/** A step of the plan that was refused, or could not go on: done once more with what works, or passed over. */
function failed(stage: Stage, id: string, given: Answer): void {
  const step = stage.play.plan.steps.find((each) => each.id === id);
  if (!step || given === "go-on") {
    const own = step ?? stage.play.plan.steps.find((each) => again(each.id) === id);
    if (own) stage.passedOver.push(own.id);
    return;
  }
  stage.needsAdvice = true;
  stage.ahead = [{ ...step, id: again(id) }, ...stage.ahead];
  stage.turned = true;
}

/** Data that was deleted by mistake: taken back at once, or found out at the end. */
function deleted(stage: Stage, volume: string, given: Answer): void {
  if (given === "go-on") return;
  takeLosses(stage);
  stage.practice.deleted.delete(volume);
}

/**
 * What the owner does about something that has gone wrong, now and later.
 *
 * @example responsesTo(stage, { kind: "gone", drive: "d2", state: "failed" }, "advised") // asks what to do now
 */
export function responsesTo(stage: Stage, trouble: Trouble, given: Answer): void {
  switch (trouble.kind) {
    case "gone":
      return gone(stage, trouble, given);
    case "refused":
    case "stopped":
      return failed(stage, trouble.step, given);
    case "power-cut":
      if (given === "advised")
        for (const pool of stage.plan.pools)
          stage.errands.push({
            does: { id: `after-${stage.answers.length}-${pool.id}`, kind: "verify", pool: pool.id },
          });
      return;
    case "deleted":
      return deleted(stage, trouble.volume, given);
    case "fire":
      takeLosses(stage);
      stage.isOver = true;
  }
}
