"use client";

import { Copy } from "lucide-react";
import dynamic from "next/dynamic";
import { lazy, useCallback, useMemo, useState } from "react";
import type { Command } from "@/core/document/command";
import type { Choice } from "@/core/compare/compare";
import { brokenSteps } from "@/core/commands/brokenSteps";
import { beatenBy } from "@/core/compare/domination";
import { MEASURES, measureOf, merit, type MeasureId } from "@/core/compare/measures";
import { misfits, type Misfit } from "@/core/compare/needs";
import type { Plan } from "@/core/document/plan";
import { layoutOf } from "@/core/layouts/registry";
import { freeBays } from "@/core/nextDrive/placements";
import { EXAMPLE_PRICES } from "@/core/drives/priceList";
import { rulesOf } from "@/core/rules/ruleSets";
import { NETWORKS } from "@/core/speeds/speed";
import { Button } from "../kit/Button";
import { MenuButton } from "../kit/MenuButton";
import { Segmented } from "../kit/Segmented";
import { ChoiceCard } from "./ChoiceCard";
import { DriveChooser } from "./DriveChooser";
import { choiceName } from "./figureWords";
import { NeedsBar } from "./NeedsBar";
import { Scatter } from "./Scatter";
import { targetPool } from "./targetPool";
import { useJob } from "../kit/useJob";
import { useCompareState } from "./viewState";

const FaceToFace = dynamic(() => import("./FaceToFace").then((module) => module.FaceToFace));
const ApplyDialog = dynamic(() => import("./ApplyDialog").then((module) => module.ApplyDialog));
const NextDrivePanel = dynamic(() => import("../nextDrive/NextDrivePanel").then((module) => module.NextDrivePanel));
const CopyMenuItems = lazy(() => import("./CopyMenuItems").then((module) => ({ default: module.CopyMenuItems })));

const NO_MISFITS: readonly Misfit[] = [];

