import { inText } from "../layouts/inText";
import { usableOf } from "../bands/contents";
import { toleranceOfPool } from "../box/figures";
import { drivesOf } from "../box/find";
import { destinationOf } from "../data/destination";
import type { LayoutId, Pool, StepBody } from "../document/plan";
import { roomOf } from "../drives/room";
import { toleranceOf } from "../failures/tolerance";
import { wrongCount } from "../layouts/problemsOfLayout";
import { layoutOf } from "../layouts/registry";
import { poolReserve } from "../ledger/ledger";
import { ruleSetOf, rulesOf } from "../rules/ruleSets";
import { growSteps } from "../steps/growSteps";
import { capital } from "../words/capital";
import { inSentence, withArticle } from "../words/inSentence";
import { counted } from "../words/counted";
import { CAREFUL, emptyWish, readyDrives } from "./parts";
import { cannot, type Sequence, type SequenceSetting, type Wish } from "./sequence";

const sameDrives = (one: readonly string[], other: readonly string[]): boolean =>
  one.length === other.length && one.every((id) => other.includes(id));

const boxOf = (wish: Wish, { plan }: SequenceSetting) => wish.box ?? plan.box;

/** What each layout would hold on the drives in the box in question, those that the volumes fit in. */
function choices(wish: Wish, setting: SequenceSetting): { layout: LayoutId; usable: number; tolerance: number }[] {
  const rules = rulesOf(boxOf(wish, setting).rules);
  const pool = setting.plan.pools.find((each) => each.id === wish.pool);
  const asked = pool?.volumes.reduce((sum, volume) => sum + volume.bytes, 0) ?? 0;
  const rooms = drivesOf(setting.plan, wish.drives).map((drive) => roomOf(drive, rules));
  return rules.layouts.flatMap((id) => {
    if (wrongCount(layoutOf(id), rooms.length, rules)) return [];
    const bands = layoutOf(id).layOut(rooms, { arrayFormat: rules.arrayFormat, options: {} });
    const data = usableOf(bands);
    const usable = data - poolReserve(data, rules);
    return usable > 0 && usable >= asked ? [{ layout: id, usable, tolerance: toleranceOf(bands) }] : [];
  });
}

/**
 * The layout that holds most among those that bear as many failures as the pool does now, one at least; another than it
 * has, unless it is to be in another box.
 *
 * @returns null where no layout of the box that has room for the volumes bears so many
 */
export function bestLayoutFor(wish: Wish, setting: SequenceSetting): LayoutId | null {
  const pool = setting.plan.pools.find((each) => each.id === wish.pool);
  if (!pool) return null;
  const present = pool.groups.length === 1 && wish.box === null ? pool.groups[0]?.layout : undefined;
  const now = Math.max(1, toleranceOfPool(setting.plan, pool, setting.rules));
  const others = choices(wish, setting)
    .filter((each) => each.layout !== present)
    .sort((a, b) => b.usable - a.usable);
  return others.find((each) => each.tolerance >= now)?.layout ?? null;
}

/** Why a pool cannot be made anew as it is wished; null where it can. */
function refusal(pool: Pool, wish: Wish, setting: SequenceSetting, fits: boolean): string | null {
  const box = boxOf(wish, setting);
  const rules = rulesOf(box.rules);
  const layout = inText(layoutOf(wish.layout));
  if (wish.drives.length === 0) return "Choose the drives of the new pool.";
  if (!rules.layouts.includes(wish.layout))
    return `${capital(withArticle(inSentence(ruleSetOf(box.rules).name)))} does not offer ${layout}.`;
  const wrong = wrongCount(layoutOf(wish.layout), wish.drives.length, rules);
  if (wrong) return `${capital(layout)} of ${counted(wish.drives.length, "drive")}: ${wrong}`;
  if (!fits) return "The volumes would not fit into the new pool. Choose another layout, or more drives.";
  const present = pool.groups.length === 1 && !wish.box ? pool.groups[0] : undefined;
  return present?.layout === wish.layout && sameDrives(present.drives, wish.drives)
    ? `${pool.name || "The pool"} has ${layout} over these drives already, and no other layout of your box that ` +
        "survives a failure has space for what is stored. Choose a layout, other drives or another box."
    : null;
}

/** Another layout, or another box, for the same data: everything is copied away, erased, made anew, and copied back. */
export const throughBackup: Sequence = {
  id: "through-backup",
  name: "To another box or layout, through a backup",
  says: "I want a layout that my box cannot change to, or another kind of box.",
  asks: ["box", "drives", "layout"],
  variants: ["test", "verify", "grow"],
  begin: (setting) => {
    const [pool] = setting.plan.pools;
    if (!pool) return { cannot: "There is no pool yet that could move." };
    const members = pool.groups.flatMap((group) => group.drives);
    const wish: Wish = { ...emptyWish(setting), pool: pool.id, drives: members, variants: CAREFUL };
    const layout = bestLayoutFor(wish, setting) ?? pool.groups[0]?.layout;
    return layout ? { ...wish, layout } : { cannot: "There is no pool yet that could move." };
  },
  answers: (wish, setting) => {
    const pool = setting.plan.pools.find((each) => each.id === wish.pool);
    return {
      drives: [
        ...(pool?.groups.flatMap((group) => group.drives) ?? []),
        ...readyDrives(setting, 1).map((drive) => drive.id),
      ],
      layouts: rulesOf(boxOf(wish, setting).rules).layouts,
    };
  },
  make: (wish, setting) => {
    const pool = setting.plan.pools.find((each) => each.id === wish.pool);
    if (!pool) return cannot("That pool is not there at this moment.");
    const rules = rulesOf(boxOf(wish, setting).rules);
    const choice = choices(wish, setting).find((each) => each.layout === wish.layout);
    const refused = refusal(pool, wish, setting, choice !== undefined);
    if (refused !== null || !choice) return cannot(refused ?? "");
    const members = pool.groups.flatMap((group) => group.drives);
    const joining = wish.drives.filter((id) => !members.includes(id));
    const asked = pool.volumes.reduce((sum, volume) => sum + volume.bytes, 0);
    const steps: StepBody[] = [
      ...(wish.variants.test
        ? joining.map((drive, i): StepBody => ({ kind: "test-drive", drive, ...(i > 0 ? { together: true } : {}) }))
        : []),
      { kind: "back-up", pool: pool.id, to: destinationOf(setting.plan, pool) },
      {
        kind: "rebuild-from-backup",
        pool: pool.id,
        layout: wish.layout,
        drives: [...wish.drives],
        ...(wish.box ? { box: wish.box } : {}),
      },
      ...(wish.variants.grow && choice.usable - asked > 1e9 ? growSteps(pool, rules) : []),
      ...(wish.variants.verify ? [{ kind: "verify", pool: pool.id } as StepBody] : []),
    ];
    return {
      ok: true,
      steps,
      buys: [],
      does:
        `All of ${pool.name || "the pool"} is copied to a backup, erased, made again as ` +
        `${inText(layoutOf(wish.layout))} over ` +
        `${counted(wish.drives.length, "drive")}${wish.box ? ` in ${wish.box.name || "another box"} (${inSentence(ruleSetOf(wish.box.rules).name)})` : ""}, ` +
        `and copied back.${choice.tolerance === 0 ? " After that, if any drive fails, data is lost." : ""}`,
    };
  },
};
