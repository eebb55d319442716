"use client";

import { useState } from "react";
import type { Plan } from "@/core/document/plan";
import type { PoolTruth, VolumeTruth } from "@/core/simulator/truth";
import { lengthWords } from "@/core/time/hoursWords";
import { whenWords } from "../carry/when";

/** What became of the data of a practice box, as it was read back and compared. */
export function TruthLines({ pools, plan, now }: { pools: PoolTruth[] | null; plan: Plan; now: number }) {
  const [read, setRead] = useState({ pools, at: now });
  if (read.pools !== pools) setRead({ pools, at: now });
  return (
    <div role="status">
      {pools && (
        <ul className="mt-2">
          {pools.map((pool) => (
            <li key={pool.pool}>
              {poolWords(pool, plan)} <span className="text-soft">Read back {whenWords(read.at)}.</span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** A share of what is stored, which is known to a thousandth. */
const share = (lost: number, blocks: number): string => {
  const percent = (lost / Math.max(1, blocks)) * 100;
  return percent < 0.1 ? "less than 0.1 %" : `about ${percent < 10 ? percent.toFixed(1) : Math.round(percent)} %`;
};

function poolWords({ pool, lost, volumes }: PoolTruth, plan: Plan): string {
  const name = plan.pools.find(({ id }) => id === pool)?.name ?? "A pool";
  if (volumes.length === 0)
    return lost === 0 ? `${name}: all of it is there.` : `${name}: some of its blocks cannot be read, or are wrong.`;
  return volumes.map((volume) => volumeWords(volume, plan)).join(" ");
}

function volumeWords({ volume, blocks, lost, deleted, backupAge }: VolumeTruth, plan: Plan): string {
  const name = plan.pools.flatMap(({ volumes }) => volumes).find(({ id }) => id === volume)?.name ?? "A volume";
  const backup =
    backupAge === null
      ? "No backup has it."
      : `A backup has it, as it was ${lengthWords(backupAge).replace("about ", "")} before.`;
  if (deleted) return `${name}: deleted. ${backup}`;
  if (lost > 0 && lost === blocks) return `${name}: none of it can be read now. ${backup}`;
  return lost === 0
    ? `${name}: all of it is there, and as it was written.`
    : `${name}: ${share(lost, blocks)} of its blocks cannot be read, or are wrong. ${backup}`;
}
