import { current, enablePatches, produceWithPatches, type Patch } from "immer";
import {
  type Group,
  type Plan,
  type Pool,
  type Volume,
  type Drive,
  type Place,
  type Backup,
  type DataSet,
  type Step,
  type StepBody,
  type NewDrive,
} from "../document/plan";
import { bayOf } from "../drives/drive";
import { MOST_BACKUPS, MOST_DATA_SETS } from "../data/dataSet";
import { MOST_PRICES } from "../drives/priceList";
import type { Command } from "../document/command";
import { groupOfDrive } from "../box/members";
import { driveInBay } from "../box/bays";

enablePatches();

/** The next plan with the patches there and back, or why the command no longer fits the plan. */
export type CommandResult =
  { ok: true; plan: Plan; patches: Patch[]; inverse: Patch[] } | { ok: false; reason: string };

/** Thrown inside a recipe to give up; `applyCommand` turns it into a result. */
class Refusal extends Error {}

const refuse = (reason: string): never => {
  throw new Refusal(reason);
};

function need<T>(thing: T | null | undefined, what: string): T {
  return thing ?? refuse(`${what} is no longer in the plan.`);
}

const findDrive = (plan: Plan, id: string): Drive =>
  need(
    plan.drives.find((drive) => drive.id === id),
    `The drive "${id}"`,
  );

function findGroup(plan: Plan, id: string): { pool: Pool; group: Group } {
  for (const pool of plan.pools) {
    const group = pool.groups.find((each) => each.id === id);
    if (group) return { pool, group };
  }
  return refuse("That group is no longer in the plan.");
}

const findPool = (plan: Plan, id: string): Pool =>
  need(
    plan.pools.find((pool) => pool.id === id),
    "That pool",
  );

const findVolume = (plan: Plan, pool: string, id: string): Volume =>
  need(
    findPool(plan, pool).volumes.find((volume) => volume.id === id),
    "That volume",
  );

/** The first free id of a kind: d1, d2 … */
function freeId(letter: string, taken: Iterable<string>): string {
  const ids = new Set(taken);
  let n = 1;
  while (ids.has(`${letter}${n}`)) n += 1;
  return `${letter}${n}`;
}

/** Data sets whose volume is gone go with it, and backups forget what is no more. */
function sweepData(plan: Plan): void {
  const volumes = new Set(plan.pools.flatMap((pool) => pool.volumes.map((volume) => volume.id)));
  if (plan.dataSets?.some((set) => !volumes.has(set.volume)))
    plan.dataSets = plan.dataSets.filter((set) => volumes.has(set.volume));
  if (plan.dataSets?.length === 0) delete plan.dataSets;
  const sets = new Set(plan.dataSets?.map((set) => set.id));
  const drives = new Set(plan.drives.map((drive) => drive.id));
  for (const backup of plan.backups ?? []) {
    if (backup.dataSets.some((set) => !sets.has(set))) backup.dataSets = backup.dataSets.filter((set) => sets.has(set));
    if (backup.drive !== undefined && !drives.has(backup.drive)) delete backup.drive;
  }
}

function putDataSet(plan: Plan, given: Omit<DataSet, "id"> & { id?: string }): void {
  const sets = (plan.dataSets ??= []);
  if (given.id === undefined && sets.length >= MOST_DATA_SETS)
    refuse(`A plan has at most ${MOST_DATA_SETS} data sets.`);
  const old = sets.findIndex((set) => set.id === given.id);
  if (given.id !== undefined && old < 0) refuse("That data set is no longer in the plan.");
  // Whatever else the volumes hold stays as it is.
  holdingOthers(plan, () => {
    const set: DataSet = {
      ...given,
      id:
        given.id ??
        freeId(
          "s",
          sets.map((each) => each.id),
        ),
    };
    if (old >= 0) sets[old] = set;
    else sets.push(set);
  });
}

/** Changes data sets, and what is used of their volumes by as much. */
function holdingOthers(plan: Plan, change: () => void): void {
  const volumes = plan.pools.flatMap((pool) => pool.volumes);
  const sumOn = (volume: Volume) =>
    (plan.dataSets ?? []).filter((set) => set.volume === volume.id).reduce((sum, set) => sum + set.bytes, 0);
  const before = volumes.map(sumOn);
  change();
  volumes.forEach((volume, i) => {
    const after = sumOn(volume);
    if (after !== before[i]) volume.usedBytes = after + Math.max(0, (volume.usedBytes ?? 0) - (before[i] ?? 0));
  });
}

