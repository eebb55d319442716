import { chancesAlong, walkedOf } from "../chance/alongPlan";
import { conditionsOf } from "../chance/conditions";
import { pointOf } from "../chance/inputs";
import type { Bytes } from "../bytes/bytes";
import type { Command } from "../document/command";
import type { BestWay, Way } from "./bestWay";
import type { Instance } from "./instance";
import type { LaidAct } from "./layOut";
import { filesIn } from "./sufficiency";

/** A way as it is told: all that a page shows of it, and the command that puts it into the plan. */
export interface ToldWay {
  acts: LaidAct[];
  /** How many bytes of files the box holds, what is kept free not counted: now, and after each act. */
  filesNow: Bytes;
  files: Bytes[];
  cents: number;
  /** In each year, in cents. */
  byYear: number[];
  exposedHours: number;
  /** How likely its steps cost something, by the causes of drives and power, at the expected inputs; of 1. */
  chance: number;
  command: Extract<Command, { kind: "insert-sequence" }>;
  /** Why it cannot be carried out, in sentences; empty where it can. */
  blocks: string[];
  /** The first month in which it holds too little after all; null where it lasts. */
  shortIn: number | null;
}

/** What is told of a search. */
export interface Told {
  way: ToldWay | null;
  /** No way costs less, in cents; null where nothing is known of that. */
  least: number | null;
  proved: boolean;
  /** Whether the search has ended by itself. */
  ended: boolean;
  breaksIn: number | null;
  /** What a year would be enough, in cents, where a limit of money is what breaks it; null otherwise. */
  enoughPerYear: number | null;
}

const YEAR = 12;

/** What a way is, as it is told. */
export function toldWay(instance: Instance, headroom: number, way: Way): ToldWay {
  const { walk, command, plan } = way;
  const files = (data: Bytes) => filesIn(data, instance.pool, headroom, instance.rules);
  const byYear = Array.from({ length: Math.ceil(instance.months / YEAR) }, (_, year) =>
    way.acts
      .filter(({ month }) => Math.floor(month / YEAR) === year)
      .flatMap(({ bought }) => bought)
      .reduce((sum, { cents }) => sum + cents, 0),
  );
  const own = new Set(plan.steps.slice(-command.steps.length).map(({ id }) => id));
  const { stretches, ...rest } = walkedOf(walk);
  const along = { ...rest, stretches: stretches.filter(({ step }) => own.has(step)) };
  return {
    acts: way.acts,
    filesNow: files(way.dataNow),
    files: way.data.map(files),
    cents: way.cents,
    byYear,
    exposedHours: way.exposedHours,
    chance:
      command.steps.length === 0 ? 0 : chancesAlong(along, pointOf(plan.chance?.inputs ?? {}), conditionsOf(plan)).any,
    command,
    blocks: way.blocks.map(({ message }) => message),
    shortIn: way.shortIn,
  };
}

/** What was found, as it is told. */
export const toldOf = (instance: Instance, headroom: number, found: BestWay, ended: boolean): Told => ({
  way: found.way && toldWay(instance, headroom, found.way),
  least: Number.isFinite(found.least) && found.least > 0 ? found.least : null,
  proved: found.proved,
  ended,
  breaksIn: found.breaksIn,
  enoughPerYear: found.enoughPerYear,
});
