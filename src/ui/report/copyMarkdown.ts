import type { UnitFamily } from "@/core/bytes/formatBytes";
import type { Plan } from "@/core/document/plan";
import { planFileName } from "@/exchange/exportPlan";
import { saveFile } from "@/exchange/saveFile";
import { today } from "../today";

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
  const text = planMarkdown(planReport(walked, dates, demand(walked, times), plan.calendar?.start ?? today()));
  try {
    await navigator.clipboard.writeText(text);
    return "The plan is on the clipboard, as Markdown.";
  } catch {
    saveFile(planFileName(plan.name).replace(/\.cortijo\.json$/, ".md"), "text/markdown", text);
    return "The plan is saved as a Markdown file.";
  }
}
