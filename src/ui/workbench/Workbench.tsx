"use client";

import dynamic from "next/dynamic";
import { memo, useCallback, useMemo, useState } from "react";
import type { UnitFamily } from "@/core/bytes/formatBytes";
import type { Plan, StepBody } from "@/core/document/plan";
import { placeAt } from "@/core/walk/placeAt";
import { walkPlan } from "@/core/walk/walkPlan";
import type { Act } from "@/core/steps/propose";
import { NoStepsYet } from "./time/NoStepsYet";
import { plannedAs } from "./plannedAs";
import { useFollowing } from "./useFollowing";
import { MomentContext } from "./useMoment";
import type { Command } from "@/core/document/command";
import { predict } from "@/core/prediction/predict";
import { planBefore } from "@/store/history";
import { useDates, type Dates } from "../calendar/useDates";
import { useUnit } from "../preferences/preferences";
import { today } from "../today";
import { BoxPicture } from "./BoxPicture";
import { BoxSettings } from "./box/BoxSettings";
import { DragArea } from "./DragArea";
import { Readout } from "./readout/Readout";
import { SelectionBar } from "./SelectionBar";
import { Shelf } from "./shelf/Shelf";
import type { BandRef } from "./terraces/geometry";
import { PlanFrame } from "../shell/PlanFrame";
import type { OpenedPlan } from "../shell/OpenPlan";
import { WorkbenchDialogs, type OpenDialog } from "./WorkbenchDialogs";
import { WorkbenchContext, type WorkbenchView } from "./useWorkbench";
import type { Walk } from "@/core/walk/moment";
import { poolsAt } from "@/core/walk/poolsAt";

const TimeStrip = dynamic(() => import("./time/TimeStrip").then((module) => module.TimeStrip), { ssr: false });
const PendingAct = dynamic(() => import("./time/PendingAct").then((module) => module.PendingAct));

/** Walks a plan, taking over from the last walk what has not changed. */
function makeWalker(): (plan: Plan, unit: UnitFamily) => Walk {
  let last: Walk | undefined;
  return (plan, unit) => (last = walkPlan(plan, unit, last, today()));
}

const totalOf = (plan: Parameters<typeof predict>[0]) =>
  predict(plan).pools.reduce((sum, pool) => sum + pool.usableBytes, 0);

const NONE: ReadonlySet<string> = new Set();
const toggled = (set: ReadonlySet<string>, id: string) => {
  const next = new Set(set);
  if (!next.delete(id)) next.add(id);
  return next;
};

/** The workbench, with the moment that is chosen: the strip shows it at once, and the rest follows. */
export function Workbench({ opened }: { opened: OpenedPlan }) {
  const { plan } = opened.state.history;
  const [unit] = useUnit();
  const [walker] = useState(makeWalker);
  const walked = useMemo(() => walker(plan, unit), [walker, plan, unit]);
  const dates = useDates(walked);
  const [chosen, choose] = useState<string | null>(null);
  const at = Math.max(
    0,
    walked.moments.findIndex((moment) => moment.after === chosen),
  );
  const following = useFollowing(at);
  const moment = useMemo(
    () => ({ at, goTo: (index: number) => choose(walked.moments[index]?.after ?? null) }),
    [at, walked],
  );
  return (
    <MomentContext.Provider value={moment}>
      <BoxAtMoment
        opened={opened}
        walked={walked}
        dates={dates}
        at={Math.min(following, walked.moments.length - 1)}
        choose={choose}
      />
    </MomentContext.Provider>
  );
}

interface BoxProps {
  opened: OpenedPlan;
  walked: Walk;
  dates: Dates;
  at: number;
  /** Chooses the moment after a step by its id; null for now. */
  choose: (step: string | null) => void;
}

