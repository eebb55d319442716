/** The command whose output tells the members of arrays. */
export const ARRAYS_COMMAND = "cat /proc/mdstat";
