import { nominalBytes } from "../../bytes/nominalBytes";
import type { Drive } from "../plan";

/** A hard disk of the samples' invented maker. */
export function sampleDrive(
  id: string,
  terabytes: number,
  serial: string,
  place: Drive["place"],
  more: Partial<Drive> = {},
): Drive {
  return {
    id,
    label: "",
    model: `Tejora Cal ${terabytes}`,
    serial,
    bytes: nominalBytes(terabytes * 1000),
    medium: "hdd",
    bus: "sata",
    logicalSector: 512,
    physicalSector: 4096,
    health: { state: "good", reallocatedSectors: 0 },
    place,
    ...more,
  };
}
