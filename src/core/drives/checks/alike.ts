import type { Drive } from "../../document/plan";
import type { Finding } from "../../findings/finding";

const MONTHS = "Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec".split(" ");

/** "in 2024", "in May 2024", "on 17 May 2024"; by hand, since this is said on the first page. */
function whenBought(purchased: string): string {
  const [year = "", month, day] = purchased.split("-");
  const name = month === undefined ? "" : `${MONTHS[Number(month) - 1]} `;
  return day === undefined ? `in ${name}${year}` : `on ${Number(day)} ${name}${year}`;
}

/** Drives of one model that were bought together age together. Said once for a group in which all are so. */
export function checkAlike(drives: readonly Drive[]): Finding[] {
  const [first] = drives;
  if (drives.length < 2 || !first?.model || !first.purchased) return [];
  if (!drives.every((drive) => drive.model === first.model && drive.purchased === first.purchased)) return [];
  return [
    {
      code: "all-alike",
      severity: "note",
      message:
        `All ${drives.length} drives are ${first.model} bought ${whenBought(first.purchased)}: they age together ` +
        "and can fail close together.",
      drives: drives.map((drive) => drive.id),
    },
  ];
}
