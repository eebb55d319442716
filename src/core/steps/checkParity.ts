import { poolOf } from "../box/find";
import { goneOf } from "../box/gone";
import { missingPool } from "./checks";
import { costOfReadingAll, notScheduled } from "./scheduled";
import { hasParitySchedule } from "../layouts/hasParitySchedule";
import { against, noCost, type StepModule } from "./stepModule";

/** Everything read and compared with scheduled parity, which is not written. */
export const checkParity: StepModule<"check-parity"> = {
  kind: "check-parity",
  name: "Check against the parity",
  boxWork: () => "check",
  tells: ({ pool }, names) => [`Start a check of the parity of ${names.pool(pool)} that corrects nothing.`],
  paced: true,
  handles: () => [],
  label: () => checkParity.name,
  menu: {
    under: "pool",
    offers: (pool, { rules }) =>
      hasParitySchedule(pool, rules)
        ? [{ label: checkParity.name, steps: [{ kind: "check-parity", pool: pool.id }] }]
        : [],
  },
  check: ({ plan }, step, { rules }) => {
    const pool = poolOf(plan, step.pool);
    const gone = pool ? goneOf(plan, pool) : [];
    return [
      ...missingPool(plan, step.pool),
      ...notScheduled(pool, rules),
      ...(gone.length > 0
        ? [
            against(
              "block",
              "nothing-to-check",
              "A drive is gone: restore it first. A check would find only that.",
              gone,
            ),
          ]
        : []),
    ];
  },
  apply: (state) => state,
  cost: ({ plan }, _after, step, { rules }) => {
    const pool = poolOf(plan, step.pool);
    if (!pool) return noCost({});
    return costOfReadingAll(plan, pool, rules);
  },
  say: ({ plan }, step) => ({
    does:
      `All of ${poolOf(plan, step.pool)?.name ?? "the pool"} is read and compared with its parity; nothing is ` +
      "written.",
    why: "It shows whether what was restored is right, before anything new is recorded.",
  }),
};
