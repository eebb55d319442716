import type { Drive, Group, Plan, StepBody } from "../document/plan";
import { roomOf } from "../drives/room";
import type { Finding } from "../findings/finding";
import { parityDrivesOf } from "../layouts/parityDrive";
import { layoutOf } from "../layouts/registry";
import { capital } from "../words/capital";
import { plural } from "../words/counted";
import { drivesInWords } from "./checks";
import { against, type StepSetting } from "./stepModule";

/** The parity drives of a group, and the smallest of them; none in a layout without. */
export function parityAmong(
  group: Pick<Group, "layout" | "options">,
  drives: readonly Drive[],
  { rules }: StepSetting,
): { ids: string[]; smallest: Drive | undefined } {
  const { dedicatedParity = 0 } = layoutOf(group.layout);
  const rooms = drives.map((drive) => roomOf(drive, rules));
  const ids = parityDrivesOf(rooms, dedicatedParity, group.options?.parityDrives);
  const parity = drives.filter((drive) => ids.includes(drive.id));
  return { ids, smallest: parity.sort((a, b) => roomOf(a, rules).length - roomOf(b, rules).length)[0] };
}

/**
 * That no data drive is larger than a parity drive, which could not protect all of it: in every kind of box, whatever
 * its rule for joining says.
 *
 * @param drives those that the group has
 * @param data those of them, or that are to join them, which would hold data
 * @param mend the steps in place of this one that begin with a larger parity drive; none where there is no parity to
 * change yet
 */
export function largerThanParity(
  plan: Plan,
  group: Pick<Group, "layout" | "options">,
  drives: readonly Drive[],
  data: readonly Drive[],
  setting: StepSetting,
  mend?: (parity: Drive, larger: Drive) => { step: string; by: StepBody[] },
): Finding[] {
  const { rules } = setting;
  const { ids, smallest } = parityAmong(group, drives, setting);
  if (!smallest) return [];
  const most = roomOf(smallest, rules).length;
  const larger = data.filter((drive) => !ids.includes(drive.id) && roomOf(drive, rules).length > most);
  const [first] = larger;
  if (!first) return [];
  const names = larger.map((drive) => drive.id);
  const message = `${capital(drivesInWords(plan, names, setting))} ${plural(larger.length, "is", "are")} larger than the parity drive, which cannot protect all of ${plural(larger.length, "it", "them")}. Change the parity drive for a larger one first.`;
  const instead = larger.length === 1 ? mend?.(smallest, first) : undefined;
  return [
    against(
      "block",
      "larger-than-parity",
      message,
      names,
      instead && { label: "Make it the parity drive", command: { kind: "replace-step", ...instead } },
    ),
  ];
}
