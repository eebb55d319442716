import type { Bytes } from "../bytes/bytes";

/** How the lengths of a band's members share data, copies and parity. */
export type Scheme =
  /** One member, nothing redundant. */
  | { kind: "single" }
  /** Every member holds data of its own; nothing is redundant. */
  | { kind: "stripe" }
  /** Every member is a full copy. */
  | { kind: "mirror" }
  /** Data and `parity` blocks of parity take turns over the members (RAID 5: 1, RAID 6: 2, triple parity: 3). */
  | { kind: "parity"; parity: 1 | 2 | 3 }
  /** Data and parity take turns as above, in chunks of width members, with any number of parity chunks. */
  | { kind: "chunk-parity"; parity: number }
  /** The last `parity` members hold nothing but parity; every other member holds its own data. */
  | { kind: "dedicated-parity"; parity: 1 | 2 }
  /**
   * Data striped over pairs of neighbours in the order of the members; with an odd count, neighbours round the ring.
   */
  | { kind: "striped-mirrors" };

/** One drive's part in a band: `length` bytes from `offset` on. */
export interface BandMember {
  drive: string;
  offset: Bytes;
  length: Bytes;
}

/**
 * A range of capacity that runs at one height across several drives and has one redundancy scheme. Usable space,
 * tolerance, what failures destroy, the ledger and the picture are all derived from bands.
 */
export interface Band {
  scheme: Scheme;
  /** At least one; all of the same length; in the order in which the group names its drives. */
  members: BandMember[];
  /** Bytes that the array's own metadata takes on each member, just before its `offset`. */
  metadata: Bytes;
  /** Whether the loss of the band takes only the data of the failed drives, since each has a file system of its own. */
  independent?: true;
}

/** The length that every member of a band has, in bytes. */
export function heightOf(band: Band): Bytes {
  return band.members[0]?.length ?? 0;
}
