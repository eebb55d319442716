"use client";

import { besidesExposure, exposedWords } from "@/core/walk/exposedWords";
import { capital } from "@/core/words/capital";
import { rulesOfBox } from "@/core/box/rulesOfBox";
import { formatBytes } from "@/core/bytes/formatBytes";
import { onlineWords } from "@/core/steps/swapping";
import { dayOfMomentIn, momentWords } from "@/core/time/dateWords";
import { dayOf, planSummary } from "@/core/walk/planSummary";
import { Dialog } from "../../kit/Dialog";
import { useUnit } from "../../preferences/preferences";
import { hoursWords } from "@/core/time/hoursWords";
import { useWorkbench } from "../useWorkbench";

/** The plan in words: a summary, and what each step does and why. */
export function SummaryDialog({ onClose }: { onClose: () => void }) {
  const { walk, dates } = useWorkbench();
  const { schedule } = dates;
  const [unit] = useUnit();
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="The plan in words"
      about="Days and hours are what is likely; the range of each step stands with it."
    >
      <p className="font-serif text-lg">{planSummary(walk, dayOfMomentIn(schedule)).join(" ")}</p>
      <ol className="mt-4 list-decimal space-y-3 pl-6">
        {walk.moments.flatMap(({ walked, capacities }, index) =>
          walked
            ? [
                <li key={walked.step.id} className={walked.step.disabled ? "text-soft line-through" : ""}>
                  <p>
                    <span className="text-soft">
                      {schedule
                        ? momentWords(schedule.steps[index - 1]?.start ?? 0, schedule.calendar.timeZone)
                        : `Day ${dayOf(walked.from)}`}
                      .
                    </span>{" "}
                    {walked.does} <span className="text-soft">{walked.why}</span>
                  </p>
                  <p className="text-[0.93rem] text-soft">
                    {walked.done
                      ? `${hoursWords(walked.cost.hours)}, ` +
                        `${onlineWords(walked.cost, rulesOfBox(walk.moments[index - 1]?.state.plan ?? walk.plan))}. `
                      : walked.step.disabled
                        ? "Skipped. "
                        : "Cannot be carried out. "}
                    {walked.exposure
                      .map((each) => `${capital(exposedWords(each, walked.cost.hours.expected))}. `)
                      .join("")}
                    {walked.done
                      ? `Afterwards ${formatBytes(capacities.pool, unit)} in the pool, ` +
                        `${formatBytes(capacities.volume, unit)} in volumes, ` +
                        `${formatBytes(capacities.fileSystem, unit)} for your files.`
                      : ""}
                  </p>
                  {besidesExposure(walked)
                    .filter((finding) => finding.severity !== "note")
                    .map((finding) => (
                      <p
                        key={finding.code}
                        className={finding.severity === "block" ? "text-geranium" : "text-ochre-text"}
                      >
                        {finding.message}
                      </p>
                    ))}
                </li>,
              ]
            : [],
        )}
      </ol>
    </Dialog>
  );
}
