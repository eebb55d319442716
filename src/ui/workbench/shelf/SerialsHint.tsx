"use client";

import { inOrder } from "@/core/drives/inOrder";
import { plural } from "@/core/words/counted";
import { Button } from "../../kit/Button";
import { useAsked } from "../../preferences/preferences";
import { usePlanId } from "../../shell/usePlanId";
import { useWorkbench } from "../useWorkbench";
import type { Drive } from "@/core/document/plan";

/** The drives of a pool, or beside one, whose serial nobody has typed yet. */
const withoutSerial = (drives: readonly Drive[]): Drive[] =>
  inOrder(drives).filter((drive) => !drive.serial && !drive.toBuy);

/** Asks once for the serials of drives that have none, so that each can be told from its likes at the box. */
export function SerialsHint({ onOpen }: { onOpen: () => void }) {
  const { plan } = useWorkbench();
  const [asked, setAsked] = useAsked(`serials-${usePlanId()}`);
  const bare = withoutSerial(plan.drives);
  if (asked || bare.length === 0) return null;
  return (
    <div role="group" aria-label="Serial numbers" className="border-t border-line pt-2 text-[0.9rem]">
      <p>
        {bare.length === plan.drives.length
          ? "Your drives have"
          : `${bare.length} ${plural(bare.length, "drive has", "drives have")}`}{" "}
        no serial number here yet. Type {plural(bare.length, "it", "them")} once, so that the right drive is erased.
      </p>
      <p className="mt-1 flex flex-wrap gap-1.5">
        <Button small onClick={onOpen}>
          Type serials…
        </Button>
        <Button small look="quiet" onClick={setAsked}>
          Not now
        </Button>
      </p>
    </div>
  );
}
