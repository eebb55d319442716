"use client";

import Link from "next/link";
import { formatBytes } from "@/core/bytes/formatBytes";
import { storageTotal } from "@/core/prediction/storageTotal";
import { survivesWords } from "@/core/words/survives";
import { useUnit } from "../../preferences/preferences";
import { useWorkbench } from "../useWorkbench";
import { part } from "../../kit/part";

const StatesInShort = part(() => import("./StateOfPool").then((module) => module.StatesInShort));

/** What the box holds and survives, in a line: on a phone, where the read-out has gone out of sight. */
export function Verdict() {
  const { plan, prediction, failed, rescueHref } = useWorkbench();
  const [unit] = useUnit();
  const { pools } = prediction;
  if (pools.length === 0 || failed.size > 0) return null;
  const least = Math.min(...pools.map((pool) => pool.tolerance));
  const lacking = pools.find((pool) => pool.condition.state !== "whole");
  if (lacking)
    return (
      <p className="text-[0.93rem] md:hidden">
        <StatesInShort />
        <Link href={`${rescueHref}?pool=${lacking.id}`} className="inline-block py-0.5 font-semibold underline">
          What to do now
        </Link>
      </p>
    );
  return (
    <p className="text-[0.93rem] md:hidden">
      <strong className="font-semibold">{formatBytes(storageTotal(plan, pools), unit)}</strong> usable.{" "}
      <span className={least === 0 ? "text-geranium" : ""}>{survivesWords(least)}.</span>
    </p>
  );
}
