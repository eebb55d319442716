import { addCommands } from "./addedCommands";
import { setChance } from "./kinds/setChance";

// The first page changes no input of the chance of loss: whoever does imports this file.
addCommands({ "set-chance": setChance });
