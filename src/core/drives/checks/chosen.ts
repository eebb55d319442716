import type { UnitFamily } from "../../bytes/formatBytes";
import type { BoxRules, Drive } from "../../document/plan";
import type { Finding } from "../../findings/finding";
import { checkContents } from "./contents";
import { checkHealth } from "./health";
import { checkMixing } from "./mixing";
import { checkTechnology } from "./technology";

/**
 * What stands against drives that are about to be put to use together, said before any group exists: their health, what
 * is on them, how the box partitions and attaches them, and how they go together with each other and with members.
 *
 * @param members those of the group that they would join; none for a new one
 * @example checkChosen([usbDrive, sataDrive], [], rules)[0].code // "usb-member"
 */
export function checkChosen(
  drives: readonly Drive[],
  members: readonly Drive[],
  rules: BoxRules,
  family: UnitFamily = "TB",
): Finding[] {
  const chosen = new Set(drives.map((drive) => drive.id));
  return [
    ...drives.flatMap((drive) => [
      ...checkHealth(drive, family),
      ...checkContents(drive, rules, family),
      ...checkTechnology(drive, false, rules, family),
    ]),
    ...checkMixing([...members.filter(({ id }) => !chosen.has(id)), ...drives], rules, family).filter((finding) =>
      finding.drives.some((id) => chosen.has(id)),
    ),
  ];
}
