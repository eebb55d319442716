"use client";

import { useMemo, useState } from "react";
import type { Plan } from "@/core/document/plan";
import { cellAt, type Cell, layOutTable } from "@/core/rehearsal/table";
import type { Owner } from "@/core/rehearsal/script";
import { stepLabel } from "@/core/steps/stepLabel";
import { walkPlan } from "@/core/walk/walkPlan";
import { Tick } from "../kit/Field";
import { useUnit } from "../preferences/preferences";
import { stepNumber } from "./caseWords";
import { shownIn } from "./cellWords";
import { columnWords } from "./mishapWords";
import type { Trial, TriedTable } from "./useTrials";

interface Props {
  trial: Trial;
  owner: Owner;
  label: string;
  plan: Plan;
  onChoose: (cell: Cell, table: TriedTable, owner: Owner) => void;
}

const LOOKS = {
  lost: "bg-geranium text-on-geranium",
  restored: "bg-geranium-ground text-ink",
  degraded: "bg-wall text-ink",
  whole: "text-soft",
} as const;

/** Steps against mishaps: what each comes to at worst, the worst first. */
export function TrialTable({ trial, owner, label, plan, onChoose }: Props) {
  const { table, state } = trial;
  const [unit] = useUnit();
  const [inOrder, setInOrder] = useState(false);
  const labels = useMemo(() => {
    const { moments } = walkPlan(plan, unit);
    return new Map(
      moments.flatMap(({ walked }, i) =>
        walked ? [[walked.step.id, stepLabel(walked.step, moments[i - 1]?.state.plan ?? plan, unit)]] : [],
      ),
    );
  }, [plan, unit]);
  if (!table || table.cells[owner].size === 0) return null;
  const cells = table.cells[owner];
  const order = plan.steps.filter(({ disabled }) => !disabled).map(({ id }) => id);
  const laid = layOutTable(cells, order, table.usual);
  const rows = inOrder ? [null, ...order].filter((row) => laid.rows.includes(row)) : laid.rows;
  return (
    <>
      <div className="mt-2 flex flex-wrap items-center gap-x-6 gap-y-1 text-[0.87rem] text-soft">
        <Tick checked={inOrder} onTick={setInOrder}>
          Steps in the plan’s order
        </Tick>
        <span>Press a cell to see its worst case, and to play it.</span>
        {state === "running" && <span>More comes.</span>}
      </div>
      <div className="mt-1 overflow-x-auto" tabIndex={0} role="region" aria-label={`Table: ${label}`}>
        <table className="border-collapse text-[0.87rem]">
          <thead>
            <tr>
              <th scope="col" className="sticky left-0 z-10 bg-ground px-2 py-1 text-left font-semibold">
                Step
              </th>
              {laid.columns.map((column) => (
                <th key={column} scope="col" className="w-28 min-w-24 px-1.5 py-1 text-left align-bottom font-semibold">
                  {columnWords(column)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row ?? ""} className="border-t border-line">
                <th
                  scope="row"
                  className="sticky left-0 z-10 max-w-56 min-w-36 bg-ground px-2 py-1 text-left align-top font-normal"
                >
                  {row === null ? "Before the first step" : `${stepNumber(plan, row)}. ${labels.get(row) ?? ""}`}
                </th>
                {laid.columns.map((column) => {
                  const cell = cellAt(cells, row, column);
                  const shown = cell && shownIn(cell);
                  return (
                    <td key={column} className="p-0.5 align-top">
                      {cell && shown && (
                        <button
                          type="button"
                          onClick={() => onChoose(cell, table, owner)}
                          className={`min-h-9 w-full rounded-[3px] px-1.5 py-1 text-left leading-tight hover:outline-2 hover:outline-line-strong ${LOOKS[shown.look]}`}
                        >
                          <span aria-hidden>{shown.sign} </span>
                          {shown.words}
                          {shown.of && <span className="block text-[0.8rem]">{shown.of}</span>}
                        </button>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