function putBackup(plan: Plan, given: Omit<Backup, "id"> & { id?: string }): void {
  const backups = (plan.backups ??= []);
  if (given.id === undefined && backups.length >= MOST_BACKUPS) refuse(`A plan has at most ${MOST_BACKUPS} backups.`);
  const old = backups.findIndex((backup) => backup.id === given.id);
  if (given.id !== undefined && old < 0) refuse("That backup is no longer in the plan.");
  const known = new Set(plan.dataSets?.map((set) => set.id));
  if (given.dataSets.some((set) => !known.has(set)))
    refuse("A data set that the backup holds is no longer in the plan.");
  const backup: Backup = {
    ...given,
    id:
      given.id ??
      freeId(
        "b",
        backups.map((each) => each.id),
      ),
  };
  if (old >= 0) backups[old] = backup;
  else backups.push(backup);
}

/** Groups without drives, and pools without groups, are gone. */
function sweep(plan: Plan): void {
  for (const pool of plan.pools) pool.groups = pool.groups.filter((group) => group.drives.length > 0);
  plan.pools = plan.pools.filter((pool) => pool.groups.length > 0);
  const left = new Set(plan.pools.map((pool) => pool.id));
  for (const pool of plan.pools) if (pool.landsFor !== undefined && !left.has(pool.landsFor)) delete pool.landsFor;
}

/** Takes drives out of their groups and from the spares, leaving empty groups standing. */
function takeOut(plan: Plan, drives: readonly string[]): void {
  const gone = new Set(drives);
  for (const pool of plan.pools) {
    pool.spares = pool.spares.filter((drive) => !gone.has(drive));
    if (pool.helpers) pool.helpers = pool.helpers.filter(({ drive }) => !gone.has(drive));
    for (const group of pool.groups) {
      group.drives = group.drives.filter((drive) => !gone.has(drive));
      if (group.spares) group.spares = group.spares.filter((drive) => !gone.has(drive));
    }
  }
}

/** The same, and what became empty goes too. */
function release(plan: Plan, drives: readonly string[]): void {
  takeOut(plan, drives);
  sweep(plan);
}

/** Puts a drive from the shelf in the place, and in the group, of the one that holds the bay. */
function takePlaceOf(plan: Plan, drive: Drive, occupant: Drive): void {
  const membership = groupOfDrive(plan, occupant.id);
  const isFree = groupOfDrive(plan, drive.id) === null;
  if (membership && isFree) {
    const { group } = membership;
    group.drives[group.drives.indexOf(occupant.id)] = drive.id;
  } else release(plan, [occupant.id]);
  drive.place = occupant.place;
  occupant.place = { shelf: true };
}

function moveDrive(plan: Plan, id: string, to: Place): void {
  const drive = findDrive(plan, id);
  if ("shelf" in to) {
    drive.place = { shelf: true };
    release(plan, [id]);
    return;
  }
  if (to.bay > plan.box.bays) refuse(`The box has no bay ${to.bay}.`);
  const occupant = driveInBay(plan, to.bay);
  if (occupant?.id === id) return;
  if (!occupant) drive.place = to;
  else if (bayOf(drive) === null) takePlaceOf(plan, drive, occupant);
  else [drive.place, occupant.place] = [occupant.place, drive.place];
}

/** Puts those of the drives that are on the shelf into free bays, lowest number first. */
function seat(plan: Plan, drives: readonly string[]): void {
  for (const id of drives) {
    const drive = findDrive(plan, id);
    if (bayOf(drive) !== null) continue;
    const bay = Array.from({ length: plan.box.bays }, (_, i) => i + 1).find(
      (number) => driveInBay(plan, number) === null,
    );
    drive.place = {
      bay:
        bay ?? refuse("There are not enough free bays for these drives. Give the box more bays, or take drives out."),
    };
  }
}

/** "Pool 1", or the first number that is free. */
function freePoolName(plan: Plan): string {
  const names = new Set(plan.pools.map((pool) => pool.name));
  let n = 1;
  while (names.has(`Pool ${n}`)) n += 1;
  return `Pool ${n}`;
}

