"use client";

import { soldAs } from "@/core/bytes/nominalBytes";
import type { Plan, PricedDrive } from "@/core/document/plan";
import { EXAMPLE_PRICES } from "@/core/drives/priceList";
import { readPriceCsv, writePriceCsv } from "@/exchange/driveList/priceCsv";
import { TextDialog } from "../drives/TextDialog";
import { Button } from "../kit/Button";

const sizeOf = ({ bytes }: PricedDrive) => {
  const gigabytes = soldAs(bytes);
  return gigabytes === null ? String(bytes) : gigabytes >= 1000 ? `${gigabytes / 1000} TB` : `${gigabytes} GB`;
};

/** The price list: a line for each drive on sale, typed or from a file. */
export function PricesDialog({
  plan,
  onClose,
  onTake,
}: {
  plan: Plan;
  onClose: () => void;
  onTake: (prices: PricedDrive[]) => string | null;
}) {
  const take = (text: string): string[] => {
    const result = readPriceCsv(text);
    if (!result.ok) return result.problems;
    const refused = onTake(result.prices);
    return refused ? [refused] : [];
  };
  const backToExamples = () => {
    onTake([]);
    onClose();
  };
  return (
    <TextDialog
      title="Prices"
      about={
        plan.prices
          ? "Your prices, in your currency. They are kept in the plan."
          : "These prices are invented. Put in what drives cost where you buy them, in your currency."
      }
      source={{
        example: "size,price,kind,model\n12 TB,238.00,hdd,Tejora Cal 12",
        label: "Price list",
        placeholder: "size,price",
      }}
      start={writePriceCsv(plan.prices ?? EXAMPLE_PRICES, sizeOf)}
      takeLabel="Use these prices"
      onTake={take}
      onClose={onClose}
      acts={plan.prices ? <Button onClick={backToExamples}>Back to the examples</Button> : undefined}
    />
  );
}
