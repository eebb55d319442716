import type { Bytes } from "../../bytes/bytes";
import { formatBytes, type UnitFamily } from "../../bytes/formatBytes";
import type { BoxRules, Drive } from "../../document/plan";
import type { Finding } from "../../findings/finding";
import { nameOfDriveFirst } from "../nameOfDrive";
import { shortBy } from "../shortBy";

/**
 * The smallest drive that may join drives that work together already, in bytes; 1 where any may.
 *
 * @param members at least one, except where any drive may join
 * @example leastToJoin([fourTB, eightTB], { joining: "as-largest-member" }) // 8 001 563 222 016
 */
export function leastToJoin(members: readonly Drive[], rules: Pick<BoxRules, "joining">): Bytes {
  const sizes = members.map((member) => member.bytes);
  if (rules.joining === "as-smallest-member") return Math.min(...sizes);
  return rules.joining === "as-largest-member" ? Math.max(...sizes) : 1;
}

/**
 * Whether a drive is large enough, and not too large, to join drives that work together already, by the box's rule.
 *
 * @param members the drives of the group as it is
 * @example checkJoining(threeTB, [fourTB, fourTB], { joining: "as-smallest-member" })
 * // [{ code: "too-small", severity: "block", … }]
 */
export function checkJoining(
  drive: Drive,
  members: readonly Drive[],
  rules: Pick<BoxRules, "joining">,
  family: UnitFamily = "TB",
): Finding[] {
  const others = members.filter((member) => member.id !== drive.id);
  const sizes = others.map((member) => member.bytes);
  if (sizes.length === 0 || rules.joining === "any-size") return [];
  const name = nameOfDriveFirst(drive, family);
  if (rules.joining === "up-to-parity") {
    const largest = Math.max(...sizes);
    if (drive.bytes <= largest) return [];
    return [
      {
        code: "larger-than-parity",
        severity: "warn",
        message:
          `${name} is larger than the parity drive (${formatBytes(largest, family)}): it has to become the ` +
          "parity drive itself.",
        drives: [drive.id],
      },
    ];
  }
  const least = leastToJoin(others, rules);
  if (drive.bytes >= least) return [];
  const short = shortBy(least - drive.bytes, least, family);
  return [
    {
      code: "too-small",
      severity: "block",
      message:
        `${name} is too small to join by ${short.by}: your box wants at least ` +
        `${formatBytes(least, family)}.${short.help}`,
      drives: [drive.id],
    },
  ];
}
