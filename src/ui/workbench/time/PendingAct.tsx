"use client";

import { useMemo, useState } from "react";
import { formatBytes } from "@/core/bytes/formatBytes";
import { nameOfDrive, shortSize } from "@/core/drives/nameOfDrive";
import { bayOf } from "@/core/drives/drive";
import { layoutOf } from "@/core/layouts/registry";
import { applyCommand } from "@/core/commands/applyCommand";
import { placeAt } from "@/core/walk/placeAt";
import { walkPlan } from "@/core/walk/walkPlan";
import { exposedHours, lengthWords } from "@/core/walk/planSummary";
import { rulesOf } from "@/core/rules/ruleSets";
import { stepsOfAct, usualChoices, type Act, type ActChoices } from "@/core/steps/propose";
import { Button } from "../../kit/Button";
import { useUnit } from "../../preferences/preferences";
import { today } from "../../today";
import { useWorkbench } from "../useWorkbench";
import { isFree } from "@/core/box/members";
import { driveOf } from "@/core/box/find";

/** An act on the box that is to become steps: what matters about it is asked here, and what it comes to is said. */
export function PendingAct({ act: given, onDone }: { act: Act; onDone: () => void }) {
  const { plan, insert, walk: whole, at } = useWorkbench();
  const [unit] = useUnit();
  const rules = rulesOf(plan.box.rules);
  const [act, setAct] = useState(given);
  const [choices, setChoices] = useState(() => usualChoices(given, plan, rules));
  const set = (change: Partial<ActChoices>) => setChoices({ ...choices, ...change });
  const bodies = useMemo(
    () => stepsOfAct(act, choices, { ...plan, steps: whole.plan.steps }, rules),
    [act, choices, plan, whole, rules],
  );
  // The whole plan is walked with them, so that what was done before counts: a backup, a test.
  const trial = useMemo(() => {
    const result = applyCommand(whole.plan, { kind: "insert-steps", ...placeAt(whole, at), steps: bodies });
    const made = result.ok ? walkPlan(result.plan, unit, whole, today()) : whole;
    return { ...made, moments: made.moments.slice(at, at + 1 + (result.ok ? bodies.length : 0)) };
  }, [whole, at, bodies, unit]);
  const [first, last] = [trial.moments[0], trial.moments.at(-1)];
  const planned = trial.moments.slice(1).flatMap((moment) => moment.walked ?? []);
  const blocks = planned.flatMap((each) => each.findings.filter((finding) => finding.severity === "block"));
  const mending = blocks.find((finding) => finding.mend?.command.kind === "replace-step");
  const hours =
    planned.length > 0
      ? Math.max(...planned.map((each) => each.to)) - Math.min(...planned.map((each) => each.from))
      : 0;
  const bare = exposedHours({ ...trial, moments: trial.moments.slice(1) }, 0);
  const name = (id: string) => {
    const drive = driveOf(plan, id);
    return drive ? nameOfDrive(drive, unit) : "a drive";
  };
  const title = {
    replace: () => (act.kind === "replace" ? `Replace ${name(act.drive)} by ${name(act.by)}` : ""),
    join: () =>
      act.kind === "join"
        ? `${act.drives.map((id) => shortSize(driveOf(plan, id) ?? { bytes: 0 }, unit)).join(" + ")} for ${plan.pools.find((pool) => pool.groups.some((group) => group.id === act.group))?.name ?? "the pool"}`
        : "",
    level: () => (act.kind === "level" ? `Change to ${layoutOf(act.layout).shortName}` : ""),
    pull: () => (act.kind === "pull" ? `Take ${name(act.drive)} out for good` : ""),
  }[act.kind]();
  const free = plan.drives.filter((drive) => isFree(plan, drive.id));
  const attachable =
    act.kind === "replace" &&
    rules.replacing === "old-attached" &&
    (plan.drives.some((drive) => drive.id === act.by && bayOf(drive) !== null) ||
      plan.box.bays > plan.drives.filter((drive) => bayOf(drive) !== null).length);
  return (
    <div
      role="group"
      aria-label="A change to plan"
      className="rounded border border-indigo bg-raised p-2.5 text-[0.95rem]"
    >
      <p className="font-semibold">{title}</p>
      <div className="mt-1 flex flex-wrap items-center gap-x-4 gap-y-0.5">
        {act.kind === "replace" && (
          <>
            <Pick name="how" checked={!choices.attached} onPick={() => set({ attached: false })}>
              pull the old drive first
            </Pick>
            {attachable && (
              <Pick name="how" checked={choices.attached} onPick={() => set({ attached: true })}>
                old one attached meanwhile
              </Pick>
            )}
          </>
        )}
        {act.kind === "join" && (
          <>
            <Pick name="as" checked={choices.as === "member"} onPick={() => set({ as: "member" })}>
              widen the group
            </Pick>
            {rules.hotSpares !== "none" && (
              <Pick name="as" checked={choices.as === "spare"} onPick={() => set({ as: "spare" })}>
                hot spare
              </Pick>
            )}
            {act.drives.length > 1 && (
              <Pick name="as" checked={choices.as === "group"} onPick={() => set({ as: "group" })}>
                a further group
              </Pick>
            )}
          </>
        )}
        {act.kind === "level" && free.length > 0 && (
          <span className="flex flex-wrap items-center gap-x-3">
            <span className="text-soft">with</span>
            {free.slice(0, 6).map((drive) => (
              <label key={drive.id} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="accent-indigo"
                  checked={act.drives.includes(drive.id)}
                  onChange={(event) =>
                    setAct({
                      ...act,
                      drives: event.target.checked
                        ? [...act.drives, drive.id]
                        : act.drives.filter((id) => id !== drive.id),
                    })
                  }
                />
                {shortSize(drive, unit)} {bayOf(drive) === null ? "from the shelf" : `in bay ${bayOf(drive)}`}
              </label>
            ))}
          </span>
        )}
        {act.kind !== "pull" && (
          <Tick checked={choices.grow} onTick={(grow) => set({ grow })}>
            then claim and grow
          </Tick>
        )}
        {act.kind !== "pull" && act.kind !== "level" && (
          <Tick checked={choices.test} onTick={(test) => set({ test })}>
            test first
          </Tick>
        )}
        <Tick checked={choices.backUp} onTick={(backUp) => set({ backUp })}>
          back up first
        </Tick>
      </div>
      <p aria-live="polite" className={`mt-1 ${blocks.length > 0 ? "text-geranium" : ""}`}>
        {blocks.length > 0
          ? blocks[0]?.message
          : `${bodies.length === 1 ? "1 step" : `${bodies.length} steps`}, ${lengthWords(hours)}. Usable ${first && last && first.capacities.pool === last.capacities.pool ? "stays" : `${formatBytes(first?.capacities.pool ?? 0, unit)} → ${formatBytes(last?.capacities.pool ?? 0, unit)}`}${bare >= 0.5 ? `; for ${lengthWords(bare)} no drive may fail` : ""}.`}
      </p>
      <div className="mt-1.5 flex gap-1.5">
        <Button
          small
          look={blocks.length > 0 ? "plain" : "main"}
          disabled={bodies.length === 0}
          onClick={() => {
            insert(bodies);
            onDone();
          }}
        >
          {blocks.length > 0 ? "Plan it nevertheless" : "Plan it"}
        </Button>
        {mending?.mend?.command.kind === "replace-step" && (
          <Button
            small
            look="main"
            onClick={() => {
              const split = mending.mend?.command;
              if (split?.kind !== "replace-step") return;
              const place = planned.findIndex((each) => each.step.id === split.step);
              insert([...bodies.slice(0, place), ...split.by, ...bodies.slice(place + 1)]);
              onDone();
            }}
          >
            {mending.mend.label}
          </Button>
        )}
        <Button small look="quiet" onClick={onDone}>
          Cancel
        </Button>
      </div>
    </div>
  );
}

function Pick({
  name,
  checked,
  onPick,
  children,
}: {
  name: string;
  checked: boolean;
  onPick: () => void;
  children: string;
}) {
  return (
    <label className="flex items-center gap-1.5">
      <input type="radio" name={name} checked={checked} onChange={onPick} className="accent-indigo" />
      {children}
    </label>
  );
}

function Tick({ checked, onTick, children }: { checked: boolean; onTick: (on: boolean) => void; children: string }) {
  return (
    <label className="flex items-center gap-1.5">
      <input
        type="checkbox"
        checked={checked}
        onChange={(event) => onTick(event.target.checked)}
        className="accent-indigo"
      />
      {children}
    </label>
  );
}
