import { volumeOf } from "../../box/find";
import { lastStepAt, type Watcher } from "./watcher";

/** A volume that grows, and whose file system no later step grows with it. */
export const fileSystemNotGrown: Watcher = {
  code: "file-system-not-grown",
  watch: (moments, { state }, { rules }) => {
    if (rules.growing === "by-itself") return [];
    return state.plan.pools.flatMap((pool) =>
      pool.volumes.flatMap((volume) => {
        if (volume.fileSystemBytes === undefined) return [];
        const at = lastStepAt(moments, (before, after) => {
          const [was, is] = [volumeOf(before.state.plan, volume.id), volumeOf(after.state.plan, volume.id)];
          return was !== undefined && is !== undefined && is.bytes > was.bytes;
        });
        if (!at) return [];
        return [
          {
            at,
            finding: {
              severity: "warn",
              message:
                `The volume ${volume.name} grows, but no step grows its file system: your files still have the ` +
                "old space.",
              mend: {
                label: "Add the step: grow the file system",
                command: {
                  kind: "insert-steps",
                  after: at.step.id,
                  steps: [{ kind: "grow-file-system", pool: pool.id, volume: volume.id }],
                },
              },
            },
          },
        ];
      }),
    );
  },
};
