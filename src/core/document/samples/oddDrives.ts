import { EDITION } from "../edition";
import type { Plan } from "../plan";
import { sampleDrive } from "./sampleDrive";

/** An old box of odd drives, one of which has just failed; of two on the shelf one fits. */
export const oddDrives: Plan = {
  format: "cortijo-plan",
  version: 1,
  edition: EDITION,
  name: "Old box of odd drives",
  box: { name: "Box under the stairs", bays: 5, rules: { set: "hybrid-box" } },
  drives: [
    sampleDrive("d1", 1, "TJ1-7730", { bay: 1 }),
    sampleDrive(
      "d2",
      2,
      "TJ2-1018",
      { bay: 2 },
      {
        health: { state: "watch", reallocatedSectors: 1312, pendingSectors: 88 },
        state: "failed",
        since: "2026-11-22T06:10Z",
      },
    ),
    sampleDrive("d3", 3, "TJ3-5546", { bay: 3 }),
    sampleDrive("d4", 3, "TJ3-5561", { bay: 4 }),
    sampleDrive("d5", 6, "TJ6-0209", { bay: 5 }),
    sampleDrive("d6", 3, "TJ3-6120", { shelf: true }),
    sampleDrive("d7", 1, "TJ1-0042", { shelf: true }),
  ],
  pools: [
    {
      id: "p1",
      name: "Everything",
      groups: [{ id: "g1", layout: "hybrid-1", drives: ["d1", "d2", "d3", "d4", "d5"] }],
      spares: [],
      volumes: [
        { id: "v1", name: "Family", bytes: 8_000_000_000_000, fileSystem: "btrfs", usedBytes: 5_200_000_000_000 },
      ],
    },
  ],
  dataSets: [
    { id: "s1", name: "Photographs", volume: "v1", bytes: 1_400_000_000_000, worth: "precious" },
    { id: "s2", name: "Films", volume: "v1", bytes: 3_600_000_000_000, worth: "replaceable" },
  ],
  steps: [],
};
