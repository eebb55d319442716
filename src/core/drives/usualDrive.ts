import type { Drive, NewDrive } from "../document/plan";

/**
 * A drive of which only this is known, with what most such drives have: sectors of 512 bytes over physical ones of 4096
 * on hard disks, and nothing against its health.
 *
 * @param known `bytes` exactly
 * @example usualDrive({ bytes: 4_000_787_030_016, medium: "hdd", bus: "sata" }).physicalSector // 4096
 */
export const usualDrive = ({ bytes, medium, bus }: Pick<Drive, "bytes" | "medium" | "bus">): NewDrive => ({
  label: "",
  bytes,
  medium,
  bus,
  logicalSector: 512,
  physicalSector: medium === "hdd" ? 4096 : 512,
  health: { state: "good" },
});
