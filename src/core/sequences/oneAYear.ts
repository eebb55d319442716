import { withArticle } from "../words/inSentence";
import { Temporal } from "temporal-polyfill";
import { bandsOfGroup, usableOfGroup } from "../box/figures";
import { drivesOf } from "../box/find";
import type { BoxState } from "../box/state";
import type { Drive, Pool, Step, StepBody } from "../document/plan";
import { leastToJoin } from "../drives/checks/joining";
import { bayOf } from "../drives/drive";
import { shortSize } from "../drives/nameOfDrive";
import { layoutOf } from "../layouts/registry";
import { rulesForJoining } from "../layouts/joins";
import { growsByOne, takesAnyDrive, widensByDrive } from "../layouts/widens";
import { growSteps } from "../steps/growSteps";
import { parityOf } from "../bands/parityOf";
import { moduleOf } from "../steps/registry";
import { settle } from "../steps/settle";
import { counted } from "../words/counted";
import { boxBefore } from "./boxBefore";
import { replaceInBestOrder, swapRefusal } from "./oneByOne";
import {
  CAREFUL,
  emptyWish,
  freeBaysOf,
  groupsOf,
  isChunked,
  ownerOfGroup,
  preparations,
  soldFrom,
  supply,
} from "./parts";
import { cannot, type Sequence, type SequenceSetting, type Wish } from "./sequence";

/** The same day some years later; a 29th of February becomes a 28th where there is none. */
export const yearsAfter = (day: string, years: number): string =>
  Temporal.PlainDate.from(day).add({ years }).toString();

/**
 * One drive now, and one each year: a bay more as long as there is one, then the smallest drive changed for a larger.
 */
export const oneAYear: Sequence = {
  id: "one-a-year",
  name: "One drive now, and one each year",
  says: "I buy one drive now and then one a year.",
  asks: ["group", "size", "years"],
  variants: ["attached", "test", "backUp", "verify", "grow"],
  begin: (setting) => {
    const target = groupsOf(setting.plan)[0];
    if (!target) return { cannot: "There is no pool yet that could grow." };
    const members = drivesOf(setting.plan, target.group.drives);
    const largest = Math.max(...members.map((drive) => drive.bytes));
    const widens = widensByDrive(layoutOf(target.group.layout), setting.rules) && freeBaysOf(setting.plan) > 0;
    const grows =
      widens && growsByOne(layoutOf(target.group.layout), members.length, setting.rules, target.group.options);
    return {
      ...emptyWish(setting),
      pool: target.pool.id,
      group: target.group.id,
      bytes: soldFrom(grows ? largest : largest + 1),
      count: 3,
      variants: { ...CAREFUL, attached: setting.rules.replacing === "old-attached" },
    };
  },
  answers: (wish, { plan, rules }) => {
    const owner = ownerOfGroup(plan, wish.group);
    const members = owner?.members ?? [];
    return {
      groups: groupsOf(plan).map(({ group }) => group.id),
      counts: [2, 3, 4, 5, 6],
      leastBytes: owner ? leastToJoin(members, rulesForJoining(layoutOf(owner.group.layout), rules)) : 0,
    };
  },
  make: (wish, setting) => {
    const { family } = setting;
    const owner = ownerOfGroup(setting.plan, wish.group);
    if (!owner) return cannot("That group is not there at this moment.");
    const { pool } = owner;
    const { drives: news, buys } = supply(setting, wish.count, wish.bytes, owner.members[0]);
    const along = goingAlong(setting, buys);
    const done = { added: 0, changed: 0 };
    for (const [year, drive] of news.entries()) {
      const first = along.steps.length;
      const how = takeOne(drive, pool, wish, along, setting);
      const swap = how === "nothing-left" ? swapRefusal(owner.group) : null;
      if (swap) return cannot(`No bay is free for one more. ${swap}`);
      if (how === "nothing-left" && year === 0)
        return cannot("No bay is free for one more, and no drive is smaller than the new one.");
      if (how === "nothing-left")
        return cannot(
          `After ${counted(year, "year")} every drive has ${shortSize({ bytes: wish.bytes }, family)} and no ` +
            "bay is free. Choose fewer years, or a larger size.",
        );
      done[how] += 1;
      const opening = along.steps[first];
      if (year > 0 && opening) along.steps[first] = { ...opening, notBefore: yearsAfter(setting.day, year) };
    }
    const parts = [
      ...(done.added > 0 ? [`${times(done.added)} as one drive more`] : []),
      ...(done.changed > 0 ? [`${times(done.changed)} in the place of the smallest`] : []),
    ];
    return {
      ok: true,
      steps: along.steps,
      buys,
      does:
        `${pool.name || "The pool"} gets ${withArticle(shortSize({ bytes: wish.bytes }, family))} drive now and ` +
        `one each year, ${wish.count} in all: ${parts.join(", then ")}.`,
    };
  },
};

