import { listOf } from "@/core/words/listOf";
import type { PlanReport } from "@/exchange/planReport/planReport";
import { Section } from "./Section";

/** What is to be bought, and what becomes free. */
export function BuyingSection({ report }: { report: PlanReport }) {
  return (
    <Section title="To buy">
      {report.shopping.length === 0 ? (
        <p>Nothing.</p>
      ) : (
        <table className="w-full">
          <thead>
            <tr className="border-b border-line-strong text-left text-soft">
              <th scope="col" className="font-normal">
                What
              </th>
              <th scope="col" className="font-normal">
                Order
              </th>
              <th scope="col" className="text-right font-normal">
                Price
              </th>
            </tr>
          </thead>
          <tbody>
            {report.shopping.map((each, i) => (
              <tr key={i} className="border-b border-line">
                <td>{each.what}</td>
                <td>{each.order}</td>
                <td className="text-right">{each.price}</td>
              </tr>
            ))}
            <tr>
              <td colSpan={2}>In all</td>
              <td className="text-right font-semibold">{report.total}</td>
            </tr>
          </tbody>
        </table>
      )}
      {report.freed.length > 0 && (
        <p className="mt-2">
          Drives that become free: {listOf(report.freed.map((name, i) => (i === 0 ? name : name.replace(/^T/, "t"))))}.
        </p>
      )}
    </Section>
  );
}