/** Layouts side by side for the drives at hand, chosen by need; and the next drive to buy. */
export function CompareView({
  id,
  plan,
  act,
}: {
  id: string;
  plan: Plan;
  act: (command: Command, offersUndo?: boolean) => string | null;
}) {
  const [state, change] = useCompareState(id);
  const [lit, light] = useState<string | null>(null);
  const [pins, setPins] = useState<string[]>([]);
  const [open, setOpen] = useState(false);
  const [asking, setAsking] = useState<{ command: Command; name: string } | null>(null);
  const rules = useMemo(() => rulesOf(plan.box.rules), [plan.box.rules]);
  const chosen = useMemo(() => chosenDrives(plan, state.drives), [plan, state.drives]);
  const drives = useMemo(() => plan.drives.filter((drive) => chosen.has(drive.id)), [plan.drives, chosen]);
  const network = NETWORKS.find(({ name }) => name === state.network)?.rate ?? NETWORKS[0].rate;
  const tooMany = drives.length > 24;
  const request = useMemo(
    () => (tooMany ? null : { drives, rules, network, splits: true }),
    [tooMany, drives, rules, network],
  );
  const compare = useCallback<NonNullable<Parameters<typeof useJob<import("@/core/compare/compare").Comparison>>[0]>>(
    (work, onProgress) => work.compare(request ?? { drives: [], rules, network, splits: true }, onProgress),
    [request, rules, network],
  );
  const job = useJob(request ? compare : null);
  const comparison = job.result;

  const choices = useMemo(() => comparison?.choices ?? [], [comparison]);
  const beaten = useMemo(() => beatenBy(choices), [choices]);
  const nameOf = useMemo(() => new Map(choices.map((choice) => [choice.id, choiceName(choice)])), [choices]);
  const unfit = useMemo(
    () =>
      new Map(
        choices.flatMap((choice): [string, Misfit[]][] => {
          const found = misfits(choice, state.needs);
          return found.length > 0 ? [[choice.id, found]] : [];
        }),
      ),
    [choices, state.needs],
  );
  const fitting = useMemo(
    () => new Set(choices.filter((choice) => !unfit.has(choice.id)).map((choice) => choice.id)),
    [choices, unfit],
  );

  const presentId = useMemo(() => presentChoice(plan, choices), [plan, choices]);
  const nearest = useCallback(
    (work: Parameters<typeof compare>[0]) => {
      const asked = choices
        .filter((choice) => unfit.has(choice.id))
        .map(({ id: choiceId, groups, figures }) => ({
          id: choiceId,
          groups,
          ...(choiceId === presentId ? { leastBytes: figures.growth.byDrive?.leastBytes ?? Infinity } : {}),
        }));
      const sizes = (plan.prices ?? EXAMPLE_PRICES).map((item) => item.bytes);
      return work.nearestChanges(asked, state.needs, sizes, Math.max(0, plan.box.bays - drives.length), {
        drives,
        rules,
        network,
        splits: false,
      });
    },
    [choices, unfit, presentId, plan.prices, plan.box.bays, state.needs, drives, rules, network],
  );
  const changes = useJob(unfit.size > 0 ? nearest : null);

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
  const inside = sorted.filter((choice) => fitting.has(choice.id));
  const outside = sorted.filter((choice) => !fitting.has(choice.id));

  const byId = useMemo(() => new Map(choices.map((choice) => [choice.id, choice])), [choices]);
  const apply = useCallback(
    (choiceId: string) => {
      const choice = byId.get(choiceId);
      if (!choice) return;
      const command: Command = { kind: "lay-out-pool", pool: targetPool(plan, chosen), groups: choice.groups };
      if (brokenSteps(plan, command).length > 0) return setAsking({ command, name: choiceName(choice) });
      const refused = act(command, true);
      if (!refused) setOpen(false);
    },
    [byId, act, plan, chosen],
  );
  const pinned = pins.filter((pin) => byId.has(pin));
  const onPin = useCallback(
    (choiceId: string) => {
      const next = pinned.includes(choiceId)
        ? pinned.filter((each) => each !== choiceId)
        : [...pinned.slice(-1), choiceId];
      setPins(next);
      if (next.length === 2 && !pinned.includes(choiceId)) setOpen(true);
    },
    [pinned],
  );
  const [first, second] = pinned.flatMap((pin) => byId.get(pin) ?? []);
  const goTo = (choiceId: string) => {
    light(choiceId);
    const card = document.getElementById(`choice-${choiceId}`);
    card?.scrollIntoView({ block: "center" });
    card?.querySelector<HTMLButtonElement>("button:not(:disabled)")?.focus({ preventScroll: true });
  };

  const card = (choice: Choice) => (
    <ChoiceCard
      key={choice.id}
      choice={choice}
      plan={plan}
      drives={drives}
      beatenBy={nameOf.get(beaten.get(choice.id) ?? "") ?? null}
      misfits={unfit.get(choice.id) ?? NO_MISFITS}
      change={changes.progress === null ? changes.result?.[choice.id] : undefined}
      present={choice.id === presentId}
      pinned={pinned.includes(choice.id)}
      lit={lit === choice.id}
      onPin={onPin}
      onApply={apply}
      onLight={light}
    />
  );

  return (
    <main className="grid min-h-0 min-w-0 flex-1 lg:grid-cols-[minmax(0,1fr)_23rem]">
      <div
        tabIndex={0}
        role="region"
        aria-label="Layouts side by side"
        className="min-h-0 min-w-0 px-4 pb-6 lg:overflow-y-auto"
      >
        <div className="sticky top-0 z-10 -mx-4 space-y-1 border-b border-line bg-ground px-4 py-3 max-lg:static">
          <DriveChooser plan={plan} chosen={chosen} onChoose={(ids) => change({ drives: ids })} />
          <NeedsBar needs={state.needs} most={Math.max(1, drives.length)} onChange={(needs) => change({ needs })} />
        </div>
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1 pt-3 text-[0.93rem]">
          <p role="status" className="font-semibold">
            {comparison &&
              (Object.keys(state.needs).length > 0
                ? `${fitting.size} of ${choices.length} ways fit`
                : choices.length === 1
                  ? "1 way"
                  : `${choices.length} ways`)}
          </p>
          <label className="flex items-center gap-1.5">
            <span className="text-soft">Best first by</span>
            <select
              value={state.sort}
              onChange={(event) => change({ sort: event.target.value as MeasureId })}
              className="h-7 rounded border border-line-strong/60 bg-raised px-1"
            >
              {MEASURES.map((each) => (
                <option key={each.id} value={each.id}>
                  {each.name.toLowerCase()}
                </option>
              ))}
            </select>
          </label>
          <label className="flex items-center gap-1.5">
            <span className="text-soft">Network</span>
            <select
              value={state.network}
              onChange={(event) => change({ network: event.target.value })}
              className="h-7 rounded border border-line-strong/60 bg-raised px-1"
            >
              {NETWORKS.map(({ name }) => (
                <option key={name}>{name}</option>
              ))}
            </select>
          </label>
          {beaten.size > 0 && (
            <label className="flex items-center gap-1.5">
              <input
                type="checkbox"
                checked={state.hideBeaten}
                onChange={(event) => change({ hideBeaten: event.target.checked })}
                className="accent-indigo"
              />
              Hide the {beaten.size === 1 ? "one that is" : `${beaten.size} that are`} beaten
            </label>
          )}
          <span className="ml-auto flex gap-1.5">
            {first && second && (
              <Button small look="main" onClick={() => setOpen(true)}>
                Face to face
              </Button>
            )}
            <MenuButton
              align="end"
              trigger={
                <Button small disabled={choices.length === 0}>
                  <Copy size={14} aria-hidden /> Copy
                </Button>
              }
            >
              <CopyMenuItems
                rows={[...inside, ...outside].map((choice) => ({
                  choice,
                  misfit: (unfit.get(choice.id) ?? []).map((misfit) => misfit.reason).join(", "),
                }))}
              />
            </MenuButton>
          </span>
        </div>
        {drives.length === 0 && (
          <p className="pt-6 text-soft">
            No drive is chosen. Choose the drives to compare layouts for; add drives on the workbench, also such as you
            only think of buying.
          </p>
        )}
        {tooMany && (
          <p className="pt-6 text-geranium">
            A box has at most 24 bays, and {drives.length} drives are chosen. Leave some out.
          </p>
        )}
        {job.progress !== null && (
          <p role="status" className="flex items-center gap-3 pt-4">
            <progress value={job.progress} className="accent-indigo" aria-label="Comparing" /> Weighing every way to
            part {drives.length} drives …
            <Button small onClick={job.cancel}>
              Stop
            </Button>
          </p>
        )}
        {job.cancelled && (
          <p className="flex items-center gap-3 pt-4">
            Stopped.{" "}
            <Button small onClick={job.again}>
              Compare
            </Button>
          </p>
        )}
        {job.trouble && (
          <p role="alert" className="pt-4 text-geranium">
            {job.trouble}
          </p>
        )}
        {comparison && !tooMany && drives.length > 0 && (
          <>
            <h2 className="sr-only">Layouts side by side</h2>
            <div className="grid grid-cols-[repeat(auto-fill,minmax(15.5rem,1fr))] gap-x-6 pt-2">
              {inside.map(card)}
            </div>
            {inside.length === 0 && choices.length > 0 && (
              <p className="pt-4">
                Nothing that can be made of these drives fits. The nearest changes stand with each.
              </p>
            )}
            {outside.length > 0 && (
              <section aria-labelledby="unfit-heading">
                <h2 id="unfit-heading" className="mt-2 font-serif text-xl">
                  Does not fit what you need
                </h2>
                <div className="grid grid-cols-[repeat(auto-fill,minmax(15.5rem,1fr))] gap-x-6 pt-2">
                  {outside.map(card)}
                </div>
              </section>
            )}
            {comparison.impossible.length > 0 && (
              <section aria-labelledby="impossible-heading">
                <h2 id="impossible-heading" className="mt-2 font-serif text-xl">
                  Not possible with these drives
                </h2>
                <ul className="mt-1 grid gap-x-6 sm:grid-cols-2">
                  {comparison.impossible.map(({ layout, reason }) => (
                    <li key={layout} className="flex gap-2 border-t border-line py-1">
                      <span className="w-32 shrink-0 font-semibold">{layoutOf(layout).shortName}</span>
                      <span className="text-soft">{reason}</span>
                    </li>
                  ))}
                </ul>
              </section>
            )}
            <p className="mt-4 text-[0.9rem] text-soft">
              {comparison.exact
                ? "No better way to part these drives into groups exists; for each layout and number of groups the best is shown."
                : "With more than 12 drives only groups of neighbours in size were weighed: better splits are unlikely, but not ruled out."}{" "}
              Speeds and hours are estimates from the usual rates of such drives.
            </p>
          </>
        )}
      </div>
      <aside
        aria-label="Scatter and next drive"
        tabIndex={0}
        className="min-h-0 border-line p-4 max-lg:border-t lg:overflow-y-auto lg:border-l"
      >
        <Segmented
          label="Beside the pictures"
          value={state.panel}
          onChange={(panel) => change({ panel })}
          options={[
            { value: "scatter", label: "Two figures at once" },
            { value: "next drive", label: "The next drive" },
          ]}
        />
        <div className="pt-3">
          {state.panel === "scatter" ? (
            choices.length > 0 ? (
              <Scatter
                choices={choices}
                fitting={fitting}
                lit={lit}
                axes={state.axes}
                onAxes={(axes) => change({ axes })}
                onPoint={goTo}
              />
            ) : (
              <p className="text-soft">Nothing to draw yet.</p>
            )
          ) : (
            <NextDrivePanel plan={plan} act={act} free={freeBays(plan)} />
          )}
        </div>
      </aside>
      {asking && (
        <ApplyDialog
          plan={plan}
          asking={asking}
          onClose={() => setAsking(null)}
          onApply={() => {
            act(asking.command, true);
            setAsking(null);
            setOpen(false);
          }}
        />
      )}
      {open && first && second && (
        <FaceToFace
          pair={[first, second]}
          presentId={presentId}
          plan={plan}
          drives={drives}
          onApply={apply}
          onClose={() => setOpen(false)}
        />
      )}
    </main>
  );
}

/** The chosen drives that the plan still has; without a choice those of the first pool, or all. */
function chosenDrives(plan: Plan, ids: string[] | null): ReadonlySet<string> {
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
