import { parityOf } from "../bands/parityOf";
import { bandsOfGroup } from "../box/figures";
import { drivesOf } from "../box/find";
import { goneIn } from "../box/gone";
import type { Drive, Group, Step } from "../document/plan";
import { layoutOf } from "../layouts/registry";
import { moduleOf } from "../steps/registry";
import type { Instead, RescueSetting } from "./rescue";
import { whatFits } from "./whatFits";

/** A drive that is gone, with the group that lacks it. */
export interface Gap {
  group: Group;
  old: Drive;
}

/** The drives that a pool lacks. */
export const gapsOf = ({ plan, pool }: RescueSetting): Gap[] =>
  pool.groups.flatMap((group) =>
    drivesOf(
      plan,
      group.drives.filter((id) => goneIn(plan).has(id)),
    ).map((old) => ({ group, old })),
  );

/** Whether parity is written by schedule for it, so that files are restored and nothing is filled by itself. */
export const isRestored = ({ group, old }: Gap, { plan, rules }: RescueSetting): boolean =>
  layoutOf(group.layout).dedicatedParity !== undefined &&
  rules.parityWrites === "by-schedule" &&
  !parityOf(bandsOfGroup(plan, group, rules)).includes(old.id);

/** The step of the plan that answers a drive which is gone or failing already, if there is one. */
export const answerTo = ({ plan }: RescueSetting, { old }: Pick<Gap, "old">): Step | undefined =>
  plan.steps.find((step) => !step.disabled && moduleOf(step).answers?.(step) === old.id);

/** What could take the place of a drive that is gone: the smallest that fits, a new one, or the room on the others. */
export function insteadOf(setting: RescueSetting, gap: Gap): Instead[] {
  const planned = answerTo(setting, gap);
  if (planned) return ["by" in planned ? { by: planned.by } : { spread: true }];
  const { fits } = whatFits(setting, gap.group, gap.old);
  const [smallest] = fits;
  return [
    ...(smallest ? [{ by: smallest.id }] : []),
    ...(layoutOf(gap.group.layout).chunked ? [{ spread: true } as const] : []),
    { buy: true },
  ];
}
