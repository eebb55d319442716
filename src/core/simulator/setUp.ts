import type { Bytes } from "../bytes/bytes";
import type { BoxRules, Drive, Group, Plan, Pool } from "../document/plan";
import { bayOf } from "../drives/drive";
import { roomOf } from "../drives/room";
import { rulesOf } from "../rules/ruleSets";
import { addStripe } from "./chunks";
import { bareGroup, capacityOfPool, layOutOn } from "./groups";
import {
  type KnownBackup,
  placeOf,
  type SimBackup,
  type SimBox,
  type SimDrive,
  type SimGroup,
  type SimPool,
} from "./simulatedBox";
import { write } from "./slabs";
import { WAYS } from "./pace";
import { allot } from "./volumes";
import { wanted } from "./wanted";

/** How fine a simulated box is. */
export interface Grain {
  /** How many blocks the largest drive has. */
  blocks: number;
  /** A number from which all that is drawn follows. */
  seed: number;
}

/** The bytes of a block, such that the largest drive has so many. */
export const blockBytes = (drives: readonly { bytes: Bytes }[], blocks: number): Bytes =>
  Math.max(1, ...drives.map(({ bytes }) => bytes)) / blocks;

/** Of a pool, what is stored, in bytes: what its volumes use, all of them where that is not said. */
export const storedIn = (pool: Pool): Bytes =>
  pool.volumes.reduce((sum, { bytes, usedBytes }) => sum + Math.min(bytes, usedBytes ?? bytes), 0);

/** A pool of the plan on the drives, its groups full of data; chunks as many as are stored. */
function setUpPool(box: SimBox, pool: Pool): SimPool {
  const made: SimPool = {
    id: pool.id,
    groups: [],
    spares: pool.spares.map((id) => placeOf(box, id)),
    volumes: [],
    paused: pool.paritySchedule?.paused ?? false,
  };
  box.pools.push(made);
  for (const asked of pool.groups) {
    const group = bareGroup({ ...asked, drives: asked.drives.map((id) => placeOf(box, id)) });
    group.spares = (asked.spares ?? []).map((id) => placeOf(box, id));
    group.reach = group.drives.map((place) => {
      const drive = box.drives[place];
      const reach = drive && asked.reach && Object.entries(asked.reach).find(([id]) => id === drive.id)?.[1];
      return Math.min(drive?.blocks ?? 0, reach === undefined ? Infinity : Math.round(reach / box.block));
    });
    layOutOn(box, group, false, asked.kept);
    made.groups.push(group);
  }
  storeChunks(box, made, storedIn(pool) / box.block, pool.groups);
  let left = Math.floor(capacityOfPool(box, made));
  for (const volume of pool.volumes) {
    const blocks = Math.min(left, Math.round(volume.bytes / box.block));
    left -= blocks;
    const files = Math.min(volume.bytes, volume.fileSystemBytes ?? volume.bytes);
    const stored = Math.min(volume.bytes, volume.usedBytes ?? volume.bytes);
    made.volumes.push({ id: volume.id, bytes: volume.bytes, files, stored, extents: [] });
  }
  allot(box, made);
  return made;
}

/**
 * Holds the chunks of a group to where the plan says that there are some, until what is returned is called: what has
 * not been balanced out since a drive joined lies where it lay.
 */
function onlyWhereFilled(box: SimBox, { chunks }: SimGroup, filled: Group["filled"]): () => void {
  const members = chunks && filled ? chunks.members : [];
  const reaches = members.map(({ reach }) => reach);
  for (const member of members) {
    const bytes = Object.entries(filled ?? {}).find(([id]) => id === box.drives[member.drive]?.id)?.[1];
    if (bytes !== undefined) member.reach = Math.min(member.reach, Math.ceil(bytes / box.block));
  }
  return () => members.forEach((member, i) => (member.reach = reaches[i] ?? member.reach));
}

