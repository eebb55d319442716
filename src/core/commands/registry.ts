import type { CommandKind, CommandModule } from "./commandModule";
import { addedCommands, type AddedKind, type Modules } from "./addedCommands";
import { addDrives } from "./kinds/addDrives";
import { addToGroup } from "./kinds/addToGroup";
import { addVolume } from "./kinds/addVolume";
import { changeBox } from "./kinds/changeBox";
import { changeLayout } from "./kinds/changeLayout";
import { duplicateStep } from "./kinds/duplicateStep";
import { editDrive } from "./kinds/editDrive";
import { editStep } from "./kinds/editStep";
import { editVolume } from "./kinds/editVolume";
import { insertSequence } from "./kinds/insertSequence";
import { insertSteps } from "./kinds/insertSteps";
import { leaveGroup } from "./kinds/leaveGroup";
import { layOutPool } from "./kinds/layOutPool";
import { makeGroup } from "./kinds/makeGroup";
import { makeGroups } from "./kinds/makeGroups";
import { moveDrive } from "./kinds/moveDrive";
import { moveStep } from "./kinds/moveStep";
import { removeDrives } from "./kinds/removeDrives";
import { removeSteps } from "./kinds/removeSteps";
import { removeVolume } from "./kinds/removeVolume";
import { renamePlan } from "./kinds/renamePlan";
import { renamePool } from "./kinds/renamePool";
import { replaceStep } from "./kinds/replaceStep";
import { seatDrives } from "./kinds/seatDrives";
import { setDriveState } from "./kinds/setDriveState";
import { setCalendar } from "./kinds/setCalendar";
import { setHelper } from "./kinds/setHelper";
import { setLanding } from "./kinds/setLanding";
import { setOptions } from "./kinds/setOptions";
import { setParitySchedule } from "./kinds/setParitySchedule";
import { setSpare } from "./kinds/setSpare";
import { takeApart } from "./kinds/takeApart";
import { updateDrives } from "./kinds/updateDrives";

/**
 * Every other kind of command. A new one is its shape in `document/command.ts`, a file in
 * `kinds/` and a line here.
 */
const plainCommands: Modules<Exclude<CommandKind, AddedKind>> = {
  "rename-plan": renamePlan,
  "change-box": changeBox,
  "add-drives": addDrives,
  "edit-drive": editDrive,
  "update-drives": updateDrives,
  "remove-drives": removeDrives,
  "move-drive": moveDrive,
  "seat-drives": seatDrives,
  "make-group": makeGroup,
  "make-groups": makeGroups,
  "set-drive-state": setDriveState,
  "set-parity-schedule": setParitySchedule,
  "insert-steps": insertSteps,
  "insert-sequence": insertSequence,
  "set-calendar": setCalendar,
  "lay-out-pool": layOutPool,
  "edit-step": editStep,
  "replace-step": replaceStep,
  "remove-steps": removeSteps,
  "duplicate-step": duplicateStep,
  "move-step": moveStep,
  "change-layout": changeLayout,
  "add-to-group": addToGroup,
  "leave-group": leaveGroup,
  "take-apart": takeApart,
  "rename-pool": renamePool,
  "set-options": setOptions,
  "set-spare": setSpare,
  "set-helper": setHelper,
  "set-landing": setLanding,
  "add-volume": addVolume,
  "edit-volume": editVolume,
  "remove-volume": removeVolume,
};

/**
 * The module of a command's own kind, as one that takes any: the kinds match by construction.
 *
 * @throws RangeError for one of a place that has not imported its own (`recordingCommands.ts`, `dataCommands.ts`)
 */
export function moduleOfCommand<K extends CommandKind>({ kind }: { kind: K }): CommandModule<K> {
  const all: Partial<Modules<CommandKind>> = { ...plainCommands, ...addedCommands() };
  const found = all[kind];
  if (!found) throw new RangeError(`The command ${kind} is not loaded: import its file where it is done.`);
  return found as CommandModule<K>;
}
