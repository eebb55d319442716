import { formatBytes, type UnitFamily } from "../bytes/formatBytes";
import type { Choice } from "./compare";
import { lossShare } from "./measures";

const drivesWord = (n: number) => (n === 0 ? "no drive may" : n === 1 ? "any one drive may" : `any ${n} drives may`);
const percent = (share: number) => `${Math.round(share * 100)} %`;
const rate = (bytes: number) => `${Math.round(bytes / 1e6)} MB/s`;

/**
 * How one choice differs from another, each difference in a sentence, the weightiest first. Figures that are the same
 * are passed over.
 *
 * @example differences(raid6, raid5, "TB")[0] // "RAID 6 holds 4.00 TB less than RAID 5."
 */
export function differences(a: Choice, b: Choice, family: UnitFamily): string[] {
  const [first, second] = [a.figures, b.figures];
  const one = a.name === b.name ? "The first" : a.name;
  const other = a.name === b.name ? "the second" : b.name;
  const said: string[] = [];
  const space = first.usableBytes - second.usableBytes;
  if (space !== 0)
    said.push(`${one} holds ${formatBytes(Math.abs(space), family)} ${space > 0 ? "more" : "less"} than ${other}.`);
  if (first.tolerance !== second.tolerance)
    said.push(`With ${one}, ${drivesWord(first.tolerance)} fail; with ${other}, ${drivesWord(second.tolerance)}.`);
  const failed = Math.max(first.tolerance, second.tolerance) + 1;
  const [lossA, lossB] = [lossShare(first, failed), lossShare(second, failed)];
  if (Math.round(lossA * 100) !== Math.round(lossB * 100))
    said.push(
      `If ${failed === 1 ? "a drive fails" : `${failed} drives fail at once`}, data is lost in ${percent(lossA)} of the cases with ${one}, and in ${percent(lossB)} with ${other}.`,
    );
  if (first.drives !== second.drives) said.push(`${one} takes ${first.drives} bays, ${other} ${second.drives}.`);
  const idle = first.idleBytes - second.idleBytes;
  if (Math.abs(idle) > 1e9)
    said.push(`${formatBytes(Math.abs(idle), family)} ${idle > 0 ? "more" : "less"} lie idle with ${one}.`);
  if (first.speed && second.speed && Math.round(first.speed.write / 1e6) !== Math.round(second.speed.write / 1e6))
    said.push(`${one} writes about ${rate(first.speed.write)}, ${other} about ${rate(second.speed.write)}.`);
  if (first.speed && second.speed && Math.round(first.speed.read / 1e6) !== Math.round(second.speed.read / 1e6))
    said.push(`${one} reads about ${rate(first.speed.read)}, ${other} about ${rate(second.speed.read)}.`);
  if (first.rebuild && second.rebuild && Math.abs(first.rebuild.expected - second.rebuild.expected) >= 1)
    said.push(
      `A rebuild takes about ${Math.round(first.rebuild.expected)} h with ${one}, about ${Math.round(second.rebuild.expected)} h with ${other}.`,
    );
  if (first.rebuild === null && second.rebuild !== null) said.push(`With ${one}, a failed drive cannot be rebuilt.`);
  if (first.rebuild !== null && second.rebuild === null) said.push(`With ${other}, a failed drive cannot be rebuilt.`);
  if (first.pricePerTB !== null && second.pricePerTB !== null && Math.abs(first.pricePerTB - second.pricePerTB) >= 0.5)
    said.push(
      `A usable TB costs ${first.pricePerTB.toFixed(1)} with ${one}, ${second.pricePerTB.toFixed(1)} with ${other}.`,
    );
  const byDrive = (choice: Choice) => choice.figures.growth.byDrive !== null;
  if (byDrive(a) !== byDrive(b)) said.push(`Only ${byDrive(a) ? one : other} can grow by one drive at a time.`);
  return said;
}
