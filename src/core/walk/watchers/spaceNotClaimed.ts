import { claimed } from "../../box/arrays";
import { usableOfPool } from "../../box/figures";
import { groupOf } from "../../box/find";
import { formatBytes } from "../../bytes/formatBytes";
import type { StepBody } from "../../document/plan";
import { claimingFor } from "../../layouts/claims";
import { layoutOf } from "../../layouts/registry";
import { lastStepAt, MOST_NOT_WORTH_SAYING, type Watcher } from "./watcher";
import { ownValue } from "../../records/ownValue";

/** Larger drives whose space no later step claims, where the box does not by itself. */
export const spaceNotClaimed: Watcher = {
  code: "space-not-claimed",
  watch: (moments, { state }, { rules, family }) => {
    if (rules.claiming === "by-itself") return [];
    return state.plan.pools.flatMap((pool) =>
      pool.groups.flatMap((group) => {
        const oneByOne = claimingFor(layoutOf(group.layout), rules) === "per-drive";
        const open = Object.keys(group.reach ?? {});
        if (open.length === 0 && !group.kept) return [];
        const whole = claimed(state.plan, pool, group, rules);
        const then = { ...pool, groups: pool.groups.map((each) => (each.id === group.id ? whole : each)) };
        const gain = usableOfPool(state.plan, then, rules) - usableOfPool(state.plan, pool, rules);
        const at = lastStepAt(moments, (before, after) => {
          const [was, is] = [groupOf(before.state.plan, group.id), groupOf(after.state.plan, group.id)];
          // A larger drive has come, or the one that held the others back has gone.
          if (was && is && is.drives.length < was.drives.length) return true;
          const isOpen = (then: typeof is, drive: string) => ownValue(then?.reach, drive) !== undefined;
          return open.some((drive) => !isOpen(was, drive) && isOpen(is, drive));
        });
        if (!at || gain < MOST_NOT_WORTH_SAYING) return [];
        const steps: StepBody[] = oneByOne
          ? open.map((drive) => ({ kind: "claim-space", group: group.id, drive }))
          : [{ kind: "claim-space", group: group.id }];
        return [
          {
            at,
            finding: {
              severity: "warn",
              message:
                `${formatBytes(gain, family)} of the larger drives ` +
                (oneByOne
                  ? "are not in use yet: tell your box to use them, drive by drive"
                  : "are not in use yet: tell your box to use them") +
                ": " +
                "it does not do so by itself.",
              drives: open,
              mend: {
                label: "Add the step: use the new space",
                command: { kind: "insert-steps", after: at.step.id, steps },
              },
            },
          },
        ];
      }),
    );
  },
};
