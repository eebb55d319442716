import type { Band } from "./band";

/** The parity drives of bands with dedicated parity; none otherwise. */
export const parityOf = (bands: readonly Band[]): string[] => {
  const [bottom] = bands;
  return bottom && bottom.scheme.kind === "dedicated-parity"
    ? bottom.members.slice(-bottom.scheme.parity).map((member) => member.drive)
    : [];
};
