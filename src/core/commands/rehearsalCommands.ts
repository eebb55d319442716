import { addCommands } from "./addedCommands";
import { keepRehearsal, removeRehearsal } from "./kinds/keepRehearsal";
import { takeWayOut } from "./kinds/takeWayOut";

// The first page keeps no rehearsal: whoever does imports this file.
addCommands({ "keep-rehearsal": keepRehearsal, "remove-rehearsal": removeRehearsal, "take-way-out": takeWayOut });
