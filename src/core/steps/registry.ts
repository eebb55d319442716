import { addGroup } from "./addGroup";
import { backUp, testDrive, verify, wipeDrive } from "./care";
import { changeLevel } from "./changeLevel";
import { claimSpace } from "./claimSpace";
import { createGroup } from "./createGroup";
import { mirrorDrive } from "./mirrorDrive";
import { changeParityDrive, sync } from "./parityDriveSteps";
import { rebalance } from "./rebalance";
import { rebuildFromBackup } from "./rebuildFromBackup";
import { removeDrive } from "./removeDrive";
import { replaceDrive } from "./replaceDrive";
import { removeSpare, setSpare } from "./spares";
import type { StepKind } from "./step";
import type { StepModule } from "./stepModule";
import { growFileSystem, growVolume, shrinkVolume } from "./volumes";
import { widenGroup } from "./widenGroup";

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
