"use client";

import { isGone } from "@/core/drives/driveState";
import { useCallback, useMemo } from "react";
import { conditionsOf, ownInputsOf } from "@/core/chance/conditions";
import type { Choice, CompareRequest, Comparison } from "@/core/compare/compare";
import type { ChanceSetting, ChoiceRange } from "@/core/compare/choiceChance";
import { beatenBy } from "@/core/compare/domination";
import { measureOf, merit } from "@/core/compare/measures";
import { misfits, type Misfit, type Needs } from "@/core/compare/needs";
import type { Plan } from "@/core/document/plan";
import { EXAMPLE_PRICES } from "@/core/drives/priceList";
import { ownTimesOf } from "@/core/logbook/ownTimes";
import { rulesOf } from "@/core/rules/ruleSets";
import { NETWORKS } from "@/core/speeds/speed";
import { today } from "../today";
import { useJob } from "../kit/useJob";
import { choiceName } from "./figureWords";
import type { CompareState } from "./viewState";
import { ownValue } from "@/core/records/ownValue";

type Comparing = NonNullable<Parameters<typeof useJob<Comparison>>[0]>;

/** The needs that each choice does not meet, for those that do not meet all. */
const misfitsOf = (choices: readonly Choice[], needs: Needs): ReadonlyMap<string, Misfit[]> =>
  new Map(
    choices.map((choice) => [choice.id, misfits(choice, needs)] as const).filter(([, found]) => found.length > 0),
  );

/** Work in a worker towards what would make each choice fit that does not. */
function useNearestChanges({
  plan,
  needs,
  choices,
  unfit,
  presentId,
  request,
}: {
  plan: Plan;
  needs: Needs;
  choices: readonly Choice[];
  unfit: ReadonlyMap<string, Misfit[]>;
  presentId: string | null;
  request: CompareRequest | null;
}) {
  const nearest = useCallback(
    (work: Parameters<Comparing>[0]) => {
      const asked = choices
        .filter((choice) => unfit.has(choice.id))
        .map(({ id: choiceId, groups, figures }) => ({
          id: choiceId,
          groups,
          ...(choiceId === presentId ? { leastBytes: figures.growth.byDrive?.leastBytes ?? Infinity } : {}),
        }));
      const sizes = (plan.prices ?? EXAMPLE_PRICES).map((item) => item.bytes);
      const { drives } = request ?? NOTHING_ASKED;
      const freeBays = Math.max(0, plan.box.bays - drives.length);
      return work.nearestChanges(asked, needs, sizes, freeBays, { ...(request ?? NOTHING_ASKED), splits: false });
    },
    [choices, unfit, presentId, plan, needs, request],
  );
  return useJob(unfit.size > 0 && request ? nearest : null);
}

/** What is compared where there are too many drives for it. */
const NOTHING_ASKED: CompareRequest = { drives: [], rules: rulesOf({ set: "linux-host" }), network: 1, splits: false };

/** What chances are worked out with: only what of a plan matters to them, so that steps compare nothing anew. */
function useChanceSetting({ chance, box }: Plan): ChanceSetting {
  return useMemo(
    () => ({ day: today(), own: ownInputsOf({ chance }), conditions: conditionsOf({ chance, box }) }),
    [chance, box],
  );
}

/** The ranges of the chances of all choices, worked out once these are there. */
function useChanceRanges(comparison: Comparison | null, request: CompareRequest | null) {
  const asked = comparison && request && comparison.choices.length > 0;
  const start = useCallback(
    (work: Parameters<Comparing>[0]) =>
      work.chanceRanges(
        (comparison?.choices ?? []).map(({ id, groups }) => ({ id, groups })),
        request ?? NOTHING_ASKED,
      ),
    [comparison, request],
  );
  return asked ? start : null;
}

/** The choices with the ranges of their chances, as far as these are of them. */
const withRanges = (choices: Choice[], ranges: Readonly<Record<string, ChoiceRange>> | null): Choice[] =>
  ranges
    ? choices.map((choice) => {
        const chanceRange = ownValue(ranges, choice.id);
        return chanceRange ? { ...choice, figures: { ...choice.figures, chanceRange } } : choice;
      })
    : choices;

