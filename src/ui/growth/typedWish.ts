import { demandOf } from "@/core/bestWay/demand";
import { centsIn } from "@/core/bestWay/instance";
import { beginningsIn, layoutsOfPool, levelsFor } from "@/core/bestWay/levels";
import { type GrowthWish, pricesOf, USUAL_FALL } from "@/core/bestWay/wish";
import { formatBytes, type UnitFamily } from "@/core/bytes/formatBytes";
import { parseSize } from "@/core/bytes/parseSize";
import { dataSetsIn } from "@/core/data/stored";
import type { LayoutId, Plan } from "@/core/document/plan";
import { layoutOf } from "@/core/layouts/registry";
import { DEFAULT_HEADROOM } from "@/core/ledger/volumes";

/** What was typed and chosen; an empty text leaves it to what is usual. */
export interface TypedWish {
  pool: string | null;
  years: number;
  /** As typed; empty where the data sets tell. */
  now: string;
  perMonth: string;
  keepFree: string;
  survives: number;
  bays: string;
  fall: string;
  perYear: string;
  retire: string;
  running: string;
  aim: GrowthWish["aim"];
  mostActs: string;
  /** The level that it has, any that it can be brought to, or one of them; a layout where there is no pool yet. */
  layout: "as-it-is" | "any-level" | LayoutId;
  pairs: "equal" | "any";
}

/** What is asked, or which field is wrong and why. */
export type ReadWish =
  | { ok: true; wish: GrowthWish; perYear: number | null; mostActs: number | null }
  | { ok: false; field: keyof TypedWish; message: string };

/** What is wished to begin with. */
export function usualWish(plan: Plan): TypedWish {
  const pool = plan.pools[0];
  const bears = pool?.groups.map(({ layout, options }) => layoutOf(layout).nominalTolerance(options ?? {})) ?? [1];
  const headroom = pool?.volumes.at(-1)?.headroomShare ?? DEFAULT_HEADROOM;
  return {
    pool: pool?.id ?? null,
    years: 5,
    now: "",
    perMonth: "",
    keepFree: String(Math.round(headroom * 100)),
    survives: Math.min(2, Math.max(0, ...bears)),
    bays: String(plan.box.bays),
    fall: String(USUAL_FALL * 100),
    perYear: "",
    retire: "",
    running: "",
    aim: "money",
    mostActs: "",
    layout: pool ? "as-it-is" : "any-level",
    pairs: "equal",
  };
}

/** What the data sets of a pool say: stored now, and more a month over the first year; null where there are none. */
export function storedOf(plan: Plan, pool: string | null, unit: UnitFamily): { now: string; perMonth: string } | null {
  if (pool === null || dataSetsIn(plan, pool).length === 0) return null;
  const demand = demandOf(plan, pool, 13);
  const [first = 0, later = 0] = [demand[0], demand[12]];
  const monthly = Math.max(0, Math.round((later - first) / 12));
  return { now: formatBytes(Math.max(0, first - monthly), unit), perMonth: formatBytes(monthly, unit) };
}

const numberIn = (text: string): number => (text.trim() === "" ? NaN : Number(text.trim().replace(",", ".")));

/** A number in its limits; null where nothing was typed; undefined where it is none. */
function limited(text: string, least: number, most: number): number | null | undefined {
  if (text.trim() === "") return null;
  const value = numberIn(text);
  return Number.isFinite(value) && value >= least && value <= most ? value : undefined;
}

function sizeOf(text: string): number | null | undefined {
  if (text.trim() === "") return null;
  if (/^0+([.,]0+)?\s*[kmgtp]?i?b?$/i.test(text.trim())) return 0;
  const read = parseSize(text);
  return read.ok ? read.size.bytes : undefined;
}

/** The demand month by month: as typed, or as the data sets grow. */
function demandFor(plan: Plan, typed: TypedWish, months: number): readonly number[] | keyof TypedWish | null {
  const [now, more] = [sizeOf(typed.now), sizeOf(typed.perMonth)];
  if (now === undefined) return "now";
  if (more === undefined) return "perMonth";
  const known = typed.pool !== null && dataSetsIn(plan, typed.pool).length > 0;
  if (now === null && more === null) return known ? demandOf(plan, typed.pool ?? "", months) : null;
  const told = known ? demandOf(plan, typed.pool ?? "", 13) : [];
  const monthly = more ?? ((told[12] ?? 0) - (told[0] ?? 0)) / 12;
  const start = now ?? Math.max(0, (told[0] ?? 0) - monthly);
  return Array.from({ length: months }, (_, month) => Math.round(start + monthly * (month + 1)));
}

function layoutsFor(plan: Plan, { pool: id, layout: wanted }: TypedWish): LayoutId[] {
  const pool = plan.pools.find((each) => each.id === id);
  const own = layoutsOfPool(pool);
  if (wanted === "as-it-is") return own;
  if (!pool || own.length === 0) return wanted === "any-level" ? beginningsIn(plan) : [wanted];
  return levelsFor(plan, pool, wanted === "any-level" ? undefined : wanted);
}

const WRONG: Partial<Record<keyof TypedWish, string>> = {
  now: "Type a size, like 9.4 TB.",
  perMonth: "Type a size, like 220 GB; 0 where nothing is added.",
  keepFree: "Type a share from 0 to 90 %.",
  bays: "Type how many bays, from 1 to 24.",
  fall: "Type a share from 0 to 90 %.",
  perYear: "Type an amount, or leave it empty.",
  retire: "Type years from 1 to 20, or leave it empty.",
  running: "Type an amount, or leave it empty.",
  mostActs: "Type a whole number, or leave it empty.",
};

/** What was typed as a wish, or the first field that is wrong. */
export function readWish(plan: Plan, typed: TypedWish): ReadWish {
  const wrong = (field: keyof TypedWish): ReadWish => ({ ok: false, field, message: WRONG[field] ?? "" });
  const months = typed.years * 12;
  const demand = demandFor(plan, typed, months);
  if (demand === null)
    return { ok: false, field: "now", message: "Say what is stored now: the plan has no data sets that tell." };
  if (typeof demand === "string") return wrong(demand as keyof TypedWish);
  const numbers = {
    keepFree: limited(typed.keepFree, 0, 90),
    bays: limited(typed.bays, 1, 24),
    fall: limited(typed.fall, 0, 90),
    perYear: limited(typed.perYear, 0, 1e6),
    retire: limited(typed.retire, 1, 20),
    running: limited(typed.running, 0, 1e5),
    mostActs: limited(typed.mostActs, 0, 200),
  };
  const bad = (Object.keys(numbers) as (keyof typeof numbers)[]).find((field) => numbers[field] === undefined);
  if (bad) return wrong(bad);
  const cents = centsIn(plan.currency);
  const { keepFree, bays, fall, perYear, retire, running, mostActs } = numbers;
  return {
    ok: true,
    perYear: typeof perYear === "number" ? Math.round(perYear * cents) : null,
    mostActs: mostActs ?? null,
    wish: {
      pool: typed.pool,
      months,
      demand,
      headroom: (keepFree ?? 0) / 100,
      tolerance: typed.survives,
      layouts: layoutsFor(plan, typed),
      bays: Math.round(bays ?? plan.box.bays),
      prices: pricesOf(plan, typed.pool),
      fallPerYear: (fall ?? 0) / 100,
      aim: typed.aim,
      retireAfterYears: retire ?? null,
      centsPerDriveYear: Math.round((running ?? 0) * cents),
      equalPairs: typed.pairs === "equal",
    },
  };
}
