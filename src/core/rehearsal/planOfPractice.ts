import { rulesOfBox } from "../box/rulesOfBox";
import type { Drive, Plan, Step } from "../document/plan";
import { bayOf } from "../drives/drive";
import { isGone } from "../drives/driveState";
import type { Practice, Said } from "../simulator/practice";
import { groupNamed } from "../simulator/simulatedBox";
import { putInPlaceOf } from "../steps/inPlaceOf";
import { walkPlan } from "../walk/walkPlan";

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

/** A drive that does not answer any more. */
const failed = (drive: Drive): Drive => ({ ...drive, state: "failed" });

/** What the box says of a drive, and how plans have that. */
const STATES: ReadonlyMap<Said["what"], (drive: Drive) => Drive> = new Map([
  ["thrown-out", failed],
  ["not-there", missing],
  ["back", back],
]);

/** What follows from a plan, by what has happened: a rehearsal comes to the same box by many ways. */
const followed = new WeakMap<Plan, Map<string, Plan>>();

/**
 * What follows from a plan, made once.
 *
 * @param by what has happened, told apart from all else that can
 */
export function followedBy(plan: Plan, by: string, make: () => Plan): Plan {
  const known = followed.get(plan) ?? new Map<string, Plan>();
  followed.set(plan, known);
  const next = known.get(by) ?? make();
  known.set(by, next);
  return next;
}

/** Whether the drives of a plan's groups are those of the box. */
const hasDrivesOf = ({ pools }: Plan, { box }: Practice): boolean =>
  pools.every((pool) =>
    pool.groups.every(({ id, drives }) => {
      const places = box.pools.flatMap(({ groups }) => groups).find((group) => group.id === id)?.drives ?? [];
      return places.length === drives.length && places.every((place) => drives.includes(box.drives[place]?.id ?? ""));
    }),
  );

/**
 * The plan after work that has ended on the box, or could not go on. A drive that has gone meanwhile did not hold it
 * up, though nobody would advise to begin it then: the plan follows as if that drive had gone after it. What stopped
 * has put its drives into the group all the same, where the box says so.
 */
function afterWork(plan: Plan, step: Step, isEnded: boolean, practice: Practice): Plan {
  const direct = isEnded ? afterStep(plan, step) : plan;
  if (direct !== plan || (!isEnded && hasDrivesOf(plan, practice))) return direct;
  const gone = plan.drives.filter(({ state }) => state !== undefined);
  const whole = gone.reduce((now, { id }) => withDrive(now, id, back), plan);
  const after = afterStep(whole, step);
  const then = gone.reduce(
    (now, { id, state }) => withDrive(now, id, state === "missing" ? missing : failed),
    after === whole ? plan : after,
  );
  return hasDrivesOf(then, practice) ? then : plan;
}

/**
 * The plan after something that the box has said.
 *
 * @example afterSaid(plan, { hours: 3, what: "thrown-out", drive: "d2" }, practice).drives[1].state // "failed"
 */
export function afterSaid(plan: Plan, { what, drive, step }: Said, practice: Practice): Plan {
  const begun = step === undefined ? undefined : practice.steps.get(step);
  if (begun && (what === "ended" || what === "stopped"))
    return followedBy(plan, `${what} ${JSON.stringify({ ...begun, id: "" })}`, () =>
      afterWork(plan, begun, what === "ended", practice),
    );
  const change = STATES.get(what);
  return change ? followedBy(plan, `${what} ${drive}`, () => withDrive(plan, drive, change)) : plan;
}

/**
 * A plan with its drives where they are in the box, also those that have come in, or were pulled, for what is under
 * way.
 *
 * @example withBays(plan, practice).drives[0].state // "missing": it was pulled, and the one in its place is not filled
 */
export function withBays(plan: Plan, { box }: Practice): Plan {
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

/**
 * A plan in which drives that hold all they should stand in the place of those that they replace, while the group still
 * writes what it gains: that is not there yet.
 *
 * @example withFilled(plan, practice).pools[0].groups[0].drives // with the new drive, up to where the old one reached
 */
export function withFilled(plan: Plan, { box, running }: Practice): Plan {
  const replaced = running.flatMap(({ phases, phase }) => {
    const op = phases[phase]?.op;
    const then = op?.kind === "gain" ? groupNamed(box, op.group)?.group : undefined;
    const now = plan.pools.flatMap(({ groups }) => groups).find(({ id }) => id === then?.id);
    if (!then || !now || then.drives.length !== now.drives.length) return [];
    const names = new Set(then.drives.map((place) => box.drives[place]?.id));
    const [old] = now.drives.filter((id) => !names.has(id));
    const [next] = [...names].filter((id) => id !== undefined && !now.drives.includes(id));
    return old !== undefined && next !== undefined ? [{ old, next }] : [];
  });
  if (replaced.length === 0) return plan;
  const filled = structuredClone(plan);
  for (const { old, next } of replaced) {
    putInPlaceOf(plan, filled, old, next, rulesOfBox(plan));
    for (const drive of filled.drives.filter(({ id }) => id === old || id === next)) {
      const bay = box.drives.find(({ id }) => id === drive.id)?.bay ?? null;
      drive.place = bay === null ? { shelf: true } : { bay };
    }
  }
  return filled;
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