function makeGroup(plan: Plan, drives: readonly string[], layout: Group["layout"], poolId: string | null): void {
  if (drives.length === 0) refuse("A group needs at least one drive.");
  drives.forEach((id) => findDrive(plan, id));
  const groupId = freeId(
    "g",
    plan.pools.flatMap((pool) => pool.groups.map((each) => each.id)),
  );
  if (poolId === null)
    plan.pools.push({
      id: freeId(
        "p",
        plan.pools.map((pool) => pool.id),
      ),
      name: freePoolName(plan),
      groups: [],
      spares: [],
      volumes: [],
    });
  const pool = need(poolId === null ? plan.pools.at(-1) : plan.pools.find((each) => each.id === poolId), "That pool");
  takeOut(plan, drives);
  pool.groups.push({ id: groupId, layout, drives: [...drives], options: {} });
  sweep(plan);
  seat(plan, drives);
}

function layOutPool(
  plan: Plan,
  poolId: string | null,
  groups: readonly { layout: Group["layout"]; drives: string[] }[],
): void {
  const drives = groups.flatMap((group) => group.drives);
  if (drives.length === 0 || groups.some((group) => group.drives.length === 0))
    refuse("A group needs at least one drive.");
  if (new Set(drives).size < drives.length) refuse("A drive can be in one group only.");
  drives.forEach((id) => findDrive(plan, id));
  if (poolId === null)
    plan.pools.push({
      id: freeId(
        "p",
        plan.pools.map((pool) => pool.id),
      ),
      name: freePoolName(plan),
      groups: [],
      spares: [],
      volumes: [],
    });
  const pool = need(poolId === null ? plan.pools.at(-1) : plan.pools.find((each) => each.id === poolId), "That pool");
  takeOut(plan, drives);
  pool.groups = [];
  const taken = plan.pools.flatMap((each) => each.groups.map((group) => group.id));
  for (const { layout, drives: members } of groups) {
    const id = freeId("g", taken);
    taken.push(id);
    pool.groups.push({ id, layout, drives: [...members], options: {} });
  }
  sweep(plan);
  seat(plan, drives);
}

/** The most steps that a plan may have. */
const MOST_STEPS = 2000;

function placeOfStep(plan: Plan, id: string): number {
  const at = plan.steps.findIndex((step) => step.id === id);
  return at >= 0 ? at : refuse("That step is no longer in the plan.");
}

function putSteps(plan: Plan, at: number, instead: number, bodies: readonly StepBody[]): void {
  if (plan.steps.length + bodies.length > MOST_STEPS) refuse(`A plan has at most ${MOST_STEPS} steps.`);
  // Ids go on from the highest that there is: to look for gaps would take too long in a long plan.
  let highest = plan.steps.reduce((most, step) => Math.max(most, Number(/^s(\d{1,9})$/.exec(step.id)?.[1] ?? 0)), 0);
  const steps = bodies.map((body): Step => ({ ...(body as Step), id: `s${(highest += 1)}` }));
  plan.steps.splice(at, instead, ...steps);
}

function setSpares(plan: Plan, pool: string, group: string | undefined, drives: readonly string[]): void {
  if (group === undefined) findPool(plan, pool).spares.push(...drives);
  else {
    const target = findGroup(plan, group).group;
    target.spares = [...(target.spares ?? []), ...drives];
  }
  sweep(plan);
  seat(plan, drives);
}

function addToGroup(plan: Plan, groupId: string, drives: readonly string[]): void {
  const joining = drives.filter((id) => groupOfDrive(plan, id)?.group.id !== groupId);
  joining.forEach((id) => findDrive(plan, id));
  takeOut(plan, joining);
  findGroup(plan, groupId).group.drives.push(...joining);
  sweep(plan);
  seat(plan, joining);
}

function changeBox(plan: Plan, command: Extract<Command, { kind: "change-box" }>): void {
  if (command.name !== undefined) plan.box.name = command.name;
  if (command.rules !== undefined) plan.box.rules = command.rules;
  const { bays } = command;
  if (bays === undefined) return;
  if (!Number.isInteger(bays) || bays < 1 || bays > 24) refuse("A box has 1 to 24 bays.");
  const stranded = plan.drives.filter((drive) => (bayOf(drive) ?? 0) > bays);
  if (stranded.length > 0)
    refuse(`Bay ${bayOf(stranded[0] as Drive)} holds a drive. Take the drives out of the bays above ${bays} first.`);
  plan.box.bays = bays;
}

