import { usableOf } from "../bands/contents";
import { heightOn } from "../bands/occupied";
import { atMost } from "../box/arrays";
import type { Bytes } from "../bytes/bytes";
import { formatBytes, formatExactBytes, type UnitFamily } from "../bytes/formatBytes";
import type { BoxRules, Drive, Pool } from "../document/plan";
import { checkContents } from "../drives/checks/contents";
import { checkHealth } from "../drives/checks/health";
import { nameOfDriveFirst } from "../drives/nameOfDrive";
import { roomOf } from "../drives/room";
import type { Finding } from "../findings/finding";
import { layOutGroup } from "../layouts/layOutGroup";
import { layoutOf } from "../layouts/registry";
import { counted, oneOrMany, plural } from "../words/counted";
import { listOf } from "../words/listOf";
import type { GroupPrediction } from "./predictGroup";

/** A spare must hold what is used of some member; one that could not hold what is used of all is worth a word. */
function spareFindings(
  spares: readonly Drive[],
  groups: readonly GroupPrediction[],
  rules: BoxRules,
  family: UnitFamily,
): Finding[] {
  const used = groups.flatMap(({ bands, rooms }) =>
    rooms.map((room) => heightOn(bands, room.drive, room.systemReserve)),
  );
  const [least, most] = [Math.min(...used), Math.max(...used)];
  return spares.flatMap((drive): Finding[] => {
    const findings: Finding[] = [];
    const mend = { label: "Take it out of the spares", command: { kind: "leave-group" as const, drives: [drive.id] } };
    if (rules.hotSpares === "none")
      findings.push({
        code: "spares-not-offered",
        severity: "warn",
        message: `By its rules your box knows no hot spares, so ${nameOfDriveFirst(drive, family).replace(/^T/, "t")} would not take over by itself.`,
        drives: [drive.id],
        mend,
      });
    const { between } = roomOf(drive, rules);
    if (used.length > 0 && between < least) {
      findings.push({
        code: "spare-too-small",
        severity: "block",
        message: `${nameOfDriveFirst(drive, family)} is too small to stand in for any member, by ${formatBytes(least - between, family)}: of the one of which least is used, it is ${formatBytes(least, family)}. Choose a larger spare.`,
        drives: [drive.id],
        mend,
      });
    } else if (used.length > 0 && between < most) {
      findings.push({
        code: "spare-for-some",
        severity: "note",
        message: `${nameOfDriveFirst(drive, family)} can stand in only for members of which no more is used than it has; of one, ${formatBytes(most, family)} is.`,
        drives: [drive.id],
      });
    }
    return findings;
  });
}

/** Spares, caches and logs are put to use like any other drive: what is on them goes, and a bad one is a bad choice. */
function usedBeside({ pool, drivesOf, rules, family }: PoolView): Finding[] {
  const beside = [
    ...pool.spares,
    ...pool.groups.flatMap((group) => group.spares ?? []),
    ...(pool.helpers ?? []).map(({ drive }) => drive),
  ];
  return drivesOf(beside).flatMap((drive) =>
    [...checkHealth(drive, family), ...checkContents(drive, rules, family)].map((finding): Finding => ({
      ...finding,
      mend: { label: "Do not use it for that", command: { kind: "leave-group", drives: [drive.id] } },
    })),
  );
}

/** What flash beside a pool does for it, and what it can lose. */
function helperFindings(pool: Pool, drivesOf: PoolView["drivesOf"], family: UnitFamily): Finding[] {
  const helpers = pool.helpers ?? [];
  const drivesIn = (role: "read-cache" | "write-log") =>
    drivesOf(helpers.filter((helper) => helper.role === role).map((helper) => helper.drive));
  const findings: Finding[] = [];
  const ids = (drives: readonly Drive[]) => drives.map((drive) => drive.id);
  const [caches, logs] = [drivesIn("read-cache"), drivesIn("write-log")];
  if (caches.length > 0)
    findings.push({
      code: "read-cache",
      severity: "note",
      message: `The read cache of ${pool.name} adds no capacity. It may fail harmlessly: what is in it is also in the pool.`,
      drives: ids(caches),
    });
  if (logs.length === 1)
    findings.push({
      code: "single-write-log",
      severity: "warn",
      message: `${pool.name} has a single write-log drive: if it fails in a power cut, the last seconds of writing are lost. Two as a mirror would keep them.`,
      drives: ids(logs),
    });
  if (logs.length > 1)
    findings.push({
      code: "write-log",
      severity: "note",
      message: `The write log of ${pool.name} adds no capacity. Its drives mirror one another, so one of them may fail.`,
      drives: ids(logs),
    });
  const disks = [...caches, ...logs].filter((drive) => drive.medium === "hdd");
  if (disks.length > 0) {
    const names = disks.map((drive) => nameOfDriveFirst(drive, family).replace(/^T/, "t"));
    findings.push({
      code: "helper-not-flash",
      severity: "warn",
      message: `A cache or log gains speed only on flash, and ${listOf(names)} ${plural(disks.length, "is a hard disk", "are hard disks")}.`,
      drives: ids(disks),
      mend: { label: "Take it out", command: { kind: "leave-group", drives: ids(disks) } },
    });
  }
  return findings;
}

