"use client";

import Link from "next/link";
import { largestVolume } from "@/core/box/capacities";
import { formatBytes } from "@/core/bytes/formatBytes";
import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import { rulesOf } from "@/core/rules/ruleSets";
import { Button } from "../kit/Button";
import { useUnit } from "../preferences/preferences";

interface Props {
  plan: Plan;
  act: (command: Command) => string | null;
  planHref: string;
}

/** Data needs a volume: what to do where there is none. */
export function NoVolumes({ plan, act, planHref }: Props) {
  const [unit] = useUnit();
  const [pool] = plan.pools;
  const rules = rulesOf(plan.box.rules);
  const bytes = pool ? largestVolume(plan, pool, "", rules) : 0;
  return (
    <div className="mt-4 max-w-xl space-y-3">
      <p>Data lives on volumes, and no pool of this plan has one yet.</p>
      {pool && bytes > 0 ? (
        <Button
          look="main"
          onClick={() =>
            act({
              kind: "add-volume",
              pool: pool.id,
              volume: { name: pool.name || "Volume 1", bytes, fileSystem: "btrfs" },
            })
          }
        >
          Make one volume of all of {pool.name || "the pool"} ({formatBytes(bytes, unit)})
        </Button>
      ) : (
        <p className="text-soft">Make a pool first.</p>
      )}
      <p>
        <Link href={planHref} className="text-indigo underline underline-offset-4">
          Back to the box
        </Link>
      </p>
    </div>
  );
}
