import type { CommandKind, CommandModule } from "./commandModule";
import { addDrives } from "./kinds/addDrives";
import { addToGroup } from "./kinds/addToGroup";
import { addLogEntries } from "./kinds/addLogEntries";
import { addVolume } from "./kinds/addVolume";
import { changeBox } from "./kinds/changeBox";
import { changeLayout } from "./kinds/changeLayout";
import { correctRecord } from "./kinds/correctRecord";
import { duplicateStep } from "./kinds/duplicateStep";
import { editDrive } from "./kinds/editDrive";
import { editStep } from "./kinds/editStep";
import { editVolume } from "./kinds/editVolume";
import { endStep, stopStep } from "./kinds/endStep";
import { insertSequence } from "./kinds/insertSequence";
import { insertSteps } from "./kinds/insertSteps";
import { layOutPool } from "./kinds/layOutPool";
import { leaveGroup } from "./kinds/leaveGroup";
import { makeGroup } from "./kinds/makeGroup";
import { makeGroups } from "./kinds/makeGroups";
import { moveDrive } from "./kinds/moveDrive";
import { moveStep } from "./kinds/moveStep";
import { putBackup } from "./kinds/putBackup";
import { putDataSet } from "./kinds/putDataSet";
import { removeBackup } from "./kinds/removeBackup";
import { removeDataSet } from "./kinds/removeDataSet";
import { removeDrives } from "./kinds/removeDrives";
import { recordSteps } from "./kinds/recordSteps";
import { removeRecords } from "./kinds/removeRecords";
import { removeSteps } from "./kinds/removeSteps";
import { removeVolume } from "./kinds/removeVolume";
import { renamePlan } from "./kinds/renamePlan";
import { renamePool } from "./kinds/renamePool";
import { replaceStep } from "./kinds/replaceStep";
import { seatDrives } from "./kinds/seatDrives";
import { setCalendar } from "./kinds/setCalendar";
import { setDriveState } from "./kinds/setDriveState";
import { setHelper } from "./kinds/setHelper";
import { setLanding } from "./kinds/setLanding";
import { setOptions } from "./kinds/setOptions";
import { setCurrency } from "./kinds/setCurrency";
import { setParitySchedule } from "./kinds/setParitySchedule";
import { setPrices } from "./kinds/setPrices";
import { setRatesOnly } from "./kinds/setRatesOnly";
import { setSpare } from "./kinds/setSpare";
import { startStep } from "./kinds/startStep";
import { takeApart } from "./kinds/takeApart";
import { takeProgress } from "./kinds/takeProgress";
import { takeReading } from "./kinds/takeReading";
import { updateDrives } from "./kinds/updateDrives";

/** Every kind of command. A new one is its shape in `document/command.ts`, a file in `kinds/` and a line here. */
const commandModules: { readonly [K in CommandKind]: CommandModule<K> } = {
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
  "lay-out-pool": layOutPool,
  "set-drive-state": setDriveState,
  "set-parity-schedule": setParitySchedule,
  "take-reading": takeReading,
  "set-prices": setPrices,
  "set-currency": setCurrency,
  "insert-steps": insertSteps,
  "insert-sequence": insertSequence,
  "set-calendar": setCalendar,
  "put-data-set": putDataSet,
  "remove-data-set": removeDataSet,
  "put-backup": putBackup,
  "remove-backup": removeBackup,
  "start-step": startStep,
  "take-progress": takeProgress,
  "end-step": endStep,
  "stop-step": stopStep,
  "record-steps": recordSteps,
  "correct-record": correctRecord,
  "add-log-entries": addLogEntries,
  "remove-records": removeRecords,
  "set-rates-only": setRatesOnly,
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

/** The module of a command's own kind, as one that takes any: the kinds match by construction. */
export function moduleOfCommand<K extends CommandKind>(command: { kind: K }): CommandModule<K> {
  return commandModules[command.kind] as CommandModule<K>;
}
