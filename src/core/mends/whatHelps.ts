import "../commands/chanceCommands";
import "../commands/dataCommands";
import { anyCause } from "../chance/otherCauses";
import { USUAL_SCRUB_HOURS, conditionsOf, ownInputsOf } from "../chance/conditions";
import { LEAST_TOLD } from "../chance/chanceWords";
import { pointOf } from "../chance/inputs";
import { chancesAlong, type Walked, walkedOf } from "../chance/alongPlan";
import { chancesAtRest, restingOf } from "../chance/atRest";
import { dataSetsIn } from "../data/stored";
import type { Backup, Drive, Plan, PlanCalendar } from "../document/plan";
import type { Command } from "../document/command";
import { applyCommand } from "../commands/applyCommand";
import { isWish } from "../sequences/sequence";
import { sequenceOf } from "../sequences/registry";
import { settingAt, trySequence } from "../sequences/tried";
import type { Walk } from "../walk/moment";
import { walkPlan } from "../walk/walkPlan";
import { forPools, forStep, type MendKind, type ProposalSetting, spareToBuy } from "./proposals";

/** What may lower the chance of loss. */
export type HelpKind = MendKind | "backup-elsewhere" | "second-parity" | "scrub" | "alerts" | "shelf";

/** A change of a plan with what it brings. */
export interface Help {
  kind: HelpKind;
  /** The step that it is about, by its id; null where it is about the box, a pool or all steps. */
  step: string | null;
  /** What puts it into the plan; null where its owner has to say first what is stored. */
  command: Command | null;
  buys: Drive[];
  /** In the plan's currency; null where the plan has no price for what is bought. */
  money: number | null;
  /** Hours that the plan takes longer. */
  hours: number;
  /** That something is lost for good along the plan and in the year after it, of 1, with the change. */
  after: number;
  /** By how much that is less than without. */
  saves: number;
}

/** What helps, the best first, and what there is to be lowered. */
export interface WhatHelps {
  /** That something is lost for good along the plan and in the year after it, of 1. */
  before: number;
  helps: Help[];
}

/** A change that may help, before it is worked out. */
type Idea = Pick<Help, "kind" | "step" | "command" | "buys"> & { plan: Plan };

/** That something is lost for good: along the plan, and at rest in the year after it, whichever pool it is of. */
function chanceOf({ plan, moments, day }: Walk, walked: Walked): number {
  const [point, conditions] = [pointOf(ownInputsOf(plan)), conditionsOf(plan)];
  const rest = chancesAtRest(restingOf(moments.at(-1)?.state.plan ?? plan, day), point, conditions, 1);
  const { withBackups } = chancesAlong(walked, point, conditions);
  return 1 - rest.reduce((sound, { year }) => sound * (1 - anyCause(year.withBackups)), 1 - withBackups);
}

const hoursOf = ({ moments }: Walk): number => Math.max(0, ...moments.map(({ walked }) => walked?.to ?? 0));

const withCommand = (
  plan: Plan,
  kind: HelpKind,
  command: Command,
  more: Partial<Pick<Idea, "step" | "buys">> = {},
): Idea[] => {
  const result = applyCommand(plan, command);
  return result.ok ? [{ kind, step: null, buys: [], command, plan: result.plan, ...more }] : [];
};

/** A weekly backup of some data sets at another place that keeps versions and is tested. */
const backupOf = (dataSets: readonly string[], day: string | null): Omit<Backup, "id"> => ({
  name: "Backup elsewhere",
  kind: "box",
  place: "elsewhere",
  everyDays: 7,
  keepsVersions: true,
  ...(day === null ? {} : { lastVerified: day }),
  dataSets: [...dataSets],
});

/** All that is stored, kept at another place as well. */
function backupElsewhere(plan: Plan, day: string | null): Idea[] {
  const sets = plan.dataSets ?? [];
  const kept = (set: string) =>
    (plan.backups ?? []).some(
      ({ place, keepsVersions, lastVerified, dataSets }) =>
        place === "elsewhere" && keepsVersions && lastVerified !== undefined && dataSets.includes(set),
    );
  const bare = sets.filter(({ id, worth }) => worth !== "replaceable" && !kept(id)).map(({ id }) => id);
  if (bare.length > 0)
    return withCommand(plan, "backup-elsewhere", { kind: "put-backup", backup: backupOf(bare, day) });
  if (plan.pools.every(({ id }) => dataSetsIn(plan, id).length > 0)) return [];
  return [{ kind: "backup-elsewhere", step: null, buys: [], command: null, plan: withAllStored(plan, day) }];
}

