import { rulesOfBox } from "../box/rulesOfBox";
import { floorTo } from "../bytes/floorTo";
import { nominalBytes } from "../bytes/nominalBytes";
import { parseSize } from "../bytes/parseSize";
import type { Bytes } from "../bytes/bytes";
import { UNIT_SPACE, type UnitFamily } from "../bytes/formatBytes";
import type { Command } from "../document/command";
import type { BoxRules, Plan } from "../document/plan";
import { shortSize } from "../drives/nameOfDrive";
import { boxScreen } from "../prediction/boxScreen";
import { expectedSize, type ExpectedSize } from "./expectedSize";
import { stepNow, type StepNow } from "./stepNow";

/** What would explain that a box shows another size than was predicted, with what to change in the plan if it is so. */
export interface Explanation {
  message: string;
  mend?: { label: string; command: Command };
}

/** A size that the box showed, held against the prediction. */
export type Seen =
  | { kind: "unclear"; message: string }
  | { kind: "as-predicted"; message: string }
  | { kind: "differs"; message: string; explanations: Explanation[] };

const SCREENS = ["decimal", "binary", "binary-printed-as-decimal"] as const;

/** A figure as it was typed: what it stands for, and how exactly. */
interface Figure {
  value: number;
  decimals: number;
  /** Null where no unit was typed. */
  unit: string | null;
}

