import type { Step } from "@/core/document/plan";
import { away, clinicPlan } from "@/core/testing/dataPlan";
import { nameOfPlace, sizeText, stepChangesFrom } from "./stepForm";

const before = clinicPlan({ backups: [away] });

/** The form as the dialog of a step fills it, with what is typed into it. */
function typed(step: Step, ...fields: [string, string][]) {
  const data = new FormData();
  const filled: Record<string, string> = {
    size: sizeText(step),
    notBefore: step.notBefore ?? "",
    ...("by" in step ? { by: step.by } : {}),
    ...("layout" in step ? { layout: step.layout } : {}),
    ...("to" in step ? { to: nameOfPlace(step.to, before) } : {}),
  };
  const names = new Set(fields.map(([name]) => name));
  for (const [name, value] of Object.entries(filled)) if (!names.has(name)) data.append(name, value);
  if ("drives" in step && !names.has("drives")) for (const id of step.drives) data.append("drives", id);
  for (const [name, value] of fields) data.append(name, value);
  return stepChangesFrom(data, step, before);
}

const sized = { id: "t1", pool: "p1", volume: "v1", bytes: 12_000_000_000_000 };
const grow: Step = { ...sized, kind: "grow-volume" };
const shrink: Step = { ...sized, kind: "shrink-volume" };
const backUp: Step = { id: "t1", kind: "back-up", pool: "p1", to: away.id };
const widen: Step = { id: "t1", kind: "widen-group", group: "g1", drives: ["x1"], notBefore: "2027-01-02" };

test("a form that is left as it is changes nothing", () => {
  for (const step of [grow, shrink, backUp, widen]) expect(typed(step)).toEqual({});
});

test("a size is read, taken away where the step can do without, and asked for where it cannot", () => {
  expect(typed(grow, ["size", "13 TB"])).toEqual({ bytes: 13e12 });
  expect(typed(grow, ["size", ""])).toEqual({ bytes: null });
  expect(typed(shrink, ["size", ""])).toBe("Type the size that the volume is to have.");
  expect(typed(shrink, ["size", "much"])).toEqual(expect.stringContaining("much"));
});

test("a place is kept by the backup whose name it is, otherwise as it was typed", () => {
  expect(nameOfPlace(away.id, before)).toBe(away.name);
  expect(typed(backUp, ["to", "a drawer"])).toEqual({ to: "a drawer" });
  expect(typed({ ...backUp, to: "a drawer" }, ["to", away.name])).toEqual({ to: away.id });
});

test("drives and days are told only where they are others", () => {
  expect(typed(widen, ["drives", "x2"])).toEqual({ drives: ["x2"] });
  expect(typed(widen, ["drives", "x1"], ["drives", "x2"])).toEqual({ drives: ["x1", "x2"] });
  expect(typed(widen, ["notBefore", ""])).toEqual({ notBefore: null });
  expect(typed(widen, ["notBefore", "2027-02-01"])).toEqual({ notBefore: "2027-02-01" });
});
