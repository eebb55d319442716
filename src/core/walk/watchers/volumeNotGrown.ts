import { usableIfWhole, usableOfPool } from "../../box/figures";
import { rulesOfBox } from "../../box/rulesOfBox";
import type { Bytes } from "../../bytes/bytes";
import { formatBytes } from "../../bytes/formatBytes";
import type { WalkedMoment } from "../moment";
import { lastStepAt, MOST_NOT_WORTH_SAYING, type Watcher } from "./watcher";

/** What comes back after a loss is no new space, so the drives that are gone are left out of it. */
function usableAt({ state: { plan } }: WalkedMoment, id: string): Bytes {
  const pool = plan.pools.find((each) => each.id === id);
  return pool ? usableIfWhole(plan, pool, rulesOfBox(plan)) : 0;
}

/** Space that appears, and that no later step gives to a volume. */
export const volumeNotGrown: Watcher = {
  code: "volume-not-grown",
  watch: (moments, { state }, { rules, family }) => {
    if (rules.growing === "by-itself") return [];
    return state.plan.pools.flatMap((pool) => {
      const volume = pool.volumes.at(-1);
      if (!volume) return [];
      const spare = usableOfPool(state.plan, pool, rules) - pool.volumes.reduce((sum, each) => sum + each.bytes, 0);
      if (spare < MOST_NOT_WORTH_SAYING) return [];
      const at = lastStepAt(moments, (before, after) => usableAt(after, pool.id) > usableAt(before, pool.id));
      if (!at) return [];
      const target = { pool: pool.id, volume: volume.id };
      return [
        {
          at,
          finding: {
            severity: "warn",
            message:
              `The pool grows, but no step gives ${formatBytes(spare, family)} of it to a volume: your files ` +
              "cannot use it.",
            mend: {
              label: "Add the steps: grow the volume, then the file system",
              command: {
                kind: "insert-steps",
                after: at.step.id,
                steps: [
                  { kind: "grow-volume", ...target },
                  ...(volume.fileSystem === "none" ? [] : [{ kind: "grow-file-system" as const, ...target }]),
                ],
              },
            },
          },
        },
      ];
    });
  },
};
