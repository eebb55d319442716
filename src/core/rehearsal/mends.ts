import type { Outcome } from "./outcome";
import { forPools, forStep, type MendKind, type Proposal, proposed } from "../mends/proposals";
import type { Adviser } from "./errands";
import type { Plan } from "../document/plan";
import { type Cell, cellAt, type Cells, compareCells, OF_THE_PLACE, type Tally, tallyOf } from "./table";

/** What a change of a plan brings, as it was tried, and what it costs. */
export interface Mend extends Proposal {
  /** What the mishaps in the cells that it is for came to before, and come to with it. */
  before: Tally;
  after: Tally;
  /** Hours that the plan takes longer with nothing going wrong. */
  hours: number;
  /** In the plan's currency; null where the plan has no price for what is bought. */
  money: number | null;
}

/** For so many steps, the worst first, changes are looked for. */
const MOST_STEPS = 3;

const isBad = ({ lost, restored }: { lost: number; restored: number }): boolean => lost + restored > 0;

/** Whether mishaps of a cell left less protection for a while, or cost data, so that a drive at hand could help. */
const isThin = (cell: Cell): boolean => !OF_THE_PLACE.has(cell.column) && (isBad(cell) || cell.degraded > 0);

/** The steps with mishaps that cost data, the worst first. */
function worstSteps(cells: Cells, usual: Outcome): string[] {
  const bad = [...cells.values()]
    .filter((cell) => isBad(cell) && !OF_THE_PLACE.has(cell.column))
    .sort((a, b) => compareCells(b, a, usual));
  return [...new Set(bad.flatMap(({ row }) => row ?? []))].slice(0, MOST_STEPS);
}

/**
 * Changes of a plan that may make its worst cells better: a backup before the step, a copy with the old drive in its
 * bay, a spare, everything read first, another order, a battery supply. Whether they do is seen when they are tried.
 *
 * @param cells what came of all single mishaps with the advised answers
 * @example proposalsFor(plan, cells, usual, adviser).map(({ kind }) => kind) // ["attached", "backup", "verify"]
 */
export function proposalsFor(plan: Plan, cells: Cells, usual: Outcome, adviser: Adviser): Proposal[] {
  const steps = worstSteps(cells, usual);
  const isCut = [...cells.values()].some((cell) => cell.column === "power-cut" && isBad(cell));
  const all = [
    ...steps.flatMap((id) => forStep(plan, id, adviser)),
    ...([...cells.values()].some(isThin) ? forPools(plan, adviser) : []),
    isCut && !plan.box.ups
      ? proposed(plan, adviser, { kind: "ups", step: null, command: { kind: "change-box", ups: true } })
      : null,
  ];
  return all.flatMap((each) => each ?? []);
}

/**
 * The cells that a change is for: those of its step where the step itself is done otherwise; what is found by reading
 * everything; all that have to come back for a backup; what is thin for a spare.
 */
function targetsOf({ kind, step }: Proposal, cells: Cells): Cell[] {
  const isFor: Readonly<Record<MendKind, (cell: Cell) => boolean>> = {
    attached: (cell) => isBad(cell) && cell.row === step,
    order: isBad,
    verify: (cell) => isBad(cell) && cell.column === "unreadable",
    backup: isBad,
    spare: isThin,
    ups: (cell) => isBad(cell) && cell.column === "power-cut",
  };
  const isOf = isFor[kind];
  return [...cells.values()].filter((cell) => isOf(cell) && (kind === "backup" || !OF_THE_PLACE.has(cell.column)));
}

/** How bad a tally is: what is lost for good, what has to come back, how old that is, and for how long it was thin. */
const badness = ({ lost, restored, tolls, longest }: Tally): number[] => [
  lost,
  restored,
  [...tolls.values()].reduce((sum, { oldest }) => sum + oldest, 0),
  longest,
];

/**
 * Changes with the one first that saves most.
 *
 * @example bestFirst(mends)[0].kind // "attached"
 */
export const bestFirst = (mends: readonly Mend[]): Mend[] => {
  const saves = ({ before, after }: Mend) => before.lost + before.restored - after.lost - after.restored;
  return [...mends].sort((a, b) => saves(b) - saves(a) || a.hours - b.hours);
};

function isBetter(one: Tally, other: Tally): boolean {
  const [a, b] = [badness(one), badness(other)];
  const at = a.findIndex((value, i) => Math.abs(value - (b[i] ?? 0)) > 0.5);
  return at >= 0 && (a[at] ?? 0) < (b[at] ?? 0);
}

/** The cells of a table that another has too. */
const common = (cells: Cells, other: Cells) =>
  [...cells.values()].filter(({ row, column }) => cellAt(other, row, column) !== undefined);

/** A table, and what its plan comes to with nothing going wrong. */
export interface Tabled {
  cells: Cells;
  usual: Outcome;
}

/**
 * What a change has brought, now that it was tried; null where the cells that it is for are no better, or the others
 * are worse.
 *
 * @param before the table of the plan as it is
 * @param after that of the plan with it
 * @example judge(proposal, before, after)?.after.lost // 0
 */
export function judge(proposal: Proposal, before: Tabled, after: Tabled): Mend | null {
  const targets = targetsOf(proposal, before.cells);
  const among = (cells: Cells) => tallyOf(targets.flatMap(({ row, column }) => cellAt(cells, row, column) ?? []));
  const [was, is] = [among(before.cells), among(after.cells)];
  if (!isBetter(is, was)) return null;
  const [all, allThen] = [tallyOf(common(before.cells, after.cells)), tallyOf(common(after.cells, before.cells))];
  if (isBetter(all, allThen)) return null;
  const prices = proposal.buys.map(({ price }) => price);
  return {
    ...proposal,
    before: was,
    after: is,
    hours: after.usual.hours - before.usual.hours,
    money: prices.includes(undefined) ? null : prices.reduce<number>((sum, price) => sum + (price ?? 0), 0),
  };
}
