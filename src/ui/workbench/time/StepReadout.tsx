"use client";

import { besidesExposure, exposedWords } from "@/core/walk/exposedWords";
import { capital } from "@/core/words/capital";
import { useMemo } from "react";
import type { Band } from "@/core/bands/band";
import { partWords } from "@/core/bands/partWords";
import { bandsOfGroup } from "@/core/box/figures";
import { driveOf, groupOf } from "@/core/box/find";
import { rulesOfBox } from "@/core/box/rulesOfBox";
import { formatBytes } from "@/core/bytes/formatBytes";
import type { Plan } from "@/core/document/plan";
import { nameOfDriveFirst } from "@/core/drives/nameOfDrive";
import type { Finding } from "@/core/findings/finding";
import type { Stuck } from "@/core/schedule/schedulePlan";
import { moduleOf } from "@/core/steps/registry";
import { onlineWords } from "@/core/steps/swapping";
import { momentWords } from "@/core/time/dateWords";
import { ownTimesWords } from "@/core/logbook/ownTimes";
import { hoursWords } from "@/core/time/hoursWords";
import { changesBetween } from "@/core/walk/bandChanges";
import type { WalkedStep } from "@/core/walk/moment";
import { dayOf } from "@/core/walk/planSummary";
import { STUCK_WORDS } from "../../calendar/stuckWords";
import { Explained } from "../../kit/Explained";
import { useUnit } from "../../preferences/preferences";
import { Findings } from "../readout/Findings";
import { deviceZone } from "../../carry/when";
import { useWorkbench } from "../useWorkbench";

/** That the calendar cannot give a step a date, where it is so. */
function noDate(stuck: Stuck | null | undefined, step: string): Finding[] {
  if (stuck?.step !== step) return [];
  return [{ code: "no-hands", severity: "warn", message: STUCK_WORDS[stuck.why], drives: [] }];
}

const BAND_WORDS = {
  new: "comes",
  grown: "grows",
  wider: "runs over more drives",
  moved: "gets another layout",
  shrunk: "gets lower",
  gone: "of before goes",
};

/** The bands of a group at a moment. */
function bandsOf(plan: Plan, id: string): readonly Band[] {
  const group = groupOf(plan, id);
  return group ? bandsOfGroup(plan, group, rulesOfBox(plan)) : [];
}

/** What the step that led to the chosen moment does, takes and risks. */
export function StepReadout() {
  const { walk, at, dates } = useWorkbench();
  const [unit] = useUnit();
  const moment = walk.moments[at];
  const before = walk.moments[at - 1];
  const bands = useMemo(
    () =>
      moment && before
        ? changesBetween(before.state.plan, moment.state.plan).map(
            ({ group, index, kind }) =>
              `${partWords(bandsOf((kind === "gone" ? before : moment).state.plan, group), index)} ` +
              `${BAND_WORDS[kind]}.`,
          )
        : [],
    [moment, before],
  );
  const walked = moment?.walked;
  if (!moment || !before || !walked) return null;
  const { capacities } = moment;
  return (
    <section aria-label="The chosen step" className="space-y-1 border-b border-line pb-3 text-[0.95rem]">
      <When walked={walked} />
      <p>
        <Explained text={walked.does} />
      </p>
      <p className="text-soft">
        <Explained text={walked.why} />
      </p>
      {walked.step.disabled && <p className="text-soft">Skipped: it changes nothing.</p>}
      {!walked.done && !walked.step.disabled && (
        <p className="font-semibold text-geranium">It cannot be carried out as planned.</p>
      )}
      {walked.done && <Takes walked={walked} before={before.state.plan} after={moment.state.plan} />}
      <Risks walked={walked} before={before.state.plan} />
      {walked.done && <Meanwhile walked={walked} before={before.state.plan} />}
      {walked.done && capacities.pool !== capacities.fileSystem && (
        <p>
          Afterwards {formatBytes(capacities.pool, unit)} in the pool, {formatBytes(capacities.volume, unit)} in
          volumes, {formatBytes(capacities.fileSystem, unit)} for your files.
        </p>
      )}
      {bands.length > 0 && <p className="text-soft">{bands.join(" ")}</p>}
      <Findings
        findings={[
          ...(dates.late.get(walked.step.id) ?? []),
          ...noDate(dates.schedule?.stuck, walked.step.id),
          ...besidesExposure(walked),
        ]}
      />
    </section>
  );
}

