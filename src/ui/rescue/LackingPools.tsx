import Link from "next/link";
import { conditionWords } from "@/core/failures/conditionWords";
import type { PoolPrediction } from "@/core/prediction/predictPool";

/** A line for each pool that lacks drives, with the way to what to do now; nothing where none does. */
export function LackingPools({ pools, planHref }: { pools: readonly PoolPrediction[]; planHref: string }) {
  return pools
    .filter((pool) => pool.condition.state !== "whole")
    .map((pool) => (
      <p key={pool.id} className="text-[0.95rem]">
        <span className="text-geranium">
          {pools.length > 1 ? `${pool.name}: ` : ""}
          {conditionWords(pool.condition, pool.tolerance)}.
        </span>{" "}
        <Link
          href={`${planHref}/rescue?pool=${pool.id}`}
          className="inline-block py-0.5 font-semibold underline underline-offset-2 print:hidden"
        >
          What to do now
        </Link>
      </p>
    ));
}
