"use client";

import type { Remote } from "comlink";
import { useCallback } from "react";
import { formatBytes, formatChange } from "@/core/bytes/formatBytes";
import type { Command } from "@/core/document/command";
import type { Plan, Pool, PricedDrive, NewDrive } from "@/core/document/plan";
import { nameOfDrive, shortSize } from "@/core/drives/nameOfDrive";
import type { Buy } from "@/core/nextDrive/bestBuys";
import { EXAMPLE_PRICES } from "@/core/drives/priceList";
import { moneyWords } from "@/core/words/money";
import { CurrencyChoice } from "../kit/CurrencyChoice";
import { plural } from "@/core/words/counted";
import type { Work } from "@/workers/work.worker";
import { useJob } from "../kit/useJob";
import { Button } from "../kit/Button";
import { useUnit } from "../preferences/preferences";

/** A bought drive as it comes to the shelf. */
const asNewDrive = ({ bytes, price, medium, bus, label }: PricedDrive): NewDrive => ({
  label,
  bytes,
  price,
  medium,
  bus,
  toBuy: true,
  logicalSector: 512,
  physicalSector: medium === "hdd" ? 4096 : 512,
  health: { state: "good" },
});

/** The best one and the best two drives to buy for a pool, by usable space gained for the money. */
export function BestBuys({
  plan,
  pool,
  act,
  onPrices,
}: {
  plan: Plan;
  pool: Pool;
  act: (command: Command, offersUndo?: boolean) => string | null;
  onPrices: () => void;
}) {
  const prices = plan.prices ?? EXAMPLE_PRICES;
  const start = useCallback(
    (work: Remote<Work>, onProgress: (share: number) => void) => work.bestBuys(plan, pool.id, [...prices], onProgress),
    [plan, pool.id, prices],
  );
  const job = useJob(start);
  const take = (buy: Buy) => act({ kind: "add-drives", drives: buy.drives.map(({ item }) => asNewDrive(item)) }, true);
  return (
    <section aria-labelledby="buys-heading" className="mt-4 border-t border-line pt-3">
      <div className="flex items-baseline justify-between gap-2">
        <h3 id="buys-heading" className="font-serif text-lg">
          What to buy
        </h3>
        <Button small onClick={onPrices}>
          Prices…
        </Button>
      </div>
      <p className="text-[0.87rem] text-soft">
        {plan.prices ? "By your prices" : "By invented example prices: put in real ones."} Most usable space gained for
        the money, once the new space is in use.
      </p>
      {plan.prices && <CurrencyChoice currency={plan.currency} act={act} />}
      {job.progress !== null && (
        <p role="status" className="mt-2 flex items-center gap-2">
          <progress value={job.progress} aria-label="Comparing what to buy" className="w-32 accent-indigo" />
          <Button small onClick={job.cancel}>
            Stop
          </Button>
        </p>
      )}
      {job.cancelled && (
        <p className="mt-2">
          Stopped.{" "}
          <Button small onClick={job.again}>
            Go on
          </Button>
        </p>
      )}
      {job.trouble && (
        <p role="alert" className="text-geranium">
          {job.trouble}
        </p>
      )}
      {job.result && (
        <>
          <BuyList
            title="One drive"
            buys={job.result.one}
            plan={plan}
            onTake={take}
            none="No single drive of the list adds any space here."
          />
          <BuyList
            title="Two drives"
            buys={job.result.two}
            plan={plan}
            onTake={take}
            none="No two drives of the list add any space here."
          />
          <p className="mt-2 text-[0.87rem] text-soft">
            All {job.result.weighed.toLocaleString("en")} ways under the rules of your box and in its free bays were
            compared.
          </p>
        </>
      )}
    </section>
  );
}

function BuyList({
  title,
  buys,
  plan,
  onTake,
  none,
}: {
  title: string;
  buys: readonly Buy[];
  plan: Plan;
  onTake: (buy: Buy) => void;
  none: string;
}) {
  const [unit] = useUnit();
  const [best, ...others] = buys;
  if (!best) {
    return (
      <p className="mt-2">
        <span className="font-semibold">{title}.</span> <span className="text-soft">{none}</span>
      </p>
    );
  }
  const per = (buy: Buy) => `${formatBytes(Math.round(buy.bytesPerMoney * 100), unit)} for every 100`;
  return (
    <div className="mt-3">
      <h4 className="font-semibold">{title}</h4>
      <p className="mt-0.5">
        Best: {buyWords(best.drives, plan, unit)}.{" "}
        <strong className="font-semibold">{formatChange(best.gainBytes, unit)}</strong> for{" "}
        {moneyWords(best.price, plan.currency)}, {per(best)}.
      </p>
      <Button small className="mt-1" onClick={() => onTake(best)}>
        Put {plural(best.drives.length, "it", "them")} on the shelf, to buy
      </Button>
      {others.length > 0 && (
        <ol className="mt-1.5 text-[0.9rem]" aria-label={`${title}: runners-up`}>
          {others.map((other, i) => (
            <li key={i} className="border-t border-line py-1">
              {buyWords(other.drives, plan, unit)}: {formatChange(other.gainBytes, unit)} for{" "}
              {moneyWords(other.price, plan.currency)},{" "}
              <span className="text-soft">
                {per(other)}, {Math.round((1 - other.bytesPerMoney / best.bytesPerMoney) * 100)} % less for the money
              </span>
            </li>
          ))}
        </ol>
      )}
    </div>
  );
}

/** "a 12 TB drive in place of the 4 TB drive in bay 1 (serial …), and a 12 TB drive as one more". */
function buyWords(drives: Buy["drives"], plan: Plan, unit: "TB" | "TiB"): string {
  const [first] = drives;
  if (drives.every(({ at }) => at.kind === "further-group"))
    return `another group of ${drives.map(({ item }) => shortSize(item, unit)).join(" and ")}`;
  if (
    first &&
    drives.length > 1 &&
    drives.every(({ at, item }) => at.kind === "add" && item.bytes === first.item.bytes)
  )
    return `${drives.length === 2 ? "two" : drives.length} ${shortSize(first.item, unit)} drives more`;
  return drives
    .map(({ item, at }) => {
      const old = at.kind === "replace" ? plan.drives.find((drive) => drive.id === at.drive) : undefined;
      return `${shortSize(item, unit)} ${old ? `in place of ${nameOfDrive(old, unit)}` : "as one more"}`;
    })
    .join(", and ");
}
