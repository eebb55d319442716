import { inText } from "../../layouts/inText";
import { usableOfPool } from "../../box/figures";
import { groupOf } from "../../box/find";
import { formatBytes } from "../../bytes/formatBytes";
import { layoutOf } from "../../layouts/registry";
import { lastStepAt, MOST_NOT_WORTH_SAYING, type Watcher } from "./watcher";

/** A chunk pool left unbalanced although that costs space. */
export const notRebalanced: Watcher = {
  code: "not-rebalanced",
  watch: (moments, { state }, { rules, family }) =>
    state.plan.pools.flatMap((pool) =>
      pool.groups.flatMap((group) => {
        if (!group.filled) return [];
        const { filled: _filled, ...balanced } = group;
        const then = { ...pool, groups: pool.groups.map((each) => (each.id === group.id ? balanced : each)) };
        const gain = usableOfPool(state.plan, then, rules) - usableOfPool(state.plan, pool, rules);
        const at = lastStepAt(moments, (before, after) => {
          const [was, is] = [groupOf(before.state.plan, group.id), groupOf(after.state.plan, group.id)];
          return is?.filled !== undefined && is.filled !== was?.filled;
        });
        if (!at || gain < MOST_NOT_WORTH_SAYING) return [];
        return [
          {
            at,
            finding: {
              severity: "warn",
              message:
                `What is stored stays where it is, so ${formatBytes(gain, family)} cannot be used: every chunk ` +
                `of ${inText(layoutOf(group.layout))} needs space on several drives.`,
              mend: {
                label: "Add the step: rebalance",
                command: { kind: "insert-steps", after: at.step.id, steps: [{ kind: "rebalance", group: group.id }] },
              },
            },
          },
        ];
      }),
    ),
};
