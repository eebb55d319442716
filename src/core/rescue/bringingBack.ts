import { freeBay } from "../box/bays";
import type { Drive } from "../document/plan";
import { leastInPlaceOf } from "../box/standIn";
import { bytesForRoom } from "../drives/room";
import { bayOf } from "../drives/drive";
import { nameOfDrive, shortSize } from "../drives/nameOfDrive";
import { capital } from "../words/capital";
import { withArticle } from "../words/inSentence";
import { nameIn, type Draft, USUAL_DELIVERY_DAYS, waitFor } from "./drafts";
import { type Gap, isRestored } from "./gaps";
import type { Instead, RescueSetting } from "./rescue";
import type { Supplies } from "./supplies";
import { leastToBuy } from "./whatFits";

/** The drive that comes in the place of one that is gone, and the acts until it is in. */
export function replacement(
  setting: RescueSetting,
  gap: Gap,
  instead: Instead,
  supplies: Supplies,
): { next: Drive | undefined; drafts: Draft[] } {
  const { plan, family } = setting;
  if ("by" in instead) {
    const next = supplies.take(instead.by);
    return { next, drafts: next?.toBuy ? [ordering(setting, next)] : [] };
  }
  if ("spread" in instead) return { next: undefined, drafts: [] };
  // Less may be enough for what is stored; with as much as there was, the pool stays as large as it is.
  const least = leastToBuy(setting, gap.group, gap.old);
  const asLarge = bytesForRoom(leastInPlaceOf(plan, gap.group, gap.old, setting.rules), setting.rules);
  const next = supplies.buy({ ...least, leastBytes: Math.max(least.leastBytes, asLarge) });
  return {
    next,
    drafts: [
      {
        what: "buy",
        does: `Buy ${withArticle(`${shortSize(next, family)} drive`)} of the kind of the others.`,
        why: "No drive that you have fits.",
        hours: waitFor(plan.calendar?.deliveryDays ?? USUAL_DELIVERY_DAYS),
      },
    ],
  };
}

export const ordering = ({ plan, family }: RescueSetting, next: Drive): Draft => ({
  what: "buy",
  does: `Order ${nameIn(next, family)}.`,
  why: "The plan counts on it, and it is not there yet.",
  hours: waitFor(plan.calendar?.deliveryDays ?? USUAL_DELIVERY_DAYS),
});

/** That the box is off, or the pool stopped, to change the drive. */
function swap({ plan, rules, family }: RescueSetting, { old }: Gap, next: Drive): Draft[] {
  if (bayOf(next) !== null) return [];
  if (next.id === old.id)
    return [
      {
        what: "back-in",
        does: `Put ${nameOfDrive(old, family)} back into its bay.`,
        why: "It was only loose. What was written while it was away is not on it, so it is filled again.",
      },
    ];
  const bay = bayOf(old) ?? old.lastBay ?? freeBay(plan);
  const where = bay === null ? "a free bay" : `bay ${bay}`;
  const first =
    rules.swapping === "hot-swap"
      ? "With the box running, "
      : rules.swapping === "power-off"
        ? "Switch the box off. Then "
        : "Stop the pool. Then ";
  const out = bayOf(old) === null ? "" : "pull the dead drive, label it, and ";
  return [
    {
      what: "swap",
      does: `${first}${out}put the new one into ${where}.`.replace(/, put/, ", put"),
      why:
        "Pull no other drive. Your box asks what to do with the new one: choose to replace or repair, never to " +
        "create.",
    },
  ];
}

/** The step that brings one drive back, with what is done around it. */
export function bringBack(setting: RescueSetting, gap: Gap, next: Drive | undefined, isTested: boolean): Draft[] {
  const { plan, family, rules } = setting;
  const { group, old } = gap;
  if (!next) {
    return [
      {
        what: "spread",
        does: `What was on ${nameOfDrive(old, family)} is made again on the others.`,
        why: "There is space for it, and nothing has to be bought first.",
        step: { kind: "remove-drive", drive: old.id },
      },
    ];
  }
  const test: Draft[] = isTested
    ? [
        {
          what: "test",
          does: `Test ${nameIn(next, family)} first.`,
          why: "There is protection left for the hours, and a bad new drive shows now.",
          step: { kind: "test-drive", drive: next.id },
        },
      ]
    : [];
  const known = { group: group.id, drive: old.id, by: next.id };
  const isSpare = bayOf(next) !== null && !isTested;
  const watch =
    isTested || next.id === old.id
      ? ""
      : " Look at its health now and then while it is filled, since it was not tested.";
  const nothingElse = "Meanwhile do nothing else to this pool.";
  return [
    ...test,
    ...swap(setting, gap, next),
    isRestored(gap, setting)
      ? {
          what: "restore",
          does:
            `Format ${nameIn(next, family)}, mount it in the place of the old one, and restore only that drive. ` +
            `${nothingElse}`,
          why: "Its files come back as they were at the last update of the parity.",
          step: { kind: "restore-drive", ...known },
        }
      : {
          what: "rebuild",
          does:
            isSpare && plan.steps.some((step) => step.kind === "rebuild" && step.by === next.id)
              ? `${capital(nameIn(next, family))} has taken over by itself and is being filled: wait. ${nothingElse}`
              : `Let the box fill ${nameIn(next, family)} from the others. ${nothingElse}${watch}`,
          why:
            rules.swapping === "hot-swap"
              ? "Until it has ended there is less protection."
              : "Until it has ended there is less protection; the box may be used, slower.",
          step: { kind: "rebuild", ...known },
        },
  ];
}
