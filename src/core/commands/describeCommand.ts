import type { Plan } from "../document/plan";
import { shortSize } from "../drives/nameOfDrive";
import { layoutOf } from "../layouts/registry";
import type { Command } from "../document/command";

const drives = (count: number) => (count === 1 ? "1 drive" : `${count} drives`);

/**
 * A command in a few words of the past tense, for undo and redo and for notices.
 *
 * @param plan the plan before the command
 * @example describeCommand(plan, { kind: "move-drive", drive: "d5", to: { bay: 5 } }) // "moved the 3 TB drive to bay 5"
 */
export function describeCommand(plan: Plan, command: Command): string {
  const size = (id: string) => {
    const drive = plan.drives.find((each) => each.id === id);
    return drive ? `the ${shortSize(drive, "TB")} drive` : "a drive";
  };
  switch (command.kind) {
    case "rename-plan":
      return `renamed the plan to “${command.name}”`;
    case "change-box":
      return command.bays !== undefined
        ? `gave the box ${command.bays} bays`
        : command.rules
          ? "changed the box's rules"
          : "renamed the box";
    case "add-drives":
      return `added ${drives(command.drives.length)}`;
    case "edit-drive":
      return `edited ${size(command.drive)}`;
    case "update-drives":
      return `read the health of ${drives(command.edits.length + command.added.length)}`;
    case "remove-drives":
      return `removed ${drives(command.drives.length)}`;
    case "move-drive":
      return `moved ${size(command.drive)} to ${"bay" in command.to ? `bay ${command.to.bay}` : "the shelf"}`;
    case "seat-drives":
      return command.drives.length === 1
        ? `put ${size(command.drives[0] ?? "")} in a free bay`
        : `put ${drives(command.drives.length)} in free bays`;
    case "make-group":
      return `made a ${layoutOf(command.layout).shortName} group of ${drives(command.drives.length)}`;
    case "make-groups":
      return `made a pool of ${command.groups.length} ${layoutOf(command.layout).shortName} groups`;
    case "lay-out-pool":
      return `laid out a pool as ${[...new Set(command.groups.map((group) => layoutOf(group.layout).shortName))].join(" and ")}${command.groups.length > 1 ? ` in ${command.groups.length} groups` : ""}`;
    case "set-prices":
      return "changed the prices";
    case "insert-steps":
      return `planned ${command.steps.length === 1 ? "a step" : `${command.steps.length} steps`}`;
    case "insert-sequence":
      return `planned “${command.name}” in ${command.steps.length === 1 ? "a step" : `${command.steps.length} steps`}`;
    case "set-calendar":
      return command.calendar === null
        ? "took the calendar away"
        : plan.calendar
          ? "changed the calendar"
          : "gave the plan a calendar";
    case "put-data-set":
      return `${command.dataSet.id === undefined ? "added" : "changed"} the data set “${command.dataSet.name}”`;
    case "remove-data-set":
      return "removed a data set";
    case "put-backup":
      return `${command.backup.id === undefined ? "added" : "changed"} the backup “${command.backup.name}”`;
    case "remove-backup":
      return "removed a backup";
    case "edit-step":
      return "changed a step";
    case "replace-step":
      return `split a step into ${command.by.length}`;
    case "remove-steps":
      return command.steps.length === 1 ? "removed a step" : `removed ${command.steps.length} steps`;
    case "duplicate-step":
      return "repeated a step";
    case "move-step":
      return "moved a step";
    case "change-layout":
      return `changed the layout to ${layoutOf(command.layout).shortName}`;
    case "add-to-group":
      return `added ${drives(command.drives.length)} to a group`;
    case "leave-group":
      return `took ${drives(command.drives.length)} out of a group`;
    case "take-apart":
      return "took a group apart";
    case "set-options":
      return "changed a group's options";
    case "set-spare":
      return command.drives.length === 1
        ? `made ${size(command.drives[0] ?? "")} a hot spare`
        : `made ${drives(command.drives.length)} hot spares`;
    case "set-helper":
      return `made ${drives(command.drives.length)} a ${command.role === "read-cache" ? "read cache" : "write log"}`;
    case "set-landing":
      return command.landsFor === null ? "ended a landing place" : "made a pool a landing place";
    case "add-volume":
      return `added the volume “${command.volume.name}”`;
    case "edit-volume":
      return "edited a volume";
    case "remove-volume":
      return "removed a volume";
    case "rename-pool":
      return `renamed the pool to “${command.name}”`;
  }
}