/** When the step ends, and when and where its hands are needed. */
function When({ walked }: { walked: WalkedStep }) {
  const { walk, at, dates } = useWorkbench();
  const scheduled = dates.schedule?.steps[at - 1];
  const running = walk.plan.underWay?.find(({ step }) => step === walked.step.id);
  const zone = dates.schedule?.calendar.timeZone ?? "UTC";
  const end = scheduled ? momentWords(scheduled.end, zone) : `day ${dayOf(walked.to)}`;
  return (
    <>
      <h2 className="text-soft">
        After step {at} of {walk.moments.length - 1}, {walked.done ? end : "not carried out"}
      </h2>
      {running && (
        <p className="font-semibold">
          Under way since {momentWords(Date.parse(running.start), dates.schedule ? zone : deviceZone())}.
        </p>
      )}
      {scheduled?.attention && !running && (
        <p>
          Begins {momentWords(scheduled.start, zone)}, {scheduled.attention === "box" ? "at the box" : "at the screen"}
          {scheduled.waitsFor === "delivery" ? ", once it is delivered" : ""}.
        </p>
      )}
    </>
  );
}

/** How long a step takes, how the pool fares meanwhile, what is read and written, and whether there is a way back. */
function Takes({ walked: { cost }, before, after }: { walked: WalkedStep; before: Plan; after: Plan }) {
  const [unit] = useUnit();
  const sum = (kind: "reads" | "writes") => cost.work.reduce((bytes, each) => bytes + each[kind], 0);
  const [reads, writes] = [sum("reads"), sum("writes")];
  const moved = [
    ...(reads > 0 ? [`reads ${formatBytes(reads, unit)}`] : []),
    ...(writes > 0 ? [`writes ${formatBytes(writes, unit)}`] : []),
  ];
  const wayBack = cost.undoable ? "It can be undone." : "It cannot be undone. Only a backup brings the old state back.";
  const own = ownTimesWords(before, cost.boxWork?.kind);
  return (
    <p>
      <strong className="font-semibold">{hoursWords(cost.hours)}</strong>
      {own ? ` ${own}` : ""}, {[onlineWords(cost, rulesOfBox(before)), ...moved].join("; ")}.{" "}
      {after !== before ? wayBack : ""}
    </p>
  );
}

/** What to do if a drive fails while the step runs. */
function Meanwhile({ walked: { step }, before }: { walked: WalkedStep; before: Plan }) {
  const advice = moduleOf(step).ifADriveFails?.(step, before);
  if (!advice) return null;
  return (
    <p>
      <span className="font-semibold">If a drive fails meanwhile:</span> <Explained text={advice} />
    </p>
  );
}

/** What is not survived while the step runs, and what it erases. */
function Risks({ walked, before }: { walked: WalkedStep; before: Plan }) {
  const [unit] = useUnit();
  const erased = walked.cost.erased.flatMap((id) => {
    const drive = driveOf(before, id);
    return drive && !drive.toBuy ? [nameOfDriveFirst(drive, unit)] : [];
  });
  return (
    <>
      {walked.exposure.map((each) => (
        <p key={each.pool} className={each.redundancy <= 0 ? "font-semibold text-geranium" : "text-ochre-text"}>
          {capital(exposedWords(each, walked.cost.hours.expected))}.
        </p>
      ))}
      {erased.map((name) => (
        <p key={name} className="text-geranium">
          {name} is erased.
        </p>
      ))}
    </>
  );
}
