import { hoursWords, lengthWords } from "@/core/time/hoursWords";
import { formatBytes, type UnitFamily } from "@/core/bytes/formatBytes";
import { ofBoxes, shortChanceWords } from "@/core/chance/chanceWords";
import type { Choice } from "@/core/compare/compare";
import type { Figures } from "@/core/compare/figures";
import { isUpToBox, lossShare, type Measure } from "@/core/compare/measures";
import type { NearestChange } from "@/core/compare/nearestChange";
import { shortSize } from "@/core/drives/nameOfDrive";
import { pricePerTBWords } from "@/core/words/money";
import { counted, oneOrMany, plural } from "@/core/words/counted";

const percent = (share: number) =>
  share > 0 && share < 0.01 ? "under 1 %" : share < 1 && share > 0.99 ? "over 99 %" : `${Math.round(share * 100)} %`;
const megabytes = (rate: number) => String(Math.round(rate / 1e6));

/** "any 2 drives", "no drive". */
export const toleranceShort = (tolerance: number) =>
  tolerance === 0 ? "no drive" : `any ${counted(tolerance, "drive")}`;

/** What the failure after those it bears does: "33 % of all pairs". */
export function nextFailureWords(figures: Figures): string {
  const failed = figures.tolerance + 1;
  const counted = figures.survival.find((each) => each.failed === failed);
  if (!counted) return isUpToBox(figures, failed) ? "up to the box" : "all drives gone";
  const survived = 1 - lossShare(figures, failed);
  if (survived === 0 && figures.independent) return "all but what is on them";
  return survived === 0 ? "never" : `in ${percent(survived)} of cases`;
}

const ORDINALS = ["1st", "2nd", "3rd", "4th"];
/** "a 2nd failure". */
export const nextFailureName = (figures: Figures) =>
  `Survives a ${ORDINALS[figures.tolerance] ?? `${figures.tolerance + 1}th`} failure`;

/** "117 / 75 MB/s (network / drives)": how fast, and what holds it back. */
export function speedWords(figures: Figures): string {
  const { speed } = figures;
  if (!speed) return "not known";
  const limit = speed.readLimit === speed.writeLimit ? speed.readLimit : `${speed.readLimit} / ${speed.writeLimit}`;
  return `${megabytes(speed.read)} / ${megabytes(speed.write)} MB/s (${limit})`;
}

/** "as 1.5 drives": what many small writes at once come to. */
export const smallWritesWords = ({ speed }: Figures): string =>
  speed
    ? `as ${oneOrMany(Number(speed.smallWrites.toFixed(speed.smallWrites < 10 ? 1 : 0)), "one drive", "drives")}`
    : "not known";

/** "25 h (16 to 40)". */
export function rebuildWords(figures: Figures): string {
  const { rebuild } = figures;
  return rebuild ? hoursWords(rebuild) : "not possible";
}

/** What is read of the other drives for it. */
export const rebuildReadsWords = ({ rebuildReads }: Figures, unit: UnitFamily): string =>
  rebuildReads === null ? "–" : formatBytes(rebuildReads, unit);

export const priceWords = (figures: Figures, currency: string | undefined) =>
  figures.pricePerTB === null ? "no prices" : pricePerTBWords(figures.pricePerTB, currency);

/** "95 of 1,000 (30 to 700)", in ten years. */
export const chanceOfLoss = ({ chance, chanceRange }: Figures): string =>
  chance === null
    ? "not known"
    : chance.isBound
      ? `at most ${ofBoxes(chance.tenYears)}`
      : shortChanceWords(chanceRange?.tenYears ?? chance.tenYears);

/** How it can grow, shortest first. */
export function growthWords({ growth }: Figures, unit: UnitFamily): string {
  const ways = [
    growth.byDrive
      ? "1 " +
        `drive${growth.byDrive.leastBytes > 1 ? ` (${shortSize({ bytes: growth.byDrive.leastBytes }, unit)} up)` : ""}`
      : "",
    growth.byGroup ? `${growth.byGroup.drives} drives` : "",
    "all larger",
  ];
  return ways.filter(Boolean).join(", ");
}

/** A measure's figure with its unit, for tables and for the line that a card is sorted by. */
export function measureWords(
  measure: Measure,
  figures: Figures,
  unit: UnitFamily,
  currency: string | undefined,
): string {
  const value = measure.of(figures);
  if (value === null) return "–";
  switch (measure.unit) {
    case "bytes":
      return formatBytes(value, unit);
    case "share":
      return percent(value);
    case "rate":
      return `${megabytes(value)} MB/s`;
    case "hours":
      return lengthWords(value);
    case "money per TB":
      return pricePerTBWords(value, currency);
    case "chance":
      return ofBoxes(value);
    case "drives":
    case "":
      return String(value);
  }
}

/** "with one more 8 TB drive". */
export function changeWords(change: NearestChange, unit: UnitFamily): string {
  const size = shortSize(change, unit);
  return change.kind === "add"
    ? `with ${oneOrMany(change.count, `one more ${size} drive`, `more ${size} drives`)}`
    : `with the ${plural(change.count, "smallest drive", `${change.count} smallest`)} replaced by ${size}`;
}

/** A choice in a line: its name and how the drives are parted. */
export const choiceName = (choice: Pick<Choice, "name" | "detail">) =>
  choice.detail ? `${choice.name}, ${choice.detail}` : choice.name;