/** Steps that are carried out as they are thought of, so that the next can be thought of in the box after them. */
interface Along {
  steps: StepBody[];
  state: () => BoxState;
  take: (body: StepBody) => void;
}

function goingAlong({ plan, rules, family, day }: SequenceSetting, buys: readonly Drive[]): Along {
  const steps: StepBody[] = [];
  let state = boxBefore(plan, buys);
  const take = (body: StepBody) => {
    steps.push(body);
    state = settle(moduleOf(body).apply(state, { ...body, id: "year" } as Step, { rules, family, day }), rules);
  };
  return { steps, state: () => state, take };
}

/** Whether a group grows by a drive, as the box then is. */
function widensBy(drive: Drive, { group, members }: Owner, state: BoxState, setting: SequenceSetting): boolean {
  const { rules } = setting;
  return (
    growsByOne(layoutOf(group.layout), members.length, rules, group.options) &&
    freeBaysOf(state.plan) > 0 &&
    drive.bytes >= leastToJoin(members, rulesForJoining(layoutOf(group.layout), rules)) &&
    !isLargerThanParity(drive, group.id, state, setting)
  );
}

type Owner = NonNullable<ReturnType<typeof ownerOfGroup>>;

/** One year's drive: a bay more where that gives space, else in the place of the smallest. */
function takeOne(
  drive: Drive,
  pool: Pool,
  wish: Wish,
  { state, take }: Along,
  setting: SequenceSetting,
): "added" | "changed" | "nothing-left" {
  const now = ownerOfGroup(state().plan, wish.group);
  if (!now) return "nothing-left";
  const { variants } = wish;
  const here = { ...setting, plan: state().plan };
  const widens = widensBy(drive, now, state(), setting);
  const smallest = widens ? undefined : toBeChanged(now.members, drive.bytes, now.group.id, state(), setting);
  if (!widens && !smallest) return "nothing-left";
  const rewrites = widens ? !takesAnyDrive(layoutOf(now.group.layout)) : true;
  preparations(here, pool, [drive.id], variants, rewrites).forEach(take);
  if (smallest) {
    const attached = variants.attached && setting.rules.replacing === "old-attached" && freeBaysOf(state().plan) > 0;
    const wished = { variants: { ...variants, attached } };
    const place = { ...setting, plan: state().plan };
    replaceInBestOrder(wish.group, [smallest.id], [drive], wished, place).steps.forEach(take);
  } else {
    const usable = groupUsable(state(), wish.group, setting);
    take({ kind: "widen-group", group: wish.group, drives: [drive.id] });
    if (variants.grow && isChunked(now.group)) take({ kind: "rebalance", group: wish.group });
    if (variants.grow && groupUsable(state(), wish.group, setting) > usable)
      growSteps(pool, setting.rules).forEach(take);
  }
  if (variants.verify) take({ kind: "verify", pool: pool.id });
  return smallest ? "changed" : "added";
}

const times = (count: number) => (count === 1 ? "once" : count === 2 ? "twice" : `${count} times`);

const groupUsable = (state: BoxState, id: string, { rules }: SequenceSetting): number => {
  const owner = ownerOfGroup(state.plan, id);
  return owner ? usableOfGroup(state.plan, owner.group, rules) : 0;
};

/** A data drive must not be larger than the parity drive. */
function isLargerThanParity(drive: Drive, group: string, { plan }: BoxState, { rules }: SequenceSetting): boolean {
  const owner = ownerOfGroup(plan, group);
  const parity = owner ? parityOf(bandsOfGroup(plan, owner.group, rules)) : [];
  return drivesOf(plan, parity).some((each) => each.bytes < drive.bytes);
}

/** The drive that is changed next: a parity drive that is too small first, then a suspect one, then the smallest. */
function toBeChanged(
  members: readonly Drive[],
  bytes: number,
  group: string,
  { plan }: BoxState,
  { rules }: SequenceSetting,
): Drive | undefined {
  const owner = ownerOfGroup(plan, group);
  if (owner && swapRefusal(owner.group) !== null) return undefined;
  const parity = owner ? parityOf(bandsOfGroup(plan, owner.group, rules)) : [];
  const smaller = members.filter((drive) => drive.bytes < bytes);
  return [...smaller].sort(
    (a, b) =>
      Number(parity.includes(b.id)) - Number(parity.includes(a.id)) ||
      Number(a.health.state === "good") - Number(b.health.state === "good") ||
      a.bytes - b.bytes ||
      (bayOf(a) ?? 99) - (bayOf(b) ?? 99),
  )[0];
}
