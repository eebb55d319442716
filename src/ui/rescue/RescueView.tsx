"use client";

import Link from "next/link";
import { useMemo, useState } from "react";
import { groupOfDrive, roleOfDrive } from "@/core/box/members";
import type { Plan } from "@/core/document/plan";
import type { RescueChoices } from "@/core/rescue/rescue";
import { poolsToRescue, rescueOf, settingOf } from "@/core/rescue/rescueOf";
import { OneOf } from "../kit/OneOf";
import { useUnit } from "../preferences/preferences";
import { PracticePanel } from "../practice/practicePart";
import { today } from "../today";
import { Course } from "./Course";
import type { PlaceProps } from "../shell/planPlace";
import { WhatFits } from "./WhatFits";
import { WhatItMeans } from "./WhatItMeans";
import { WhichDrive } from "./WhichDrive";

/** Which pool the address asks about: by its id, or by one of its drives. */
function askedPool(plan: Plan): string | undefined {
  const asked = new URLSearchParams(window.location.search);
  const drive = asked.get("drive") ?? "";
  return asked.get("pool") ?? groupOfDrive(plan, drive)?.pool.id ?? roleOfDrive(plan, drive)?.pool.id;
}

/** The pools of a plan, those first that ask for a rescue; and what to do for one of them. */
export function RescueView({ plan, act, planHref }: PlaceProps) {
  const troubled = poolsToRescue(plan);
  const [chosen, choose] = useState(() => askedPool(plan) ?? troubled[0]?.id ?? plan.pools[0]?.id);
  const pool = plan.pools.find(({ id }) => id === chosen) ?? troubled[0] ?? plan.pools[0];
  return (
    <main id="main" className="min-w-0 flex-1 px-4 py-4 md:px-6 desk:overflow-y-auto" tabIndex={-1}>
      <div className="mx-auto max-w-3xl">
        <h1 className="font-serif text-2xl">What to do now{pool?.name ? `: ${pool.name}` : ""}</h1>
        {plan.pools.length > 1 && (
          <div className="mt-2 max-w-md print:hidden">
            <OneOf
              label="Pool"
              value={pool?.id ?? ""}
              // Those that need the owner come first, and say so.
              options={[...troubled, ...plan.pools.filter((each) => !troubled.includes(each))].map((each) => ({
                value: each.id,
                label: `${troubled.includes(each) ? "Needs you: " : ""}${each.name || each.id}`,
              }))}
              onChange={choose}
            />
          </div>
        )}
        {pool ? (
          <OnePool key={pool.id} plan={plan} pool={pool.id} act={act} planHref={planHref} />
        ) : (
          <p className="mt-4 text-soft">
            There is no pool in this plan yet.{" "}
            <Link href={planHref} className="font-semibold text-indigo underline underline-offset-2">
              Make one of your drives
            </Link>
            , and come back.
          </p>
        )}
        <PracticePanel plan={plan} />
      </div>
    </main>
  );
}

function OnePool({ plan, pool, act, planHref }: PlaceProps & { pool: string }) {
  const [unit] = useUnit();
  const [choices, setChoices] = useState<RescueChoices>({});
  const setting = useMemo(() => settingOf(plan, pool, unit, plan.calendar?.start ?? today()), [plan, pool, unit]);
  const planned = useMemo(() => setting && rescueOf(setting, choices), [setting, choices]);
  if (!planned) return null;
  const { rescue, command } = planned;
  const shared = { plan, pool, act, planHref, rescue };
  return (
    <div className="mt-3 space-y-6">
      <WhatItMeans {...shared} />
      {rescue.condition.missing.length === 0 && <WhichDrive plan={plan} pool={pool} act={act} />}
      {rescue.acts.length > 0 && (
        <Course {...shared} command={command} onChoose={(more) => setChoices({ ...choices, ...more })} />
      )}
      {rescue.condition.missing.length > 0 && <WhatFits {...shared} />}
    </div>
  );
}
