import { formatBytes, type UnitFamily } from "../bytes/formatBytes";
import { lengthWords } from "../time/hoursWords";
import { capital } from "../words/capital";
import { pricePerTBWords } from "../words/money";
import { oneOrMany, plural } from "../words/counted";
import type { Choice } from "./compare";
import type { Figures } from "./figures";
import { isUpToBox, lossShare } from "./measures";

const survives = (name: string, n: number) =>
  n === 0
    ? `if any drive fails, ${name} loses data`
    : `${name} survives the loss of any ${oneOrMany(n, "one drive", "drives")}`;
const percent = (share: number) => `${Math.round(share * 100)} %`;
const rate = (bytes: number) => `${Math.round(bytes / 1e6)} MB/s`;
const moreOrLess = (difference: number) => (difference > 0 ? "more" : "less");

/** Two choices, their figures and what they are called. */
interface Pair {
  first: Figures;
  second: Figures;
  one: string;
  other: string;
  family: UnitFamily;
  currency: string | undefined;
}

/** What can differ, each a sentence, or null where it is the same; the weightiest first. */
const DIFFERENCES: readonly ((pair: Pair) => string | null)[] = [
  ({ first, second, one, other, family }) => {
    const space = first.usableBytes - second.usableBytes;
    return space === 0
      ? null
      : `${one} holds ${formatBytes(Math.abs(space), family)} ${moreOrLess(space)} than ${other}.`;
  },
  ({ first, second, one, other }) =>
    first.tolerance === second.tolerance
      ? null
      : `${capital(survives(one, first.tolerance))}; ${survives(other, second.tolerance)}.`,
  ({ first, second, one, other }) => {
    const failed = Math.max(first.tolerance, second.tolerance) + 1;
    if (isUpToBox(first, failed) || isUpToBox(second, failed)) return null;
    const [lossA, lossB] = [lossShare(first, failed), lossShare(second, failed)].map(percent);
    if (lossA === lossB) return null;
    const fail = plural(failed, "a drive fails", `${failed} drives fail at once`);
    return `If ${fail}, data is lost in ${lossA} of the cases with ${one}, and in ${lossB} with ${other}.`;
  },
  ({ first, second, one, other }) =>
    first.drives === second.drives ? null : `${one} takes ${first.drives} bays, ${other} ${second.drives}.`,
  ({ first, second, one, family }) => {
    const idle = first.idleBytes - second.idleBytes;
    return Math.abs(idle) > 1e9
      ? `${formatBytes(Math.abs(idle), family)} ${moreOrLess(idle)} stay unused with ${one}.`
      : null;
  },
  (pair) => speedDifference(pair, "write"),
  (pair) => speedDifference(pair, "read"),
  rebuildDifference,
  ({ first, second, one, other, currency }) =>
    first.pricePerTB !== null && second.pricePerTB !== null && Math.abs(first.pricePerTB - second.pricePerTB) >= 0.5
      ? `A usable TB costs ${pricePerTBWords(first.pricePerTB, currency)} with ${one}, ` +
        `${pricePerTBWords(second.pricePerTB, currency)} with ${other}.`
      : null,
  ({ first, second, one, other }) => {
    const [a, b] = [first, second].map((figures) => figures.growth.byDrive !== null);
    return a === b ? null : `Only ${a ? one : other} can grow by one drive at a time.`;
  },
];

function speedDifference({ first, second, one, other }: Pair, of: "read" | "write"): string | null {
  if (!first.speed || !second.speed) return null;
  const [a, b] = [rate(first.speed[of]), rate(second.speed[of])];
  return a === b ? null : `${one} ${of}s about ${a}, ${other} about ${b}.`;
}

function rebuildDifference({ first, second, one, other }: Pair): string | null {
  if (!first.rebuild && !second.rebuild) return null;
  if (!first.rebuild || !second.rebuild)
    return `With ${first.rebuild ? other : one}, a failed drive cannot be rebuilt.`;
  const [a, b] = [first.rebuild.expected, second.rebuild.expected];
  return Math.abs(a - b) < 1 ? null : `A rebuild takes ${lengthWords(a)} with ${one}, ${lengthWords(b)} with ${other}.`;
}

/**
 * How one choice differs from another, each difference in a sentence, the weightiest first. Figures that are the same
 * are left out.
 *
 * @example differences(raid6, raid5, "TB")[0] // "RAID 6 holds 4.00 TB less than RAID 5."
 */
export function differences(a: Choice, b: Choice, family: UnitFamily, currency?: string): string[] {
  const same = a.name === b.name;
  const pair: Pair = {
    first: a.figures,
    second: b.figures,
    one: same ? "The first" : a.name,
    other: same ? "the second" : b.name,
    family,
    currency,
  };
  return DIFFERENCES.flatMap((say) => say(pair) ?? []);
}
