import type { OwnFactors } from "../logbook/ownTimes";
import type { BoxRules, Drive, LayoutId, Pool } from "../document/plan";
import { wrongCount } from "../layouts/problemsOfLayout";
import { layoutOf, layouts } from "../layouts/registry";
import { predictPool, type PoolPrediction } from "../prediction/predictPool";
import { nameOfSplit } from "../prediction/nameOfSplit";
import { splitChoices } from "../prediction/splitChoices";
import { capital } from "../words/capital";
import { counted } from "../words/counted";
import { listOf } from "../words/listOf";
import type { ChanceSetting } from "./choiceChance";
import { figuresOf, type Figures } from "./figures";
import { bestSplits } from "./splits";

/** One way to make a pool of some drives: its groups, what is predicted of it, and what it is compared by. */
export interface Choice {
  /** Made of its layouts and drives, so that the same choice has the same id in every comparison. */
  id: string;
  /** For instance "RAID 5", "RAID 50" or "RAID 5 + RAID 1". */
  name: string;
  /** What the name leaves open: how the drives are parted, which are left out; empty for one group of all drives. */
  detail: string;
  groups: { layout: LayoutId; drives: string[] }[];
  /** Ids of the drives that it does without. */
  leftOut: string[];
  pool: PoolPrediction;
  figures: Figures;
}

/** A layout that cannot be made of the drives, and what is missing. */
export interface Impossible {
  layout: LayoutId;
  reason: string;
}

/** Every layout and every split worth a look, for some drives on a box. */
export interface Comparison {
  choices: Choice[];
  impossible: Impossible[];
  /** Whether every way to part the drives was weighed. */
  exact: boolean;
}

/** What a comparison is made of. */
export interface CompareRequest {
  drives: readonly Drive[];
  rules: BoxRules;
  /** What the network carries, in bytes per second. */
  network: number;
  /** Whether every way to part up to 12 drives is weighed; otherwise only layouts and equal groups. */
  splits: boolean;
  /** How the box differs from the usual rates. */
  own?: OwnFactors;
  /** What chances of loss are worked out with; none, where they are not. */
  chances?: ChanceSetting;
}

type Outline = Pick<Choice, "name" | "detail" | "groups" | "leftOut">;

const idOf = (groups: Outline["groups"]) =>
  groups
    .map((group) => `${group.layout}:${[...group.drives].sort().join("+")}`)
    .sort()
    .join("|");

function nameOf(groups: Outline["groups"]): string {
  const [first] = groups;
  const ids = [...new Set(groups.map((group) => group.layout))];
  if (!first) return "";
  if (ids.length > 1)
    return ids
      .map((id) => {
        const n = groups.filter((group) => group.layout === id).length;
        return `${n > 1 ? `${n} × ` : ""}${layoutOf(id).shortName}`;
      })
      .join(" + ");
  const short = layoutOf(first.layout).shortName;
  if (groups.length === 1) return short;
  const equal = groups.every((group) => group.drives.length === first.drives.length);
  const trade = equal ? nameOfSplit(first.layout, groups.length, first.drives.length) : null;
  return trade ? capital(trade) : `${groups.length} × ${short}`;
}

function detailOf(groups: Outline["groups"], leftOut: readonly string[]): string {
  const sizes = groups.map((group) => group.drives.length);
  const alike = sizes.every((size) => size === sizes[0]);
  const parts =
    groups.length < 2 ? "" : alike ? `${sizes.length} groups of ${sizes[0]}` : `groups of ${listOf(sizes.map(String))}`;
  const without = leftOut.length > 0 ? `without ${counted(leftOut.length, "drive")}` : "";
  return [parts, without].filter(Boolean).join(", ");
}

/** The layouts over all drives, the equal splits that the trade has names for, and what the search adds to them. */
function outlines({ drives, rules, splits }: CompareRequest): {
  outlines: Outline[];
  impossible: Impossible[];
  exact: boolean;
} {
  const ids = drives.map((drive) => drive.id);
  const offered = layouts.filter((layout) => rules.layouts.includes(layout.id));
  const impossible = offered.flatMap((layout): Impossible[] => {
    const reason = wrongCount(layout, drives.length, rules);
    return reason ? [{ layout: layout.id, reason }] : [];
  });
  const wrong = new Set(impossible.map((each) => each.layout));
  const plain = offered
    .filter((layout) => !wrong.has(layout.id))
    .map((layout) => ({ groups: [{ layout: layout.id, drives: ids }], leftOut: [] as string[] }));
  const equal = splitChoices(drives, rules).map(({ groups, layout }) => ({
    groups: groups.map((group) => ({ layout, drives: group })),
    leftOut: [] as string[],
  }));
  const search = splits ? bestSplits(drives, rules) : { splits: [], exact: false };
  const seen = new Set<string>();
  const all = [...plain, ...equal, ...search.splits].filter(({ groups }) => {
    const id = idOf(groups);
    return !seen.has(id) && seen.add(id);
  });
  return {
    outlines: all.map(({ groups, leftOut }) => ({
      name: nameOf(groups),
      detail: detailOf(groups, leftOut),
      groups,
      leftOut,
    })),
    impossible,
    exact: search.exact,
  };
}

/** A pool of these groups, as the plan document would keep it. */
export const poolOf = (groups: Outline["groups"]): Pool => ({
  id: "p",
  name: "",
  groups: groups.map((group, g) => ({ id: `g${g + 1}`, ...group })),
  spares: [],
  volumes: [],
});

/**
 * Compares everything that can be made of some drives on a box, a choice at a time, so that the caller can show how
 * far it is and stop.
 *
 * @yields the share that is done, 0 to 1
 * @returns the comparison; layouts that cannot be made, or that the drives have no room for, are among the impossible
 */
export function* compareSteps(request: CompareRequest): Generator<number, Comparison> {
  const { drives, rules, network, own, chances } = request;
  const driveOf = new Map(drives.map((drive) => [drive.id, drive]));
  if (drives.length === 0) return { choices: [], impossible: [], exact: true };
  const { outlines: all, impossible, exact } = outlines(request);
  yield 0.3;
  const choices: Choice[] = [];
  for (const [i, outline] of all.entries()) {
    const pool = predictPool(poolOf(outline.groups), driveOf, rules, "", "TB", undefined, own);
    const [only] = outline.groups;
    if (pool.usableBytes > 0)
      choices.push({
        ...outline,
        id: idOf(outline.groups),
        pool,
        figures: figuresOf(pool, driveOf, rules, network, chances),
      });
    else if (outline.groups.length === 1 && only)
      impossible.push({ layout: only.layout, reason: "The smallest drive has no space left for it." });
    yield 0.3 + (0.7 * (i + 1)) / all.length;
  }
  return { choices, impossible, exact };
}

/**
 * The whole comparison at once.
 *
 * @example compareDrives({ drives: threeOf4TB, rules: rulesOf({ set: "classic-raid" }), network: 117e6, splits: true }).choices.map(({ name }) => name)
 * // ["RAID 1", "RAID 5", "Separate", "Span", "RAID 0"]
 */
export function compareDrives(request: CompareRequest): Comparison {
  const steps = compareSteps(request);
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}
