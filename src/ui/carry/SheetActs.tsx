"use client";

import { FileDown, FileUp, Printer, Tags } from "lucide-react";
import { useState } from "react";
import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import { walkPlan } from "@/core/walk/walkPlan";
import { planFileName } from "@/exchange/exportPlan";
import { Button } from "../kit/Button";
import { useUnit } from "../preferences/preferences";
import { today } from "../today";
import { SheetDialog } from "./SheetDialog";
import { exportFile } from "../kit/exportFile";

interface Props {
  plan: Plan;
  act: (command: Command, offersUndo?: boolean) => string | null;
}

const fileOf = (plan: Plan, ending: string) => planFileName(plan.name).replace(/\.cortijo\.json$/, ending);

/** The plan to take along to the box without Cortijo, and what is brought back from there. */
export function SheetActs({ plan, act }: Props) {
  const [unit] = useUnit();
  const [open, setOpen] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const saved = async (make: () => Promise<void>) => {
    try {
      await make();
      setTrouble(null);
    } catch {
      setTrouble("The file could not be made: a part of Cortijo could not be loaded. Try again.");
    }
  };
  const sheet = () =>
    saved(async () => {
      const { writeSheet } = await import("@/exchange/sheet/writeSheet");
      exportFile(
        fileOf(plan, ".sheet.html"),
        "text/html",
        writeSheet(walkPlan(plan, unit, undefined, today()), today()),
      );
    });
  const labels = () =>
    saved(async () => {
      const [{ writeLabels }, { schedulePlan }] = await Promise.all([
        import("@/exchange/sheet/writeLabels"),
        import("@/core/schedule/schedulePlan"),
      ]);
      const walk = walkPlan(plan, unit, undefined, today());
      const dates = plan.calendar ? schedulePlan(walk, plan.calendar) : null;
      exportFile(fileOf(plan, ".labels.html"), "text/html", writeLabels(walk, dates, today()));
    });
  return (
    <section aria-labelledby="sheet" className="mt-8 border-t border-line pt-3 print:hidden">
      <h2 id="sheet" className="font-serif text-lg">
        Without Cortijo at the box
      </h2>
      <p className="text-soft">
        The sheet is one file that opens in any browser, without network: send it to your phone, tick it there, and
        bring its times back. Or print all steps, and tick them by hand.
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => void sheet()}>
          <FileDown size={16} aria-hidden /> Save the sheet
        </Button>
        <Button onClick={() => setOpen(true)}>
          <FileUp size={16} aria-hidden /> Bring a sheet back
        </Button>
        <Button onClick={() => void labels()}>
          <Tags size={16} aria-hidden /> Labels for the drives
        </Button>
        <Button onClick={() => window.print()}>
          <Printer size={16} aria-hidden /> Print all steps
        </Button>
      </div>
      {trouble && (
        <p role="alert" className="mt-1 text-geranium">
          {trouble}
        </p>
      )}
      {open && <SheetDialog plan={plan} act={act} onClose={() => setOpen(false)} />}
    </section>
  );
}
