import { selfTestHours, sequentialRate, RESHAPE_SHARE } from "../../drives/rates";
import { canBeRead } from "../canBeRead";
import { type Doing, phaseOf, waiting } from "../doing";
import { erase } from "../groups";
import { AT_ONCE, WAYS, cellsOf, checkShare, hasParity, partUsed, passOver, sideBySide } from "../pace";
import { VERIFY_SHARE } from "../../drives/rates";
import { roomFor } from "../claims";
import { readBack } from "../readBack";
import { type Extent, placeOf, type SimBackup, type SimBox, type SimPool, type SimVolume } from "../simulatedBox";

// What is done about what is stored, and to single drives: nothing of it changes how a pool lies.

/** The rate of the way to the first backup of a pool that the plan knows of; over the network where it knows none. */
export const rateTo = (box: SimBox, pool: string): number =>
  WAYS[box.known.find(({ pools }) => pools.includes(pool))?.kind ?? "box"];

const poolIn = (box: SimBox, id: string): SimPool | undefined => box.pools.find((pool) => pool.id === id);

const volumeIn = (box: SimBox, { pool, volume }: { pool: string; volume: string }): SimVolume | undefined =>
  poolIn(box, pool)?.volumes.find(({ id }) => id === volume);

const storedIn = (pool: SimPool | undefined): number =>
  pool?.volumes.reduce((sum, volume) => sum + volume.stored, 0) ?? 0;

const slowestOf = (box: SimBox, places: readonly number[]): number =>
  Math.min(...places.flatMap((place) => (box.drives[place] ? [sequentialRate(box.drives[place].is)] : [])));

/** Everything of a pool read and compared; what cannot be read is written anew where it can be worked out. */
export const verify: Doing<"verify"> = {
  begin: (box, step) => {
    const pool = poolIn(box, step.pool);
    if (!pool) return "The pool is not there.";
    const part = partUsed(box, pool);
    const rows = passOver(
      box,
      pool.groups.flatMap(({ slabs }) => slabs),
      checkShare,
      part,
    );
    const chunks = pool.groups
      .filter((group) => group.chunks)
      .map((group) => sideBySide(box, cellsOf(box, pool, group), VERIFY_SHARE, hasParity(group)));
    return [phaseOf(box, { kind: "check", pool: pool.id }, Math.max(rows, 0, ...chunks))];
  },
};

/** Everything read and held against the parity of a schedule. */
const readingAll = (box: SimBox, id: string) => {
  const pool = poolIn(box, id);
  if (!pool) return "The pool is not there.";
  const beside = pool.groups.filter(({ parityDrives }) => parityDrives.length > 0);
  if (beside.length === 0) return [waiting(AT_ONCE)];
  const seconds = passOver(
    box,
    beside.flatMap(({ slabs }) => slabs),
    checkShare,
  );
  return [phaseOf(box, { kind: "check", pool: id }, seconds)];
};

export const updateParity: Doing<"update-parity"> = {
  begin: (box, step) => (box.rules.parityWrites === "by-schedule" ? readingAll(box, step.pool) : [waiting(AT_ONCE)]),
};

export const checkParity: Doing<"check-parity"> = { begin: (box, step) => readingAll(box, step.pool) };

export const pauseSchedule: Doing<"pause-schedule"> = {
  begin: () => [waiting(AT_ONCE)],
  end: (box, step) => {
    const pool = poolIn(box, step.pool);
    if (pool) pool.paused = true;
  },
};

export const resumeSchedule: Doing<"resume-schedule"> = {
  begin: () => [waiting(AT_ONCE)],
  end: (box, step) => {
    const pool = poolIn(box, step.pool);
    if (pool) pool.paused = false;
  },
};

export const testDrive: Doing<"test-drive"> = {
  begin: (box, step) => {
    const place = placeOf(box, step.drive);
    const drive = box.drives[place];
    if (!drive) return "The drive is not there.";
    return [phaseOf(box, { kind: "read-through", place }, selfTestHours(drive.is).expected * 3600 * drive.slow)];
  },
};

export const wipeDrive: Doing<"wipe-drive"> = {
  joins: ({ drive }) => [drive],
  begin: (box, step) => {
    const place = placeOf(box, step.drive);
    const drive = box.drives[place];
    if (!drive) return "The drive is not there.";
    const seconds = (drive.bytes / sequentialRate(drive.is)) * drive.slow;
    return [phaseOf(box, { kind: "overwrite", place }, seconds)];
  },
  end: (box, step) => erase(box, placeOf(box, step.drive)),
};

