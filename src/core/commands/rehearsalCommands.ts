import { addCommands } from "./addedCommands";
import { keepRehearsal, removeRehearsal } from "./kinds/keepRehearsal";

// The first page keeps no rehearsal: whoever does imports this file.
addCommands({ "keep-rehearsal": keepRehearsal, "remove-rehearsal": removeRehearsal });
