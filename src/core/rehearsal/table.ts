import { compareOutcomes, type Outcome } from "./outcome";
import type { At, Instant } from "./trials";

/** A case that was tried, and what came of it. */
export interface Tried {
  ats: readonly At[];
  outcome: Outcome;
}

/** What the cases of a cell took of some data. */
export interface Toll {
  /** In how many of them it comes back from a backup, and in how many some of it does not. */
  restored: number;
  lost: number;
  /** How many hours old it is at most as it comes back, and from where then. */
  oldest: number;
  from: string | null;
}

/** What came of all cases of one kind of mishap in one step. */
export interface Cell {
  /** The step, by its id; null before the first. */
  row: string | null;
  /** The kind of mishap, of pairs both with a plus between. */
  column: string;
  tried: number;
  /** Nothing was lost; the same, but there was less protection for longer than the plan has anyway. */
  whole: number;
  degraded: number;
  restored: number;
  lost: number;
  /** Hours of less protection beyond those that the plan has anyway, at most. */
  longest: number;
  tolls: Map<string, Toll>;
  worst: Tried;
}

/** The cells of a table, by row and column. */
export type Cells = Map<string, Cell>;

/** What a table is made with. */
export interface TableSetting {
  instants: readonly Instant[];
  usual: Outcome;
}

/** Less than this is no longer than usual, in hours. */
const NO_LONGER = 0.05;

/** Which of two cases comes first, whatever was tried first. */
function byPlace(a: readonly At[], b: readonly At[]): number {
  for (const [i, one] of a.entries()) {
    const other = b[i];
    const difference = other ? one.instant - other.instant || one.happening - other.happening : 0;
    if (difference !== 0) return difference;
  }
  return 0;
}

/** The worse of two cases; of equals the one that comes first in the plan. */
function worse(one: Tried, other: Tried, usual: number): Tried {
  const by = compareOutcomes(one.outcome, other.outcome, usual);
  return by > 0 || (by === 0 && byPlace(one.ats, other.ats) <= 0) ? one : other;
}

/** Where a case stands: the step of its last mishap, and what happened. */
function cellPlace(ats: readonly At[], instants: readonly Instant[]): { row: string | null; column: string } {
  const last = instants[ats.at(-1)?.instant ?? -1];
  const kinds = ats.map(({ instant, happening }) => instants[instant]?.happenings[happening]?.kind ?? "");
  return { row: last?.step ?? null, column: kinds.join("+") };
}

const keyOf = ({ row, column }: Pick<Cell, "row" | "column">): string => JSON.stringify([row, column]);

/** Tolls of a case. */
function tollsOf({ losses }: Outcome): Map<string, Toll> {
  return new Map(
    losses.map(({ of, from, ageHours }) => [
      of,
      { restored: from === null ? 0 : 1, lost: from === null ? 1 : 0, oldest: ageHours ?? 0, from },
    ]),
  );
}

function addTolls(into: Map<string, Toll>, more: ReadonlyMap<string, Toll>): void {
  for (const [of, toll] of more) {
    const old = into.get(of);
    if (!old) into.set(of, { ...toll });
    else
      into.set(of, {
        restored: old.restored + toll.restored,
        lost: old.lost + toll.lost,
        ...(toll.from !== null && (old.from === null || toll.oldest > old.oldest)
          ? { oldest: toll.oldest, from: toll.from }
          : { oldest: old.oldest, from: old.from }),
      });
  }
}

/** The cell of a single case. */
function cellOf(tried: Tried, { instants, usual }: TableSetting): Cell {
  const { outcome } = tried;
  const longer = outcome.degradedHours - usual.degradedHours;
  const isLonger = longer > NO_LONGER;
  const is = outcome.became;
  return {
    ...cellPlace(tried.ats, instants),
    tried: 1,
    whole: is === "whole" && !isLonger ? 1 : 0,
    degraded: is === "whole" && isLonger ? 1 : 0,
    restored: is === "restored" ? 1 : 0,
    lost: is === "lost" ? 1 : 0,
    longest: isLonger ? longer : 0,
    tolls: tollsOf(outcome),
    worst: tried,
  };
}

