"use client";

import type { Choice } from "@/core/compare/compare";
import { differences } from "@/core/compare/differences";
import { MEASURES, measureOf } from "@/core/compare/measures";
import type { Plan, Drive } from "@/core/document/plan";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import { useUnit } from "../preferences/preferences";
import { Legend } from "../workbench/terraces/Legend";
import { choiceName, measureWords } from "./figureWords";
import { MiniTerraces } from "./MiniTerraces";

/** Two choices large, side by side, with what one has that the other has not. */
export function FaceToFace({
  pair: [a, b],
  plan,
  drives,
  presentId,
  onApply,
  onClose,
}: {
  pair: [Choice, Choice];
  presentId: string | null;
  plan: Plan;
  drives: readonly Drive[];
  onApply: (id: string) => void;
  onClose: () => void;
}) {
  const [unit] = useUnit();
  const said = differences(a, b, unit, plan.currency);
  return (
    <Dialog open wide onClose={onClose} title="Face to face">
      <div className="grid gap-6 sm:grid-cols-2">
        {[a, b].map((choice) => (
          <section key={choice.id} aria-label={choiceName(choice)} className="min-w-0">
            <h3 className="min-h-12">
              <span className="font-serif text-lg">{choice.name}</span>
              {choice.detail && <span className="block text-soft">{choice.detail}</span>}
            </h3>
            <MiniTerraces choice={choice} drives={drives} plan={plan} width={320} height={190} />
            <p className="mt-2 font-serif text-2xl">
              {measureWords(measureOf("usable"), choice.figures, unit, plan.currency)}
            </p>
            <Button
              small
              className="mt-2"
              disabled={choice.id === presentId}
              onClick={() => onApply(choice.id)}
              aria-label={`Apply ${choiceName(choice)}`}
            >
              Apply
            </Button>
          </section>
        ))}
      </div>
      <div className="mt-3">
        <Legend kinds={["data", "copies", "parity", "idle", "reserve"]} />
      </div>
      <h3 className="mt-5 font-serif text-lg">What differs</h3>
      {said.length === 0 ? (
        <p className="text-soft">Nothing: the two have the same figures.</p>
      ) : (
        <ul className="mt-1 list-disc space-y-1 pl-5">
          {said.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
      <table className="mt-5 w-full text-[0.95rem]">
        <caption className="sr-only">All figures of both</caption>
        <thead>
          <tr className="border-b border-line text-left text-soft">
            <th scope="col" className="py-1 font-normal">
              Figure
            </th>
            <th scope="col" className="py-1 text-right font-normal">
              {choiceName(a)}
            </th>
            <th scope="col" className="py-1 text-right font-normal">
              {choiceName(b)}
            </th>
          </tr>
        </thead>
        <tbody>
          {MEASURES.map((measure) => (
            <tr key={measure.id} className="border-b border-line">
              <th scope="row" className="py-1 text-left font-normal">
                {measure.name}
              </th>
              <td className="py-1 text-right">{measureWords(measure, a.figures, unit, plan.currency)}</td>
              <td className="py-1 text-right">{measureWords(measure, b.figures, unit, plan.currency)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Dialog>
  );
}
