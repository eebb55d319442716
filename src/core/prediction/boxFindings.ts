import type { Plan } from "../document/plan";
import { bayOf } from "../drives/drive";
import type { Finding } from "../findings/finding";
import { rulesOf } from "../rules/ruleSets";
import { counted } from "../words/counted";

/**
 * What is to be said of the box itself: more bays than such a box has.
 *
 * @example boxFindings(desktopMirrorOfFourBays)[0].code // "too-many-bays"
 */
export function boxFindings({ box, drives }: Plan): Finding[] {
  const { mostDrives } = rulesOf(box.rules);
  if (mostDrives === null || box.bays <= mostDrives) return [];
  const beyond = drives.filter((drive) => (bayOf(drive) ?? 0) > mostDrives);
  const takes = `The plan has ${counted(box.bays, "bay")}, and your box takes ${counted(mostDrives, "drive")} at most.`;
  return [
    {
      code: "too-many-bays",
      severity: "warn",
      message:
        beyond.length > 0
          ? `${takes} Pull the drives from the bays above ${mostDrives}, or correct what your box can do.`
          : `${takes} Give it ${counted(mostDrives, "bay")}, or correct what your box can do.`,
      drives: beyond.map((drive) => drive.id),
      pointer: "/box/bays",
      ...(beyond.length > 0
        ? {}
        : {
            mend: {
              label: `Give it ${counted(mostDrives, "bay")}`,
              command: { kind: "change-box", bays: mostDrives },
            },
          }),
    },
  ];
}