function addCell(cells: Cells, cell: Cell, usual: number): void {
  const key = keyOf(cell);
  const old = cells.get(key);
  if (!old) {
    cells.set(key, { ...cell, tolls: new Map(cell.tolls) });
    return;
  }
  old.tried += cell.tried;
  old.whole += cell.whole;
  old.degraded += cell.degraded;
  old.restored += cell.restored;
  old.lost += cell.lost;
  old.longest = Math.max(old.longest, cell.longest);
  old.worst = worse(old.worst, cell.worst, usual);
  addTolls(old.tolls, cell.tolls);
}

/**
 * Puts cases into a table.
 *
 * @example addCases(new Map(), prepared, [{ ats: [{ instant: 1, happening: 0 }], outcome }])
 */
export function addCases(cells: Cells, setting: TableSetting, cases: readonly Tried[]): Cells {
  for (const tried of cases) addCell(cells, cellOf(tried, setting), setting.usual.degradedHours);
  return cells;
}

/**
 * Puts a part of a table into another: it is the same in whichever order the parts come.
 *
 * @example mergeTables(table, partOfAWorker, usual)
 */
export function mergeTables(cells: Cells, part: ReadonlyMap<string, Cell>, usual: Outcome): Cells {
  for (const cell of part.values()) addCell(cells, cell, usual.degradedHours);
  return cells;
}

/** How bad a cell is: what its worst case came to first, then in how many of its cases. */
export function compareCells(one: Cell, other: Cell, usual: Outcome): number {
  return (
    compareOutcomes(one.worst.outcome, other.worst.outcome, usual.degradedHours) ||
    one.lost - other.lost ||
    one.restored - other.restored ||
    one.degraded - other.degraded
  );
}

/** The sums over a table. */
export interface Tally {
  tried: number;
  /** Nothing lost, with more hours of less protection or without. */
  whole: number;
  restored: number;
  lost: number;
  /** Hours of less protection beyond those that the plan has anyway, at most. */
  longest: number;
  tolls: Map<string, Toll>;
}

/**
 * The sums over some cells of a table.
 *
 * @example tallyOf(cells.values()).tried // 1248
 */
export function tallyOf(cells: Iterable<Cell>): Tally {
  const tally: Tally = { tried: 0, whole: 0, restored: 0, lost: 0, longest: 0, tolls: new Map() };
  for (const cell of cells) {
    tally.tried += cell.tried;
    tally.whole += cell.whole + cell.degraded;
    tally.restored += cell.restored;
    tally.lost += cell.lost;
    tally.longest = Math.max(tally.longest, cell.longest);
    addTolls(tally.tolls, cell.tolls);
  }
  return tally;
}

/** The rows and columns of a table, the worst of each first. */
export interface Laid {
  rows: (string | null)[];
  columns: string[];
}

/** Mishaps that take the place or what was typed, whatever the drives do: the same in any step. */
export const OF_THE_PLACE: ReadonlySet<string> = new Set(["fire", "deletion"]);

/**
 * How a table is laid out: steps and mishaps, those with the worst cell first, and of equals as they come in the plan.
 * Steps are told apart by what happens to drives: a fire is as bad in any of them.
 *
 * @param order the steps in the order of the plan
 */
export function layOutTable(cells: ReadonlyMap<string, Cell>, order: readonly string[], usual: Outcome): Laid {
  const all = [...cells.values()];
  const worstOf = (some: readonly Cell[]) =>
    some.reduce<Cell | undefined>((a, b) => (a && compareCells(b, a, usual) <= 0 ? a : b), undefined);
  const sorted = <T>(values: T[], cellsOf: (value: T) => readonly Cell[]): T[] =>
    values
      .map((value, i) => ({ value, i, worst: worstOf(cellsOf(value)) }))
      .sort((a, b) => (a.worst && b.worst ? compareCells(b.worst, a.worst, usual) : 0) || a.i - b.i)
      .map(({ value }) => value);
  const inRow = (row: string | null) => {
    const own = all.filter((cell) => cell.row === row);
    const ofDrives = own.filter(({ column }) => !OF_THE_PLACE.has(column));
    return ofDrives.length > 0 ? ofDrives : own;
  };
  const rows = [null, ...order].filter((row) => all.some((cell) => cell.row === row));
  return {
    rows: sorted(rows, inRow),
    columns: sorted([...new Set(all.map(({ column }) => column))], (column) =>
      all.filter((cell) => cell.column === column),
    ),
  };
}

/** The cell of a row and column; undefined where nothing of the kind can happen there. */
export const cellAt = (cells: ReadonlyMap<string, Cell>, row: string | null, column: string): Cell | undefined =>
  cells.get(keyOf({ row, column }));
