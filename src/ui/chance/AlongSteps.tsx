import { counted } from "@/core/words/counted";
import { causeWords, chanceWords, ofBoxes } from "@/core/chance/chanceWords";
import type { ChancesSoFar } from "@/core/chance/planChances";
import { mostly, OF_DRIVES } from "@/core/chance/otherCauses";
import { stepLabel } from "@/core/steps/stepLabel";
import type { Walk } from "@/core/walk/moment";
import { TableHead } from "../kit/TableHead";
import { useUnit } from "../preferences/preferences";
import { Figure } from "./ChanceRows";

/** Steps that cannot cost so much even where inputs are at their worst are told together. */
const TELLS_FROM = 1e-3;

/** How likely each step of the plan costs something. */
export function AlongSteps({ told, walked }: { told: ChancesSoFar; walked: Walk }) {
  const [unit] = useUnit();
  const { along } = told.expected;
  const ranges = told.ranged?.along;
  const steps = along.steps.flatMap((step, i) => {
    const at = walked.moments.findIndex(({ after }) => after === step.step);
    const [before, moment] = [walked.moments[at - 1], walked.moments[at]];
    if (!before || !moment?.walked) return [];
    const label = stepLabel(moment.walked.step, before.state.plan, unit);
    return [{ ...step, at, label, range: ranges?.steps[i]?.any, left: ranges?.steps[i]?.withBackups }];
  });
  const worst = Math.max(...steps.map(({ any }) => any));
  const telling = steps.filter(({ any, range }) => Math.max(any, range?.high ?? 0) >= TELLS_FROM);
  const others = steps.length - telling.length;
  const most = Math.max(...steps.filter((step) => !telling.includes(step)).map(({ any, range }) => range?.high ?? any));
  return (
    <section aria-labelledby="on-the-way">
      <h2 id="on-the-way" className="border-b border-line pb-1 font-serif text-lg">
        On the way: the steps of the plan
      </h2>
      <p className="py-1.5">
        Of boxes that go through the plan {chanceWords(ranges?.any ?? along.any)} lose something; all of a pool{" "}
        {chanceWords(ranges?.poolLost ?? along.poolLost)}. What no backup brings back:{" "}
        {chanceWords(ranges?.withBackups ?? along.withBackups)}.
      </p>
      <table className="w-full text-left">
        <TableHead names={["Step", "loses something", "mostly"]} />
        <tbody className="align-top">
          {telling.map(({ step, at, label, any, range, causes }) => {
            const most = mostly(causes, OF_DRIVES);
            return (
              <tr key={step} className="border-t border-line">
                <th scope="row" className={`py-1.5 pr-3 ${any === worst && any > 0 ? "font-semibold" : "font-normal"}`}>
                  {at}. {label}
                </th>
                <td className="py-1.5 pr-3">
                  <Figure chance={any} range={range} />
                </td>
                <td className="py-1.5 text-soft">{most ? causeWords(most) : "–"}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {others > 0 && steps.length > 0 && (
        <p className="border-t border-line py-1.5 text-soft">
          {counted(others, telling.length > 0 ? "other step" : "step")}: at most {ofBoxes(most)} each.
        </p>
      )}
      {steps.length === 0 && <p className="text-soft">No step of the plan takes any time.</p>}
    </section>
  );
}
