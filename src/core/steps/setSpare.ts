import { leastForSpare } from "../box/arrays";
import { drivesOf, poolOf } from "../box/find";
import { changed, takeIn } from "../box/state";
import { formatBytes } from "../bytes/formatBytes";
import { roomOf } from "../drives/room";
import { layoutOf } from "../layouts/registry";
import { IF_WRONG } from "../rules/ifWrong";
import { capital } from "../words/capital";
import { missingDrives, missingPool, named, notFree, beforeUse } from "./checks";
import { BY_HAND } from "./stepMenu";
import { against, noCost, type StepModule } from "./stepModule";

/** A drive that stands by for a pool and takes over by itself. */
export const setSpare: StepModule<"set-spare"> = {
  kind: "set-spare",
  name: "Set a hot spare",
  boxWork: () => null,
  tells: ({ pool, drive }, names) => [`Make ${names.drive(drive)} a hot spare of ${names.pool(pool)}.`],
  handles: (step) => [step.drive],
  label: (step, names) => `${names.size(step.drive)} as hot spare`,
  menu: BY_HAND,
  check: ({ plan, tested }, step, setting) => {
    const pool = poolOf(plan, step.pool);
    const members = drivesOf(plan, pool?.groups.flatMap((group) => group.drives) ?? []);
    const [drive] = drivesOf(plan, [step.drive]);
    const least = pool ? leastForSpare(plan, pool, setting.rules) : 0;
    return [
      ...missingPool(plan, step.pool),
      ...missingDrives(plan, [step.drive]),
      ...notFree(plan, [step.drive], setting),
      ...(setting.rules.hotSpares === "none"
        ? [against("block", "spares-not-offered", `Your box has no hot spares. ${IF_WRONG}`)]
        : []),
      ...(pool && pool.groups.length > 0 && pool.groups.every((group) => layoutOf(group.layout).takesNoSpare)
        ? [
            against(
              "block",
              "spare-of-no-use",
              `${pool.name || "The pool"} has nothing from which a spare could be filled: ` +
                `${layoutOf(pool.groups[0]?.layout ?? "raid0").name} has no use for hot spares.`,
            ),
          ]
        : []),
      ...(drive && members.length > 0 && roomOf(drive, setting.rules).between < least
        ? [
            against(
              "block",
              "spare-too-small",
              `${capital(named(plan, step.drive, setting))} is too small by ` +
                `${formatBytes(least - roomOf(drive, setting.rules).between, setting.family)}: it must hold what ` +
                "the group uses of a drive, and could stand in for none.",
              [step.drive],
            ),
          ]
        : []),
      ...(drive ? beforeUse([drive], setting, tested) : []),
    ];
  },
  apply: (state, step) =>
    changed(state, (plan) => {
      takeIn(plan, step.drive);
      poolOf(plan, step.pool)?.spares.push(step.drive);
    }),
  cost: (_before, _after, step) => noCost({ erased: [step.drive] }),
  say: ({ plan }, step, setting) => ({
    does:
      `${capital(named(plan, step.drive, setting))} stands by as a hot spare of ` +
      `${poolOf(plan, step.pool)?.name ?? "the pool"}.`,
    why: "When a drive fails the rebuild begins at once, by itself; afterwards there is no spare.",
  }),
};
