"use client";

import { CircleAlert, Info, OctagonX } from "lucide-react";
import type { Command } from "@/core/document/command";
import type { Finding, Severity } from "@/core/findings/finding";
import { useState } from "react";
import { PRECIOUS_WITHOUT_BACKUP } from "@/core/data/liftable";
import { Button } from "../../kit/Button";
import { Explained } from "../../kit/Explained";
import { today } from "../../today";
import { useWorkbench } from "../useWorkbench";
import { part } from "../../kit/part";

const LOOKS: Record<Severity, { Icon: typeof Info; word: string; tone: string }> = {
  block: { Icon: OctagonX, word: "Blocked", tone: "text-geranium" },
  warn: { Icon: CircleAlert, word: "Warning", tone: "text-ochre-text" },
  note: { Icon: Info, word: "Note", tone: "text-soft" },
};

const LiftDialog = part(() => import("../time/LiftDialog").then((module) => module.LiftDialog), {
  said: "over",
});

/** The step that a mend is about. */
const stepOf = (command: Command): string | undefined =>
  command.kind === "insert-steps" ? command.before : command.kind === "edit-step" ? command.step : undefined;

/** What is wrong or good to know, the weightiest first, each with a button that mends it where one can. */
export function Findings({ findings }: { findings: readonly Finding[] }) {
  const { act } = useWorkbench();
  const [lifting, setLifting] = useState<{ step: string; message: string } | null>(null);
  if (findings.length === 0) return null;
  return (
    <>
      <ul aria-label="Findings" className="space-y-2.5">
        {findings.map((finding, i) => {
          const { Icon, word, tone } = LOOKS[finding.severity];
          const { mend } = finding;
          return (
            <li key={`${finding.code}-${i}`} className="flex gap-2 text-[0.95rem] leading-snug">
              <Icon size={17} role="img" aria-label={word} className={`mt-0.5 shrink-0 ${tone}`} />
              <div className="min-w-0">
                <Explained text={finding.message} />
                {mend && (
                  <div className="mt-1 flex flex-wrap gap-1.5">
                    <Button
                      small
                      className="h-auto! min-h-7 max-w-full shrink! py-0.5 text-left whitespace-normal!"
                      onClick={() => act(mend.command)}
                    >
                      {mend.label}
                    </Button>
                    {finding.code === PRECIOUS_WITHOUT_BACKUP && stepOf(mend.command) !== undefined && (
                      <Button
                        small
                        onClick={() => setLifting({ step: stepOf(mend.command) ?? "", message: finding.message })}
                      >
                        Go on without, in writing…
                      </Button>
                    )}
                  </div>
                )}
              </div>
            </li>
          );
        })}
      </ul>
      {lifting && (
        <LiftDialog
          message={lifting.message}
          onClose={() => setLifting(null)}
          onLift={(words) =>
            act({ kind: "edit-step", step: lifting.step, changes: { lifted: { on: today(), words } } })
          }
        />
      )}
    </>
  );
}
