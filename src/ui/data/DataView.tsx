"use client";

import "@/core/commands/dataCommands";
import { useMemo, useState } from "react";
import { coverage } from "@/core/data/coverage";
import type { Command } from "@/core/document/command";
import type { Backup, DataSet, Plan } from "@/core/document/plan";
import { drivesWithData } from "@/core/data/stored";
import { GrowthLink } from "../growth/GrowthLink";
import { walkPlan } from "@/core/walk/walkPlan";
import { useDates } from "../calendar/useDates";
import { useUnit } from "../preferences/preferences";
import { today } from "../today";
import { Backups } from "./Backups";
import { DataSets } from "./DataSets";
import { DemandChart } from "./DemandChart";
import { NoVolumes } from "./NoVolumes";
import { PlanCosts } from "./PlanCosts";
import { VolumeDemand } from "./VolumeDemand";
import { part } from "../kit/part";
import { Unloaded } from "../kit/Unloaded";

const DataSetDialog = part(() => import("./DataSetDialog").then((module) => module.DataSetDialog), {
  said: "over",
});
const BackupDialog = part(() => import("./BackupDialog").then((module) => module.BackupDialog), {
  said: "over",
});

interface Props {
  plan: Plan;
  act: (command: Command, offersUndo?: boolean) => string | null;
  planHref: string;
}

/** What is asked of in a dialog: one that is there, or null for a new one. */
type Opened = { kind: "data"; set: DataSet | null } | { kind: "backup"; backup: Backup | null } | null;

/** The data of a plan: sets on volumes, backups, coverage before and after the plan, and when it is full. */
export function DataView({ plan, act, planHref }: Props) {
  const [open, setOpen] = useState<Opened>(null);
  const close = () => setOpen(null);
  return (
    <main id="main" className="min-w-0 flex-1 overflow-y-auto px-4 py-4 md:px-6" tabIndex={-1}>
      <h1 className="font-serif text-2xl">Data and backups</h1>
      {plan.pools.some((pool) => pool.volumes.length > 0) || drivesWithData(plan).length > 0 ? (
        <DataSections plan={plan} act={act} onOpen={setOpen} />
      ) : (
        <NoVolumes plan={plan} act={act} planHref={planHref} />
      )}
      {open?.kind === "data" && <DataSetDialog set={open.set} plan={plan} act={act} onClose={close} />}
      {open?.kind === "backup" && <BackupDialog backup={open.backup} plan={plan} act={act} onClose={close} />}
    </main>
  );
}

function DataSections({ plan, act, onOpen }: Pick<Props, "plan" | "act"> & { onOpen: (what: Opened) => void }) {
  const [unit] = useUnit();
  const walked = useMemo(() => walkPlan(plan, unit, undefined, today()), [plan, unit]);
  const dates = useDates(walked);
  const end = walked.moments.at(-1)?.state.plan ?? plan;
  const { day } = walked;
  const before = useMemo(() => coverage(plan, day), [plan, day]);
  const after = useMemo(() => coverage(end, day), [end, day]);
  return (
    <div className="mt-3 grid gap-x-8 gap-y-6 xl:grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)]">
      <DataSets plan={plan} end={end} before={before} after={after} onEdit={(set) => onOpen({ kind: "data", set })} />
      <div className="min-w-0 space-y-6">
        <section aria-labelledby="full">
          <h2 id="full" className="border-b border-line pb-1 font-serif text-lg">
            When it is full
          </h2>
          {dates.again && <Unloaded what="the dates of this plan" onAgain={dates.again} />}
          {dates.demands.length === 0 && <p className="py-3 text-soft">Nothing is known of how your data grows yet.</p>}
          {dates.demands.map((each) => (
            <VolumeDemand key={each.volume.id} demand={each} dates={dates} plan={plan} act={act} />
          ))}
          {dates.demands.length > 0 && <DemandChart walked={walked} dates={dates} />}
          {plan.pools.length > 0 && (
            <p className="mt-1">
              What to buy, and when: <GrowthLink />
            </p>
          )}
        </section>
        {plan.steps.length > 0 && <PlanCosts walked={walked} dates={dates} act={act} />}
        <Backups plan={plan} day={day} act={act} onEdit={(backup) => onOpen({ kind: "backup", backup })} />
      </div>
    </div>
  );
}
