"use client";

import { ofBoxes, shortChanceWords } from "@/core/chance/chanceWords";
import type { Ranged } from "@/core/chance/figures";
import type { Spread } from "@/core/chance/inputs";
import type { ByCause } from "@/core/chance/otherCauses";
import type { Plan } from "@/core/document/plan";
import { useChances } from "../chance/useChances";

interface Props {
  plan: Plan;
  /** How many steps the plan has. */
  steps: number;
  set: string;
}

/** The causes of drives are told together here: which of them it is matters on the page about chances. */
const SHOWN = [
  { name: "failed drives", of: ["waiting", "rebuilding", "sector"] },
  { name: "theft or fire", of: ["theft"] },
  { name: "deletion by mistake", of: ["deletion"] },
] as const;

const sumOf = (causes: Ranged<ByCause>, of: readonly (keyof ByCause)[], end: keyof Spread): number =>
  of.reduce((sum, cause) => sum + causes[cause][end], 0);

/** How likely a data set is lost for good in a year, cause by cause, after what its backups bring back. */
export function DataSetChance({ plan, steps, set }: Props) {
  const { told, isOld, trouble } = useChances(plan, steps > 0 ? `0,${steps}` : "0");
  const at = (moment: number) =>
    told?.ranged?.moments[moment]?.pools.flatMap(({ dataSets }) => dataSets).find(({ id }) => id === set)?.year;
  const [before, after] = [at(0), at(1)];
  if (!before)
    return told?.ranged ? null : <p className="mt-1 text-[0.93rem] text-soft">{trouble ?? "Chance of loss …"}</p>;
  return (
    <p className={`mt-1.5 text-[0.93rem] ${isOld ? "text-soft" : ""}`}>
      Lost for good in a year, of such boxes:{" "}
      {SHOWN.map(({ name, of }) => {
        const range = (causes: Ranged<ByCause>): Spread => ({
          low: sumOf(causes, of, "low"),
          expected: sumOf(causes, of, "expected"),
          high: sumOf(causes, of, "high"),
        });
        const then = after && range(after);
        const now = range(before);
        const changes = then && ofBoxes(then.expected) !== ofBoxes(now.expected);
        return `${shortChanceWords(now)} by ${name}${changes ? `, after the plan ${shortChanceWords(then)}` : ""}`;
      }).join("; ")}
      .
    </p>
  );
}