function editDrive(plan: Plan, id: string, changes: Extract<Command, { kind: "edit-drive" }>["changes"]): void {
  const drive = findDrive(plan, id);
  const serial = changes.serial?.trim().toLowerCase();
  if (serial && plan.drives.some((other) => other.id !== id && other.serial?.trim().toLowerCase() === serial))
    refuse(`Another drive has the serial ${changes.serial} already.`);
  const given = Object.entries(changes).filter(([, value]) => value !== null);
  const taken = Object.keys(changes).filter((key) => changes[key as keyof typeof changes] === null);
  Object.assign(drive, Object.fromEntries(given));
  for (const key of taken)
    delete drive[
      key as "serial" | "model" | "contents" | "purchased" | "price" | "partitionTable" | "shingled" | "toBuy"
    ];
}

function addDrives(plan: Plan, drives: readonly NewDrive[]): void {
  if (plan.drives.length + drives.length > 200) refuse("A plan holds at most 200 drives.");
  const serials = new Set(plan.drives.flatMap((drive) => drive.serial?.trim().toLowerCase() ?? []));
  for (const drive of drives) {
    const serial = drive.serial?.trim().toLowerCase();
    if (serial && serials.has(serial)) refuse(`A drive with the serial ${drive.serial} is in the plan already.`);
    if (serial) serials.add(serial);
    plan.drives.push({
      id: freeId(
        "d",
        plan.drives.map((each) => each.id),
      ),
      ...drive,
      place: { shelf: true },
    });
  }
}

