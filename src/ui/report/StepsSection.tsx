import type { PlanReport } from "@/exchange/planReport/planReport";
import { TableHead } from "../kit/TableHead";
import { Section } from "./Section";

/** The steps of the plan, each with a box to tick; of many what they come to, and where their list is. */
export function StepsSection({ report }: { report: PlanReport }) {
  return (
    <Section title="Steps">
      {report.steps.length === 0 && <p>No step is planned.</p>}
      {report.inBrief.length > 0 ? <InBrief report={report} /> : <StepsOf report={report} />}
    </Section>
  );
}

/** The list of steps behind all else, where there are too many to be read before it. */
export function AllSteps({ report }: { report: PlanReport }) {
  if (report.inBrief.length === 0) return null;
  return (
    <Section title="All steps">
      <StepsOf report={report} />
    </Section>
  );
}

function InBrief({ report: { inBrief } }: { report: PlanReport }) {
  return (
    <>
      <table className="w-full text-left">
        <TableHead names={["What", "How many", "In all", "With a warning"]} />
        <tbody>
          {inBrief.map(({ what, steps, takes, notes }) => (
            <tr key={what} className="border-t border-line">
              <th scope="row" className="py-1 pr-3 font-normal">
                {what}
              </th>
              <td className="py-1 pr-3">{steps}</td>
              <td className="py-1 pr-3">{takes}</td>
              <td className="py-1">{notes > 0 ? notes : ""}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-soft">Each step by itself stands at the end.</p>
    </>
  );
}

function StepsOf({ report }: { report: PlanReport }) {
  return (
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
  );
}

function stateWords(step: PlanReport["steps"][number]): string {
  if (step.state === "done") return `${step.takes}. Afterwards ${step.after}.`;
  return step.state === "passed-over" ? "Skipped." : "Cannot be carried out as planned.";
}
