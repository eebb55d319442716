"use client";

import { Pencil, Plus } from "lucide-react";
import dynamic from "next/dynamic";
import Link from "next/link";
import { useMemo, useState } from "react";
import { formatBytes } from "@/core/bytes/formatBytes";
import { plainDayWords } from "@/core/time/dateWords";
import type { Command } from "@/core/document/command";
import { bytesOn, CURRENT_DAYS, troubleOf } from "@/core/data/backup";
import { coverage } from "@/core/data/coverage";
import { fullWords, growthWords, WORTH_WORDS } from "@/core/data/dataWords";
import type { Demand } from "@/core/schedule/demand";
import { fullAfter } from "@/core/data/fullAfter";
import type { Plan, Backup, DataSet } from "@/core/document/plan";
import { DEFAULT_HEADROOM } from "@/core/ledger/volumes";
import { walkPlan } from "@/core/walk/walkPlan";
import { rulesOf } from "@/core/rules/ruleSets";
import { useDates, type Dates } from "../calendar/useDates";
import { Button, IconButton } from "../kit/Button";
import { useUnit } from "../preferences/preferences";
import { today } from "../today";
import { CoveragePicture } from "./CoveragePicture";
import { DemandChart } from "./DemandChart";
import { PlanCosts } from "./PlanCosts";
import { fileSystemCapacity, largestVolume } from "@/core/box/capacities";

const DataSetDialog = dynamic(() => import("./DataSetDialog").then((module) => module.DataSetDialog));
const BackupDialog = dynamic(() => import("./BackupDialog").then((module) => module.BackupDialog));

type Act = (command: Command, offersUndo?: boolean) => string | null;