/** A pool with what is known of it by now. */
export interface PoolView {
  pool: Pool;
  usableBytes: Bytes;
  tolerance: number;
  groups: readonly GroupPrediction[];
  drivesOf: (ids: readonly string[]) => Drive[];
  rules: BoxRules;
  family: UnitFamily;
}

/** Spares that all groups of a pool are to share, on a box that gives a spare to one group. */
function sharedSpares({ pool, groups, drivesOf, rules }: PoolView): Finding[] {
  if (rules.hotSpares !== "per-group" || groups.length < 2 || pool.spares.length === 0) return [];
  const message = `By its rules your box gives a hot spare to one group: ${pool.name} has ${counted(groups.length, "group")}, and its spares stand in for the first of them only.`;
  return [
    { code: "spare-of-one-group", severity: "note", message, drives: drivesOf(pool.spares).map((drive) => drive.id) },
  ];
}

/** What a pool that new data lands on first protects it by. */
function landingPlace({ pool, tolerance }: PoolView): Finding[] {
  if (pool.landsFor === undefined) return [];
  const may = tolerance === 0 ? "no drive may fail" : `${oneOrMany(tolerance, "one drive", "drives")} may fail`;
  const message = `New data lands on ${pool.name} and is moved on by schedule. Until then it has only the protection of ${pool.name}: ${may}.`;
  return [{ code: "landing-place", severity: tolerance === 0 ? "warn" : "note", message, drives: [] }];
}

/** Volumes that together ask for more than the pool has. */
function tooLargeVolumes({ pool, usableBytes, family }: PoolView): Finding[] {
  const over = pool.volumes.reduce((sum, volume) => sum + volume.bytes, 0) - usableBytes;
  if (over <= 0) return [];
  const last = pool.volumes.at(-1);
  const fits = Math.max(0, (last?.bytes ?? 0) - over);
  const finding: Finding = {
    code: "volumes-too-large",
    severity: "block",
    message: `The volumes of ${pool.name} ask for ${formatBytes(over, family)} more than it has. Make one smaller.`,
    drives: [],
  };
  if (last && fits > 0)
    finding.mend = {
      label: `Make “${last.name}” ${formatBytes(fits, family)}`,
      command: { kind: "edit-volume", pool: pool.id, volume: last.id, changes: { bytes: fits } },
    };
  return [finding];
}

/** Sizes that a claim after a rewrite leaves open. */
function openSizes({ pool, groups, drivesOf, rules, family }: PoolView): Finding[] {
  return pool.groups.flatMap((group, i) => {
    const whole = atMost(group);
    const least = groups[i]?.usableBytes ?? 0;
    const most = usableOf(layOutGroup(whole, drivesOf(group.drives), rules));
    if (whole === group || most <= least) return [];
    const message = `It was claimed after a rewrite, which uses up some of the room before the data: ${pool.name} holds up to ${formatExactBytes(most - least)} more than is said here. ${formatBytes(least, family)} is what you can count on.`;
    return [{ code: "size-open", severity: "note", message, drives: [] }];
  });
}

/** How the figures of chunk pools are meant. */
function chunkPlacement({ groups, tolerance }: PoolView): Finding[] {
  if (!groups.some((group) => layoutOf(group.layout).chunked)) return [];
  const message = `Count on surviving ${oneOrMany(tolerance, "one failed drive", "failed drives")}. Whether more is survived depends on where the box put the data.`;
  return [{ code: "chunk-placement", severity: "note", message, drives: [] }];
}

/** What scheduled parity does not protect. */
function scheduledParity({ groups, rules }: PoolView): Finding[] {
  if (rules.parityWrites !== "by-schedule" || !groups.some((group) => layoutOf(group.layout).dedicatedParity))
    return [];
  const message =
    "Parity is written by schedule: what came after the last sync is not protected. Stop the schedule at once when a drive fails.";
  return [{ code: "protected-as-of-last-sync", severity: "note", message, drives: [] }];
}

/** Groups of different layouts in one pool. */
function mixedLayouts({ pool, groups }: PoolView): Finding[] {
  const names = [...new Set(groups.map((group) => layoutOf(group.layout).shortName))];
  if (names.length < 2) return [];
  const message = `The groups of ${pool.name} have different layouts (${names.join(", ")}). The pool is only as safe as the weakest; many boxes refuse it.`;
  return [{ code: "mixed-layouts", severity: "warn", message, drives: [] }];
}

const CHECKS: readonly ((view: PoolView) => Finding[])[] = [
  ({ pool, groups, drivesOf, rules, family }) => spareFindings(drivesOf(pool.spares), groups, rules, family),
  ({ pool, groups, drivesOf, rules, family }) =>
    pool.groups.flatMap(({ id, spares = [] }) =>
      spareFindings(
        drivesOf(spares),
        groups.filter((each) => each.id === id),
        rules,
        family,
      ),
    ),
  usedBeside,
  sharedSpares,
  ({ pool, drivesOf, family }) => helperFindings(pool, drivesOf, family),
  landingPlace,
  tooLargeVolumes,
  openSizes,
  chunkPlacement,
  scheduledParity,
  mixedLayouts,
];

/**
 * What is to be said of a pool beyond its groups: its volumes, its spares, what stands beside it, how its figures are
 * meant.
 */
export const poolFindings = (view: PoolView): Finding[] => CHECKS.flatMap((check) => check(view));