function change(plan: Plan, command: Command): void {
  switch (command.kind) {
    case "rename-plan":
      plan.name = command.name;
      return;
    case "change-box":
      return changeBox(plan, command);
    case "add-drives":
      return addDrives(plan, command.drives);
    case "edit-drive":
      return editDrive(plan, command.drive, command.changes);
    case "update-drives":
      command.edits.forEach(({ drive, changes }) => editDrive(plan, drive, changes));
      return addDrives(plan, command.added);
    case "remove-drives":
      command.drives.forEach((id) => findDrive(plan, id));
      release(plan, command.drives);
      plan.drives = plan.drives.filter((drive) => !command.drives.includes(drive.id));
      return;
    case "move-drive":
      return moveDrive(plan, command.drive, command.to);
    case "seat-drives":
      return seat(plan, command.drives);
    case "make-group":
      return makeGroup(plan, command.drives, command.layout, command.pool);
    case "make-groups": {
      const [first = [], ...rest] = command.groups;
      makeGroup(plan, first, command.layout, null);
      const pool = plan.pools.at(-1)?.id ?? refuse("That pool is no longer in the plan.");
      rest.forEach((drives) => makeGroup(plan, drives, command.layout, pool));
      return;
    }
    case "lay-out-pool":
      return layOutPool(plan, command.pool, command.groups);
    case "set-prices":
      if (command.prices.length > MOST_PRICES) refuse(`A price list has at most ${MOST_PRICES} lines.`);
      if (command.prices.length === 0) delete plan.prices;
      else plan.prices = command.prices;
      return;
    case "insert-steps": {
      const at =
        command.before !== undefined
          ? placeOfStep(plan, command.before)
          : command.after !== undefined
            ? placeOfStep(plan, command.after) + 1
            : plan.steps.length;
      return putSteps(plan, at, 0, command.steps);
    }
    case "insert-sequence": {
      if (plan.drives.length + command.drives.length > 200) refuse("A plan holds at most 200 drives.");
      const ids = new Set(plan.drives.map((drive) => drive.id));
      if (command.drives.some((drive) => ids.has(drive.id)))
        refuse("The plan has changed since: open the ready-made sequence again.");
      plan.drives.push(...command.drives.map((drive) => ({ ...drive, place: { shelf: true as const } })));
      if (command.calendar) plan.calendar ??= command.calendar;
      const at =
        command.before !== undefined
          ? placeOfStep(plan, command.before)
          : command.after !== undefined
            ? placeOfStep(plan, command.after) + 1
            : plan.steps.length;
      return putSteps(plan, at, 0, command.steps);
    }
    case "set-calendar":
      if (command.calendar === null) delete plan.calendar;
      else plan.calendar = command.calendar;
      return;
    case "put-data-set": {
      const { volume } = command.dataSet;
      if (!plan.pools.some((pool) => pool.volumes.some((each) => each.id === volume)))
        refuse("That volume is no longer in the plan.");
      return putDataSet(plan, command.dataSet);
    }
    case "remove-data-set":
      need(
        plan.dataSets?.find((set) => set.id === command.dataSet),
        "That data set",
      );
      holdingOthers(plan, () => {
        plan.dataSets = plan.dataSets?.filter((set) => set.id !== command.dataSet) ?? [];
      });
      return;
    case "put-backup":
      return putBackup(plan, command.backup);
    case "remove-backup":
      need(
        plan.backups?.find((backup) => backup.id === command.backup),
        "That backup",
      );
      plan.backups = plan.backups?.filter((backup) => backup.id !== command.backup) ?? [];
      if (plan.backups.length === 0) delete plan.backups;
      return;
    case "replace-step":
      return putSteps(plan, placeOfStep(plan, command.step), 1, command.by);
    case "edit-step": {
      const step = plan.steps[placeOfStep(plan, command.step)];
      if (!step) return;
      const { notBefore, lifted, ...rest } = command.changes;
      // What was said in writing was said of the step as it then was.
      if (Object.keys(rest).some((key) => key !== "disabled" && key !== "together")) delete step.lifted;
      Object.assign(step, rest);
      if (notBefore === null) delete step.notBefore;
      else if (notBefore !== undefined) step.notBefore = notBefore;
      if (lifted === null) delete step.lifted;
      else if (lifted !== undefined) step.lifted = lifted;
      return;
    }
    case "remove-steps":
      command.steps.forEach((id) => placeOfStep(plan, id));
      plan.steps = plan.steps.filter((step) => !command.steps.includes(step.id));
      return;
    case "duplicate-step": {
      const at = placeOfStep(plan, command.step);
      const { id: _id, lifted: _lifted, ...body } = current(plan.steps[at] as Step);
      return putSteps(plan, at + 1, 0, [body as StepBody]);
    }
    case "move-step": {
      const [step] = plan.steps.splice(placeOfStep(plan, command.step), 1);
      if (step) plan.steps.splice(Math.max(0, Math.min(plan.steps.length, command.to)), 0, step);
      return;
    }
    case "change-layout":
      findGroup(plan, command.group).group.layout = command.layout;
      return;
    case "add-to-group":
      return addToGroup(plan, command.group, command.drives);
    case "leave-group":
      command.drives.forEach((id) => findDrive(plan, id));
      return release(plan, command.drives);
    case "take-apart":
      return release(plan, findGroup(plan, command.group).group.drives);
    case "rename-pool":
      findPool(plan, command.pool).name = command.name;
      return;
    case "set-options":
      findGroup(plan, command.group).group.options = command.options;
      return;
    case "set-spare":
      command.drives.forEach((id) => findDrive(plan, id));
      takeOut(plan, command.drives);
      return setSpares(plan, command.pool, command.group, command.drives);
    case "set-helper": {
      command.drives.forEach((id) => findDrive(plan, id));
      takeOut(plan, command.drives);
      const pool = findPool(plan, command.pool);
      pool.helpers = [...(pool.helpers ?? []), ...command.drives.map((drive) => ({ drive, role: command.role }))];
      sweep(plan);
      return seat(plan, command.drives);
    }
    case "set-landing": {
      const pool = findPool(plan, command.pool);
      if (command.landsFor === null) delete pool.landsFor;
      else if (command.landsFor === command.pool) refuse("A pool cannot be its own landing place.");
      else pool.landsFor = findPool(plan, command.landsFor).id;
      return;
    }
    case "add-volume": {
      const id = freeId(
        "v",
        plan.pools.flatMap((pool) => pool.volumes.map((volume) => volume.id)),
      );
      findPool(plan, command.pool).volumes.push({ id, ...command.volume });
      return;
    }
    case "edit-volume":
      Object.assign(findVolume(plan, command.pool, command.volume), command.changes);
      return;
    case "remove-volume": {
      findVolume(plan, command.pool, command.volume);
      const pool = findPool(plan, command.pool);
      pool.volumes = pool.volumes.filter((volume) => volume.id !== command.volume);
    }
  }
}

/**
 * Applies a command to a plan. The plan is not changed; the patches lead to the next one and back.
 *
 * @returns the next plan, or a sentence why the command does not fit this plan (a drive is gone, a bay does not exist)
 * @example applyCommand(plan, { kind: "move-drive", drive: "d5", to: { bay: 5 } })
 */
export function applyCommand(plan: Plan, command: Command): CommandResult {
  try {
    const [next, patches, inverse] = produceWithPatches(plan, (draft) => {
      change(draft as Plan, command);
      if (plan.dataSets || plan.backups) sweepData(draft as Plan);
    });
    return { ok: true, plan: next, patches, inverse };
  } catch (error) {
    if (error instanceof Refusal) return { ok: false, reason: error.message };
    throw error;
  }
}
