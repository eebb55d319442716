import { nominalBytes } from "../../bytes/nominalBytes";
import type { Plan } from "../plan";
import { clinic } from "./clinic";

const bought = (id: string): Plan["drives"][number] => ({
  id,
  label: "",
  model: "Tejora Cal 12",
  bytes: nominalBytes(12_000),
  medium: "hdd",
  bus: "sata",
  logicalSector: 512,
  physicalSector: 4096,
  health: { state: "good" },
  price: 238,
  toBuy: true,
  place: { shelf: true },
});

/**
 * The clinic as it means to grow: its two 4 TB drives changed for 12 TB ones, the first tested, a backup before, the
 * volume and its file system grown at the end, and all verified.
 */
export const growingClinic: Plan = {
  ...clinic,
  name: "Animal clinic, two larger drives",
  drives: [...clinic.drives, bought("b1"), bought("b2")],
  pools: clinic.pools.map((pool) => ({
    ...pool,
    volumes: [
      { id: "v1", name: "X-rays", bytes: 15_900_000_000_000, fileSystem: "btrfs", usedBytes: 9_400_000_000_000 },
    ],
  })),
  steps: [
    { id: "s1", kind: "back-up", pool: "p1", to: "the box at home" },
    { id: "s2", kind: "test-drive", drive: "b1" },
    { id: "s3", kind: "replace-drive", drive: "d1", by: "b1", how: "pulled" },
    { id: "s4", kind: "test-drive", drive: "b2" },
    { id: "s5", kind: "replace-drive", drive: "d2", by: "b2", how: "pulled" },
    { id: "s6", kind: "grow-volume", pool: "p1", volume: "v1" },
    { id: "s7", kind: "grow-file-system", pool: "p1", volume: "v1" },
    { id: "s8", kind: "verify", pool: "p1" },
  ],
};