/** The data of a plan: sets on volumes, backups, coverage before and after the plan, and when it is full. */
export function DataView({ plan, act, planHref }: { plan: Plan; act: Act; planHref: string }) {
  const [unit] = useUnit();
  const walked = useMemo(() => walkPlan(plan, unit, undefined, today()), [plan, unit]);
  const dates = useDates(walked);
  const end = walked.moments.at(-1)?.state.plan ?? plan;
  const day = walked.day;
  const before = useMemo(() => coverage(plan, day), [plan, day]);
  const after = useMemo(() => coverage(end, day), [end, day]);
  const [open, setOpen] = useState<
    { kind: "data"; set: DataSet | null } | { kind: "backup"; backup: Backup | null } | null
  >(null);
  const volumes = plan.pools.flatMap((pool) => pool.volumes.map((volume) => ({ pool, volume })));
  const sets = plan.dataSets ?? [];
  const backups = plan.backups ?? [];
  return (
    <main className="min-w-0 flex-1 overflow-y-auto px-4 py-4 md:px-6" tabIndex={-1}>
      <h1 className="font-serif text-2xl">Data and backups</h1>
      {volumes.length === 0 ? (
        <NoVolumes plan={plan} act={act} planHref={planHref} />
      ) : (
        <div className="mt-3 grid gap-x-8 gap-y-6 xl:grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)]">
          <section aria-labelledby="sets">
            <div className="flex items-center gap-3 border-b border-line pb-1">
              <h2 id="sets" className="flex-1 font-serif text-lg">
                What is stored
              </h2>
              <Button small onClick={() => setOpen({ kind: "data", set: null })}>
                <Plus size={14} aria-hidden /> Data
              </Button>
            </div>
            {sets.length === 0 && (
              <p className="py-3 text-soft">
                Say what is on your volumes, how large it is, and whether it could be had again. Then you see here what
                one failed drive, two, a fire, or a slip of the hand would take, and when the pool is full.
              </p>
            )}
            <ul aria-label="Data sets">
              {sets.map((set) => {
                const [was, is] = [
                  before.find((each) => each.dataSet === set.id),
                  after.find((each) => each.dataSet === set.id),
                ];
                return (
                  <li key={set.id} className="border-b border-line py-2.5">
                    <div className="flex items-start gap-2">
                      <p className="min-w-0 flex-1">
                        <strong className="font-semibold">{set.name}</strong> {formatBytes(set.bytes, unit)},{" "}
                        {growthWords(set, unit)}{" "}
                        <span className={set.worth === "precious" ? "text-ochre-text" : "text-soft"}>
                          {WORTH_WORDS[set.worth]}
                        </span>
                      </p>
                      <IconButton label={`Edit ${set.name}`} onClick={() => setOpen({ kind: "data", set })}>
                        <Pencil size={15} aria-hidden />
                      </IconButton>
                    </div>
                    {was && (
                      <CoveragePicture
                        before={was}
                        after={is ?? was}
                        plan={plan}
                        end={end}
                        planned={plan.steps.length > 0}
                        matters={set.worth !== "replaceable"}
                      />
                    )}
                  </li>
                );
              })}
            </ul>
          </section>
          <div className="min-w-0 space-y-6">
            <section aria-labelledby="full">
              <h2 id="full" className="border-b border-line pb-1 font-serif text-lg">
                When it is full
              </h2>
              {dates.demands.length === 0 && (
                <p className="py-3 text-soft">Nothing is known of how your data grows yet.</p>
              )}
              {dates.demands.map((each) => (
                <VolumeDemand key={each.volume.id} demand={each} dates={dates} plan={plan} act={act} />
              ))}
              {dates.demands.length > 0 && <DemandChart walked={walked} dates={dates} />}
            </section>
            {plan.steps.length > 0 && <PlanCosts walked={walked} dates={dates} />}
            <section aria-labelledby="backups">
              <div className="flex items-center gap-3 border-b border-line pb-1">
                <h2 id="backups" className="flex-1 font-serif text-lg">
                  Where else it is kept
                </h2>
                <Button small onClick={() => setOpen({ kind: "backup", backup: null })}>
                  <Plus size={14} aria-hidden /> Backup
                </Button>
              </div>
              {backups.length === 0 && (
                <p className="py-3 text-soft">
                  Nowhere, as far as the plan knows. Redundancy helps against failed drives, not against mistakes, theft
                  or fire.
                </p>
              )}
              <ul aria-label="Backups">
                {backups.map((backup) => (
                  <BackupRow
                    key={backup.id}
                    backup={backup}
                    plan={plan}
                    day={day}
                    onEdit={() => setOpen({ kind: "backup", backup })}
                    act={act}
                  />
                ))}
              </ul>
              {backups.length > 0 && (
                <p className="pt-2 text-[0.9rem] text-soft">
                  A backup counts if it was found whole within {CURRENT_DAYS} days
                  {plan.calendar ? " before the plan begins" : ""}.
                </p>
              )}
            </section>
          </div>
        </div>
      )}
      {open?.kind === "data" && <DataSetDialog set={open.set} plan={plan} act={act} onClose={() => setOpen(null)} />}
      {open?.kind === "backup" && (
        <BackupDialog backup={open.backup} plan={plan} act={act} onClose={() => setOpen(null)} />
      )}
    </main>
  );
}

