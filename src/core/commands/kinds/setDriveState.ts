import { driveInBay, leaveBay } from "../../box/bays";
import { fateOfPool } from "../../box/figures";
import { groupOfDrive } from "../../box/members";
import { rulesOfBox } from "../../box/rulesOfBox";
import { spareFor } from "../../box/standIn";
import type { Drive, Plan, StepBody } from "../../document/plan";
import { bayOf } from "../../drives/drive";
import { nameOfDrive } from "../../drives/nameOfDrive";
import { capital } from "../../words/capital";
import { counted, plural } from "../../words/counted";
import type { CommandModule } from "../commandModule";
import { driveWords } from "../driveWords";
import { findDrive } from "../lookUp";
import { putInLog } from "../putInLog";
import { putSteps } from "../putSteps";
import { refuse } from "../refusal";

/** Steps that bring a drive of a group back: what is said of the drive now takes their place. */
const bringsBack = (plan: Plan, drive: string) =>
  plan.steps.filter((step) => (step.kind === "rebuild" || step.kind === "restore-drive") && step.drive === drive);

/** The steps with which spares take over by themselves for a drive that has just gone. */
function takeovers(plan: Plan, id: string): StepBody[] {
  const owner = groupOfDrive(plan, id);
  if (!owner || bringsBack(plan, id).length > 0) return [];
  const taken = plan.steps.flatMap((step) => (step.kind === "rebuild" ? [step.by] : []));
  const spare = spareFor(plan, owner.pool, owner.group, id, rulesOfBox(plan), taken);
  return spare ? [{ kind: "rebuild", group: owner.group.id, drive: id, by: spare.id }] : [];
}

/** A spare that fails while it is being filled fills nothing: another takes over where one fits. */
function another(plan: Plan, id: string): StepBody[] {
  const broken = plan.steps.flatMap((step) => (step.kind === "rebuild" && step.by === id ? [step] : []));
  plan.steps = plan.steps.filter((step) => !broken.some((each) => each.id === step.id));
  return broken.filter(({ drive }) => drive !== id).flatMap(({ drive }) => takeovers(plan, drive));
}

/** Where more drives are gone than the pool bears, no spare is filled any more. */
function stopFilling(plan: Plan, id: string): void {
  const pool = groupOfDrive(plan, id)?.pool;
  if (!pool || ["whole", "degraded"].includes(fateOfPool(plan, pool, rulesOfBox(plan)).kind)) return;
  const groups = new Set(pool.groups.map((group) => group.id));
  const spares = new Set([...pool.spares, ...pool.groups.flatMap((group) => group.spares ?? [])]);
  plan.steps = plan.steps.filter((step) => step.kind !== "rebuild" || !groups.has(step.group) || !spares.has(step.by));
}

/** A drive that is back goes where it was, if that bay is free, or into another. */
function comeBack(plan: Plan, drive: Drive): void {
  const { lastBay } = drive;
  delete drive.state;
  delete drive.since;
  delete drive.lastBay;
  if (bayOf(drive) !== null) return;
  const bays = Array.from({ length: plan.box.bays }, (_, i) => i + 1).filter((bay) => driveInBay(plan, bay) === null);
  const bay = bays.find((each) => each === lastBay) ?? bays[0];
  if (bay !== undefined) drive.place = { bay };
  else if (groupOfDrive(plan, drive.id)) refuse("No bay is free for it. Pull another drive first.");
}

/** One drive that has failed or is missing from now on. */
function goes(plan: Plan, id: string, state: "failed" | "missing", since: string | undefined): void {
  const drive = findDrive(plan, id);
  if (state === "missing") leaveBay(drive);
  drive.state = state;
  if (since !== undefined) drive.since = since;
  // A drive that fails is there, and no drive to buy.
  delete drive.toBuy;
  stopFilling(plan, id);
  putSteps(plan, 0, 0, [...another(plan, id), ...takeovers(plan, id)]);
}

/** One drive that works and is back: what was to bring back what was on it is not needed any more. */
function returns(plan: Plan, id: string): void {
  const over = new Set(bringsBack(plan, id).map((step) => step.id));
  plan.steps = plan.steps.filter((step) => !over.has(step.id));
  comeBack(plan, findDrive(plan, id));
}

const IN_THE_LOG = { failed: "failure", missing: "missing" } as const;

/** What befalls drives is in the log, with the name that each had then. */
function noteInLog(plan: Plan, ids: readonly string[], state: "failed" | "missing" | null, at: string): void {
  const drives = ids.map((id) => findDrive(plan, id)).filter((drive) => (drive.state ?? null) !== state);
  putInLog(
    plan,
    drives.map((drive) => ({
      what: state ? IN_THE_LOG[state] : "back",
      text: capital(nameOfDrive(drive)).slice(0, 200),
      start: at,
      end: at,
    })),
  );
}

/**
 * What has become of drives: they have failed, are not in the box, or work and are back. A hot spare that fits takes
 * over at once, by a step at now; a drive that is back needs no rebuild any more.
 */
export const setDriveState: CommandModule<"set-drive-state"> = {
  apply: (plan, { drives, state, since }) => {
    if (since !== undefined) noteInLog(plan, drives, state, since);
    for (const id of drives)
      if (state === null) returns(plan, id);
      else goes(plan, id, state, since);
  },
  describe: ({ drives, state }, plan) => {
    const [first = "", ...more] = drives;
    const words = more.length === 0 ? driveWords(plan, first) : counted(drives.length, "drive");
    const have = plural(drives.length, "has", "have");
    const are = plural(drives.length, "is", "are");
    return state === "failed"
      ? `said that ${words} ${have} failed`
      : state === "missing"
        ? `said that ${words} ${are} not in the box`
        : `said that ${words} ${are} back`;
  },
};
