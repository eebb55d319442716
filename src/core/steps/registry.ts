import type { StepKind } from "../document/plan";
import { addGroup } from "./addGroup";
import { backUp } from "./backUp";
import { changeLevel } from "./changeLevel";
import { changeParityDrive } from "./changeParityDrive";
import { claimSpace } from "./claimSpace";
import { createGroup } from "./createGroup";
import { growFileSystem } from "./growFileSystem";
import { growVolume } from "./growVolume";
import { mirrorDrive } from "./mirrorDrive";
import { rebalance } from "./rebalance";
import { rebuildFromBackup } from "./rebuildFromBackup";
import { removeDrive } from "./removeDrive";
import { removeSpare } from "./removeSpare";
import { replaceDrive } from "./replaceDrive";
import { checkParity } from "./checkParity";
import { rebuild } from "./rebuild";
import { restoreDrive } from "./restoreDrive";
import { pauseSchedule, resumeSchedule } from "./scheduleSwitches";
import { setSpare } from "./setSpare";
import { shrinkFileSystem } from "./shrinkFileSystem";
import { shrinkVolume } from "./shrinkVolume";
import type { StepMenu } from "./stepMenu";
import type { StepModule } from "./stepModule";
import { updateParity } from "./updateParity";
import { testDrive } from "./testDrive";
import { verify } from "./verify";
import { widenGroup } from "./widenGroup";
import { wipeDrive } from "./wipeDrive";

/**
 * Every kind of step, in the order in which menus list them. A new one is a module, a line here and a definition in the
 * plan schema.
 */
export const stepModules: { readonly [K in StepKind]: StepModule<K> } = {
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

/** Where each kind stands in menus, in their order. */
export const stepMenus: readonly StepMenu[] = Object.values(stepModules).map((module) => module.menu);

/**
 * The module of a step's own kind, as one that takes any step: the kinds match by construction.
 *
 * @example moduleOf(step).check(state, step, setting)
 */
export function moduleOf<K extends StepKind>(step: { kind: K }): StepModule<K> {
  return stepModules[step.kind] as StepModule<K>;
}
