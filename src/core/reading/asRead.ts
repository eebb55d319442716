import type { Command } from "../document/command";
import type { LastReading, StepBody } from "../document/plan";
import { freeIds } from "../records/freeId";
import type { Recognised } from "./recognise";

/**
 * The reading as a plan keeps it: what was made out, not the text.
 *
 * @param differences in what the box differed from the plan
 * @param at when it was read, as an instant
 */
export function lastReading(recognised: Recognised, differences: readonly unknown[], at: string): LastReading {
  const gone = new Set(recognised.plan.drives.filter(({ state }) => state).map(({ id }) => id));
  return {
    at,
    drives: [...recognised.ids.values()],
    arrays: recognised.arrays.map(({ printed, group }) => {
      const drives = recognised.plan.pools.flatMap((pool) => pool.groups).find(({ id }) => id === group)?.drives ?? [];
      const lacks = drives.filter((id) => gone.has(id)).length;
      return {
        name: printed.name.slice(0, 120),
        group,
        bytes: printed.bytes,
        ...(lacks > 0 ? { lacks } : {}),
        ...(printed.running ? { running: printed.running.kind } : {}),
        ...(typeof printed.running?.done === "number" ? { done: printed.running.done } : {}),
      };
    }),
    ...(differences.length > 0 ? { differences: differences.length } : {}),
  };
}

/**
 * The command that sets a plan to how the box is.
 *
 * @param first steps that are planned at its beginning
 * @param done steps of the plan that the box shows to be done
 * @example takeAsRead(recognised, "2026-11-26T10:00Z").kind // "take-reading"
 */
export function takeAsRead(
  recognised: Recognised,
  at: string,
  first: readonly StepBody[] = [],
  done: readonly string[] = [],
): Command {
  const { box, drives, pools, steps } = recognised.plan;
  const next = freeIds("s", [...steps.map(({ id }) => id), ...(recognised.plan.history ?? []).map(({ step }) => step)]);
  const added = first.map((body) => ({ ...body, id: next() }));
  const reading = lastReading(recognised, [], at);
  const past = done.length > 0 ? { done: [...done] } : {};
  return { kind: "take-reading", reading, as: { box, drives, pools, steps: [...added, ...steps] }, ...past };
}
