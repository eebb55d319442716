import type { Plan } from "../plan";
import { growingClinic } from "./growingClinic";

/**
 * The clinic that grows, with what it stores, where else that is kept, and dates: images that cannot be had again and
 * grow by 220 GB a month, an office folder, camera footage; hands at the box at week-ends.
 */
export const coveredClinic: Plan = {
  ...growingClinic,
  calendar: {
    id: "clinic",
    start: "2026-11-23",
    timeZone: "Europe/Madrid",
    deliveryDays: 3,
    hands: [{ days: [6, 7], from: "09:00", to: "20:00" }],
    excluded: [{ from: "2026-12-05", to: "2026-12-06" }],
  },
  dataSets: [
    {
      id: "s1",
      name: "X-ray and ultrasound images",
      volume: "v1",
      bytes: 8_200_000_000_000,
      growth: { bytesPerMonth: 220_000_000_000 },
      worth: "precious",
    },
    {
      id: "s2",
      name: "Office files",
      volume: "v1",
      bytes: 400_000_000_000,
      growth: { sharePerYear: 0.1 },
      worth: "useful",
    },
    { id: "s3", name: "Camera footage", volume: "v1", bytes: 800_000_000_000, worth: "replaceable" },
  ],
  backups: [
    {
      id: "b1",
      name: "Box at home",
      kind: "box",
      place: "elsewhere",
      bytes: 12_000_000_000_000,
      everyDays: 7,
      keepsVersions: true,
      lastVerified: "2026-11-08",
      dataSets: ["s1"],
    },
    {
      id: "b2",
      name: "USB drive in the drawer",
      kind: "usb-drive",
      place: "here",
      bytes: 1_000_000_000_000,
      everyDays: 30,
      keepsVersions: false,
      lastVerified: "2026-11-15",
      dataSets: ["s2"],
    },
  ],
  steps: growingClinic.steps.map((step) => (step.kind === "back-up" ? { ...step, to: "b1" } : step)),
};
