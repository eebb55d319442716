"use client";

import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Plan } from "@/core/document/plan";
import type { Mend } from "@/core/rehearsal/mends";
import type { Outcome } from "@/core/rehearsal/outcome";
import { type Cells, mergeTables } from "@/core/rehearsal/table";
import type { Owner } from "@/core/rehearsal/script";
import type { Instant, TrialSetting } from "@/core/rehearsal/trials";
import { pairsAfter } from "@/workers/startTrials";
import { useUnit } from "../preferences/preferences";
import { today } from "../today";

/** Tables of single mishaps or of pairs, as far as they have been tried. */
export interface TriedTable {
  instants: readonly Instant[];
  usual: Outcome;
  cells: Record<Owner, Cells>;
  tried: number;
  all: number;
  /** How long it has taken so far, in milliseconds. */
  took: number;
}

export type TrialState = "ready" | "running" | "done" | "cancelled" | { trouble: string };

/** One kind of trial of a plan. */
export interface Trial {
  state: TrialState;
  table: TriedTable | null;
  start: () => void;
  cancel: () => void;
}

/** Which seed rehearsals of this page have. */
const SEED = 1;

/** What of a plan is rehearsed. */
function useRehearsed(plan: Plan): Plan {
  const { box, drives, pools, steps, dataSets, backups, calendar } = plan;
  // eslint-disable-next-line react-hooks/exhaustive-deps
  return useMemo(() => plan, [box, drives, pools, steps, dataSets, backups, calendar]);
}

const countOf = (instants: readonly Instant[], of: TrialSetting["of"], owners: number): number =>
  owners *
  instants.reduce(
    (sum, { happenings }, instant) =>
      sum +
      (of === "singles"
        ? happenings.length
        : happenings.reduce((pairs, _, happening) => pairs + pairsAfter(instants, { instant, happening }), 0)),
    0,
  );

/**
 * Mishaps of a plan tried in workers on all cores, with what has come so far.
 *
 * @param of single ones, or pairs of drives
 */
export function useTrial(given: Plan, of: TrialSetting["of"], owners: readonly Owner[]): Trial {
  const plan = useRehearsed(given);
  const [unit] = useUnit();
  const [kept, setKept] = useState<{ plan: Plan; state: TrialState; table: TriedTable | null } | null>(null);
  const stop = useRef<(() => void) | null>(null);
  useEffect(() => () => stop.current?.(), [plan, unit]);
  const start = useCallback(() => {
    stop.current?.();
    let over = false;
    let [table, begun]: [TriedTable | null, number] = [null, performance.now()];
    const show = (state: TrialState) => {
      if (!over) setKept({ plan, state, table: table && { ...table, took: performance.now() - begun } });
    };
    let running: { cancel: () => void } | null = null;
    stop.current = () => {
      running?.cancel();
      show("cancelled");
      over = true;
    };
    show("running");
    const begin = async () => {
      const { startTrials } = await import("@/workers/startTrials");
      if (over) return;
      begun = performance.now();
      let told = 0;
      const trial = startTrials(plan, { seed: SEED, of, family: unit, day: plan.calendar?.start ?? today() }, owners, {
        onPrepared: ({ instants, usual }) => {
          const cells = { advised: new Map(), "go-on": new Map() };
          table = { instants, usual, cells, tried: 0, all: countOf(instants, of, owners.length), took: 0 };
          show("running");
        },
        onPart: (owner, part, cases) => {
          if (!table) return;
          mergeTables(table.cells[owner], part, table.usual);
          table.tried += cases;
          if (performance.now() - told < 150) return;
          told = performance.now();
          show("running");
        },
      });
      running = trial;
      await trial.result;
      show("done");
    };
    begin().catch((error: unknown) =>
      show({ trouble: error instanceof Error ? error.message : "The mishaps could not be tried." }),
    );
  }, [plan, of, owners, unit]);
  const own = kept?.plan === plan ? kept : null;
  return { state: own?.state ?? "ready", table: own?.table ?? null, start, cancel: () => stop.current?.() };
}

/** Changes of the plan that help, as far as they have been tried. */
export interface Mends {
  state: TrialState;
  mends: readonly Mend[];
  tried: number;
  all: number;
  cancel: () => void;
}

/** Changes that may help are tried as soon as all single mishaps have been. */
export function useMends(given: Plan, singles: Trial): Mends {
  const plan = useRehearsed(given);
  const [unit] = useUnit();
  const [kept, setKept] = useState<{ plan: Plan; state: TrialState; mends: Mend[]; tried: number; all: number } | null>(
    null,
  );
  const stop = useRef<(() => void) | null>(null);
  const done = singles.state === "done" ? singles.table : null;
  const before = useMemo(() => done && { cells: done.cells.advised, usual: done.usual }, [done]);
  useEffect(() => {
    if (!before) return;
    let over = false;
    const now = { plan, mends: [] as Mend[], tried: 0, all: 0 };
    const show = (state: TrialState) => {
      if (!over) setKept({ ...now, mends: [...now.mends], state });
    };
    let running: { cancel: () => void } | null = null;
    const begin = async () => {
      show("running");
      const { startMends } = await import("@/workers/startTrials");
      if (over) return;
      const setting = { seed: SEED, of: "singles", family: unit, day: plan.calendar?.start ?? today() } as const;
      const trial = startMends(plan, before, setting, (mend, all) => {
        now.tried += 1;
        now.all = all;
        if (mend) now.mends.push(mend);
        show("running");
      });
      running = trial;
      await trial.result;
      show("done");
    };
    stop.current = () => {
      running?.cancel();
      show("cancelled");
      over = true;
    };
    begin().catch((error: unknown) =>
      show({ trouble: error instanceof Error ? error.message : "The changes could not be tried." }),
    );
    return () => {
      running?.cancel();
      over = true;
    };
  }, [plan, before, unit]);
  const own = kept?.plan === plan ? kept : null;
  return {
    state: own?.state ?? "ready",
    mends: own?.mends ?? [],
    tried: own?.tried ?? 0,
    all: own?.all ?? 0,
    cancel: () => stop.current?.(),
  };
}
