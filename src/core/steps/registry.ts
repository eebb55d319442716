import { addGroup } from "./addGroup";
import { backUp } from "./backUp";
import { changeLevel } from "./changeLevel";
import { claimSpace } from "./claimSpace";
import { growFileSystem } from "./growFileSystem";
import { growVolume } from "./growVolume";
import { createGroup } from "./createGroup";
import { mirrorDrive } from "./mirrorDrive";
import { changeParityDrive } from "./changeParityDrive";
import { rebalance } from "./rebalance";
import { rebuildFromBackup } from "./rebuildFromBackup";
import { removeDrive } from "./removeDrive";
import { replaceDrive } from "./replaceDrive";
import { removeSpare } from "./removeSpare";
import { setSpare } from "./setSpare";
import { shrinkVolume } from "./shrinkVolume";
import type { StepModule } from "./stepModule";
import { sync } from "./sync";
import { testDrive } from "./testDrive";
import { verify } from "./verify";
import { wipeDrive } from "./wipeDrive";
import { widenGroup } from "./widenGroup";
import type { StepKind } from "../document/plan";

/** Every kind of step. A new one is a module and a line here, in `Step`, and in the plan schema. */
export const stepModules: { readonly [K in StepKind]: StepModule<K> } = {
  "create-group": createGroup,
  "add-group": addGroup,
  "mirror-drive": mirrorDrive,
  "widen-group": widenGroup,
  "replace-drive": replaceDrive,
  "claim-space": claimSpace,
  "change-level": changeLevel,
  "set-spare": setSpare,
  "remove-spare": removeSpare,
  "remove-drive": removeDrive,
  "grow-volume": growVolume,
  "shrink-volume": shrinkVolume,
  "grow-file-system": growFileSystem,
  "test-drive": testDrive,
  "wipe-drive": wipeDrive,
  "back-up": backUp,
  verify,
  "change-parity-drive": changeParityDrive,
  sync,
  rebalance,
  "rebuild-from-backup": rebuildFromBackup,
};

/**
 * The module of a step's own kind, as one that takes any step: the kinds match by construction.
 *
 * @example moduleOf(step).check(state, step, setting)
 */
export function moduleOf<K extends StepKind>(step: { kind: K }): StepModule<K> {
  return stepModules[step.kind] as StepModule<K>;
}
