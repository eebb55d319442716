import type { Band } from "./band";

/** Data is lost when more than `tolerance` of `drives` have failed. */
export interface LossClause {
  drives: string[];
  tolerance: number;
}

/**
 * What it takes to lose data of a band: it is lost when any of its clauses is fulfilled. Everything about failures
 * (fate, tolerance, counting) is worked out from these.
 *
 * @example lossClauses(mirrorOf("d1", "d2")) // [{ drives: ["d1", "d2"], tolerance: 1 }]
 */
export function lossClauses(band: Band): LossClause[] {
  const known = ofBand.get(band);
  if (known) return known;
  const clauses = clausesOf(band);
  ofBand.set(band, clauses);
  return clauses;
}

// Bands are never changed, and are asked about again and again.
const ofBand = new WeakMap<Band, LossClause[]>();

function clausesOf(band: Band): LossClause[] {
  const drives = band.members.map((member) => member.drive);
  switch (band.scheme.kind) {
    case "stripe":
    case "single":
      return [{ drives, tolerance: 0 }];
    case "mirror":
      return [{ drives, tolerance: drives.length - 1 }];
    case "striped-mirrors":
      return mirroredNeighbours(drives).map((pair) => ({ drives: pair, tolerance: 1 }));
    case "chunk-parity":
    case "dedicated-parity":
    case "parity":
      return [{ drives, tolerance: band.scheme.parity }];
  }
}

/**
 * Which drives hold the two copies of some stripe: pairs for an even count, all neighbours round the ring for an odd
 * one.
 */
function mirroredNeighbours(drives: readonly string[]): string[][] {
  const even = drives.length % 2 === 0;
  return drives.flatMap((drive, i) => {
    if (even && i % 2 === 1) return [];
    const other = drives[(i + 1) % drives.length];
    return other === undefined || other === drive ? [] : [[drive, other]];
  });
}
