import type { BoxRules, Pool, StepBody } from "../document/plan";

/**
 * The steps that give what a pool has gained to its last volume and to that one's files, where the box does not do so
 * itself.
 */
export function growSteps(pool: Pool, rules: Pick<BoxRules, "growing">): StepBody[] {
  if (rules.growing === "by-itself") return [];
  return pool.volumes
    .slice(-1)
    .flatMap((volume): StepBody[] => [
      { kind: "grow-volume", pool: pool.id, volume: volume.id },
      ...(volume.fileSystem === "none"
        ? []
        : [{ kind: "grow-file-system" as const, pool: pool.id, volume: volume.id }]),
    ]);
}
