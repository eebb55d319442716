import type { Drive, PricedDrive } from "../document/plan";
import { usualDrive } from "../drives/usualDrive";
import { priceFor } from "./costs";

/**
 * A drive that is only thought of, with what it costs by a price list. None is bought to hang on USB.
 *
 * @param like its size in bytes, and what else is asked of it; usual sectors where nothing is said
 * @example driveToBuy("b1", { bytes: 4_000_787_030_016, medium: "hdd", bus: "usb" }, []).bus // "sata"
 */
export function driveToBuy(
  id: string,
  like: Pick<Drive, "bytes" | "medium" | "bus"> & Partial<Pick<Drive, "logicalSector" | "physicalSector">>,
  prices: readonly PricedDrive[],
): Drive {
  const { bytes, medium, bus, logicalSector, physicalSector } = like;
  const price = priceFor(bytes, medium, prices);
  const usual = usualDrive({ bytes, medium, bus: bus === "usb" ? "sata" : bus });
  return {
    ...usual,
    id,
    logicalSector: logicalSector ?? usual.logicalSector,
    // No drive has physical sectors that are smaller than its logical ones.
    physicalSector: physicalSector ?? (logicalSector === 4096 ? 4096 : usual.physicalSector),
    ...(price ? { price: price.price } : {}),
    toBuy: true,
    place: { shelf: true },
  };
}
