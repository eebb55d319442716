"use client";

import { conditionOf } from "@/core/box/condition";
import { goneIn } from "@/core/box/gone";
import { rulesOfBox } from "@/core/box/rulesOfBox";
import type { Condition } from "@/core/failures/condition";
import type { PoolPrediction } from "@/core/prediction/predictPool";
import { Explained } from "../../kit/Explained";
import { useWorkbench, type WorkbenchView } from "../useWorkbench";
import { stateWords, systemWords } from "./stateWords";

const TONES = { whole: "", degraded: "text-ochre-text", lost: "text-geranium" };

/** What state a pool is in: in fact, or in a what-if. */
export function stateAt({ plan, failed }: Pick<WorkbenchView, "plan" | "failed">, pool: PoolPrediction): Condition {
  const own = plan.pools.find(({ id }) => id === pool.id);
  return failed.size > 0 && own ? conditionOf(plan, own, rulesOfBox(plan), undefined, failed) : pool.condition;
}

/** What is lost, or cannot be read, in the largest words of the read-out: what was held is no figure to be glad of. */
export function LostPools() {
  const view = useWorkbench();
  const lost = statesOf(view).filter(({ tone }) => tone === "lost");
  if (lost.length === 0) return null;
  return (
    <p data-lost className="font-serif text-[2.3rem] leading-tight text-geranium">
      {lost.map(({ id, called, heading }) => (
        <span key={id} className="block wrap-anywhere">
          {view.failed.size > 0 && "What if: "}
          {called}
          {heading}
        </span>
      ))}
    </p>
  );
}

/** The state of each pool in words, with its name before it where there are several. */
const statesOf = (view: WorkbenchView) =>
  view.prediction.pools.map((pool, _, { length }) => ({
    id: pool.id,
    called: length > 1 ? `${pool.name || pool.id}: ` : "",
    ...stateWords(view.plan, stateAt(view, pool)),
  }));

/** What has become of a pool of which drives have failed or are missing, and of the box's own system. */
export function StateOfPool({ pool }: { pool: PoolPrediction }) {
  const view = useWorkbench();
  const { plan, failed } = view;
  const words = stateWords(plan, stateAt(view, pool));
  const system = systemWords(plan, new Set([...failed, ...goneIn(plan)]));
  return (
    <>
      <h3 className={`font-serif text-lg ${TONES[words.tone]}`}>{words.heading}</h3>
      <p className="mt-0.5 text-[0.95rem] text-soft">
        <Explained text={words.then} />
      </p>
      {system && <p className="mt-0.5 text-[0.95rem] text-soft">{system}</p>}
    </>
  );
}

/** The same of all pools in a line, for a phone, where the read-out has gone out of sight. */
export function StatesInShort() {
  return statesOf(useWorkbench())
    .filter(({ tone }) => tone !== "whole")
    .map(({ id, called, heading, tone }) => (
      <strong key={id} className={`font-semibold ${TONES[tone]}`}>
        {called}
        {heading}.{" "}
      </strong>
    ));
}