function NoVolumes({ plan, act, planHref }: { plan: Plan; act: Act; planHref: string }) {
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

/** When one volume is full, with the head-room that is kept free. */
function VolumeDemand({
  demand: { volume, capacity, fullWithPlan, fullWithoutPlan, rises },
  dates,
  plan,
  act,
}: {
  demand: Demand;
  dates: Dates;
  plan: Plan;
  act: Act;
}) {
  const [unit] = useUnit();
  const on = (days: number | null) => fullWords(days, dates.start);
  const headroom = Math.round((volume.headroomShare ?? DEFAULT_HEADROOM) * 100);
  const pool = plan.pools.find((each) => each.volumes.some((one) => one.id === volume.id));
  const planned = plan.steps.length > 0;
  const deliveryDays = plan.calendar?.deliveryDays ?? 0;
  // What the plan spends is time; without head-room the same volume lasts a little longer.
  const brim = headroom > 0 ? fullAfter(plan, { ...volume, headroomShare: 0 }, capacity) : null;
  return (
    <div className="py-2.5">
      <p>
        <strong className="font-semibold">{volume.name}</strong> is full{" "}
        <strong className={`font-semibold ${fullWithPlan !== null && fullWithPlan <= 0 ? "text-geranium" : ""}`}>
          {on(planned ? fullWithPlan : fullWithoutPlan)}
        </strong>
        {planned && fullWithPlan !== fullWithoutPlan ? `, without the plan ${on(fullWithoutPlan)}` : ""}.{" "}
        <span className="text-soft">
          {formatBytes(fileSystemCapacity(volume), unit)} for folders
          {brim !== null && !planned ? `; to the brim ${on(brim)}` : ""}.
        </span>
      </p>
      {rises.map((rise) => (
        <p
          key={rise.step}
          className={rise.fullWithout !== null && rise.there > rise.fullWithout ? "text-ochre-text" : "text-soft"}
        >
          {formatBytes(rise.capacity, unit)} for folders from {on(rise.there)}
          {rise.latestBegin === null
            ? "; there is no hurry"
            : rise.there > (rise.fullWithout ?? Infinity)
              ? `: too late by ${Math.ceil(rise.there - (rise.fullWithout ?? 0))} days`
              : `; its steps must begin by ${on(rise.latestBegin)}${deliveryDays > 0 ? `, what they need be ordered by ${on(rise.latestBegin - deliveryDays)}` : ""}`}
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

const TROUBLES = {
  "never-verified": "never verified, so it does not count",
  "verified-long-ago": "verified too long ago, so it does not count",
  "does-not-fit": "its data does not fit, so it does not count",
};
const KINDS = { box: "another box", "usb-drive": "a USB drive", service: "a service" };

function BackupRow({
  backup,
  plan,
  day,
  onEdit,
  act,
}: {
  backup: Backup;
  plan: Plan;
  day: string | null;
  onEdit: () => void;
  act: Act;
}) {
  const [unit] = useUnit();
  const trouble = troubleOf(backup, plan.dataSets ?? [], day);
  const held = (plan.dataSets ?? []).filter((set) => backup.dataSets.includes(set.id));
  return (
    <li className="border-b border-line py-2.5">
      <div className="flex items-start gap-2">
        <p className="min-w-0 flex-1">
          <strong className="font-semibold">{backup.name}</strong>{" "}
          <span className="text-soft">
            {KINDS[backup.kind]}, {backup.place === "here" ? "in the same place as the box" : "elsewhere"}; a copy every{" "}
            {backup.everyDays === 1 ? "day" : `${backup.everyDays} days`},{" "}
            {backup.keepsVersions ? "older states kept" : "no older states"}.
          </span>
        </p>
        <IconButton label={`Edit ${backup.name}`} onClick={onEdit}>
          <Pencil size={15} aria-hidden />
        </IconButton>
      </div>
      <p>
        {held.length === 0
          ? "It holds nothing yet."
          : `Holds ${new Intl.ListFormat("en").format(held.map((set) => set.name))}: ${formatBytes(bytesOn(backup, plan.dataSets ?? []), unit)}${backup.bytes === undefined ? "" : ` of ${formatBytes(backup.bytes, unit)}`}.`}
      </p>
      <div className="flex flex-wrap items-center gap-2">
        <p className={trouble ? "text-ochre-text" : "text-soft"}>
          {trouble
            ? `${TROUBLES[trouble].charAt(0).toUpperCase()}${TROUBLES[trouble].slice(1)}.`
            : `Last verified on ${plainDayWords(backup.lastVerified ?? "")}.`}
        </p>
        {(trouble === "never-verified" || trouble === "verified-long-ago") && (
          <Button small onClick={() => act({ kind: "put-backup", backup: { ...backup, lastVerified: today() } }, true)}>
            I verified it today
          </Button>
        )}
      </div>
    </li>
  );
}
