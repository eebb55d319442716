"use client";

import { useMemo } from "react";
import { formatBytes } from "@/core/bytes/formatBytes";
import { momentWords } from "@/core/time/dateWords";
import type { Finding } from "@/core/findings/finding";
import { changesBetween } from "@/core/walk/bandChanges";
import { dayOf } from "@/core/walk/planSummary";
import { nameOfDriveFirst } from "@/core/drives/nameOfDrive";
import { useUnit } from "../../preferences/preferences";
import { Findings } from "../readout/Findings";
import { hoursWords } from "@/core/time/hoursWords";
import { useWorkbench } from "../useWorkbench";
import { driveOf } from "@/core/box/find";

/** The calendar leaves no hour for a step. */
const NO_HANDS: Finding = {
  code: "no-hands",
  severity: "warn",
  message:
    "Within three years there is no hour at which you could begin this. Change your hours, or the days that you left out, in the calendar.",
  drives: [],
};

const BAND_WORDS = {
  new: "comes",
  grown: "grows",
  wider: "runs over more drives",
  moved: "gets another scheme",
  shrunk: "gets lower",
  gone: "of before goes",
};

/** What the step that led to the chosen moment does, takes and risks. */
export function StepReadout() {
  const { walk, at, dates } = useWorkbench();
  const [unit] = useUnit();
  const moment = walk.moments[at];
  const before = walk.moments[at - 1];
  const walked = moment?.walked;
  const bands = useMemo(
    () =>
      moment && before
        ? changesBetween(before.state.plan, moment.state.plan).map(
            (change) => `Band ${change.index + 1} ${BAND_WORDS[change.kind]}.`,
          )
        : [],
    [moment, before],
  );
  if (!moment || !before || !walked) return null;
  const { cost } = walked;
  const scheduled = dates.schedule?.steps[at - 1];
  const zone = dates.schedule?.calendar.timeZone ?? "UTC";
  const erased = cost.erased.flatMap((id) => {
    const drive = driveOf(before.state.plan, id);
    return drive && !drive.toBuy ? [nameOfDriveFirst(drive, unit)] : [];
  });
  const moved = (kind: "reads" | "writes") => cost.work.reduce((sum, each) => sum + each[kind], 0);
  return (
    <section aria-label="The chosen step" className="space-y-1 border-b border-line pb-3 text-[0.95rem]">
      <h2 className="text-soft">
        After step {at} of {walk.moments.length - 1},{" "}
        {!walked.done ? "not carried out" : scheduled ? momentWords(scheduled.end, zone) : `day ${dayOf(walked.to)}`}
      </h2>
      {scheduled?.attention && (
        <p>
          Begins {momentWords(scheduled.start, zone)}, {scheduled.attention === "box" ? "at the box" : "at the screen"}
          {scheduled.waitsFor === "delivery" ? ", once it is delivered" : ""}.
        </p>
      )}
      <p>{walked.does}</p>
      <p className="text-soft">{walked.why}</p>
      {walked.step.disabled && <p className="text-soft">Passed over: it changes nothing.</p>}
      {!walked.done && !walked.step.disabled && (
        <p className="font-semibold text-geranium">It cannot be carried out as planned.</p>
      )}
      {walked.done && (
        <p>
          <strong className="font-semibold">{hoursWords(cost.hours)}</strong>,{" "}
          {cost.online === "offline" ? "the pool is offline" : cost.online === "slower" ? "online, slower" : "online"}
          {moved("reads") > 0 ? `; reads ${formatBytes(moved("reads"), unit)}` : ""}
          {moved("writes") > 0 ? `; writes ${formatBytes(moved("writes"), unit)}` : ""}.{" "}
          {moment.state.plan === before.state.plan
            ? ""
            : cost.undoable
              ? "It can be undone."
              : "There is no way back but a backup."}
        </p>
      )}
      {walked.exposure
        .filter((each) => each.redundancy > 0 || !walked.findings.some((finding) => finding.code === "no-redundancy"))
        .map((each) => (
          <p key={each.pool} className={each.redundancy <= 0 ? "font-semibold text-geranium" : "text-ochre-text"}>
            {each.redundancy <= 0
              ? "While it runs no drive may fail."
              : `While it runs only ${each.redundancy === 1 ? "one drive" : `${each.redundancy} drives`} may fail.`}
          </p>
        ))}
      {erased.map((name) => (
        <p key={name} className="text-geranium">
          {name} is erased.
        </p>
      ))}
      {moment.capacities.pool !== moment.capacities.fileSystem && (
        <p>
          Afterwards {formatBytes(moment.capacities.pool, unit)} in the pool,{" "}
          {formatBytes(moment.capacities.volume, unit)} in volumes, {formatBytes(moment.capacities.fileSystem, unit)}{" "}
          for folders.
        </p>
      )}
      {bands.length > 0 && <p className="text-soft">{bands.join(" ")}</p>}
      <Findings
        findings={[
          ...(dates.late.get(walked.step.id) ?? []),
          ...(dates.schedule?.stuck === walked.step.id ? [NO_HANDS] : []),
          ...walked.findings,
        ]}
      />
    </section>
  );
}
