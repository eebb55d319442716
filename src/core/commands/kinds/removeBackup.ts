import type { CommandModule } from "../commandModule";
import { need } from "../refusal";

/** A backup taken away. */
export const removeBackup: CommandModule<"remove-backup"> = {
  apply: (plan, command) => {
    need(
      plan.backups?.find((backup) => backup.id === command.backup),
      "That backup",
    );
    plan.backups = plan.backups?.filter((backup) => backup.id !== command.backup) ?? [];
    if (plan.backups.length === 0) delete plan.backups;
  },
  describe: () => "removed a backup",
};
