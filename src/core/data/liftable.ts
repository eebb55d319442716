/** The code of the finding that the owner may lift in writing. */
export const PRECIOUS_WITHOUT_BACKUP = "precious-without-backup";
