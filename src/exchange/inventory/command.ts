/** The command whose output is asked for. */
export const INVENTORY_COMMAND = "lsblk --json --bytes --output-all";
