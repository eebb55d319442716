import { expose } from "comlink";
import type { Plan } from "@/core/document/plan";
import type { Adviser } from "@/core/rehearsal/errands";
import type { Proposal } from "@/core/mends/proposals";
import { judge, type Mend, proposalsFor, type Tabled } from "@/core/rehearsal/mends";
import type { Outcome } from "@/core/rehearsal/outcome";
import type { Owner } from "@/core/rehearsal/script";
import { addCases, type Cells, type Tried } from "@/core/rehearsal/table";
import {
  type At,
  type Instant,
  prepare,
  type Prepared,
  type TrialSetting,
  tryPairs,
  trySingle,
} from "@/core/rehearsal/trials";

let prepared: Prepared | null = null;

/** All single mishaps of a plan, with the owner who does what is advised. */
function tableOf(plan: Plan, adviser: Adviser, seed: number): Tabled {
  const own = prepare(plan, { ...adviser, seed, of: "singles" });
  const tried = own.instants.flatMap((_, instant) => triedAt(own, instant, "advised"));
  return { cells: addCases(new Map(), own, tried), usual: own.usual };
}

/** What each mishap at an instant comes to. */
const triedAt = (own: Prepared, instant: number, owner: Owner): Tried[] =>
  (own.instants[instant]?.happenings ?? []).flatMap((_, happening): Tried[] => {
    const at = { instant, happening };
    const outcome = trySingle(own, at, owner);
    return outcome ? [{ ats: [at], outcome }] : [];
  });

/** A worker that stays, with a plan made ready: it is asked again and again, and ended to be stopped. */
const work = {
  /** Makes a plan ready. */
  prepare: (plan: Plan, setting: TrialSetting): { instants: readonly Instant[]; usual: Outcome } => {
    prepared = prepare(plan, setting);
    return { instants: prepared.instants, usual: prepared.usual };
  },
  /** All single mishaps at an instant. */
  singles: (instant: number, owner: Owner): Cells =>
    prepared ? addCases(new Map(), prepared, triedAt(prepared, instant, owner)) : new Map(),
  /** All pairs that begin with a mishap. */
  pairs: (first: At, owner: Owner): Cells => {
    if (!prepared) return new Map();
    const tried = tryPairs(prepared, first, owner).map(({ second, outcome }): Tried => ({
      ats: [first, second],
      outcome,
    }));
    return addCases(new Map(), prepared, tried);
  },
  /** Changes of the plan that may help. */
  proposals: (plan: Plan, { cells, usual }: Tabled, adviser: Adviser): Proposal[] =>
    proposalsFor(plan, cells, usual, adviser),
  /** A change tried: what it brings, or null where it does not help. */
  mend: (proposal: Proposal, before: Tabled, adviser: Adviser, seed: number): Mend | null =>
    judge(proposal, before, tableOf(proposal.plan, adviser, seed)),
};

export type RehearseWork = typeof work;

expose(work);
