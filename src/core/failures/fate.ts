import type { Band } from "../bands/band";
import { lossClauses } from "../bands/lossClauses";

/** What becomes of a band, a group or a pool when some drives have failed. */
export type Fate =
  /** None of the failed drives belongs to it. */
  | { kind: "whole"; redundancy: number }
  /** Drives are missing but no data is; `redundancy` more can be lost, whichever they are. */
  | { kind: "degraded"; redundancy: number; missing: string[] }
  /** Drives with file systems of their own are lost, `lostDrives`, and nothing else. */
  | { kind: "partly-lost"; missing: string[]; lostDrives: string[]; bands: number[] }
  /** Data is lost; `bands` are the places, in the list that was asked about, of the bands that lost it. */
  | { kind: "lost"; missing: string[]; bands: number[] };

/**
 * What a set of failed drives does to bands that stand or fall together (a group's, or those of a pool that is
 * striped or spanned over its groups).
 *
 * @param bands the bands; without any, nothing is there to lose and the fate is whole with redundancy 0
 * @param failed ids of failed drives; ids of drives that are in no band do nothing
 * @example fateOf(raid5Bands, new Set(["d2"])) // { kind: "degraded", redundancy: 0, missing: ["d2"] }
 */
export function fateOf(bands: readonly Band[], failed: ReadonlySet<string>): Fate {
  const gone = new Set<string>();
  for (const band of bands) for (const member of band.members) if (failed.has(member.drive)) gone.add(member.drive);
  const missing = [...gone];
  const lostBands: number[] = [];
  let redundancy = Infinity;
  bands.forEach((band, index) => {
    for (const clause of lossClauses(band)) {
      let left = clause.tolerance;
      for (const drive of clause.drives) if (failed.has(drive)) left -= 1;
      if (left < 0 && lostBands.at(-1) !== index) lostBands.push(index);
      redundancy = Math.min(redundancy, left);
    }
  });
  if (lostBands.length > 0) {
    const lost = bands.filter((_, index) => lostBands.includes(index));
    if (!lost.every((band) => band.independent)) return { kind: "lost", missing, bands: lostBands };
    const lostDrives = new Set(lost.flatMap(dataMembers).filter((drive) => failed.has(drive)));
    return { kind: "partly-lost", missing, bands: lostBands, lostDrives: [...lostDrives] };
  }
  if (missing.length > 0) return { kind: "degraded", redundancy, missing };
  return { kind: "whole", redundancy: redundancy === Infinity ? 0 : redundancy };
}

/** The members of a band of independent drives that hold data of their own: of a mirror the first, whose it is. */
function dataMembers(band: Band): string[] {
  const drives = band.members.map((member) => member.drive);
  if (band.scheme.kind === "mirror") return drives.slice(0, 1);
  return band.scheme.kind === "dedicated-parity" ? drives.slice(0, drives.length - band.scheme.parity) : drives;
}
