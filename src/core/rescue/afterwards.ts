import { drivesOf } from "../box/find";
import { systemDrives, systemFate } from "../box/systemFate";
import { listOf } from "../words/listOf";
import { goneIn } from "../box/gone";
import { ANY_DESTINATION, destinationOf } from "../data/destination";
import { leastInPlaceOf } from "../box/standIn";
import type { Drive, Group, StepBody } from "../document/plan";
import { nameOfDrive } from "../drives/nameOfDrive";
import { hasParitySchedule } from "../layouts/hasParitySchedule";
import { plural } from "../words/counted";
import { ordering } from "./bringingBack";
import { nameIn, type Draft } from "./drafts";
import { gapsOf } from "./gaps";
import type { RescueSetting } from "./rescue";
import type { Supplies } from "./supplies";
import { leastToBuy, whatFits } from "./whatFits";

/** Whatever is done once every drive is in its place: check, resume, a spare again, a backup. */
export function afterwards(setting: RescueSetting, spent: readonly Drive[], supplies: Supplies): Draft[] {
  const { pool, rules } = setting;
  const scheduled = hasParitySchedule(pool, rules);
  const check: Draft = scheduled
    ? {
        what: "check",
        does: "Check everything against the parity, before anything new is recorded.",
        why: "It shows whether what was restored is right.",
        step: { kind: "check-parity", pool: pool.id },
      }
    : {
        what: "check",
        does: "Have the whole pool checked.",
        why: "It finds unreadable spots while they can still be repaired.",
        step: { kind: "verify", pool: pool.id },
      };
  const resume: Draft[] = scheduled
    ? [
        {
          what: "resume",
          does: "Only now start the schedule of the parity again.",
          why: "Everything is in its place and checked.",
          step: { kind: "resume-schedule", pool: pool.id },
        },
      ]
    : [];
  return [check, ...resume, ...spent.flatMap(() => newSpare(setting, supplies)), ...backingUp(setting)];
}

/** The drive of a group of which most is used. */
function mostUsedOf({ plan, rules }: RescueSetting, group: Group): Drive | undefined {
  const used = (drive: Drive) => leastInPlaceOf(plan, group, drive, rules);
  return drivesOf(plan, group.drives).sort((a, b) => used(b) - used(a))[0];
}

/** A spare again, where one was spent or has failed. */
function newSpare(setting: RescueSetting, supplies: Supplies): Draft[] {
  const { plan, pool, family } = setting;
  const [group] = pool.groups;
  // One that could take over for any drive of the pool.
  const model = group && mostUsedOf(setting, group);
  if (!model) return [];
  const planned = plan.steps.find((step) => step.kind === "set-spare" && step.pool === pool.id && !step.disabled);
  const at =
    planned?.kind === "set-spare"
      ? supplies.take(planned.drive)
      : whatFits(setting, group, model).fits.find(({ id }) => !supplies.isTaken(id));
  const next = at ? (supplies.take(at.id) ?? at) : supplies.buy(leastToBuy(setting, group, model));
  return [
    ...(next.toBuy
      ? [{ ...ordering(setting, next), why: "The spare is spent: the next failure would find none." }]
      : []),
    {
      what: "spare",
      does: `Make ${nameIn(next, family)} the hot spare.`,
      why: "The old one is spent: the next failure would find none.",
      step: { kind: "set-spare", pool: pool.id, drive: next.id },
    },
  ];
}

/** At the end everything has a second place again. */
export function backingUp({ plan, pool }: RescueSetting): Draft[] {
  const to = destinationOf(plan, pool);
  const step: StepBody | undefined = to === ANY_DESTINATION ? undefined : { kind: "back-up", pool: pool.id, to };
  return [
    {
      what: "backup",
      does: step ? "Make a fresh backup." : "Make a backup, if there is none: a layout is no backup.",
      why: "What nearly happened can happen again.",
      ...(step ? { step } : {}),
    },
  ];
}

/** The spares that are spent: those that fill in, or have failed themselves. */
export function spentSpares({ plan, pool }: RescueSetting, used: readonly (Drive | undefined)[]): Drive[] {
  const spares = new Set([...pool.spares, ...pool.groups.flatMap((group) => group.spares ?? [])]);
  const gone = goneIn(plan);
  return drivesOf(plan, [...spares]).filter(
    (spare) => gone.has(spare.id) || used.some((drive) => drive?.id === spare.id),
  );
}

/** A cache or log beside the pool that has failed: what that costs, and what to do. */
export function brokenHelpers({ plan, pool, family }: RescueSetting): Draft[] {
  const gone = goneIn(plan);
  return (pool.helpers ?? [])
    .filter(({ drive }) => gone.has(drive))
    .flatMap(({ drive, role }) =>
      drivesOf(plan, [drive]).map((each): Draft =>
        role === "read-cache"
          ? {
              what: "helper",
              does: `Take ${nameOfDrive(each, family)} out of the pool: it was its read cache.`,
              why: "What was in it is also in the pool: nothing is lost, reading is slower.",
            }
          : {
              what: "helper",
              does: `Take ${nameOfDrive(each, family)} out of the pool, and give it another write log, or none.`,
              why:
                "It took writes first. Look at what was written in the last seconds before it failed; everything " +
                "older is in the pool.",
            },
      ),
    );
}

/** The box's own system, where the drives that carry it are gone: the pools are there, and the box does not start. */
export function withoutSystem({ plan, rules, family }: RescueSetting): Draft[] {
  if (systemFate(plan, goneIn(plan), rules) !== "gone") return [];
  const names = systemDrives(plan, rules).map((drive) => nameOfDrive(drive, family));
  return [
    {
      what: "system",
      does:
        `The box does not start without ${listOf(names)}. Leave the drives of your pools where they are. Put ` +
        "another drive in its place, set the box's system up on that one alone, and let it find the pools that " +
        "are there.",
      why: "Your data is on the other drives. While it sets itself up, a box offers to erase what it finds: say no.",
    },
  ];
}

/** What becomes of the drive that is gone. */
export function aboutTheDead(setting: RescueSetting): string[] {
  const dead = gapsOf(setting).map(({ old }) => old);
  if (dead.length === 0) return [];
  const it = plural(dead.length, "it", "them");
  return [
    `Look whether ${plural(dead.length, "the drive is", "the drives are")} still under warranty before you ` +
      `throw ${it} away.`,
    (
      `What was stored is still on ${it}. Do not send ${it} in or give ${it} away unless ` +
      `${plural(dead.length, "it has", "they have")} been wiped, was encrypted, or you have decided that others ` +
      "may read it."
    ).replace("was encrypted", plural(dead.length, "was encrypted", "were encrypted")),
    `If ${plural(dead.length, "it answers", "one answers")} again after another drive has taken its place, it ` +
      "is free: it is erased if it is used.",
    `Do not put ${it} back in once ${plural(dead.length, "its place is", "their places are")} taken.`,
  ];
}
