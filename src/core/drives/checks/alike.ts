import type { Drive } from "../../document/plan";
import type { Finding } from "../../findings/finding";

/** Drives of one model that were bought together age together. Said once for a group in which all are so. */
export function checkAlike(drives: readonly Drive[]): Finding[] {
  const [first] = drives;
  if (drives.length < 2 || !first?.model || !first.purchased) return [];
  if (!drives.every((drive) => drive.model === first.model && drive.purchased === first.purchased)) return [];
  return [
    {
      code: "all-alike",
      severity: "note",
      message: `All ${drives.length} drives are ${first.model} bought in ${first.purchased}: they age together and may fail close together.`,
      drives: drives.map((drive) => drive.id),
    },
  ];
}
