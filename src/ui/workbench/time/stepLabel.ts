import { formatBytes, type UnitFamily } from "@/core/bytes/formatBytes";
import type { Plan, Step } from "@/core/document/plan";
import { bayOf } from "@/core/drives/drive";
import { shortSize } from "@/core/drives/nameOfDrive";
import { layoutOf } from "@/core/layouts/registry";
import { stepModules } from "@/core/steps/registry";

/** A step in a few words for the list, seen from the box before it: "Replace 4 TB in bay 1 by 8 TB". */
export function stepLabel(step: Step, before: Plan, unit: UnitFamily): string {
  const drive = (id: string) => before.drives.find((each) => each.id === id);
  const size = (id: string) => {
    const found = drive(id);
    return found ? shortSize(found, unit) : "a drive";
  };
  const place = (id: string) => {
    const found = drive(id);
    const bay = found ? bayOf(found) : null;
    return bay === null ? size(id) : `${size(id)} in bay ${bay}`;
  };
  const list = (ids: readonly string[]) => ids.map(size).join(" + ");
  switch (step.kind) {
    case "replace-drive":
      return `Replace ${place(step.drive)} by ${size(step.by)}`;
    case "change-parity-drive":
      return `Parity drive: ${size(step.by)} for ${size(step.drive)}`;
    case "widen-group":
      return `Widen by ${list(step.drives)}`;
    case "add-group":
      return `Add a ${layoutOf(step.layout).shortName} group of ${list(step.drives)}`;
    case "create-group":
      return `New pool ${step.name}: ${layoutOf(step.layout).shortName} of ${list(step.drives)}`;
    case "mirror-drive":
      return `Mirror ${place(step.drive)} on ${size(step.by)}`;
    case "change-level":
      return `To ${layoutOf(step.layout).shortName}${step.drives.length > 0 ? ` with ${list(step.drives)}` : ""}`;
    case "set-spare":
      return `${size(step.drive)} as hot spare`;
    case "remove-drive":
      return `Remove ${place(step.drive)}`;
    case "test-drive":
      return `Test ${place(step.drive)}`;
    case "wipe-drive":
      return `Wipe ${place(step.drive)}`;
    case "shrink-volume":
      return `Shrink a volume to ${formatBytes(step.bytes, unit)}`;
    case "grow-volume":
      return step.bytes === undefined ? "Grow the volume" : `Grow the volume to ${formatBytes(step.bytes, unit)}`;
    case "rebuild-from-backup":
      return `Anew as ${layoutOf(step.layout).shortName} from the backup`;
    default:
      return stepModules[step.kind].name;
  }
}
