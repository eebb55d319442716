import { nominalBytes } from "../bytes/nominalBytes";
import { emptyPlan } from "../document/emptyPlan";
import type { Backup, DataSet, Plan } from "../document/plan";
import { drivesOfTB, testDrive } from "./arbitraries";

export const TB = 1e12;
export const images: DataSet = {
  id: "s1",
  name: "X-rays",
  volume: "v1",
  bytes: 9 * TB,
  growth: { bytesPerMonth: 220e9 },
  worth: "precious",
};
export const office: DataSet = {
  id: "s2",
  name: "Office",
  volume: "v1",
  bytes: 0.4 * TB,
  growth: { sharePerYear: 0.1 },
  worth: "useful",
};
export const away: Backup = {
  id: "b1",
  name: "Box at home",
  kind: "box",
  place: "elsewhere",
  everyDays: 7,
  keepsVersions: true,
  lastVerified: "2026-11-01",
  dataSets: ["s1"],
};
export const usb: Backup = {
  id: "b2",
  name: "USB drive",
  kind: "usb-drive",
  place: "here",
  everyDays: 30,
  keepsVersions: false,
  lastVerified: "2026-11-10",
  dataSets: ["s1", "s2"],
};
export const DAY = "2026-11-23";

/** Four 4 TB drives of single parity with a volume over all of it, and more on the shelf. */
export function clinicPlan(more: Partial<Plan> = {}): Plan {
  const drives = [...drivesOfTB(4, 4, 4, 4), testDrive("x1", nominalBytes(8000)), testDrive("x2", nominalBytes(4000))];
  return {
    ...emptyPlan("x"),
    box: { name: "x", bays: 6, rules: { set: "classic-raid" } },
    drives,
    pools: [
      {
        id: "p1",
        name: "P",
        groups: [{ id: "g1", layout: "raid5", drives: ["d1", "d2", "d3", "d4"], options: {} }],
        spares: [],
        volumes: [{ id: "v1", name: "Files", bytes: 11.9 * TB, fileSystem: "btrfs", usedBytes: 9.6 * TB }],
      },
    ],
    dataSets: [images, office],
    ...more,
  };
}
