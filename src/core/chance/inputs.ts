/** The hours of a year, as all rates a year are turned into rates an hour. */
export const HOURS_A_YEAR = 8766;

/** A value that is not known exactly. */
export interface Spread {
  low: number;
  expected: number;
  high: number;
}

/** What a value of an input counts, for those who read or type it. */
export type InputUnit = "share-a-year" | "times" | "per-byte" | "per-hour" | "hours" | "a-year" | "share" | "days";

/** One input of the chance of loss: its usual values, and where they are from. */
export interface InputEntry extends Spread {
  unit: InputUnit;
  /** For the owner. */
  name: string;
  /** The papers that it is from; null where there is no study, and it is assumed. */
  source: string | null;
}

const PINHEIRO = "Pinheiro, Weber, Barroso 2007";

/** Yearly failure rates of hard disks in their first to eighth year, low, expected and high, in per cent. */
const DISK_YEARS: readonly (readonly [number, number, number])[] = [
  [0.8, 1.5, 5],
  [0.6, 1.4, 8],
  [0.8, 1.7, 8.6],
  [1, 2.2, 8],
  [1.2, 3, 9],
  [1.5, 4, 11],
  [2, 5.5, 13],
  [3, 7, 15],
];

const diskYear = (year: number): InputEntry => {
  const [low, expected, high] = DISK_YEARS[year - 1] ?? [0, 0, 0];
  return {
    name: `Hard disk fails, year ${year} of its age`,
    unit: "share-a-year",
    low: low / 100,
    expected: expected / 100,
    high: high / 100,
    source: `${PINHEIRO}; Schroeder, Gibson 2007`,
  };
};

const entry = (
  name: string,
  unit: InputUnit,
  [low, expected, high]: readonly [number, number, number],
  source: string | null = null,
): InputEntry => ({ name, unit, low, expected, high, source });

/**
 * All inputs of the chance of loss that the owner may change, with their usual values. Rates a year are shares (0.015
 * is 1.5 %), all others as their unit says.
 */
export const USUAL_INPUTS = {
  diskYear1: diskYear(1),
  diskYear2: diskYear(2),
  diskYear3: diskYear(3),
  diskYear4: diskYear(4),
  diskYear5: diskYear(5),
  diskYear6: diskYear(6),
  diskYear7: diskYear(7),
  diskYear8: diskYear(8),
  flash: entry("Flash drive fails", "share-a-year", [0.003, 0.01, 0.025], "Schroeder, Lagisetty, Merchant 2016"),
  worn: entry("A worn drive fails more often", "times", [3, 8, 20], PINHEIRO),
  failing: entry("A failing drive fails more often", "times", [15, 40, 100], PINHEIRO),
  unreadable: entry(
    "Unreadable when it is read",
    "per-byte",
    [8e-17, 8e-16, 8e-15],
    "Gray, van Ingen 2005; high: the makers’ 1 in 10^15 bits",
  ),
  latent: entry(
    "Sectors that go bad unseen, of each drive",
    "per-hour",
    [2e-6, 8e-6, 1e-4],
    "Bairavasundaram and others 2007; Elerath, Pecht 2009",
  ),
  noticeWithAlerts: entry("Until a failure is noticed, with alerts", "hours", [4, 24, 72]),
  noticeWithout: entry("Until a failure is noticed, without alerts", "hours", [168, 720, 2160]),
  deliveryFromShelf: entry("Until a drive from the shelf is in", "hours", [8, 24, 72]),
  deliveryOrdered: entry("Until an ordered drive is in", "hours", [48, 96, 240]),
  stress: entry("The others fail more often while one is out", "times", [1, 2, 5]),
  badBatch: entry("A bad batch, one of ten, fails more often", "times", [1, 4, 8]),
  theftOrFire: entry("Theft or fire", "share-a-year", [0.001, 0.003, 0.01]),
  deletion: entry("Deletion by mistake", "share-a-year", [0.02, 0.1, 0.3]),
  powerCuts: entry("Power cuts", "a-year", [0.5, 1, 6]),
  damageOfLevelChange: entry("A power cut in a change of level costs data", "share", [0.3, 0.8, 1]),
  damageOfWidening: entry("A power cut in a widening costs data", "share", [0, 0.02, 0.1]),
  restoreFailsTested: entry("A tested backup cannot be restored", "share", [0.01, 0.03, 0.1]),
  restoreFailsUntested: entry("A backup that was not tested cannot be restored", "share", [0.1, 0.25, 0.5]),
  daysUntilDeletionNoticed: entry("Until a deletion is noticed", "days", [3, 14, 60]),
} as const satisfies Record<string, InputEntry>;

/** An input by its name, as plan files name it. */
export type InputName = keyof typeof USUAL_INPUTS;

export const INPUT_NAMES = Object.keys(USUAL_INPUTS) as InputName[];

/** One value of each input. */
export type Point = Readonly<Record<InputName, number>>;

/** Inputs that are moved together, since what is not known of one is not known of the others. */
export const MOVED_TOGETHER: readonly (readonly InputName[])[] = [
  ["diskYear1", "diskYear2", "diskYear3", "diskYear4", "diskYear5", "diskYear6", "diskYear7", "diskYear8"],
  ...INPUT_NAMES.filter((name) => !name.startsWith("diskYear")).map((name): InputName[] => [name]),
];

/** Values that an owner has set, by the names of the inputs. */
export type OwnInputs = Readonly<Partial<Record<InputName, Spread>>>;

/**
 * Low, expected and high of an input: the owner's, or the usual ones.
 *
 * @example spreadOf("stress", {}) // { low: 1, expected: 2, high: 5, … }
 */
export const spreadOf = (name: InputName, own: OwnInputs): Spread => own[name] ?? USUAL_INPUTS[name];

/**
 * One value of each input: the expected ones, but for some that are at one end of their range.
 *
 * @example pointOf({}, { names: ["stress"], end: "high" }).stress // 5
 */
export function pointOf(own: OwnInputs, moved?: { names: readonly InputName[]; end: "low" | "high" }): Point {
  const values = INPUT_NAMES.map((name) => {
    const spread = spreadOf(name, own);
    return [name, moved?.names.includes(name) ? spread[moved.end] : spread.expected] as const;
  });
  return Object.fromEntries(values) as Record<InputName, number>;
}
