import { EDITION } from "../edition";
import type { Plan } from "../plan";
import { sampleDrive } from "./sampleDrive";

/** A box to try on: small, with drives on the shelf to grow it and to put in the place of one that fails. */
export const practiceBox: Plan = {
  format: "cortijo-plan",
  version: 1,
  edition: EDITION,
  name: "Practice box",
  box: { name: "A box to try on", bays: 6, rules: { set: "linux-host" } },
  drives: [
    sampleDrive("d1", 4, "TJ4-3011", { bay: 1 }),
    sampleDrive("d2", 4, "TJ4-3058", { bay: 2 }),
    sampleDrive("d3", 4, "TJ4-3102", { bay: 3 }),
    sampleDrive("d4", 4, "TJ4-9027", { shelf: true }),
    sampleDrive("d5", 4, "TJ4-9033", { shelf: true }),
    sampleDrive("d6", 8, "TJ8-0417", { shelf: true }),
  ],
  pools: [
    {
      id: "p1",
      name: "Orchard",
      groups: [{ id: "g1", layout: "raid5", drives: ["d1", "d2", "d3"] }],
      spares: [],
      volumes: [
        { id: "v1", name: "Harvest", bytes: 7_897_874_432_000, fileSystem: "ext4", usedBytes: 3_100_000_000_000 },
      ],
    },
  ],
  dataSets: [
    { id: "s1", name: "Photographs of the trees", volume: "v1", bytes: 2_400_000_000_000, worth: "replaceable" },
  ],
  steps: [
    { id: "s1", kind: "verify", pool: "p1" },
    { id: "s2", kind: "widen-group", group: "g1", drives: ["d4"] },
    { id: "s3", kind: "grow-volume", pool: "p1", volume: "v1", bytes: 11_895_046_144_000 },
    { id: "s4", kind: "grow-file-system", pool: "p1", volume: "v1" },
  ],
};
