import type { UnitFamily } from "@/core/bytes/formatBytes";
import type { Ranged } from "@/core/chance/figures";
import type { PlanChances } from "@/core/chance/planChances";
import type { Plan } from "@/core/document/plan";
import { planFileName } from "@/exchange/exportPlan";
import { saveFile } from "@/exchange/saveFile";
import { followChances } from "../chance/followChances";
import { today } from "../today";

/** The clipboard is given only shortly after a press: what is not worked out by then stays out. In milliseconds. */
const PATIENCE = 3000;

/** The chances of a plan with their ranges, where they are known in time. */
function chancesWithin(plan: Plan, last: number, ms: number): Promise<Ranged<PlanChances> | null> {
  return new Promise((resolve) => {
    const end = (chances: Ranged<PlanChances> | null) => {
      clearTimeout(timer);
      // It is not followed any more once this has been told.
      queueMicrotask(() => stop());
      resolve(chances);
    };
    const timer = setTimeout(() => end(null), ms);
    const stop = followChances(plan, last > 0 ? `0,${last}` : "0", ({ told, trouble }) => {
      if (told?.ranged) end(told.ranged);
      else if (trouble) end(null);
    });
  });
}

/**
 * The plan as Markdown: to the clipboard, or to a file where that is not allowed.
 *
 * @returns what was done, in a sentence
 */
export async function copyMarkdown(plan: Plan, unit: UnitFamily): Promise<string> {
  const [{ walkPlan }, { demand }, { timesByCalendar, timesByHours }, { planReport }, { planMarkdown }] =
    await Promise.all([
      import("@/core/walk/walkPlan"),
      import("@/core/schedule/demand"),
      import("@/core/schedule/stepTimes"),
      import("@/exchange/planReport/planReport"),
      import("@/exchange/planReport/planMarkdown"),
    ]);
  const walked = walkPlan(plan, unit, undefined, today());
  const dates = plan.calendar
    ? (await import("@/core/schedule/schedulePlan")).schedulePlan(walked, plan.calendar)
    : null;
  const times = dates ? timesByCalendar(dates) : timesByHours(walked);
  const chances = await chancesWithin(plan, walked.moments.length - 1, PATIENCE);
  const start = plan.calendar?.start ?? today();
  const text = planMarkdown(planReport(walked, dates, demand(walked, times), start, chances));
  try {
    await navigator.clipboard.writeText(text);
    return "The plan is on the clipboard, as Markdown.";
  } catch {
    saveFile(planFileName(plan.name).replace(/\.cortijo\.json$/, ".md"), "text/markdown", text);
    return "The plan is saved as a Markdown file.";
  }
}
