import { formatExactBytes } from "@/core/bytes/formatBytes";
import { parseSize } from "@/core/bytes/parseSize";
import type { BoxRules, Plan, Step, StepChanges } from "@/core/document/plan";
import { moduleOf } from "@/core/steps/registry";
import { textOf } from "../../kit/textOf";

/** The size that was typed for a volume; null for none; or what is wrong with it. */
function sizeFrom(text: string, asksSize: "optional" | "required"): { bytes: number | null } | string {
  if (text === "") return asksSize === "required" ? "Type the size that the volume is to have." : { bytes: null };
  const parsed = parseSize(text);
  return parsed.ok ? { bytes: parsed.size.bytes } : parsed.message;
}

/** The drives that were ticked, where they are others than before. */
function drivesFrom(data: FormData, step: Step): Pick<StepChanges, "drives"> {
  if (!("drives" in step)) return {};
  const drives = data.getAll("drives").map(String);
  const same = drives.length === step.drives.length && drives.every((id) => step.drives.includes(id));
  return same ? {} : { drives };
}

/** Whom the box is to favour meanwhile, where that is another than before; empty for as its rules say. */
function preferenceFrom(chosen: string, step: Step): Pick<StepChanges, "preference"> {
  const now = "preference" in step ? (step.preference ?? "") : "";
  if (!moduleOf(step).paced || chosen === now) return {};
  return { preference: chosen === "" ? null : (chosen as BoxRules["preference"]) };
}

/** What of a step was changed in the form, or what is wrong with it. Of a field that is as it was, nothing is said. */
export function stepChangesFrom(data: FormData, step: Step, before: Plan): StepChanges | string {
  const text = (name: string) => textOf(data, name);
  const [size, by, layout, to, day] = [text("size"), text("by"), text("layout"), text("to"), text("notBefore")];
  const changes: StepChanges = drivesFrom(data, step);
  const { asksSize } = moduleOf(step);
  if (asksSize && size !== sizeText(step)) {
    const typed = sizeFrom(size, asksSize);
    if (typeof typed === "string") return typed;
    Object.assign(changes, typed);
  }
  if ("by" in step && by !== step.by) changes.by = by;
  if ("layout" in step && layout !== step.layout) changes.layout = layout as (typeof step)["layout"];
  if ("to" in step && to !== nameOfPlace(step.to, before)) changes.to = placeOf(to, before);
  Object.assign(changes, preferenceFrom(text("preference"), step));
  if (day !== (step.notBefore ?? "")) changes.notBefore = day || null;
  return changes;
}

/** The size that a step gives a volume, as it stands in the field. */
export const sizeText = (step: Step): string =>
  "bytes" in step && step.bytes !== undefined ? formatExactBytes(step.bytes).replace(/\u00a0B$/, "") : "";

/** Where data goes: the name of a backup of the plan, else what was typed. */
export const nameOfPlace = (to: string, { backups }: Plan): string =>
  backups?.find((backup) => backup.id === to)?.name ?? to;

/** A place as the plan keeps it: the backup of that name, where there is one. */
const placeOf = (name: string, { backups }: Plan): string => backups?.find((each) => each.name === name)?.id ?? name;
