"use client";

import { useCallback, useMemo, useState } from "react";
import type { Command } from "@/core/commands/command";
import { predict } from "@/core/plan/predict";
import { planBefore } from "@/store/history";
import { useUnit } from "../preferences/preferences";
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

const totalOf = (plan: Parameters<typeof predict>[0]) => predict(plan).pools.reduce((sum, pool) => sum + pool.usableBytes, 0);

const NONE: ReadonlySet<string> = new Set();
const toggled = (set: ReadonlySet<string>, id: string) => {
  const next = new Set(set);
  if (!next.delete(id)) next.add(id);
  return next;
};

/** The workbench: the box at one moment, the shelf beside it, and what the core says of it. */
export function Workbench({ opened }: { opened: OpenedPlan }) {
  const { session } = opened;
  const { history } = opened.state;
  const { plan } = history;
  const [unit] = useUnit();
  const prediction = useMemo(() => predict(plan, unit), [plan, unit]);
  const [selectedIds, setSelected] = useState(NONE);
  const [failedIds, setFailed] = useState(NONE);
  const [lit, light] = useState<BandRef | null>(null);
  const [dialog, setDialog] = useState<OpenDialog>(null);

  const present = useMemo(() => new Set(plan.drives.map((drive) => drive.id)), [plan.drives]);
  const selected = useMemo(() => new Set([...selectedIds].filter((id) => present.has(id))), [selectedIds, present]);
  const failed = useMemo(() => new Set([...failedIds].filter((id) => present.has(id))), [failedIds, present]);

  const clearSelected = useCallback(() => setSelected(NONE), []);
  const clearFailed = useCallback(() => setFailed(NONE), []);
  const act = useCallback((command: Command, offersUndo = false) => session.do(command, offersUndo), [session]);
  const view = useMemo<WorkbenchView>(
    () => ({
      plan,
      prediction,
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
    [plan, prediction, act, selected, clearSelected, failed, clearFailed, lit],
  );
  const lastChange = useMemo(() => {
    const before = planBefore(history);
    const entry = history.entries[history.position - 1];
    if (!before || !entry) return null;
    return { description: entry.description, bytes: totalOf(history.plan) - totalOf(before) };
  }, [history]);
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
          <main className="grid min-h-0 min-w-0 flex-1 grid-cols-1 md:grid-cols-[14.5rem_minmax(0,1fr)] lg:grid-cols-[15rem_minmax(0,1fr)_19.5rem]">
            <div className="order-3 min-h-0 border-line md:order-1 md:row-span-2 md:border-r lg:row-span-1 lg:overflow-y-auto">
              <Shelf onOpen={(kind) => setDialog({ kind })} />
            </div>
            <section aria-label="Box" className="order-2 flex min-h-[30rem] min-w-0 flex-col gap-1 border-line p-4 max-md:border-b lg:min-h-0">
              <BoxSettings />
              <SelectionBar />
              <BoxPicture />
            </section>
            <div className="order-1 min-h-0 border-line max-md:border-b md:order-3 md:col-start-2 md:border-t lg:col-start-3 lg:overflow-y-auto lg:border-t-0 lg:border-l">
              <Readout lastChange={lastChange} />
            </div>
          </main>
        </DragArea>
      </PlanFrame>
      <WorkbenchDialogs open={dialog} onClose={() => setDialog(null)} />
    </WorkbenchContext.Provider>
  );
}
