import { drivesOf } from "../box/find";
import { isAvailable } from "../box/members";
import type { Drive, Group, Plan, Pool, StepBody } from "../document/plan";
import { bayOf } from "../drives/drive";
import { nameOfDrive, shortSize } from "../drives/nameOfDrive";
import { isSeparate } from "../layouts/isSeparate";
import { mirror } from "../layouts/mirror";
import { layoutOf } from "../layouts/registry";
import { mirrorOntoOne } from "../layouts/mirrorOntoOne";
import { IF_WRONG } from "../rules/ifWrong";
import { capital } from "../words/capital";
import { withArticle } from "../words/inSentence";
import { CAREFUL, emptyWish, freeBaysOf, freshId, preparations, readyDrives, soldFrom, supply } from "./parts";
import { cannot, type Made, type Sequence, type SequenceSetting, type Wish } from "./sequence";

/** Drives that hold data and are protected by nothing: free ones with contents, and those of separate drives. */
const bareHolders = (plan: Plan): Drive[] =>
  plan.drives.filter(
    (drive) =>
      (isAvailable(plan, drive.id) && (drive.contents?.kind === "data" || drive.contents?.kind === "mounted")) ||
      separatePool(plan, drive.id) !== null,
  );

/** The pool of separate drives that a drive is in. */
const separatePool = (plan: Plan, drive: string): Pool | null =>
  plan.pools.find((pool) =>
    pool.groups.some((group) => isSeparate(layoutOf(group.layout)) && group.drives.includes(drive)),
  ) ?? null;

/** Free drives that are large enough for what is to be mirrored, also if they hold something. */
function couldServe(plan: Plan, wish: Wish): string[] {
  const needed = drivesOf(plan, wish.drives).reduce((sum, drive) => sum + drive.bytes, 0);
  return plan.drives
    .filter(
      (drive) =>
        isAvailable(plan, drive.id) &&
        !wish.drives.includes(drive.id) &&
        drive.contents?.kind !== "system" &&
        drive.bytes >= needed,
    )
    .map((drive) => drive.id);
}

/** Where drives that hold data are now: in one pool of separate drives, or in none; or why they do not go together. */
function homeOf(plan: Plan, holders: readonly Drive[]): { pool: Pool | null; group?: Group } | string {
  const [first] = holders;
  if (!first) return "Choose the drive whose data is to be protected.";
  const pool = separatePool(plan, first.id);
  if (holders.some((drive) => separatePool(plan, drive.id) !== pool))
    return (
      "These drives are not of one pool. Choose drives that all hold data outside pools, or all those of one " +
      "pool of separate drives."
    );
  const group = pool?.groups.find((each) => each.drives.includes(first.id));
  if (group && group.drives.length !== holders.length)
    return (
      "The drives of a pool of separate drives can only be mirrored all together. Choose all of them, or remove " +
      "the others first."
    );
  return { pool, ...(group ? { group } : {}) };
}

/** The drive that they are mirrored onto: the one that is named, or one from the shelf or the shop. */
function partnerFor(
  wish: Wish,
  setting: SequenceSetting,
  holders: readonly Drive[],
): { by: Drive; buys: Drive[] } | string {
  const { plan } = setting;
  const named = wish.by === null ? undefined : drivesOf(plan, [wish.by])[0];
  if (named && wish.drives.includes(named.id)) return "A drive cannot be its own mirror. Choose another.";
  const { drives, buys } = named
    ? { drives: [named], buys: [] }
    : supply(setting, 1, wish.bytes, holders[0], wish.drives);
  const by = drives[0];
  if (!by) return "There is no drive for it.";
  const coming = [...holders, by].filter((drive) => bayOf(drive) === null).length;
  return freeBaysOf(plan) < coming ? "There are not enough free bays for these drives." : { by, buys };
}

/**
 * A mirror of drives that hold data onto a new one: a pool of its own, or the pool of separate drives that they are.
 */
export function mirrorHolders(
  wish: Wish,
  setting: SequenceSetting,
  does: (holders: Drive[], by: Drive) => string,
): Made {
  const holders = drivesOf(setting.plan, wish.drives);
  const [first, ...also] = holders;
  const home = homeOf(setting.plan, holders);
  if (typeof home === "string" || !first) return cannot(String(home));
  const partner = partnerFor(wish, setting, holders);
  if (typeof partner === "string") return cannot(partner);
  const { by, buys } = partner;
  const pool = home.pool?.id ?? freshId(setting, "p");
  const mirrored: StepBody = {
    kind: "mirror-drive",
    pool,
    group: home.group?.id ?? freshId(setting, "g"),
    name: home.pool?.name ?? (first.label || first.contents?.detail || "Mirror"),
    drive: first.id,
    by: by.id,
    ...(also.length > 0 ? { also: also.map((drive) => drive.id) } : {}),
  };
  const steps: StepBody[] = [
    ...preparations(setting, home.pool, [by.id], wish.variants, home.pool !== null),
    mirrored,
    ...(wish.variants.verify ? [{ kind: "verify", pool } as StepBody] : []),
  ];
  return { ok: true, steps, buys, does: does(holders, by) };
}

