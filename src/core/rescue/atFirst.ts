import { poolOfStep } from "../steps/goneFindings";
import { moduleOf } from "../steps/registry";
import { stepLabel } from "../steps/stepLabel";
import { fateOfPool } from "../box/figures";
import { bareIn } from "../data/precious";
import { dataSetsIn } from "../data/stored";
import { nameOfDrive } from "../drives/nameOfDrive";
import { drivesOf } from "../box/find";
import { goneIn } from "../box/gone";
import { layoutOf } from "../layouts/registry";
import { leftOf } from "../failures/condition";
import { NETWORKS } from "../speeds/speed";
import { hasParitySchedule } from "../layouts/hasParitySchedule";
import { correctedHours, ownTimesOf } from "../logbook/ownTimes";
import { hoursFor } from "../time/hours";
import { listOf } from "../words/listOf";
import type { Draft } from "./drafts";
import type { Gap } from "./gaps";
import type { RescueSetting } from "./rescue";

/** What runs by itself and has to be stopped first. */
export function stopping({ plan, pool, rules }: RescueSetting): Draft[] {
  if (hasParitySchedule(pool, rules))
    return pool.paritySchedule?.paused &&
      !plan.steps.some((step) => step.kind === "pause-schedule" && step.pool === pool.id)
      ? []
      : [
          {
            what: "stop-schedule",
            does: "Stop the schedule of the parity, and whatever deletes or moves files by itself.",
            why: "An update of the parity after a loss would record the loss.",
            step: { kind: "pause-schedule", pool: pool.id },
          },
        ];
  return [
    {
      what: "stop",
      does: "Stop scheduled checks, clean-ups, automatic deletions, and moves from a landing place.",
      why: "They load the drives that are left, and can make a loss final.",
    },
  ];
}

/** A step of the plan that may have been under way when the drive failed: what to do about it comes first. */
export function underWay({ plan, pool, family }: RescueSetting): Draft[] {
  const next = plan.steps.find((step) => !step.disabled && moduleOf(step).answers === undefined);
  const advice = next && moduleOf(next).ifADriveFails?.(next, plan);
  if (!next || !advice || poolOfStep(plan, next)?.id !== pool.id) return [];
  return [
    {
      what: "under-way",
      does: `Was “${stepLabel(next, plan, family)}” under way when it happened? ${advice}`,
      why: "It is the next step of your plan. If it had not begun, leave it until everything is whole again.",
    },
  ];
}

/** Which drive it is, and how to be sure of it. */
export function finding({ family }: RescueSetting, { old }: Gap): Draft {
  const name = nameOfDrive(old, family);
  const serial = old.serial
    ? `Compare the serial on its label: it ends in ${old.serial.slice(-4)}.`
    : "Its serial is not in the plan: write down those of the drives that answer, so that the one left over is it.";
  return {
    what: "find",
    does: `Find ${name}. ${serial}`,
    why: "The wrong drive pulled can cost everything. A light alone is no proof.",
  };
}

/** While nothing more may be lost, what is in one place only is copied away. */
export function copying(setting: RescueSetting): Draft[] {
  const { plan, pool, rules, day } = setting;
  if (leftOf(fateOfPool(plan, pool, rules)) > 0) return [];
  const bare = bareIn(plan, pool.id, day);
  const bytes = bare.reduce((sum, set) => sum + set.bytes, 0);
  const quiet = "Write nothing to the pool meanwhile, and switch off what does.";
  if (bare.length > 0)
    return [
      {
        what: "copy",
        does:
          `Copy ${listOf(bare.map((set) => set.name))} to somewhere else now, while it can be read, and nothing ` +
          `else. ${quiet}`,
        why: "It cannot be had again, and no current backup holds it. One more failed drive would take it.",
        hours: correctedHours(hoursFor(bytes, NETWORKS[0].rate), "backup", ownTimesOf(plan).factors),
      },
    ];
  return dataSetsIn(plan, pool.id).length > 0
    ? []
    : [
        {
          what: "copy",
          does:
            "Copy what cannot be had again to somewhere else now, while it can be read, if you have no backup of " +
            `it. ${quiet}`,
          why: "One more failed drive would take it. The plan does not say what is stored.",
        },
      ];
}

/** Loose or dead: looked at once, for all that are gone. */
export function looking({ rules }: RescueSetting, gaps: readonly Gap[]): Draft[] {
  if (gaps.length === 0) return [];
  const off = rules.swapping === "hot-swap" ? "" : "Switch the box off first. ";
  const one = gaps.length === 1;
  return [
    {
      what: "loose",
      does:
        `${off}${one ? "Is it only loose? Push the drive, its cable and its power plug" : "Are they only loose? Push the drives, their cables and their power plugs"} ` +
        `home, once. Pull no other drive to try. If ${one ? "it" : "one"} answers again, say that it is back.`,
      why: gaps.every(({ old }) => old.state === "missing")
        ? "A drive that is not seen is often only loose; then nothing has to be bought or filled."
        : "A drive that dropped out is sometimes only loose. One that was thrown out for errors is not.",
    },
  ];
}

/** Of a mirror of which one copy is left: that it is found and can be read. */
export function oneCopyLeft({ plan, family }: RescueSetting, gaps: readonly Gap[]): Draft[] {
  const gone = goneIn(plan);
  return gaps.flatMap(({ group }): Draft[] => {
    const left = drivesOf(plan, group.drives).filter(({ id }) => !gone.has(id));
    const [last] = left;
    if (layoutOf(group.layout).widening !== "copies" || left.length !== 1 || !last) return [];
    return [
      {
        what: "half",
        does:
          `See that your files can be read from ${nameOfDrive(last, family)}. Some boxes want a mirror with one ` +
          "half gone switched on by hand, and the half that is gone taken out of it.",
        why: "It is a full copy, and the only one that is left.",
      },
    ];
  });
}
