import { nominalBytes } from "../bytes/nominalBytes";
import type { PricedDrive } from "../document/plan";

const disk = (terabytes: number, price: number): PricedDrive => ({
  bytes: nominalBytes(terabytes * 1000),
  price,
  medium: "hdd",
  bus: "sata",
  label: "",
});

/** Invented prices, so that there is something to see before the owner types real ones. */
export const EXAMPLE_PRICES: readonly PricedDrive[] = [
  disk(2, 68),
  disk(3, 79),
  disk(4, 92),
  disk(6, 135),
  disk(8, 162),
  disk(10, 214),
  disk(12, 238),
  disk(14, 279),
  disk(16, 305),
  disk(18, 349),
  disk(20, 389),
  disk(22, 449),
];