export const backUp: Doing<"back-up"> = {
  begin: (box, step) => [waiting(Math.max(storedIn(poolIn(box, step.pool)) / rateOf(box, step), 1e-9))],
  end: (box, step) => {
    const rate = rateOf(box, step);
    keepBackup(box, {
      pool: step.pool,
      to: step.to,
      rate,
      hours: box.hours - storedIn(poolIn(box, step.pool)) / rate / 3600,
    });
  },
};

/**
 * A backup of a pool, as of an hour: one without older states takes the place of the one before it.
 *
 * @example keepBackup(box, { pool: "p1", to: "b1", rate: 117e6, hours: box.hours })
 */
export function keepBackup(box: SimBox, made: Made): void {
  const known = box.known.find(({ id }) => id === made.to);
  const keepsVersions = known?.keepsVersions ?? false;
  const isSame = ({ pool, to }: SimBackup) => pool === made.pool && to === made.to;
  if (!keepsVersions) box.backups = box.backups.filter((each) => !isSame(each));
  const place = known?.place ?? made.place ?? "elsewhere";
  box.backups.push({ ...made, place, keepsVersions, lacks: unreadIn(box, poolIn(box, made.pool)) });
}

/** What is known of a backup that is made: elsewhere, unless it or the plan says otherwise. */
type Made = Pick<SimBackup, "pool" | "to" | "rate" | "hours"> & Partial<Pick<SimBackup, "place">>;

/** The volumes of a pool of which something cannot be read: a backup has them no more than the box. */
function unreadIn(box: SimBox, pool: SimPool | undefined): string[] {
  if (!pool || box.drives.every(({ state, unreadable }) => state === "works" && !unreadable?.size)) return [];
  if (!pool.groups.every((group) => canBeRead(box, group))) return pool.volumes.map(({ id }) => id);
  const { lostOf } = readBack(box, pool);
  const isLost = ({ data, from, count }: Extent) =>
    [...(lostOf.get(data) ?? [])].some((at) => at >= from && at < from + count);
  return pool.volumes.filter(({ extents }) => extents.some(isLost)).map(({ id }) => id);
}

const rateOf = (box: SimBox, { rate, to }: { rate?: number | undefined; to: string }): number =>
  rate ?? WAYS[box.known.find(({ id }) => id === to)?.kind ?? "box"];

export const growVolume: Doing<"grow-volume"> = {
  enlarges: true,
  begin: (box, step) => (volumeIn(box, step) ? [waiting(AT_ONCE)] : "The volume is not there."),
  end: (box, step) => {
    const [pool, volume] = [poolIn(box, step.pool), volumeIn(box, step)];
    if (pool && volume) volume.bytes = Math.max(volume.bytes, step.bytes ?? roomFor(box, pool, volume.id));
  },
};

export const growFileSystem: Doing<"grow-file-system"> = {
  enlarges: true,
  begin: (box, step) => (volumeIn(box, step) ? [waiting(AT_ONCE)] : "The volume is not there."),
  end: (box, step) => {
    const volume = volumeIn(box, step);
    if (volume) volume.files = volume.bytes;
  },
};

/** Even where next to nothing is moved, a file system has to be looked through. */
const LOOKED_THROUGH = 3.6e10;

export const shrinkVolume: Doing<"shrink-volume"> = {
  begin: (box, step) => {
    const [pool, volume] = [poolIn(box, step.pool), volumeIn(box, step)];
    if (!pool || !volume) return "The volume is not there.";
    if (volume.stored > step.bytes) return "More is stored on the volume than it would hold.";
    const moved = Math.max(LOOKED_THROUGH, Math.min(volume.stored, volume.bytes - step.bytes));
    return [
      waiting(
        moved /
          (slowestOf(
            box,
            pool.groups.flatMap(({ drives }) => drives),
          ) *
            RESHAPE_SHARE),
      ),
    ];
  },
  end: (box, step) => {
    const volume = volumeIn(box, step);
    if (!volume) return;
    volume.bytes = step.bytes;
    volume.files = Math.min(volume.files, step.bytes);
  },
};

export const shrinkFileSystem: Doing<"shrink-file-system"> = {
  begin: (box, step) => {
    const drive = box.drives[placeOf(box, step.drive)];
    if (!drive) return "The drive is not there.";
    const cut = (drive.is.fileSystemBytes ?? drive.bytes) - step.bytes;
    return [waiting(Math.max(cut, LOOKED_THROUGH) / (sequentialRate(drive.is) * RESHAPE_SHARE))];
  },
  end: (box, step) => {
    const drive = box.drives[placeOf(box, step.drive)];
    if (drive) drive.is = { ...drive.is, fileSystemBytes: step.bytes };
  },
};
