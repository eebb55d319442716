"use client";

import { useState } from "react";
import { soldAs } from "@/core/bytes/nominalBytes";
import type { Plan } from "@/core/document/plan";
import { EXAMPLE_PRICES, type PricedDrive } from "@/core/nextDrive/priceList";
import { readPriceCsv, writePriceCsv } from "@/exchange/driveList/priceCsv";
import { MOST_CSV_CHARACTERS } from "@/exchange/driveList/driveCsv";
import { TextSource } from "../drives/TextSource";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import { ProblemLines } from "../kit/ProblemLines";

const sizeOf = ({ bytes }: PricedDrive) => {
  const gigabytes = soldAs(bytes);
  return gigabytes === null ? String(bytes) : gigabytes >= 1000 ? `${gigabytes / 1000} TB` : `${gigabytes} GB`;
};

/** The price list: a line for each drive on sale, typed or from a file. */
export function PricesDialog({ plan, onClose, onTake }: { plan: Plan; onClose: () => void; onTake: (prices: PricedDrive[]) => string | null }) {
  const [text, setText] = useState(() => writePriceCsv(plan.prices ?? EXAMPLE_PRICES, sizeOf));
  const [problems, setProblems] = useState<string[]>([]);
  const take = (source: string) => {
    const result = readPriceCsv(source);
    if (!result.ok) return setProblems(result.problems);
    const refused = onTake(result.prices);
    if (refused) setProblems([refused]);
    else onClose();
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Prices"
      about={plan.prices ? "Your prices, in your currency. They are kept in the plan." : "These prices are invented. Put in what drives cost where you buy them, in your currency."}
      acts={
        <>
          {plan.prices && (
            <Button
              onClick={() => {
                onTake([]);
                onClose();
              }}
            >
              Back to the examples
            </Button>
          )}
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" disabled={text.trim() === ""} onClick={() => take(text)}>
            Use these prices
          </Button>
        </>
      }
    >
      <TextSource
        example={"size,price,kind,model\n12 TB,238.00,hdd,Tejora Cal 12"}
        label="Price list"
        placeholder="size,price"
        accept=".csv,.txt,text/csv,text/plain"
        value={text}
        onChange={(next) => {
          setText(next);
          setProblems([]);
        }}
        onFiles={take}
        most={MOST_CSV_CHARACTERS}
        onTrouble={(message) => setProblems([message])}
      />
      <ProblemLines problems={problems} />
    </Dialog>
  );
}
