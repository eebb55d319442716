import { addCommands } from "./addedCommands";
import { putBackup } from "./kinds/putBackup";
import { putDataSet } from "./kinds/putDataSet";
import { removeBackup } from "./kinds/removeBackup";
import { removeDataSet } from "./kinds/removeDataSet";

// What is said of data and backups: whoever does such a command imports this file.
addCommands({
  "put-data-set": putDataSet,
  "remove-data-set": removeDataSet,
  "put-backup": putBackup,
  "remove-backup": removeBackup,
});
