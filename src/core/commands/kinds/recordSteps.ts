import { cardOf } from "../../carrying/card";
import { afterStep } from "../../carrying/recording";
import type { RecordedStep } from "../../document/command";
import type { Plan } from "../../document/plan";
import { nameOfDrive } from "../../drives/nameOfDrive";
import { capital } from "../../words/capital";
import { oneOrMany } from "../../words/counted";
import { asItWas } from "../asItWas";
import { become } from "../become";
import type { CommandModule } from "../commandModule";
import { placeOfStep } from "../lookUp";
import { stepWords } from "../recordWords";
import { refuse } from "../refusal";

/** The plan with the serial numbers of new drives, which are bought then; one that is another drive's is refused. */
function withSerials(plan: Plan, serials: RecordedStep["serials"] = []): Plan {
  return serials.reduce((is, { drive: id, serial }) => {
    const other = is.drives.find((drive) => drive.id !== id && drive.serial?.toLowerCase() === serial.toLowerCase());
    if (other)
      refuse(`${capital(nameOfDrive(other))} has the serial number ${serial} already. Correct it on the sheet.`);
    const drives = is.drives.map((drive) => {
      if (drive.id !== id || drive.serial !== undefined) return drive;
      const { toBuy: _toBuy, ...bought } = drive;
      return { ...bought, serial };
    });
    return { ...is, drives };
  }, plan);
}

/** The plan with one step recorded. */
function recorded(was: Plan, { step, start, end, seen, serials }: RecordedStep, unit: "TB" | "TiB"): Plan {
  const plan = withSerials(was, serials);
  const at = placeOfStep(plan, step);
  const isRunning = (id: string) => plan.underWay?.some((each) => each.step === id) ?? false;
  const earlier = plan.steps.slice(0, at).find(({ id, disabled }) => !disabled && !isRunning(id));
  if (earlier)
    refuse(
      `${stepWords(plan, step)} was done, and ${stepWords(plan, earlier.id)} before it was not. Record that ` +
        "first, or skip it in the plan.",
    );
  if (end === undefined)
    return isRunning(step) ? plan : { ...plan, underWay: [...(plan.underWay ?? []), { step, start }] };
  if (Date.parse(end) < Date.parse(start)) refuse(`${stepWords(plan, step)} would end before it begins.`);
  const size = seen ? cardOf(plan, step, unit)?.size : null;
  const shown = seen && size ? { shown: { predicted: size.bytes, seen } } : {};
  const next = afterStep(plan, step, { start, end, outcome: "done", ...shown }, unit);
  return next.ok ? next.plan : refuse(`${stepWords(plan, step)}: ${next.reason}`);
}

/** Steps that were done away from Cortijo, with the times that were noted there; in the order of the plan. */
export const recordSteps: CommandModule<"record-steps"> = {
  apply: (plan, { steps, unit }) => {
    const order = new Map(plan.steps.map(({ id }, i) => [id, i]));
    const sorted = [...steps].sort((a, b) => (order.get(a.step) ?? 0) - (order.get(b.step) ?? 0));
    become(
      plan,
      sorted.reduce((is, each) => recorded(is, each, unit ?? "TB"), asItWas(plan)),
    );
  },
  describe: ({ steps }) => `brought ${oneOrMany(steps.length, "a step", "steps")} back from a sheet`,
};
