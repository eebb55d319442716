import { EDITION } from "../edition";
import type { Plan } from "../plan";
import { sampleDrive } from "./sampleDrive";

/** A choir's archive on a four-bay box: a mirror that should become a parity group. */
export const choir: Plan = {
  format: "cortijo-plan",
  version: 1,
  edition: EDITION,
  name: "Choir archive",
  box: { name: "Box in the vestry", bays: 4, rules: { set: "classic-raid" } },
  drives: [
    sampleDrive("d1", 4, "TJ4-2201", { bay: 1 }),
    sampleDrive("d2", 4, "TJ4-2202", { bay: 2 }),
    sampleDrive("d3", 4, "TJ4-3107", { shelf: true }),
  ],
  pools: [
    {
      id: "p1",
      name: "Recordings",
      groups: [{ id: "g1", layout: "raid1", drives: ["d1", "d2"] }],
      spares: [],
      volumes: [],
    },
  ],
  steps: [],
};