/**
 * Stores so many blocks in the chunk groups of a pool, in each by its share of what the pool holds.
 *
 * @param groups as the plan has them, in the same order
 */
function storeChunks(box: SimBox, pool: SimPool, blocks: number, groups: readonly Group[]): void {
  if (pool.groups.every(({ chunks }) => chunks === null) || blocks === 0) return;
  const whole = capacityOfPool(box, pool);
  const shares = pool.groups.map(
    (group) => (blocks * capacityOfPool(box, { ...pool, groups: [group] })) / Math.max(1, whole),
  );
  for (const [g, group] of pool.groups.entries()) {
    const { chunks } = group;
    const free = onlyWhereFilled(box, group, groups[g]?.filled);
    while (chunks && chunks.count * chunks.k < (shares[g] ?? 0)) if (!addStripe(box, chunks)) break;
    free();
  }
}

/** The backups of a plan, each with the pools on whose volumes its data sets are. */
function knownBackups({ pools, dataSets = [], backups = [] }: Plan): KnownBackup[] {
  const volumeOf = new Map(dataSets.map(({ id, volume }) => [id, volume]));
  return backups.map(({ id, kind, place, keepsVersions, dataSets: ids }) => ({
    id,
    kind,
    place,
    keepsVersions,
    pools: pools
      .filter(({ volumes }) => ids.some((set) => volumes.some((volume) => volume.id === volumeOf.get(set))))
      .map((pool) => pool.id),
  }));
}

/** The backups that have been made before: each at worst as old as the time between two of them. */
const keptBackups = ({ backups = [] }: Plan, { known }: SimBox): SimBackup[] =>
  backups
    .filter(({ lastVerified }) => lastVerified !== undefined)
    .flatMap(({ id, place, kind, everyDays, keepsVersions }) =>
      (known.find((each) => each.id === id)?.pools ?? []).map((pool) => ({
        pool,
        to: id,
        hours: -24 * everyDays,
        place,
        keepsVersions,
        rate: WAYS[kind],
      })),
    );

/** A drive as so many empty blocks. */
export function bareDrive(drive: Drive, rules: BoxRules, block: Bytes): SimDrive {
  const count = Math.round(roomOf(drive, rules).between / block);
  return {
    id: drive.id,
    bytes: drive.bytes,
    is: drive,
    blocks: count,
    // Two more, for what is as high but for the rounding.
    cells: new Uint8Array(count + 2),
    unreadable: null,
    state: "works",
    bay: bayOf(drive),
    slow: 1,
    own: null,
  };
}

/**
 * A simulated box as a plan says that it is before its first step: drives of blocks, each pool laid out and full of
 * coded data. What has failed or is missing in the plan has had its data, and is gone.
 *
 * @param grain how fine, and the seed
 * @example setUp(plan, { blocks: 1024, seed: 1 }).drives[0].cells.length
 */
export function setUp(plan: Plan, { blocks, seed }: Grain): SimBox {
  const rules = rulesOf(plan.box.rules);
  const block = blockBytes(plan.drives, blocks);
  const box: SimBox = {
    hours: 0,
    known: knownBackups(plan),
    rules,
    bays: plan.box.bays,
    ups: plan.box.ups ?? false,
    block,
    drives: plan.drives.map((drive) => bareDrive(drive, rules, block)),
    pools: [],
    backups: [],
    nextData: Math.imul(seed, 7919) >>> 1,
    erased: new Set(),
  };
  for (const drive of box.drives) {
    if (drive.is.contents === undefined) continue;
    drive.own = box.nextData++;
    for (let i = 0; i < drive.blocks; i += 1) write(drive, i, wanted(drive.own, i));
  }
  plan.pools.forEach((pool) => setUpPool(box, pool));
  for (const drive of box.drives) drive.state = drive.is.state ?? "works";
  box.backups = keptBackups(plan, box);
  return box;
}