/** The box at one moment, the shelf beside it, and what the core says of it. */
const BoxAtMoment = memo(function BoxAtMoment({ opened, walked, dates, at, choose }: BoxProps) {
  const { session } = opened;
  const { history } = opened.state;
  const [unit] = useUnit();
  const [wanted, setPlanning] = useState(false);
  const [asked, ask] = useState<{ act: Act; at: number } | null>(null);
  // What was begun at one moment is not asked at another.
  const pending = asked?.at === at ? asked.act : null;
  const moment = walked.moments[at] ?? walked.moments[0];
  // At a later moment every act is planned; on the box as it is now only if that is wanted.
  const planning = at > 0 || wanted;
  const plan = at === 0 ? history.plan : (moment?.state.plan ?? history.plan);
  const prediction = useMemo(
    () => (at === 0 || !moment ? predict(history.plan, unit) : { pools: poolsAt(moment, unit) }),
    [at, moment, history.plan, unit],
  );
  const [selectedIds, setSelected] = useState(NONE);
  const [failedIds, setFailed] = useState(NONE);
  const [lit, light] = useState<BandRef | null>(null);
  const [dialog, setDialog] = useState<OpenDialog>(null);

  const present = useMemo(() => new Set(plan.drives.map((drive) => drive.id)), [plan.drives]);
  const selected = useMemo(() => new Set([...selectedIds].filter((id) => present.has(id))), [selectedIds, present]);
  const failed = useMemo(() => new Set([...failedIds].filter((id) => present.has(id))), [failedIds, present]);

  const clearSelected = useCallback(() => setSelected(NONE), []);
  const clearFailed = useCallback(() => setFailed(NONE), []);
  const insert = useCallback(
    (steps: StepBody[]) => {
      if (session.do({ kind: "insert-steps", ...placeAt(walked, at), steps })) return;
      choose(session.getState().history.plan.steps[at + steps.length - 1]?.id ?? null);
    },
    [session, at, walked, choose],
  );
  const insertSequence = useCallback(
    (command: Extract<Command, { kind: "insert-sequence" }>) => {
      if (session.do(command, true)) return;
      choose(session.getState().history.plan.steps[at + command.steps.length - 1]?.id ?? null);
    },
    [session, at, choose],
  );
  const act = useCallback(
    (command: Command, offersUndo = false): string | null => {
      if (!planning) return session.do(command, offersUndo);
      const planned = plannedAs(command, { ...plan, steps: history.plan.steps }, selectedIds);
      if (planned.kind === "as-it-is") return session.do(command, offersUndo);
      if (planned.kind === "no-step") session.say(planned.reason);
      else if (planned.kind === "act") ask({ act: planned.act, at });
      else insert(planned.steps);
      return planned.kind === "no-step" ? planned.reason : null;
    },
    [session, planning, plan, history.plan.steps, selectedIds, insert, at],
  );
  const view = useMemo<WorkbenchView>(
    () => ({
      plan,
      prediction,
      walk: walked,
      dates,
      at,
      goTo: (index) => choose(walked.moments[index]?.after ?? null),
      planning,
      setPlanning,
      insert,
      insertSequence,
      act,
      selected,
      toggleSelected: (drive) => setSelected((old) => toggled(old, drive)),
      clearSelected,
      failed,
      toggleFailed: (drive) => setFailed((old) => toggled(old, drive)),
      clearFailed,
      lit,
      light,
      edit: (drive) => setDialog({ kind: "drive", drive }),
      askNextDrive: (at) => setDialog({ kind: "next-drive", at }),
    }),
    [
      plan,
      prediction,
      walked,
      dates,
      at,
      choose,
      planning,
      insert,
      insertSequence,
      act,
      selected,
      clearSelected,
      failed,
      clearFailed,
      lit,
    ],
  );
  const lastChange = useMemo(() => {
    if (at > 0) {
      const total = (index: number) => walked.moments[index]?.capacities.pool ?? 0;
      return { description: "now", bytes: total(at) - total(0), since: "now" };
    }
    const before = planBefore(history);
    const entry = history.entries[history.position - 1];
    if (!before || !entry) return null;
    return { description: entry.description, bytes: totalOf(history.plan) - totalOf(before), since: null };
  }, [history, at, walked]);
  return (
    <WorkbenchContext.Provider value={view}>
      <PlanFrame
        opened={opened}
        place=""
        onEscape={() => {
          clearSelected();
          clearFailed();
        }}
      >
        <DragArea>
          <main className="grid min-h-0 min-w-0 flex-1 grid-cols-1 md:grid-cols-[14.5rem_minmax(0,1fr)] lg:grid-cols-[15rem_minmax(0,1fr)_19.5rem] lg:grid-rows-[minmax(0,1fr)_auto]">
            <div className="order-3 min-h-0 border-line md:order-1 md:row-span-2 md:border-r lg:row-span-1 lg:overflow-y-auto">
              <Shelf onOpen={(kind) => setDialog({ kind })} />
            </div>
            <section
              aria-label="Box"
              className="order-2 flex min-h-[30rem] min-w-0 flex-col gap-1 border-line p-4 max-md:border-b lg:min-h-0"
            >
              <BoxSettings />
              {pending ? (
                <PendingAct key={JSON.stringify(pending)} act={pending} onDone={() => ask(null)} />
              ) : (
                <SelectionBar />
              )}
              <BoxPicture />
            </section>
            <div className="order-4 min-w-0 md:col-span-2 lg:col-start-1 lg:row-start-2">
              {walked.plan.steps.length > 0 ? <TimeStrip /> : <NoStepsYet />}
            </div>
            <div className="order-1 min-h-0 border-line max-md:border-b md:order-3 md:col-start-2 md:border-t lg:col-start-3 lg:row-span-2 lg:row-start-1 lg:overflow-y-auto lg:border-t-0 lg:border-l">
              <Readout lastChange={lastChange} />
            </div>
          </main>
        </DragArea>
      </PlanFrame>
      <WorkbenchDialogs open={dialog} onClose={() => setDialog(null)} />
    </WorkbenchContext.Provider>
  );
});
