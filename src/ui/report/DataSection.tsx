import { THREATS } from "@/core/data/coverage";
import { THREAT_NAMES } from "@/core/data/coverageWords";
import type { PlanReport } from "@/exchange/planReport/planReport";
import { Section } from "./Section";

/** What is stored, and what each mishap would take of it, before and after the plan. */
export function DataSection({ report }: { report: PlanReport }) {
  if (report.data.length === 0) return null;
  return (
    <Section title="Data, and what may happen to it">
      <table className="w-full text-[0.9rem]">
        <thead>
          <tr className="border-b border-line-strong text-left text-soft">
            <th scope="col" className="font-normal">
              Data
            </th>
            {THREATS.map((threat) => (
              <th key={threat} scope="col" className="pl-2 font-normal">
                {THREAT_NAMES[threat]}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {report.data.map((set) => (
            <tr key={set.name} className="break-inside-avoid border-b border-line align-top">
              <td className="py-1">
                <strong className="font-semibold">{set.name}</strong>
                <br />
                {set.size}, {set.growth}; {set.worth}
              </td>
              {THREATS.map((threat) => {
                const { before, after } = set.outcomes[threat];
                return (
                  <td key={threat} className="py-1 pl-2">
                    {before}
                    {after !== before && <span className="block text-soft">after the plan: {after}</span>}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <ul className="mt-2">
        {[...report.backups, ...report.full].map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </Section>
  );
}
