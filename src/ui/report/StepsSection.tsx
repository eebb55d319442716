import type { PlanReport } from "@/exchange/planReport/planReport";
import { Section } from "./Section";

/** The steps of the plan, each with a box to tick. */
export function StepsSection({ report }: { report: PlanReport }) {
  return (
    <Section title="Steps">
      {report.steps.length === 0 && <p>No step is planned.</p>}
      <ol className="space-y-2.5">
        {report.steps.map((step) => (
          <li key={step.number} className="grid break-inside-avoid grid-cols-[1.6rem_minmax(0,1fr)] gap-x-1">
            <span className="text-right">
              <span aria-hidden="true" className="mr-1 inline-block size-3 border border-ink" />
            </span>
            <div>
              <p>
                {step.number}. <strong className="font-semibold">{step.when}</strong> {step.does}
              </p>
              <p className="text-[0.93rem] text-soft">{stateWords(step)}</p>
              {step.notes.map((note) => (
                <p
                  key={note.text}
                  className={`text-[0.93rem] ${note.severity === "block" ? "text-geranium" : "text-ochre-text"}`}
                >
                  {note.text}
                </p>
              ))}
            </div>
          </li>
        ))}
      </ol>
    </Section>
  );
}

function stateWords(step: PlanReport["steps"][number]): string {
  if (step.state === "done") return `${step.takes}. Afterwards ${step.after}.`;
  return step.state === "passed-over" ? "Skipped." : "Cannot be carried out as planned.";
}
