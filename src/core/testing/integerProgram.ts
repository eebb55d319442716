import { TiB } from "../bytes/bytes";
import type { LayoutId } from "../document/plan";
import type { Instance } from "../bestWay/instance";

// The question of the best way as an integer program over time, for a general solver: for each bay and year which size
// stands in it, and which was bought. It shares nothing with the search but the instance. Sizes are whole TiB, and a
// year is a month of the instance.

/** What can stand in a bay: 0 for nothing. The old size of a bay is one of them. */
interface Model {
  bays: number;
  years: number;
  sizes: number[];
  old: number[];
  lines: string[];
  binaries: Set<string>;
}

const stands = (bay: number, size: number, year: number) => `y_${bay}_${size}_${year}`;
const buys = (bay: number, size: number, year: number) => `b_${bay}_${size}_${year}`;

const sum = (terms: readonly string[]): string => (terms.length > 0 ? terms.join(" + ").replaceAll("+ -", "- ") : "0");

/** Each bay holds one thing each year, never a smaller one than before, and what was not there before was bought. */
function standing({ bays, years, sizes, old, lines, binaries }: Model, prices: (size: number, year: number) => number) {
  for (let bay = 0; bay < bays; bay += 1)
    for (let year = 0; year < years; year += 1) {
      lines.push(`${sum(sizes.map((size) => stands(bay, size, year)))} = 1`);
      sizes.forEach((size) => binaries.add(stands(bay, size, year)));
      for (const size of sizes) {
        const smaller = sizes.filter((each) => each < size);
        const before = size === old[bay] ? 1 : 0;
        if (year > 0)
          for (const less of smaller) lines.push(`${stands(bay, size, year - 1)} + ${stands(bay, less, year)} <= 1`);
        else if (before === 1) for (const less of smaller) lines.push(`${stands(bay, less, 0)} = 0`);
        if (size === 0) continue;
        const was = year > 0 ? ` + ${stands(bay, size, year - 1)}` : "";
        lines.push(`${buys(bay, size, year)} - ${stands(bay, size, year)}${was} >= ${year > 0 ? 0 : -before}`);
        binaries.add(buys(bay, size, year));
        if (prices(size, year) === Infinity) lines.push(`${buys(bay, size, year)} = 0`);
      }
    }
}

/** A drive joins in an empty bay only if it is as large as the largest, or the smallest, was before. */
function joining({ bays, years, sizes, old, lines }: Model, asLargest: boolean) {
  for (let bay = 0; bay < bays; bay += 1)
    for (let year = 0; year < years; year += 1)
      for (const size of sizes.filter((each) => each > 0)) {
        const wasEmpty = year > 0 ? [stands(bay, 0, year - 1)] : [];
        if (year === 0 && old[bay] !== 0) continue;
        // One that was there before and is larger (or, where the smallest counts, all of them) forbids it.
        const others = Array.from({ length: bays }, (_, each) => each).filter((each) => each !== bay);
        if (asLargest)
          for (const other of others)
            for (const larger of sizes.filter((each) => each > size)) {
              if (year === 0 && old[other] !== larger) continue;
              const there = year > 0 ? [stands(other, larger, year - 1)] : [];
              lines.push(
                `${sum([stands(bay, size, year), ...wasEmpty, ...there])} <= ${wasEmpty.length + there.length}`,
              );
            }
        else {
          const fitting = others.flatMap((other) =>
            sizes.filter((each) => each > 0 && each <= size).map((each) => ({ other, each })),
          );
          if (year > 0)
            lines.push(
              `${sum([stands(bay, size, year), ...wasEmpty])} - ${fitting.map(({ other, each }) => stands(other, each, year - 1)).join(" - ")} <= 1`,
            );
          else if (!fitting.some(({ other, each }) => old[other] === each)) lines.push(`${stands(bay, size, 0)} = 0`);
        }
      }
}

const held = ({ bays, sizes }: Model, year: number): string[] =>
  Array.from({ length: bays }, (_, bay) => bay).flatMap((bay) =>
    sizes.filter((size) => size > 0).map((size) => `${size} ${stands(bay, size, year)}`),
  );

/** How what a layout holds is written down here, on its own. */
interface Form {
  /** As many drives hold parity, of one band. */
  oneBand?: number;
  /** Each place is two equal drives. */
  pairs?: boolean;
  /** Each byte lies on two drives, whichever. */
  twice?: boolean;
  /** Cut at each size, so that what joins may have to be as large as the largest. */
  cut?: boolean;
}

