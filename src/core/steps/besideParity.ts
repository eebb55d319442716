import type { Drive, Group, Plan, StepBody } from "../document/plan";
import { roomOf } from "../drives/room";
import type { Finding } from "../findings/finding";
import { beyondParity, parityDrivesOf } from "../layouts/parityDrive";
import { layoutOf } from "../layouts/registry";
import { capital } from "../words/capital";
import { plural } from "../words/counted";
import { drivesInWords } from "./checks";
import { against, type StepSetting } from "./stepModule";

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
  const { dedicatedParity = 0 } = layoutOf(group.layout);
  const roomsOf = (some: readonly Drive[]) => some.map((drive) => roomOf(drive, setting.rules));
  // Who holds parity is decided among the drives that the group has, not by those that are to join.
  const named = parityDrivesOf(roomsOf(drives), dedicatedParity, group.options?.parityDrives);
  const all = [...drives.filter((drive) => named.includes(drive.id)), ...data.filter(({ id }) => !named.includes(id))];
  const beyond = beyondParity(roomsOf(all), dedicatedParity, named);
  const smallest = drives.find((drive) => drive.id === beyond.smallest);
  const larger = data.filter((drive) => beyond.larger.includes(drive.id));
  if (!smallest) return [];
  const [first] = larger;
  if (!first) return [];
  const names = larger.map((drive) => drive.id);
  const message =
    `${capital(drivesInWords(plan, names, setting))} ${plural(larger.length, "is", "are")} larger than the ` +
    `parity drive, which cannot protect all of ${plural(larger.length, "it", "them")}. Change the parity drive ` +
    "for a larger one first.";
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
