import { applyCommand } from "../commands/applyCommand";
import { destinationOf } from "../data/destination";
import type { Command } from "../document/command";
import type { Drive, Plan, Pool, PricedDrive, Step, StepBody } from "../document/plan";
import { freeId } from "../records/freeId";
import { moduleOf } from "../steps/registry";
import { walkPlan } from "../walk/walkPlan";
import type { Adviser } from "./errands";
import type { Outcome } from "./outcome";
import { type Cell, cellAt, type Cells, compareCells, OF_THE_PLACE, type Tally, tallyOf } from "./table";

/** What is done to a plan so that fewer mishaps cost data. */
export type MendKind = "attached" | "backup" | "verify" | "spare" | "order" | "ups";

/** A change of a plan that might help, before it is tried. */
export interface Proposal {
  kind: MendKind;
  /** The step that it is about, by its id; none where it is about the box or all steps. */
  step: string | null;
  /** Where the step goes instead, counted from 0. */
  to?: number;
  command: Command;
  /** What has to be bought for it. */
  buys: Drive[];
  /** The plan with it. */
  plan: Plan;
}

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

/** A proposal as it would stand in the plan; null where it does not fit, blocks a step, or asks for new warnings. */
function proposed(
  plan: Plan,
  { family, day }: Adviser,
  proposal: Omit<Proposal, "plan" | "buys"> & { buys?: Drive[] },
): Proposal | null {
  const result = applyCommand(plan, proposal.command);
  if (!result.ok) return null;
  const against = (of: Plan) => {
    const walked = walkPlan(of, family, undefined, day).moments.flatMap((moment) => moment.walked ?? []);
    const warns = walked.flatMap(({ findings }) => findings.filter(({ severity }) => severity === "warn")).length;
    return { blocks: walked.filter(({ done }) => !done).length, warns };
  };
  const [was, is] = [against(plan), against(result.plan)];
  const isWorse = is.blocks > was.blocks || (proposal.kind === "order" && is.warns > was.warns);
  return isWorse ? null : { buys: [], ...proposal, plan: result.plan };
}

/** The pool that a step works on, as far as one can see from outside; the first where none is named. */
function poolFor(plan: Plan, step: Step): Pool | undefined {
  const named = plan.pools.find(
    ({ id, groups }) =>
      ("pool" in step && step.pool === id) ||
      groups.some(
        (group) =>
          ("group" in step && step.group === group.id) ||
          ("drive" in step && step.drive !== undefined && group.drives.includes(step.drive)),
      ),
  );
  return named ?? plan.pools[0];
}

/** The cheapest drive to buy that is as large as any of a pool, or one as large where the plan has no price. */
function spareFor(plan: Plan, pool: Pool): Drive | null {
  const members = plan.drives.filter(({ id }) => pool.groups.some(({ drives }) => drives.includes(id)));
  const [largest] = [...members].sort((a, b) => b.bytes - a.bytes);
  if (!largest) return null;
  const fits = (priced: PricedDrive) =>
    priced.bytes >= largest.bytes && priced.medium === largest.medium && priced.bus === largest.bus;
  const [priced] = (plan.prices ?? []).filter(fits).sort((a, b) => a.price - b.price);
  return {
    id: freeId(
      "b",
      plan.drives.map(({ id }) => id),
    ),
    label: priced?.label ?? "",
    bytes: priced?.bytes ?? largest.bytes,
    medium: largest.medium,
    bus: largest.bus,
    logicalSector: largest.logicalSector,
    physicalSector: largest.physicalSector,
    health: { state: "good" },
    toBuy: true,
    ...(priced ? { price: priced.price } : {}),
    place: { shelf: true },
  };
}

/** What may help one step. */
function forStep(plan: Plan, id: string, adviser: Adviser): (Proposal | null)[] {
  const at = plan.steps.findIndex((step) => step.id === id);
  const step = plan.steps[at];
  const pool = step && poolFor(plan, step);
  if (!step || !pool) return [];
  const before = (kind: MendKind, body: StepBody) =>
    proposed(plan, adviser, { kind, step: id, command: { kind: "insert-steps", before: id, steps: [body] } });
  // What is done to a drive before it is used is not put after it.
  const shares = (other: Step | undefined) =>
    other === undefined ||
    moduleOf(other)
      .handles(other)
      .some((drive) => moduleOf(step).handles(step).includes(drive));
  const moved = (to: number) =>
    shares(plan.steps[to])
      ? null
      : proposed(plan, adviser, { kind: "order", step: id, to, command: { kind: "move-step", step: id, to } });
  return [
    "how" in step && step.how === "pulled"
      ? proposed(plan, adviser, {
          kind: "attached",
          step: id,
          command: { kind: "edit-step", step: id, changes: { how: "attached" } },
        })
      : null,
    before("backup", { kind: "back-up", pool: pool.id, to: destinationOf(plan, pool) }),
    before("verify", { kind: "verify", pool: pool.id }),
    moved(at - 1),
    moved(at + 1),
  ];
}

/** A hot spare before everything else, for each pool that has none. */
const forPools = (plan: Plan, adviser: Adviser): (Proposal | null)[] =>
  plan.pools.map((pool) => {
    const spare = pool.spares.length > 0 ? null : spareFor(plan, pool);
    const [first] = plan.steps;
    if (!spare) return null;
    return proposed(plan, adviser, {
      kind: "spare",
      step: null,
      command: {
        kind: "insert-sequence",
        name: "A hot spare",
        ...(first ? { before: first.id } : {}),
        steps: [{ kind: "set-spare", pool: pool.id, drive: spare.id }],
        drives: [spare],
      },
      buys: [spare],
    });
  });

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
