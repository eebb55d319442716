"use client";

import { memo, useMemo, useState } from "react";
import { predict } from "@/core/prediction/predict";
import type { Act } from "@/core/steps/propose";
import type { Walk } from "@/core/walk/moment";
import { nextStep, poolsAt } from "@/core/walk/poolsAt";
import { useDates, type Dates } from "../calendar/useDates";
import { useUnit } from "../preferences/preferences";
import type { OpenedPlan } from "../shell/OpenPlan";
import { PlanFrame } from "../shell/PlanFrame";
import { BoxPicture } from "./BoxPicture";
import { BoxSettings } from "./box/BoxSettings";
import { DragArea } from "./DragArea";
import { lastChangeOf } from "./lastChange";
import { Readout } from "./readout/Readout";
import { ActBar } from "./ActBar";
import { Shelf } from "./shelf/Shelf";
import type { BandRef } from "./terraces/geometry";
import { Growing } from "./time/Growing";
import { useActs } from "./useActs";
import { useDriveSet } from "./useDriveSet";
import { useFollowing } from "./useFollowing";
import { useWalk } from "./useWalk";
import { MomentContext } from "./useMoment";
import { WorkbenchContext, type WorkbenchView } from "./useWorkbench";
import type { OpenDialog } from "./WorkbenchDialogs";
import { part } from "../kit/part";

const WorkbenchDialogs = part(() => import("./WorkbenchDialogs").then((module) => module.WorkbenchDialogs), {
  said: "over",
});

/** The workbench, with the moment that is chosen: the strip shows it at once, and the rest follows. */
export function Workbench({ opened }: { opened: OpenedPlan }) {
  const { plan } = opened.state.history;
  const [unit] = useUnit();
  const { walked, again } = useWalk(plan, unit);
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
        walkAgain={again}
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
  /** Tries once more to load what there is to know of steps, where that failed. */
  walkAgain: (() => void) | null;
  at: number;
  /** Chooses the moment after a step by its id; null for now. */
  choose: (step: string | null) => void;
}

/** Shelf, box and readout side by side where there is width for it. */
const GRID =
  "grid min-h-0 min-w-0 flex-1 " +
  "grid-cols-1 md:grid-cols-[14.5rem_minmax(0,1fr)] lg:grid-cols-[15rem_minmax(0,1fr)_19.5rem] lg:grid-rows-[auto_auto] desk:grid-rows-[minmax(0,1fr)_auto]";

/** The box at one moment, the shelf beside it, and what the core says of it. */
const BoxAtMoment = memo(function BoxAtMoment({ opened, walked, dates, walkAgain, at, choose }: BoxProps) {
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
    () => (at === 0 || !moment ? predict(history.plan, unit) : { pools: poolsAt(moment, unit, nextStep(walked, at)) }),
    [at, moment, walked, history.plan, unit],
  );
  const selection = useDriveSet(plan.drives);
  const failures = useDriveSet(plan.drives);
  const [lit, light] = useState<BandRef | null>(null);
  const [dialog, setDialog] = useState<OpenDialog>(null);
  const { act, insert, propose, insertSequence } = useActs({
    session,
    walked,
    at,
    plan,
    planning,
    selected: selection.ids,
    choose,
    ask,
  });
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
      act,
      insert,
      propose,
      insertSequence,
      selected: selection.ids,
      toggleSelected: selection.toggle,
      clearSelected: selection.clear,
      failed: failures.ids,
      toggleFailed: failures.toggle,
      clearFailed: failures.clear,
      rescueHref: `/plan/${opened.id}/rescue`,
      lit,
      light,
      edit: (drive) => setDialog({ kind: "drive", drive }),
      askSequence: (first) => setDialog({ kind: "sequences", first }),
      explainLayouts: (drives, first) => setDialog({ kind: "layouts", drives, first }),
      askNextDrive: (place) => setDialog({ kind: "next-drive", at: place }),
    }),
    [
      plan,
      prediction,
      walked,
      dates,
      at,
      choose,
      planning,
      act,
      insert,
      propose,
      insertSequence,
      selection.ids,
      selection.toggle,
      selection.clear,
      failures.ids,
      failures.toggle,
      failures.clear,
      opened.id,
      lit,
    ],
  );
  const lastChange = useMemo(() => lastChangeOf(history, walked, at), [history, at, walked]);
  return (
    <WorkbenchContext.Provider value={view}>
      <PlanFrame
        opened={opened}
        place=""
        onEscape={() => {
          selection.clear();
          failures.clear();
        }}
        onGroup={() => document.querySelector<HTMLElement>("[data-make-group]")?.click()}
      >
        <DragArea>
          <main id="main" tabIndex={-1} className={GRID}>
            <div
              // A phone begins where one begins: with the drives, as long as there are none.
              className={`${plan.drives.length === 0 ? "max-md:order-first" : ""} order-3 min-h-0 border-line max-md:laid-out-when-seen md:order-1 md:row-span-2 md:border-r lg:row-span-1 desk:overflow-y-auto`}
            >
              <Shelf onOpen={(kind) => setDialog({ kind })} />
            </div>
            <section
              aria-label="Box"
              className="order-2 flex min-h-[30rem] max-md:laid-out-when-seen min-w-0 flex-col gap-1 border-line p-4 max-md:border-b desk:min-h-0"
            >
              <BoxSettings />
              <ActBar pending={pending} onDone={() => ask(null)} />
              <BoxPicture />
            </section>
            <div className="order-4 min-w-0 max-md:laid-out-when-seen md:col-span-2 lg:col-start-1 lg:row-start-2">
              <Growing steps={history.plan.steps.length} walked={walked.plan.steps.length > 0} again={walkAgain} />
            </div>
            <div className="order-1 min-h-0 border-line max-md:border-b md:order-3 md:col-start-2 md:border-t lg:col-start-3 lg:row-span-2 lg:row-start-1 desk:overflow-y-auto lg:border-t-0 lg:border-l">
              <Readout lastChange={lastChange} />
            </div>
          </main>
        </DragArea>
      </PlanFrame>
      {dialog && <WorkbenchDialogs open={dialog} onClose={() => setDialog(null)} />}
    </WorkbenchContext.Provider>
  );
});
