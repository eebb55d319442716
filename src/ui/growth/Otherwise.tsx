"use client";

import type { ToldWay } from "@/core/bestWay/told";
import type { FirstPurchase, Variation, WhatIf } from "@/core/bestWay/whatIf";
import type { GrowthWish } from "@/core/bestWay/wish";
import type { Plan } from "@/core/document/plan";
import type { GrowthAsked, startWhatIf } from "@/workers/startGrowth";
import { TableHead } from "../kit/TableHead";
import { useUnit } from "../preferences/preferences";
import { assumptionWords, centsWords, drivesWords, moreWords, whenWords } from "./growthWords";
import { Waiting } from "./Waiting";
import { useBeside } from "./useGrowth";

const whatIf = async (...asked: Parameters<typeof startWhatIf>) =>
  (await import("@/workers/startGrowth")).startWhatIf(...asked);

interface Props {
  asked: GrowthAsked;
  way: ToldWay;
  plan: Plan;
  day: string;
  wish: GrowthWish;
}

/** What would change the first purchase and the money, and what would not: each assumption, one at a time. */
export function Otherwise({ asked, way, plan, day, wish }: Props) {
  const { result, complete, trouble } = useBeside(asked, whatIf);
  return (
    <section aria-labelledby="otherwise">
      <h2 id="otherwise" className="border-b border-line pb-1 font-serif text-lg">
        What would change it
      </h2>
      {result && <Falls result={result} way={way} wish={wish} />}
      {result && (
        <table className="mt-1 w-full text-left">
          <TableHead names={["If", "in all", "against now", "and first"]} />
          <tbody>
            {result.variations.map((variation) => (
              <Assumed key={variation.of} variation={variation} plan={plan} day={day} way={way} />
            ))}
          </tbody>
        </table>
      )}
      {!complete && <Waiting trouble={trouble} />}
      {result?.variations.some(({ proved }) => !proved) && (
        <p className="mt-1 text-soft">Where it says “about”, that nothing costs less is not proved.</p>
      )}
    </section>
  );
}

/** At which falls of prices the first purchase stays what it is. */
function Falls({ result, way, wish }: { result: WhatIf; way: ToldWay; wish: GrowthWish }) {
  const [unit] = useUnit();
  const [first] = way.acts;
  const batch = way.acts.filter(({ month }) => month === first?.month).flatMap(({ bought }) => bought);
  if (batch.length === 0) return null;
  const bought = drivesWords(
    batch.map(({ bytes }) => bytes),
    unit,
  );
  const share = (value: number) => `${(value * 100).toFixed(1).replace(/\.0$/, "")} %`;
  const { fall } = result;
  if (!fall) return null;
  const { from, to } = fall;
  if (from === null && to === null)
    return <p className="py-1.5">{`To buy ${bought} first stays right whether prices stay or fall by half a year.`}</p>;
  const unless = [
    ...(from === null ? [] : [`unless prices fall by less than ${share(from)} a year`]),
    ...(to === null ? [] : [`unless they fall by more than ${share(to)} a year`]),
  ];
  return (
    <p className="py-1.5">
      {`To buy ${bought} first is right ${unless.join(", and ")} (you say ${share(wish.fallPerYear)}).`}
    </p>
  );
}

interface AssumedProps {
  variation: Variation;
  plan: Plan;
  day: string;
  way: ToldWay;
}

const isFirst = (first: FirstPurchase | null, way: ToldWay): boolean => {
  const [act] = way.acts;
  if (!first || !act) return !first && !act;
  const bought = way.acts.filter(({ month }) => month === act.month).flatMap((each) => each.bought);
  const sizes = bought.map(({ bytes }) => bytes).sort((a, b) => a - b);
  return first.month === act.month && first.sizes.join() === sizes.join();
};

function Assumed({ variation: { of, cents, first, proved }, plan, day, way }: AssumedProps) {
  const [unit] = useUnit();
  return (
    <tr className="border-t border-line">
      <th scope="row" className="py-1 pr-3 font-normal">
        {assumptionWords[of]}
      </th>
      <td className="py-1 pr-3 whitespace-nowrap">
        {cents === null ? "no way" : `${proved ? "" : "about "}${centsWords(cents, plan)}`}
      </td>
      <td className="py-1 pr-3 whitespace-nowrap">{cents !== null && moreWords(cents - way.cents, plan)}</td>
      <td className="py-1 text-soft">
        {cents === null
          ? ""
          : isFirst(first, way)
            ? "the same"
            : first
              ? `${drivesWords(first.sizes, unit) || "a change"} ${whenWords(day, first.month)}`
              : "nothing to buy"}
      </td>
    </tr>
  );
}
