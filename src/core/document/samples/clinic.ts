import { EDITION } from "../edition";
import type { Plan } from "../plan";
import { sampleDrive } from "./sampleDrive";

/**
 * The demo plan: the box of a two-vet animal clinic, two bays free, and one old drive on the shelf that should not
 * join.
 */
export const clinic: Plan = {
  format: "cortijo-plan",
  version: 1,
  edition: EDITION,
  name: "Animal clinic, Villarrolla",
  box: { name: "Box in the X-ray room", bays: 6, rules: { set: "hybrid-box" } },
  drives: [
    sampleDrive("d1", 4, "TJ4-0417", { bay: 1 }),
    sampleDrive("d2", 4, "TJ4-0422", { bay: 2 }),
    sampleDrive("d3", 8, "TJ8-1190", { bay: 3 }),
    sampleDrive("d4", 12, "TJ12-0036", { bay: 4 }),
    sampleDrive("d5", 3, "TJ3-9951", { shelf: true }, { health: { state: "watch", reallocatedSectors: 24 } }),
  ],
  pools: [
    {
      id: "p1",
      name: "Images",
      groups: [{ id: "g1", layout: "hybrid-1", drives: ["d1", "d2", "d3", "d4"] }],
      spares: [],
      volumes: [],
    },
  ],
  steps: [],
};
