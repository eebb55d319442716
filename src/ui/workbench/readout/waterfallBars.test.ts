import fc from "fast-check";
import { predict } from "@/core/prediction/predict";
import { anyPlan } from "@/core/testing/anyPlan";
import { waterfallBars } from "./waterfallBars";

test("for any plan, the bars hang together: each begins where the one before it ended, down to nothing", () => {
  fc.assert(
    fc.property(anyPlan, (plan) => {
      for (const pool of predict(plan).pools) {
        const bars = waterfallBars(pool.ledger, true);
        const [all, ...rest] = bars;
        expect(all!.bytes).toBe(pool.ledger.reduce((sum, entry) => sum + entry.bytes, 0));
        let left = all!.bytes;
        for (const bar of rest) {
          if (bar.cause === "usable") expect(bar).toEqual({ cause: "usable", base: 0, bytes: left });
          else expect(bar.base + bar.bytes).toBe(left);
          left = bar.cause === "usable" ? left : bar.base;
        }
        expect(left).toBe(0);
        expect(bars.find((bar) => bar.cause === "usable")!.bytes).toBe(pool.usableBytes);
      }
    }),
  );
});