const FORMS: Partial<Record<LayoutId, Form>> = {
  raid5: { oneBand: 1 },
  raid6: { oneBand: 2 },
  raid1: { pairs: true },
  "copies-2": { twice: true },
  "hybrid-1": { cut: true },
};

/** What is stored fits each year, by the formulas of the trade. */
function holding(model: Model, { oneBand: parity, pairs, twice }: Form, needs: readonly number[]) {
  const { bays, years, sizes, lines, binaries } = model;
  for (let year = 0; year < years; year += 1) {
    const need = needs[year]!;
    if (parity !== undefined) {
      const counts = Array.from({ length: bays - parity }, (_, i) => i + parity + 1);
      const chosen = (count: number) => `z_${count}_${year}`;
      counts.forEach((count) => binaries.add(chosen(count)));
      lines.push(`${sum(counts.map(chosen))} = 1`);
      const there = Array.from({ length: bays }, (_, bay) => bay).flatMap((bay) =>
        sizes.filter((size) => size > 0).map((size) => stands(bay, size, year)),
      );
      lines.push(`${sum(there)} - ${counts.map((count) => `${count} ${chosen(count)}`).join(" - ")} = 0`);
      for (const count of counts)
        for (let bay = 0; bay < bays; bay += 1)
          for (const size of sizes)
            if (size > 0 && size * (count - parity) < need)
              lines.push(`${stands(bay, size, year)} + ${chosen(count)} <= 1`);
      continue;
    }
    if (pairs) {
      lines.push(`${sum(held(model, year))} >= ${need}`);
      continue;
    }
    // The largest drive holds nothing that is not elsewhere.
    const largest = `m_${year}`;
    for (let bay = 0; bay < bays; bay += 1)
      for (const size of sizes) if (size > 0) lines.push(`${largest} - ${size} ${stands(bay, size, year)} >= 0`);
    lines.push(`${sum(held(model, year))} - ${largest} >= ${need}`);
    if (twice) lines.push(`${sum(held(model, year))} >= ${2 * need}`);
  }
}

/**
 * An instance of one group, or of pairs of equal drives, as an integer program in the LP format.
 *
 * @example highs.solve(integerProgram(instance)).ObjectiveValue // in cents
 */
export function integerProgram(instance: Instance): string {
  const [layout] = instance.layouts as [LayoutId];
  const form = FORMS[layout];
  if (!form) throw new Error(`No program is written for ${layout}.`);
  const { pairs = false, twice = false, cut = false } = form;
  const owned = pairs
    ? instance.groups.map(({ drives }) => drives[0]!.drive.bytes / TiB)
    : instance.groups[0]!.drives.map(({ drive }) => drive.bytes / TiB);
  const bays = pairs ? Math.floor(instance.bays / 2) : instance.bays;
  const sold = new Map(instance.sold.map(({ bytes, cents }) => [bytes / TiB, cents]));
  const model: Model = {
    bays,
    years: instance.months,
    sizes: [...new Set([0, ...owned, ...sold.keys()])].sort((a, b) => a - b),
    old: Array.from({ length: bays }, (_, bay) => owned[bay] ?? 0),
    lines: [],
    binaries: new Set(),
  };
  const price = (size: number, year: number) => sold.get(size)?.[year] ?? Infinity;
  standing(model, price);
  if (!pairs && !twice) joining(model, cut && instance.rules.joining === "as-largest-member");
  holding(
    model,
    form,
    [...instance.needs].map((need) => need / TiB),
  );
  const costs = Array.from({ length: bays }, (_, bay) => bay).flatMap((bay) =>
    model.sizes.flatMap((size) =>
      Array.from({ length: model.years }, (_, year) => ({
        name: buys(bay, size, year),
        cents: price(size, year),
      })).filter(({ cents }) => size > 0 && cents < Infinity),
    ),
  );
  return [
    "Minimize",
    ` cost: ${sum(costs.map(({ name, cents }) => `${cents * (pairs ? 2 : 1)} ${name}`))}`,
    "Subject To",
    ...model.lines.map((line, i) => ` c${i}: ${line}`),
    "Binary",
    ` ${[...model.binaries].join(" ")}`,
    "End",
  ].join("\n");
}
