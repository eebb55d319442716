import { addCommands } from "./addedCommands";
import { planInstead } from "./kinds/planInstead";

// The first page plans nothing in the place of other steps: whoever does imports this file.
addCommands({ "plan-instead": planInstead });
