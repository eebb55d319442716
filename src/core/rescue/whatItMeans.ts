import { lossClauses } from "../bands/lossClauses";
import { bandsOfPool, fateOfPool } from "../box/figures";
import { drivesOf } from "../box/find";
import { goneIn } from "../box/gone";
import { systemFate } from "../box/systemFate";
import type { Drive } from "../document/plan";
import { nameOfDrive } from "../drives/nameOfDrive";
import type { Condition } from "../failures/condition";
import { layoutOf } from "../layouts/registry";
import { hasParitySchedule } from "../layouts/hasParitySchedule";
import { capital } from "../words/capital";
import { counted, oneOrMany, plural } from "../words/counted";
import { survivesWords } from "../words/survives";
import { listOf } from "../words/listOf";
import type { Rescue, RescueSetting } from "./rescue";

/** Whether the data of a pool can be read now. */
export function readableNow({ state, unreadable }: Condition): Rescue["readable"] {
  if (state === "lost") return false;
  return state === "partly-lost" || unreadable.length > 0 ? "partly" : true;
}

const named = ({ plan, family }: RescueSetting, ids: readonly string[]): string[] =>
  drivesOf(plan, ids).map((drive) => nameOfDrive(drive, family));

/** The first words: whether the data is safe, and what of it. */
export function firstWords(setting: RescueSetting, condition: Condition): string {
  const { plan, pool, rules } = setting;
  const name = pool.name || "this pool";
  const system =
    systemFate(plan, goneIn(plan), rules) === "gone"
      ? " The box's own system is gone with a drive, so it does not start: your data is on the others all the same."
      : "";
  const unreadable = named(setting, condition.unreadable);
  switch (condition.state) {
    case "lost":
      return (
        `Nothing on ${name} can be read now: ${counted(condition.missing.length, "drive")} ` +
        `${plural(condition.missing.length, "is", "are")} gone, and that is more than it survives.${system}`
      );
    case "partly-lost":
      return `What was on ${listOf(unreadable)} is lost here. Everything on the other drives can be read.${system}`;
    case "whole":
      return `All data on ${name} is there and can be read.${system}`;
    default:
      return unreadable.length > 0
        ? `Nothing is lost. The files on ${listOf(unreadable)} cannot be read until they are restored; all ` +
            `others can.${system}`
        : `All data on ${name} can be read. Nothing is lost.${system}`;
  }
}

/** The drives of which any one, failing now, would lose data. */
function deadly({ plan, pool, rules }: RescueSetting): string[] {
  const gone = goneIn(plan);
  const tight = bandsOfPool(plan, pool, rules)
    .flatMap(lossClauses)
    .filter(({ drives, tolerance }) => drives.filter((id) => gone.has(id)).length >= tolerance);
  const left = new Set(tight.flatMap(({ drives }) => drives.filter((id) => !gone.has(id))));
  return pool.groups.flatMap((group) => group.drives).filter((id) => left.has(id));
}

/** What would take the data, by name. */
export function whatWouldTakeIt(setting: RescueSetting, { state, redundancyLeft }: Condition): string {
  if (state === "lost") return "";
  const { pool, plan } = setting;
  const independent = pool.groups.every(({ layout }) => layoutOf(layout).independent);
  const hasParity = pool.groups.some(({ layout }) => layoutOf(layout).dedicatedParity !== undefined);
  const what = !independent
    ? `everything on ${pool.name || "the pool"} is lost`
    : hasParity
      ? "what is on all data drives that are gone then is lost"
      : "what is on it is lost";
  const failing = drivesOf(
    plan,
    pool.groups.flatMap((group) => group.drives),
  ).filter((drive: Drive) => drive.health.state === "failing" && !goneIn(plan).has(drive.id));
  const soon =
    failing.length > 0
      ? ` ${capital(listOf(failing.map((drive) => nameOfDrive(drive, setting.family))))} ` +
        `${plural(failing.length, "is", "are")} failing: treat ${plural(failing.length, "it", "them")} as the ` +
        "next."
      : "";
  if (state === "whole" && redundancyLeft > 0) return `${survivesWords(redundancyLeft)}.${soon}`;
  if (redundancyLeft > 0)
    return (
      `The loss of any ${oneOrMany(redundancyLeft, "one more drive", "more drives")} is survived. One beyond ` +
      `that, and data is lost.${soon}`
    );
  const names = named(setting, deadly(setting));
  if (names.length === 0) return soon.trim();
  return `${names.length === 1 ? `If ${names[0]} fails` : `If any one of these fails, ${what}: ${listOf(names)}`}${names.length === 1 ? `, ${what}` : ""}.${soon}`;
}

/** What must not be done, each a sentence. */
export function neverDo(setting: RescueSetting, { state, missing, redundancyLeft }: Condition): string[] {
  const { plan, pool, rules } = setting;
  if (missing.length === 0) return [];
  const failed = drivesOf(plan, missing).filter((drive) => drive.state === "failed");
  const create = "Do not “initialise”, “create” or format anything to get the pool back: that erases it.";
  if (state === "lost")
    return [
      create,
      "Do not write anything to its drives, and do not let the box repair a file system on them.",
      "Do not try one drive after another again and again: each try wears a dying drive.",
    ];
  return [
    ...(redundancyLeft <= 0
      ? ["Do not pull any other drive of this pool, also one that looks bad: without it, data is lost."]
      : ["Do not replace two drives at once."]),
    ...(hasParitySchedule(pool, rules)
      ? [
          "Do not update the parity before everything is restored: it would record the loss.",
          "Do not let an update run over an empty new drive.",
        ]
      : []),
    create,
    ...(failed.length > 0
      ? [
          `Do not put ${listOf(failed.map((drive) => nameOfDrive(drive, setting.family)))} back in once ` +
            "another is in the place.",
        ]
      : []),
    "Do not let the box repair a file system while the pool is being filled.",
    ...(fateOfPool(plan, pool, rules).kind === "degraded" && pool.groups.some(({ layout }) => layoutOf(layout).chunked)
      ? ["Do not fill the pool further: what is written now may be there only once."]
      : []),
  ];
}
