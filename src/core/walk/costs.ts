import { drivesOf } from "../box/find";
import { isAvailable, isFree } from "../box/members";
import type { Bytes } from "../bytes/bytes";
import type { Drive, PricedDrive } from "../document/plan";
import { EXAMPLE_PRICES } from "../drives/priceList";
import { boughtFor } from "../steps/attention";
import type { Walk } from "./moment";

/** A drive that has to be bought for a plan. */
export interface Purchase {
  drive: Drive;
  /** In the owner's currency; null where no price is known. */
  price: number | null;
  /** Whether the price is only one of the invented examples. */
  isExample: boolean;
  /** The first step that needs it. */
  step: string;
}

/** What a plan costs, and what drives it frees. */
export interface Costs {
  purchases: Purchase[];
  /** The sum of the known prices. */
  total: number;
  /** How many drives have no price. */
  unpriced: number;
  /** Drives that were in use before the plan, and are free after it. */
  freed: Drive[];
}

/**
 * The price of a drive of a size: that of the smallest listed one that is at least as large, of its medium.
 *
 * @returns null where the list has none so large
 * @example priceFor(nominalBytes(8000), "hdd", prices)?.price // 162
 */
export function priceFor(bytes: Bytes, medium: Drive["medium"], prices: readonly PricedDrive[]): PricedDrive | null {
  return (
    [...prices]
      .filter((each) => each.medium === medium && each.bytes >= bytes)
      .sort((a, b) => a.bytes - b.bytes || a.price - b.price)[0] ?? null
  );
}

/**
 * The drives that a plan wants bought, in the order in which its steps need them, with what they cost, and the drives
 * that it frees.
 *
 * @example costsOf(walk(plan)).total // 476
 */
export function costsOf({ plan, moments }: Walk): Costs {
  const purchases: Purchase[] = [];
  moments.slice(1).forEach(({ walked }, i) => {
    const before = moments[i]?.state.plan;
    if (!walked?.done || !before) return;
    for (const drive of drivesOf(before, boughtFor(walked.step, before))) {
      if (purchases.some((each) => each.drive.id === drive.id)) continue;
      const example = drive.price === undefined && plan.prices === undefined;
      const price = drive.price ?? priceFor(drive.bytes, drive.medium, plan.prices ?? EXAMPLE_PRICES)?.price ?? null;
      purchases.push({ drive, price, isExample: example && price !== null, step: walked.step.id });
    }
  });
  const [first, last] = [moments[0]?.state.plan, moments.at(-1)?.state.plan];
  const freed =
    first && last ? last.drives.filter((drive) => !isFree(first, drive.id) && isAvailable(last, drive.id)) : [];
  return {
    purchases,
    total: purchases.reduce((sum, each) => sum + (each.price ?? 0), 0),
    unpriced: purchases.filter((each) => each.price === null).length,
    freed,
  };
}