/** The plan as if something were stored in each pool, and backed up: to see what that would bring. */
function withAllStored(plan: Plan, day: string | null): Plan {
  const volumes = plan.pools.map(({ id, volumes: [volume] }) => volume?.id ?? `${id}-all`);
  const sets = volumes.map((volume, i) => ({
    id: `all-${i}`,
    name: "All",
    volume,
    bytes: 0,
    worth: "precious" as const,
  }));
  return {
    ...plan,
    pools: plan.pools.map((pool, i) =>
      pool.volumes.length > 0
        ? pool
        : { ...pool, volumes: [{ id: volumes[i] ?? "", name: "All", bytes: 0, fileSystem: "none" as const }] },
    ),
    dataSets: [...(plan.dataSets ?? []), ...sets],
    backups: [
      ...(plan.backups ?? []),
      {
        ...backupOf(
          sets.map(({ id }) => id),
          day,
        ),
        id: "all",
      },
    ],
  };
}

/** A level that survives one loss more, by the ready-made steps for it. */
function secondParity(plan: Plan, walked: Walk, setting: ProposalSetting, calendar: PlanCalendar): Idea[] {
  const at = walked.moments.length - 1;
  const place = { document: plan, walked, at, today: setting.day ?? calendar.start };
  const least = ({ tolerance }: Walk["moments"][number]) => Math.min(...tolerance);
  return (["second-parity", "hybrid-two", "mirror-to-parity"] as const).flatMap((id) => {
    const sequence = sequenceOf(id);
    const begun = sequence.begin(settingAt(place));
    if (!isWish(begun)) return [];
    const tried = trySequence(sequence, begun, place, calendar);
    if (!tried.ok || tried.tried.blocks.length > 0 || least(tried.tried.after) <= least(tried.tried.before)) return [];
    const { command } = tried.tried;
    return withCommand(plan, "second-parity", command, { buys: command.drives });
  });
}

/** What the owner does about failures, done better. */
function betterCare(plan: Plan): Idea[] {
  const { alerts, scrubHours, spareOnShelf, ups } = conditionsOf(plan);
  const set = (kind: HelpKind, chance: NonNullable<Plan["chance"]>, buys: Drive[] = []) =>
    withCommand(plan, kind, { kind: "set-chance", chance: { ...plan.chance, ...chance } }, { buys });
  const spare = plan.pools[0] && spareToBuy(plan, plan.pools[0]);
  return [
    ...(alerts ? [] : set("alerts", { alerts: true })),
    ...(scrubHours > USUAL_SCRUB_HOURS ? set("scrub", { scrubHours: USUAL_SCRUB_HOURS }) : []),
    ...(spareOnShelf || !spare ? [] : set("shelf", { spareOnShelf: true }, [spare])),
    ...(ups ? [] : withCommand(plan, "ups", { kind: "change-box", ups: true })),
  ];
}

/** All that may help, before it is worked out. */
function ideasFor(plan: Plan, walked: Walk, setting: ProposalSetting, calendar: PlanCalendar): Idea[] {
  const steps = walked.moments.flatMap((moment) => (moment.walked?.done ? [moment.walked.step.id] : []));
  return [
    ...backupElsewhere(plan, setting.day),
    ...secondParity(plan, walked, setting, calendar),
    ...betterCare(plan),
    ...forPools(plan, setting),
    ...steps.flatMap((id) => forStep(plan, id, setting)),
  ].flatMap((idea) => (idea ? [{ ...idea, step: idea.step ?? null }] : []));
}

/** What saves less than can be told is not worth a line. */
const LEAST_SAVED = LEAST_TOLD;

/** Of one kind only the best: where several steps could be done otherwise, the one that matters most comes first. */
const MOST_OF_A_KIND = 2;

/**
 * What lowers the chance of losing something for good most, along the plan and in the year after it: each change is put
 * into the plan, and the chances are worked out again.
 *
 * @param calendar one to give to the plan where a ready-made change needs one
 * @example whatHelps(plan, { family: "TB", day: "2026-11-27" }, calendar).helps[0].kind // "backup-elsewhere"
 */
export function whatHelps(plan: Plan, setting: ProposalSetting, calendar: PlanCalendar): WhatHelps {
  const walked = walkPlan(plan, setting.family, undefined, setting.day);
  const before = chanceOf(walked, walkedOf(walked));
  const counts = new Map<HelpKind, number>();
  const helps = ideasFor(plan, walked, setting, calendar)
    .map((idea): Help => {
      const then = walkPlan(idea.plan, setting.family, walked, setting.day);
      const after = chanceOf(then, walkedOf(then));
      const prices = idea.buys.map(({ price }) => price);
      return {
        kind: idea.kind,
        step: idea.step,
        command: idea.command,
        buys: idea.buys,
        money: prices.includes(undefined) ? null : prices.reduce<number>((sum, price) => sum + (price ?? 0), 0),
        hours: hoursOf(then) - hoursOf(walked),
        after,
        saves: before - after,
      };
    })
    .filter(({ saves }) => saves >= LEAST_SAVED)
    .sort((a, b) => b.saves - a.saves || a.hours - b.hours)
    .filter(({ kind }) => {
      const count = (counts.get(kind) ?? 0) + 1;
      counts.set(kind, count);
      return count <= MOST_OF_A_KIND;
    });
  return { before, helps };
}
