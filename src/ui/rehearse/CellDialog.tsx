"use client";

import type { Plan } from "@/core/document/plan";
import { summaryOf, ageWords, backupName } from "@/core/rehearsal/summary";
import type { Cell } from "@/core/rehearsal/table";
import type { Owner } from "@/core/rehearsal/script";
import type { At } from "@/core/rehearsal/trials";
import { lengthWords } from "@/core/time/hoursWords";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import { useUnit } from "../preferences/preferences";
import { caseWords, stepNumber } from "./caseWords";
import { columnWords } from "./mishapWords";
import type { TriedTable } from "./useTrials";
import { storedOf } from "@/core/rehearsal/losses";

interface Props {
  cell: Cell;
  table: TriedTable;
  owner: Owner;
  plan: Plan;
  onPlay: (ats: readonly At[], owner: Owner) => void;
  onClose: () => void;
}

/** A cell of the table: how often what came of it, and its worst case, to be played with either answer. */
export function CellDialog({ cell, table, owner, plan, onPlay, onClose }: Props) {
  const [unit] = useUnit();
  const { worst } = cell;
  const { outcome } = worst;
  const longer = outcome.degradedHours - table.usual.degradedHours;
  const nameOf = new Map(storedOf(plan).map(({ id, name }) => [id, name || "A volume"]));
  const where = cell.row === null ? "before the first step" : `in step ${stepNumber(plan, cell.row)}`;
  return (
    <Dialog
      open
      onClose={onClose}
      title={`${columnWords(cell.column)}, ${where}`}
      about={summaryOf([cell], { ...plan, steps: [] }, worst.ats.length > 1 ? "pair" : "mishap")}
      acts={
        <>
          <Button onClick={onClose}>Close</Button>
          <Button onClick={() => onPlay(worst.ats, owner === "advised" ? "go-on" : "advised")}>
            {owner === "advised" ? "Play it, going on with the plan" : "Play it with what is advised"}
          </Button>
          <Button look="main" onClick={() => onPlay(worst.ats, owner)}>
            {owner === "advised" ? "Play it" : "Play it, going on with the plan"}
          </Button>
        </>
      }
    >
      <h3 className="font-semibold">The worst of them</h3>
      <p className="mt-1">{caseWords(worst.ats, table.instants, plan, unit)}.</p>
      <ul className="mt-1 list-disc pl-5">
        {outcome.losses.map(({ of, from, ageHours }) => (
          <li key={of}>
            {nameOf.get(of)}:{" "}
            {from === null ? "lost for good." : `back from ${backupName(plan, from)}, ${ageWords(ageHours ?? 0)}.`}
          </li>
        ))}
        {outcome.losses.length === 0 && <li>Nothing is lost.</li>}
        {longer > 0.05 && <li>For {lengthWords(longer)} longer a drive is missing or not filled yet.</li>}
        {outcome.passedOver.length > 0 && (
          <li>
            {outcome.passedOver.length === 1 ? "A step comes" : `${outcome.passedOver.length} steps come`} to nothing.
          </li>
        )}
      </ul>
    </Dialog>
  );
}
