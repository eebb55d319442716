import { driveOf, poolOf, poolOfGroup } from "../box/find";
import type { UnitFamily } from "../bytes/formatBytes";
import type { BoxRules, Plan } from "../document/plan";
import { bayOf } from "../drives/drive";
import { markOfDrive, shortSize } from "../drives/nameOfDrive";
import { inText } from "../layouts/inText";
import { layoutOf } from "../layouts/registry";
import { boxScreen } from "../prediction/boxScreen";
import { listOf } from "../words/listOf";
import { volumeOf } from "./volumeOf";

import type { TellNames } from "./tellNames";

/**
 * The names for a step while it is carried out: a drive that has gone in is in its new bay, one that goes out is still
 * where it was.
 *
 * @param before the box before the step
 * @param after the box after it
 * @example tellNamesOf(before, after, rules, "TB").drive("d7") // "the 8 TB drive in bay 5 (…4418)"
 */
export function tellNamesOf(before: Plan, after: Plan, rules: BoxRules, family: UnitFamily): TellNames {
  const drive = (id: string) => {
    const [was, is] = [driveOf(before, id), driveOf(after, id)];
    const known = is ?? was;
    if (!known) return "a drive";
    const bay = (is && bayOf(is)) ?? (was && bayOf(was)) ?? null;
    return `the ${shortSize(known, family)} drive${bay === null ? "" : ` in bay ${bay}`} (${markOfDrive(known)})`;
  };
  return {
    pool: (id) => (poolOf(before, id) ?? poolOf(after, id))?.name || "the pool",
    poolOfGroup: (group) => (poolOfGroup(before, group) ?? poolOfGroup(after, group))?.name || "the pool",
    drive,
    drives: (ids) => listOf(ids.map(drive)),
    volume: (pool, volume) => volumeOf(before, pool, volume)?.name || "",
    layout: (id) => inText(layoutOf(id)),
    size: (bytes) => boxScreen(bytes, rules),
    backup: (to) => before.backups?.find(({ id }) => id === to)?.name || to || "its place",
  };
}
