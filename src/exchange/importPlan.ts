import { openKept, openPlan } from "@/core/box/openPlan";
import type { Plan } from "@/core/document/plan";
import type { ReadPlanResult } from "@/core/document/readPlan";
import type { Problem } from "@/core/document/problem";
import { textOfFile } from "./textOfFile";

/** The largest plan file that is read. The largest plan that can be made is smaller by far. */
export const MOST_PLAN_FILE_BYTES = 4 * 2 ** 20;

/** The same for a file of all plans. */
export const MOST_PLANS_FILE_BYTES = 64 * 2 ** 20;

/** What a file held: its plans, and those of a file of several that could not be read. */
export type PlanFileResult =
  { ok: true; plan: Plan; others: Plan[]; refused: Problem[] } | { ok: false; title: string; problems: Problem[] };

const TITLES = {
  "not-a-plan": "This file is not a plan that Cortijo can read",
  newer: "This plan was made by a newer Cortijo",
  impossible: "This plan contradicts itself",
};

const tooLarge = ({ name, size }: Pick<File, "name" | "size">, most: number): PlanFileResult => {
  const message =
    `“${name}” has ${Math.round(size / 1e6)} MB; ` +
    (most === MOST_PLAN_FILE_BYTES ? "a plan has at most 4 MB" : "all plans together have at most 64 MB") +
    ". " +
    "Choose the file that was exported from Cortijo, named *.cortijo.json.";
  return { ok: false, title: "This file is too large", problems: [{ code: "too-large", message, pointer: "" }] };
};

/** Whether a file says in its first characters that it holds all plans. */
const saysPlans = (head: string): boolean => head.includes('"cortijo-plans"');

/** The documents in the text of a file of all plans; null where it is damaged or of another version. */
function plansIn(text: string): unknown[] | null {
  try {
    const file = JSON.parse(text) as { format?: unknown; version?: unknown; plans?: unknown };
    return file.format === "cortijo-plans" && file.version === 1 && Array.isArray(file.plans) ? file.plans : null;
  } catch {
    return null;
  }
}

const nameOf = (document: unknown): string => {
  const name = typeof document === "object" && document !== null && "name" in document ? document.name : null;
  return typeof name === "string" && name !== "" ? `“${name.slice(0, 60)}”` : "a plan without a name";
};

/** Each plan by itself: those that can be read, and what is wrong with the others. */
function readAll(documents: unknown[]): PlanFileResult {
  const read = documents.map((document) => ({ document, result: openKept(document) }));
  const plans = read.flatMap(({ result }) => (result.ok ? [result.plan] : []));
  const refused = read.flatMap(({ document, result }, i): Problem[] => {
    if (result.ok) return [];
    const [first] = result.problems;
    const message = `${nameOf(document)} could not be read: ${first?.message ?? "it is no plan."}`;
    return [{ code: "not-read", message, pointer: `/plans/${i}${first?.pointer ?? ""}` }];
  });
  const [plan, ...others] = plans;
  if (plan) return { ok: true, plan, others, refused };
  const none: Problem = { code: "no-plans", message: "There is no plan in this file that can be read.", pointer: "" };
  return notAPlan(none, ...refused);
}

/** A single plan as a file of one. */
export const asFile = (result: ReadPlanResult): PlanFileResult =>
  result.ok
    ? { ok: true, plan: result.plan, others: [], refused: [] }
    : { ok: false, title: TITLES[result.kind], problems: result.problems };

/**
 * Reads a file of one plan or of all plans, after a look at its size. Nothing is changed by it.
 *
 * @param file what was chosen or dropped
 */
export async function readPlanFile(file: File): Promise<PlanFileResult> {
  const begun = textOfFile(await file.slice(0, 400).arrayBuffer());
  const head = begun.ok ? begun.text : "";
  const most = saysPlans(head) ? MOST_PLANS_FILE_BYTES : MOST_PLAN_FILE_BYTES;
  if (file.size > most) return tooLarge(file, most);
  const read = textOfFile(await file.arrayBuffer());
  if (!read.ok) return notAPlan({ code: "encoding", message: read.message, pointer: "" });
  if (!saysPlans(head)) return asFile(openPlan(read.text));
  const documents = plansIn(read.text);
  if (documents) return readAll(documents);
  const message =
    "This file says that it holds all plans, but it was cut off, changed, or made by a newer Cortijo. Export it again.";
  return notAPlan({ code: "damaged-plans", message, pointer: "" });
}

const notAPlan = (...problems: Problem[]): PlanFileResult => ({ ok: false, title: TITLES["not-a-plan"], problems });
