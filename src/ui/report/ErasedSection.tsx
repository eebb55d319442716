import type { PlanReport } from "@/exchange/planReport/planReport";
import { Section } from "./Section";

/** The drives that the plan erases. */
export function ErasedSection({ report }: { report: PlanReport }) {
  return (
    <Section title="What is erased">
      {report.erased.length === 0 ? (
        <p>Nothing that you have.</p>
      ) : (
        <ul className="text-geranium">
          {report.erased.map((name) => (
            <li key={name}>{name}</li>
          ))}
        </ul>
      )}
    </Section>
  );
}
