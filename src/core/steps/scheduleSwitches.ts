import { poolOf } from "../box/find";
import { changed } from "../box/state";
import type { ParitySchedule } from "../document/plan";
import { hasParitySchedule } from "../layouts/hasParitySchedule";
import { missingPool } from "./checks";
import { EVERY_HOURS, notScheduled, wouldRecordTheLoss } from "./scheduled";
import { noCost, type StepModule } from "./stepModule";

type Switch = "pause-schedule" | "resume-schedule";

/** What tells pausing the schedule of a parity from resuming it. */
interface Switching {
  kind: Switch;
  name: string;
  /** Whether an update may run from then on, which no drive may be gone for. */
  lets: boolean;
  does: (pool: string) => string;
  why: string;
}

/** The schedule switched on or off; where nothing is known of it, it is once a day. */
function switched(schedule: ParitySchedule | undefined, lets: boolean): ParitySchedule {
  const { paused: _paused, ...rest } = schedule ?? { everyHours: EVERY_HOURS };
  return lets ? rest : { ...rest, paused: true };
}

const switching = ({ kind, name, lets, does, why }: Switching): Omit<StepModule<Switch>, "kind"> => ({
  name,
  boxWork: () => null,
  tells: ({ pool }, names) => [`Switch the schedule of the parity of ${names.pool(pool)} ${lets ? "on" : "off"}.`],
  handles: () => [],
  letsOthersBegin: true,
  label: () => name,
  menu: {
    under: "pool",
    offers: (pool, { rules }) =>
      hasParitySchedule(pool, rules) ? [{ label: name, steps: [{ kind, pool: pool.id }] }] : [],
  },
  check: ({ plan }, step, setting) => [
    ...missingPool(plan, step.pool),
    ...notScheduled(poolOf(plan, step.pool), setting.rules),
    ...(lets ? wouldRecordTheLoss(plan, poolOf(plan, step.pool), setting) : []),
  ],
  apply: (state, step) =>
    changed(state, (plan) => {
      const pool = poolOf(plan, step.pool);
      if (pool) pool.paritySchedule = switched(pool.paritySchedule, lets);
    }),
  cost: () => noCost({}),
  say: ({ plan }, step) => ({ does: does(poolOf(plan, step.pool)?.name ?? "the pool"), why }),
});

/** Scheduled updates of the parity stop: what the parity knows stays what it was. */
export const pauseSchedule: StepModule<"pause-schedule"> = {
  kind: "pause-schedule",
  ...switching({
    kind: "pause-schedule",
    name: "Pause the parity schedule",
    lets: false,
    does: (pool) => `The schedule that updates the parity of ${pool} is paused.`,
    why: "An update after a loss would record the loss, and what was on the drive could not be restored.",
  }),
};

/** Scheduled updates of the parity go on, once everything is in its place and checked. */
export const resumeSchedule: StepModule<"resume-schedule"> = {
  kind: "resume-schedule",
  ...switching({
    kind: "resume-schedule",
    name: "Resume the parity schedule",
    lets: true,
    does: (pool) => `The schedule that updates the parity of ${pool} goes on.`,
    why: "Without it nothing new is protected. Only after everything has been restored and checked.",
  }),
};
