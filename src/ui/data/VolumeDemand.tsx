"use client";

import { fileSystemCapacity } from "@/core/box/capacities";
import { formatBytes } from "@/core/bytes/formatBytes";
import { fullWords, reachesWords } from "@/core/data/dataWords";
import { dataSetsOn } from "@/core/data/stored";
import { backupDemands } from "@/core/schedule/backupsFilling";
import { fullAfter } from "@/core/data/fullAfter";
import type { Command } from "@/core/document/command";
import type { Plan, Volume } from "@/core/document/plan";
import { DEFAULT_HEADROOM } from "@/core/ledger/volumes";
import type { Demand } from "@/core/schedule/demand";
import { counted } from "@/core/words/counted";
import type { Dates } from "../calendar/useDates";
import { useUnit } from "../preferences/preferences";

/** When one volume is full, with the head-room that is kept free. */
export function VolumeDemand({
  demand: { volume, capacity, fullWithPlan, fullWithoutPlan, rises },
  dates,
  plan,
  act,
}: {
  demand: Demand;
  dates: Dates;
  plan: Plan;
  act: (command: Command) => string | null;
}) {
  const [unit] = useUnit();
  const on = (days: number | null) => fullWords(days, dates.start);
  const headroom = Math.round((volume.headroomShare ?? DEFAULT_HEADROOM) * 100);
  const pool = plan.pools.find((each) => each.volumes.some((one) => one.id === volume.id));
  const planned = plan.steps.length > 0;
  const deliveryDays = plan.calendar?.deliveryDays ?? 0;
  // What the plan spends is time; without what is kept free the same volume lasts a little longer.
  const brim = headroom > 0 ? fullAfter(plan, { ...volume, headroomShare: 0 }, capacity) : null;
  return (
    <div className="py-2.5">
      <p>
        <strong className="font-semibold">{volume.name}</strong>{" "}
        <strong className={`font-semibold ${fullWithPlan !== null && fullWithPlan <= 0 ? "text-geranium" : ""}`}>
          {reachesWords(volume, planned ? fullWithPlan : fullWithoutPlan, dates.start)}
        </strong>
        {planned && fullWithPlan !== fullWithoutPlan ? `, without the plan ${on(fullWithoutPlan)}` : ""}.{" "}
        <span className="text-soft">
          {formatBytes(fileSystemCapacity(volume), unit)} for your files
          {brim !== null && !planned ? `; completely full ${on(brim)}` : ""}.
        </span>
      </p>
      {backupsOf(plan, volume).map(({ backup, fullAfter: days }) => (
        <p key={backup.id} className={days !== null && days <= 0 ? "text-ochre-text" : "text-soft"}>
          {backup.name} holds its backup{" "}
          {days === null ? "for 50 years and more" : days <= 0 ? "no longer" : `until ${on(days)}`}.
        </p>
      ))}
      {rises.map((rise) => (
        <p
          key={rise.step}
          className={rise.fullWithout !== null && rise.there > rise.fullWithout ? "text-ochre-text" : "text-soft"}
        >
          {formatBytes(rise.capacity, unit)} for your files from {on(rise.there)}
          {rise.latestBegin === null
            ? "; there is no hurry"
            : rise.there > (rise.fullWithout ?? Infinity)
              ? `: too late by ${counted(Math.ceil(rise.there - (rise.fullWithout ?? 0)), "day")}`
              : "; its steps must begin by " +
                `${on(rise.latestBegin)}${deliveryDays > 0 ? `, what they need be ordered by ${on(rise.latestBegin - deliveryDays)}` : ""}`}
          .
        </p>
      ))}
      <label className="mt-1 flex flex-wrap items-center gap-2 text-[0.95rem]">
        Keep free
        <select
          className="h-7 rounded border border-line-strong/70 bg-raised px-1"
          value={headroom}
          onChange={(event) =>
            pool &&
            act({
              kind: "edit-volume",
              pool: pool.id,
              volume: volume.id,
              changes: { headroomShare: Number(event.target.value) / 100 },
            })
          }
        >
          {[...new Set([0, 5, 10, 15, 20, 25, 30, 40, 50, headroom])]
            .sort((a, b) => a - b)
            .map((each) => (
              <option key={each} value={each}>
                {each} %
              </option>
            ))}
        </select>
      </label>
    </div>
  );
}

/** The backups that hold something of a volume, and until when they do. */
function backupsOf(plan: Plan, { id }: Volume) {
  const sets = dataSetsOn(plan, id).map((set) => set.id);
  return backupDemands(plan).filter(({ backup }) => backup.dataSets.some((set) => sets.includes(set)));
}