/** What the page shows for its settings: the choices, which of them fit, which are beaten, and how they could fit. */
export function useComparison(plan: Plan, state: CompareState) {
  const rules = useMemo(() => rulesOf(plan.box.rules), [plan.box.rules]);
  const chosen = useMemo(() => chosenDrives(plan, state.drives), [plan, state.drives]);
  const drives = useMemo(() => plan.drives.filter((drive) => chosen.has(drive.id)), [plan.drives, chosen]);
  const network = NETWORKS.find(({ name }) => name === state.network)?.rate ?? NETWORKS[0].rate;
  const tooMany = drives.length > 24;
  const { factors: own } = ownTimesOf(plan);
  const chances = useChanceSetting(plan);
  const request = useMemo(
    () => (tooMany ? null : { drives, rules, network, splits: true, own, chances }),
    [tooMany, drives, rules, network, own, chances],
  );
  const compare = useCallback<Comparing>(
    (work, onProgress) => work.compare(request ?? NOTHING_ASKED, onProgress),
    [request],
  );
  const job = useJob(request ? compare : null);
  const comparison = job.result;

  const ranges = useJob(useChanceRanges(comparison, request)).result;
  const choices = useMemo(() => withRanges(comparison?.choices ?? [], ranges), [comparison, ranges]);
  const beaten = useMemo(() => beatenBy(choices), [choices]);
  const nameOf = useMemo(() => new Map(choices.map((choice) => [choice.id, choiceName(choice)])), [choices]);
  const unfit = useMemo(() => misfitsOf(choices, state.needs), [choices, state.needs]);
  const fitting = useMemo(
    () => new Set(choices.filter((choice) => !unfit.has(choice.id)).map((choice) => choice.id)),
    [choices, unfit],
  );

  const presentId = useMemo(() => presentChoice(plan, choices), [plan, choices]);
  const changes = useNearestChanges({ plan, needs: state.needs, choices, unfit, presentId, request });

  const measure = measureOf(state.sort);
  const sorted = useMemo(
    () =>
      [...choices]
        .filter((choice) => !state.hideBeaten || !beaten.has(choice.id))
        .sort(
          (a, b) =>
            merit(measure, b.figures) - merit(measure, a.figures) || b.figures.usableBytes - a.figures.usableBytes,
        ),
    [choices, measure, state.hideBeaten, beaten],
  );
  return {
    chosen,
    drives,
    tooMany,
    job,
    comparison,
    choices,
    beaten,
    nameOf,
    unfit,
    fitting,
    presentId,
    /** What would make a choice fit that does not; undefined while it is looked for. */
    changeFor: (id: string) => (changes.progress === null ? ownValue(changes.result ?? undefined, id) : undefined),
    inside: sorted.filter((choice) => fitting.has(choice.id)),
    outside: sorted.filter((choice) => !fitting.has(choice.id)),
  };
}

/** The choices for the drives at hand, and what is known of them. */
export type Compared = ReturnType<typeof useComparison>;

/** The chosen drives that the plan still has; without a choice those of the first pool, or all. */
function chosenDrives({ drives, pools }: Plan, ids: string[] | null): ReadonlySet<string> {
  // Of a drive that is gone nothing can be made.
  const plan = { drives: drives.filter((drive) => !isGone(drive)), pools };
  const [pool] = plan.pools;
  const wanted = ids ?? (pool ? pool.groups.flatMap((group) => group.drives) : plan.drives.map((drive) => drive.id));
  const known = new Set(plan.drives.map((drive) => drive.id));
  return new Set(wanted.filter((each) => known.has(each)));
}

const signature = (groups: readonly { layout: string; drives: readonly string[] }[]) =>
  groups
    .map((group) => `${group.layout}:${[...group.drives].sort().join("+")}`)
    .sort()
    .join("|");

/** The choice that a pool of the plan is laid out as already. */
function presentChoice(plan: Plan, choices: readonly Choice[]): string | null {
  const there = new Set(plan.pools.map((pool) => signature(pool.groups)));
  return choices.find((choice) => there.has(signature(choice.groups)))?.id ?? null;
}
