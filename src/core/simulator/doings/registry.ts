import type { StepKind } from "../../document/plan";
import type { Doing } from "../doing";
import {
  backUp,
  checkParity,
  growFileSystem,
  growVolume,
  pauseSchedule,
  resumeSchedule,
  shrinkFileSystem,
  shrinkVolume,
  testDrive,
  updateParity,
  verify,
  wipeDrive,
} from "./elsewhere";
import { addGroup, createGroup, mirrorDrive, rebuildFromBackup } from "./making";
import { changeParityDrive, rebuild, removeSpare, replaceDrive, restoreDrive, setSpare } from "./replacing";
import { changeLevel, claimSpace, rebalance, removeDrive, widenGroup } from "./reshaping";

/** How a box does every kind of step. */
const DOINGS: { readonly [K in StepKind]: Doing<K> } = {
  "back-up": backUp,
  verify,
  "update-parity": updateParity,
  "check-parity": checkParity,
  "pause-schedule": pauseSchedule,
  "resume-schedule": resumeSchedule,
  "claim-space": claimSpace,
  rebalance,
  "grow-volume": growVolume,
  "shrink-volume": shrinkVolume,
  "shrink-file-system": shrinkFileSystem,
  "grow-file-system": growFileSystem,
  "test-drive": testDrive,
  "wipe-drive": wipeDrive,
  "mirror-drive": mirrorDrive,
  "create-group": createGroup,
  "add-group": addGroup,
  "widen-group": widenGroup,
  "replace-drive": replaceDrive,
  rebuild,
  "restore-drive": restoreDrive,
  "change-level": changeLevel,
  "change-parity-drive": changeParityDrive,
  "set-spare": setSpare,
  "remove-spare": removeSpare,
  "remove-drive": removeDrive,
  "rebuild-from-backup": rebuildFromBackup,
};

/** How a box does a step; the kinds match by construction. */
export const doingOf = <K extends StepKind>(step: { kind: K }): Doing<K> => DOINGS[step.kind] as Doing<K>;
