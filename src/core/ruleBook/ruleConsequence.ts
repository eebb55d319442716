import { counted } from "../words/counted";
import { formatBytes, type UnitFamily } from "../bytes/formatBytes";
import { type Plan, type BoxRules } from "../document/plan";
import { layoutOf } from "../layouts/registry";
import { fewestDrives } from "../layouts/problemsOfLayout";
import { rulesOf } from "../rules/ruleSets";
import { predict } from "../prediction/predict";
import { driveInBay } from "../box/bays";

/**
 * What a rule, as it is now, means for the present plan, in a sentence; null where it means nothing for it yet.
 *
 * @example ruleConsequence(clinic, "joining", "TB") // "A drive needs at least 12.00 TB to join Images."
 */
export function ruleConsequence(plan: Plan, rule: keyof BoxRules, family: UnitFamily): string | null {
  const rules = rulesOf(plan.box.rules);
  const [pool] = plan.pools;
  const [group] = pool?.groups ?? [];
  if (!pool || !group) return null;
  const members = plan.drives.filter((drive) => group.drives.includes(drive.id));
  const sizes = members.map((drive) => drive.bytes);
  const free = Array.from({ length: plan.box.bays }, (_, i) => i + 1).filter((bay) => driveInBay(plan, bay) === null);
  const freeWords =
    free.length === 0
      ? "no bay is free"
      : free.length === 1
        ? `bay ${free[0]} is free`
        : `${free.length} bays are free`;
  switch (rule) {
    case "joining": {
      if (rules.joining === "any-size") return `A drive of any size may join ${pool.name}.`;
      if (rules.joining === "up-to-parity")
        return `A drive of up to ${formatBytes(Math.max(...sizes), family)} may join ${pool.name} as a data drive.`;
      const least = rules.joining === "as-smallest-member" ? Math.min(...sizes) : Math.max(...sizes);
      return `A drive needs at least ${formatBytes(least, family)} to join ${pool.name}.`;
    }
    case "widening":
      if (rules.widening === "further-group")
        return `${pool.name} grows by at least ${counted(fewestDrives(layoutOf(group.layout), rules, group.options), "drive", "drives")} at once; ${freeWords}.`;
      return `${pool.name} can take ${rules.widening === "one-drive" ? "one drive at a time" : "several drives at once"}; ${freeWords}.`;
    case "replacing":
      return rules.replacing === "old-attached"
        ? free.length === 0
          ? "No bay is free, so a drive would still have to be pulled first."
          : `For the new drive, ${freeWords}.`
        : `While a drive of ${pool.name} is replaced, the pool is degraded.`;
    case "hotSpares": {
      const spares = pool.spares.length + pool.groups.reduce((sum, each) => sum + (each.spares?.length ?? 0), 0);
      return `${pool.name} has ${spares === 0 ? "no spare" : counted(spares, "spare")}.`;
    }
    case "rebuilding": {
      const longest = predict(plan).pools.flatMap((each) =>
        each.groups.flatMap((one) => one.rebuilds.map((rebuild) => rebuild.hours?.expected ?? 0)),
      );
      return longest.length > 0 ? `The longest rebuild takes about ${Math.round(Math.max(...longest))} h.` : null;
    }
    case "claiming":
      return rules.claiming === "by-itself"
        ? null
        : rules.claiming === "per-drive"
          ? `After each larger drive in ${pool.name} a claim is due.`
          : `After the last larger drive of ${pool.name} one claim is due for all.`;
    case "growing":
      return rules.growing === "by-hand"
        ? `After ${pool.name} has grown, ${pool.volumes.length === 0 ? "its volumes have" : counted(pool.volumes.length, "volume has", "volumes have")} to be grown by hand, and then the file system.`
        : null;
    case "swapping":
      return {
        "hot-swap": `A drive of ${plan.box.name} is changed while it runs.`,
        "power-off": `To change a drive, ${plan.box.name} is switched off.`,
        "stop-pool": `To change a drive, ${pool.name} is stopped.`,
      }[rules.swapping];
    case "levelChanges":
      return {
        none: `${pool.name} keeps its layout, unless it is made anew from a backup.`,
        "one-at-a-time": `From ${layoutOf(group.layout).shortName}, only the next level can be reached in one step.`,
        "in-one-go": `From ${layoutOf(group.layout).shortName}, any level that the box offers can be reached in one step.`,
      }[rules.levelChanges];
    default:
      return null;
  }
}