function figureOf(typed: string): Figure | null {
  const match = /^\s*([\d\s\u00a0\u202f'’]+(?:[.,]\d+)?)\s*([a-zA-Z]*)\s*$/.exec(typed);
  if (!match) return null;
  const [, digits = "", unit = ""] = match;
  const plain = digits.replace(/[\s\u00a0\u202f'’]/g, "").replace(",", ".");
  const value = Number(plain);
  if (!Number.isFinite(value) || value <= 0) return null;
  return { value, decimals: plain.split(".")[1]?.length ?? 0, unit: unit === "" ? null : unit };
}

/** What a unit stands for on a screen: where binary sizes are printed as decimal ones, TB is 2^40. */
function factorOf(unit: string, screen: BoxRules["sizesShown"]): number | null {
  const known = parseSize(`1 ${unit}`);
  if (!known.ok || known.size.kind === "bytes") return known.ok ? 1 : null;
  const power = "KMGTP".indexOf(unit.charAt(0).toUpperCase()) + 1;
  const binary = known.size.kind === "binary" || screen === "binary-printed-as-decimal";
  return (binary ? 1024 : 1000) ** power;
}

/** Whether a figure is what a size comes to on a screen, rounded to its digits or cut off after them. */
function shows(figure: Figure, bytes: Bytes, screen: BoxRules["sizesShown"]): boolean {
  const own = /[a-zA-Z]+$/.exec(boxScreen(bytes, { sizesShown: screen }))?.[0] ?? "TB";
  const factor = factorOf(figure.unit ?? own, screen);
  if (factor === null) return false;
  const scale = 10 ** figure.decimals;
  const [is, typed] = [(bytes / factor) * scale, figure.value * scale];
  return Math.abs(Math.round(is) - typed) < 1e-6 || Math.abs(Math.floor(is) - typed) < 1e-6;
}

const changeRules = (plan: Plan, overrides: Partial<BoxRules>): Command => ({
  kind: "change-box",
  rules: { ...plan.box.rules, overrides: { ...plan.box.rules.overrides, ...overrides } },
});

/** The step on a plan that is otherwise. */
function otherwise(plan: Plan, step: string, family: UnitFamily): ExpectedSize | null {
  const now = stepNow(plan, step, family);
  if (!now?.walked.done) return null;
  return expectedSize(now.before.state.plan, now.after.state.plan, rulesOfBox(now.after.state.plan));
}

function byUnits(figure: Figure, plan: Plan, { bytes }: ExpectedSize): Explanation[] {
  const own = rulesOfBox(plan).sizesShown;
  const [screen] = SCREENS.filter((each) => each !== own && shows(figure, bytes, each));
  if (!screen) return [];
  const words = {
    decimal: "in thousands (TB)",
    binary: "in steps of 1,024 (TiB)",
    "binary-printed-as-decimal": "in steps of 1,024, and prints TB",
  };
  return [
    {
      message: `It is the same size: your box counts ${words[screen]}.`,
      mend: { label: "Let the plan show sizes so", command: changeRules(plan, { sizesShown: screen }) },
    },
  ];
}

function byForgotten(figure: Figure, plan: Plan, { bytes, before }: ExpectedSize): Explanation[] {
  if (bytes === before || !shows(figure, before, rulesOfBox(plan).sizesShown)) return [];
  return [
    {
      message:
        "That is the size from before: the new space is not in use yet. Look for an act that was left out, or " +
        "wait until the box has ended.",
    },
  ];
}

/** A reserve that the box keeps of its pools and that the plan does not know. */
function byReserve(
  figure: Figure,
  plan: Plan,
  step: string,
  expected: ExpectedSize,
  family: UnitFamily,
): Explanation[] {
  const rules = rulesOfBox(plan);
  const factor = factorOf(
    figure.unit ?? /[a-zA-Z]+$/.exec(boxScreen(expected.bytes, rules))?.[0] ?? "TB",
    rules.sizesShown,
  );
  const less = factor === null ? 0 : 1 - (figure.value * factor) / expected.bytes;
  if (less <= 0.0005 || less > 0.1) return [];
  const exact = rules.poolReserveShare + less * (1 - rules.poolReserveShare);
  // A figure is rounded: of the shares that it can come of the roundest is taken.
  for (const digits of [1, 2, 3]) {
    const share = Number(exact.toPrecision(digits));
    if (share > 0.1) continue;
    const overrides = { ...plan.box.rules.overrides, poolReserveShare: share, poolReserveMaxBytes: null };
    const changed = { ...plan, box: { ...plan.box, rules: { ...plan.box.rules, overrides } } };
    const then = otherwise(changed, step, family);
    if (!then || !shows(figure, then.bytes, rules.sizesShown)) continue;
    const command = changeRules(plan, { poolReserveShare: share, poolReserveMaxBytes: null });
    return [
      {
        message:
          `It would be so if your box keeps ${Number((share * 100).toPrecision(3))}${UNIT_SPACE}% of its pools ` +
          "for itself.",
        mend: { label: "Let the plan keep as much", command },
      },
    ];
  }
  return [];
}

/** Sizes that hard disks are sold with, in GB. */
const SOLD = [500, 1000, 2000, 3000, 4000, 5000, 6000, 8000, 10000, 12000, 14000, 16000, 18000, 20000, 22000, 24000];

/** Another drive than was planned: one that goes in has another size. */
function byDrive(figure: Figure, plan: Plan, now: StepNow, family: UnitFamily): Explanation[] {
  const rules = rulesOfBox(plan);
  return now.walked.cost.erased.flatMap((id) => {
    const drive = plan.drives.find((each) => each.id === id);
    if (!drive) return [];
    const fits = SOLD.map(nominalBytes).filter((bytes) => {
      if (Math.abs(bytes / drive.bytes - 1) < 0.01) return false;
      const drives = plan.drives.map((each) => (each === drive ? { ...drive, bytes } : each));
      const then = otherwise({ ...plan, drives }, now.step.id, family);
      return then !== null && shows(figure, then.bytes, rules.sizesShown);
    });
    // What fits with many sizes points to none.
    const [bytes] = fits;
    if (bytes === undefined || fits.length > 2) return [];
    const is = shortSize({ bytes: floorTo(bytes, 512) }, family);
    return [
      {
        message:
          `It would be so if ${shortSize(drive, family)} drive ${drive.serial ?? drive.label} had ${is}: look at ` +
          "its label.",
        mend: { label: `It has ${is}`, command: { kind: "edit-drive", drive: id, changes: { bytes } } as const },
      },
    ];
  });
}

/**
 * Holds a size that the box shows against what the plan predicts once a step is done; a difference beyond rounding is
 * explained as far as it can be: other units, a step of growing that was forgotten, a reserve, a drive of another size.
 *
 * @param typed as the box shows it: "10.89", "10.89 TB"
 * @example seenSize("10.89", plan, "s3", "TB") // { kind: "as-predicted", message: "10.89 TB, as predicted." }
 */
export function seenSize(typed: string, plan: Plan, step: string, family: UnitFamily): Seen {
  const now = stepNow(plan, step, family);
  const rules = now ? rulesOfBox(now.after.state.plan) : null;
  const expected = now && rules && expectedSize(now.before.state.plan, now.after.state.plan, rules);
  if (!expected || !rules) return { kind: "unclear", message: "This step changes no size." };
  const figure = figureOf(typed);
  const screen = boxScreen(expected.bytes, rules);
  if (!figure || (figure.unit !== null && factorOf(figure.unit, rules.sizesShown) === null))
    return { kind: "unclear", message: `Type the size as your box shows it, like ${screen}.` };
  if (shows(figure, expected.bytes, rules.sizesShown))
    return { kind: "as-predicted", message: `${typed.trim()}, as predicted.` };
  return {
    kind: "differs",
    message: `The plan expects ${screen} for ${expected.of}.`,
    explanations: [
      ...byUnits(figure, plan, expected),
      ...byForgotten(figure, plan, expected),
      ...byReserve(figure, plan, step, expected, family),
      ...byDrive(figure, plan, now, family),
    ],
  };
}
