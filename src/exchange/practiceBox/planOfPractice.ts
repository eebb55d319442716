import type { Drive, Plan, Step } from "@/core/document/plan";
import { bayOf } from "@/core/drives/drive";
import { isGone } from "@/core/drives/driveState";
import type { Practice, Said } from "@/core/simulator/practice";
import { walkPlan } from "@/core/walk/walkPlan";

/** A box on which owners practise is told what nobody would be told on theirs: that nothing can be lost. */
const LIFTED = { on: "2000-01-01", words: "A practice box" };

/**
 * The plan once a step has ended on the box; as it is where no box would carry it out.
 *
 * @example afterStep(plan, widenStep).pools[0].groups[0].drives // with those that have joined
 */
export function afterStep(plan: Plan, step: Step): Plan {
  const { moments } = walkPlan({ ...plan, steps: [{ ...step, lifted: LIFTED }] });
  const last = moments.at(-1);
  return last?.walked?.done ? { ...last.state.plan, steps: [] } : plan;
}

const withDrive = (plan: Plan, id: string | undefined, change: (drive: Drive) => Drive): Plan => ({
  ...plan,
  drives: plan.drives.map((drive) => (drive.id === id ? change(drive) : drive)),
});

/** A drive that is not in the box any more, as plans have it. */
function missing({ place, ...drive }: Drive): Drive {
  const lastBay = "bay" in place ? { lastBay: place.bay } : {};
  return { ...drive, ...lastBay, place: { shelf: true }, state: "missing" };
}

/** A drive that is back where it was. */
function back({ state: _state, lastBay, ...drive }: Drive): Drive {
  return lastBay === undefined ? drive : { ...drive, place: { bay: lastBay } };
}

/** The plan after something that the box has said. */
function afterSaid(plan: Plan, { what, drive, step }: Said, practice: Practice): Plan {
  const ended = step === undefined ? undefined : practice.steps.get(step);
  if (what === "ended" && ended) return afterStep(plan, ended);
  if (what === "thrown-out") return withDrive(plan, drive, (each) => ({ ...each, state: "failed" }));
  if (what === "not-there") return withDrive(plan, drive, missing);
  return what === "back" ? withDrive(plan, drive, back) : plan;
}

/** Drives stand where they are in the box, also those that have come in, or were pulled, for what is under way. */
function withBays(plan: Plan, { box }: Practice): Plan {
  const bayIn = new Map(box.drives.map(({ id, bay }) => [id, bay]));
  const needed = new Set(plan.pools.flatMap(({ groups }) => groups.flatMap((group) => group.drives)));
  const out = plan.drives.map((drive): Drive => {
    if (bayOf(drive) === null || bayIn.get(drive.id) !== null) return drive;
    return needed.has(drive.id) ? missing(drive) : { ...drive, place: { shelf: true } };
  });
  const taken = new Set(out.flatMap((drive) => bayOf(drive) ?? []));
  const drives = out.map((drive): Drive => {
    const bay = bayIn.get(drive.id) ?? null;
    if (bay === null || bayOf(drive) !== null || isGone(drive)) return drive;
    const free = taken.has(bay) ? lowestFree(taken) : bay;
    taken.add(free);
    return { ...drive, place: { bay: free } };
  });
  return { ...plan, drives };
}

function lowestFree(taken: ReadonlySet<number>): number {
  let bay = 1;
  while (taken.has(bay)) bay += 1;
  return bay;
}

/**
 * The plan document as a box on which it is tried is now: what has ended is carried out, and what is gone is gone. What
 * is under way is not in it.
 *
 * @param plan with which the practice was begun
 * @example planOfPractice(plan, tryOut(plan, grain, { hours: 40 })).pools[0].groups[0].drives
 */
export const planOfPractice = (plan: Plan, practice: Practice): Plan =>
  withBays(
    practice.said.reduce<Plan>((now, said) => afterSaid(now, said, practice), { ...plan, steps: [] }),
    practice,
  );
