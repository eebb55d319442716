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
  const drives = band.members.map((member) => member.drive);
  switch (band.scheme.kind) {
    case "stripe":
      return [{ drives, tolerance: 0 }];
    case "mirror":
      return [{ drives, tolerance: drives.length - 1 }];
    case "parity":
      return [{ drives, tolerance: band.scheme.parity }];
  }
}