/** A drive that already holds data gets a mirror, and keeps it. */
export const protectDrive: Sequence = {
  id: "protect-drive",
  name: "Protect a drive that already holds data",
  says: "I have a drive full of data and want it to survive a failure.",
  asks: ["drives", "by", "size"],
  variants: ["test", "backUp", "verify"],
  begin: (setting) => {
    const holders = bareHolders(setting.plan);
    if (holders.length === 0)
      return {
        cannot: "No drive holds data outside a pool. Where one does, say so on the drive: “What is on it”, “Data”.",
      };
    if (!setting.rules.layouts.includes(mirror.id)) return { cannot: `Your box offers no mirror. ${IF_WRONG}` };
    // Those of a pool of separate drives are only mirrored all together, for which there is a sequence of its own.
    const holder = holders.find((drive) => (separatePool(setting.plan, drive.id)?.groups[0]?.drives.length ?? 1) === 1);
    if (!holder)
      return {
        cannot: `These drives belong together and can only be mirrored all at once: see “${mirrorOntoLarge.name}”.`,
      };
    return {
      ...emptyWish(setting),
      pool: "",
      group: "",
      drives: [holder.id],
      bytes: readyDrives(setting, holder.bytes)[0]?.bytes ?? soldFrom(holder.bytes),
      layout: mirror.id,
      variants: CAREFUL,
    };
  },
  answers: (wish, { plan }) => ({
    drives: bareHolders(plan).map((drive) => drive.id),
    bys: couldServe(plan, wish),
    leastBytes: Math.max(0, ...drivesOf(plan, wish.drives).map((drive) => drive.bytes)),
  }),
  make: (wish, setting) => {
    if (wish.drives.length > 1)
      return cannot(
        "One drive is mirrored at a time. For several onto one large drive there are ready-made steps of their own.",
      );
    return mirrorHolders(
      wish,
      setting,
      ([holder], by) =>
        `${holder ? capital(nameOfDrive(holder, setting.family)) : "The drive"} keeps its data and gets ` +
        `${withArticle(shortSize(by, setting.family))} drive as its mirror: its data then survives the loss of ` +
        "either.",
    );
  },
};

/** Small drives that hold data, mirrored onto one large drive. */
export const mirrorOntoLarge: Sequence = {
  id: "mirror-onto-large",
  name: "Two small drives mirrored onto one large one",
  says: "I have two small drives with data and one large drive.",
  asks: ["drives", "by", "size"],
  variants: ["test", "backUp", "verify"],
  begin: (setting) => {
    const holders = bareHolders(setting.plan);
    if (!setting.rules.layouts.includes(mirrorOntoOne.id))
      return { cannot: `Your box cannot mirror several drives onto one; a Linux host can. ${IF_WRONG}` };
    const together = holders.filter(
      (drive) => separatePool(setting.plan, drive.id) === separatePool(setting.plan, holders[0]?.id ?? ""),
    );
    if (together.length < 2)
      return { cannot: "There are no two drives that hold data outside a pool, or as separate drives of one." };
    const chosen = separatePool(setting.plan, together[0]?.id ?? "")
      ? together
      : [...together].sort((a, b) => a.bytes - b.bytes).slice(0, 2);
    const needed = chosen.reduce((sum, drive) => sum + drive.bytes, 0);
    return {
      ...emptyWish(setting),
      pool: "",
      group: "",
      drives: chosen.map((drive) => drive.id),
      bytes: readyDrives(setting, needed)[0]?.bytes ?? soldFrom(needed),
      layout: mirrorOntoOne.id,
      variants: CAREFUL,
    };
  },
  answers: (wish, { plan }) => ({
    drives: bareHolders(plan).map((drive) => drive.id),
    bys: couldServe(plan, wish),
    leastBytes: drivesOf(plan, wish.drives).reduce((sum, drive) => sum + drive.bytes, 0),
  }),
  make: (wish, setting) => {
    if (wish.drives.length < 2) return cannot("Choose two drives or more.");
    return mirrorHolders(
      wish,
      setting,
      (holders, by) =>
        `${holders.map((drive) => shortSize(drive, setting.family)).join(" and ")} keep their data, and each ` +
        `is mirrored onto its own part of ${withArticle(shortSize(by, setting.family))} drive: your data then ` +
        "survives the loss of any one drive.",
    );
  },
};
