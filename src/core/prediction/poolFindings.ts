import { inText } from "../layouts/inText";
import { usableOf } from "../bands/contents";
import { atMost } from "../box/arrays";
import type { Bytes } from "../bytes/bytes";
import { formatBytes, formatExactBytes, type UnitFamily } from "../bytes/formatBytes";
import type { BoxRules, Drive, Pool } from "../document/plan";
import { checkContents } from "../drives/checks/contents";
import { checkHealth } from "../drives/checks/health";
import { nameOfDriveFirst } from "../drives/nameOfDrive";
import type { Condition } from "../failures/condition";
import type { Finding } from "../findings/finding";
import { layOutGroup } from "../layouts/layOutGroup";
import { layoutOf } from "../layouts/registry";
import { counted, oneOrMany, plural } from "../words/counted";
import { listOf } from "../words/listOf";
import type { GroupPrediction } from "./predictGroup";
import { scheduleFindings } from "./scheduleFindings";
import { stateFindings } from "./stateFindings";

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
      message:
        `The read cache of ${pool.name} adds no space. Nothing is lost if it fails: what is in it is also in the ` +
        "pool.",
      drives: ids(caches),
    });
  if (logs.length === 1)
    findings.push({
      code: "single-write-log",
      severity: "warn",
      message:
        `${pool.name} has a single write-log drive: if it fails in a power cut, the last seconds of writing are ` +
        "lost. Two as a mirror would keep them.",
      drives: ids(logs),
    });
  if (logs.length > 1)
    findings.push({
      code: "write-log",
      severity: "note",
      message:
        `The write log of ${pool.name} adds no space. Its drives mirror one another, so the loss of one is ` +
        "survived.",
      drives: ids(logs),
    });
  const disks = [...caches, ...logs].filter((drive) => drive.medium === "hdd");
  if (disks.length > 0) {
    const names = disks.map((drive) => nameOfDriveFirst(drive, family).replace(/^T/, "t"));
    findings.push({
      code: "helper-not-flash",
      severity: "warn",
      message:
        `A cache or log gains speed only on flash, and ${listOf(names)} ` +
        `${plural(disks.length, "is a hard disk", "are hard disks")}.`,
      drives: ids(disks),
      mend: { label: "Remove it", command: { kind: "leave-group", drives: ids(disks) } },
    });
  }
  return findings;
}

/** A pool with what is known of it by now. */
export interface PoolView {
  pool: Pool;
  usableBytes: Bytes;
  tolerance: number;
  condition: Condition;
  groups: readonly GroupPrediction[];
  drivesOf: (ids: readonly string[]) => Drive[];
  rules: BoxRules;
  family: UnitFamily;
}

/** Spares that all groups of a pool are to share, on a box that gives a spare to one group. */
function sharedSpares({ pool, groups, drivesOf, rules }: PoolView): Finding[] {
  if (rules.hotSpares !== "per-group" || groups.length < 2 || pool.spares.length === 0) return [];
  const message =
    `Your box gives a hot spare to one group: ${pool.name} has ${counted(groups.length, "group")}, and its ` +
    "spares stand in for the first of them only.";
  return [
    { code: "spare-of-one-group", severity: "note", message, drives: drivesOf(pool.spares).map((drive) => drive.id) },
  ];
}

/** What a pool that new data lands on first protects it by. */
function landingPlace({ pool, tolerance }: PoolView): Finding[] {
  if (pool.landsFor === undefined) return [];
  const survives =
    tolerance === 0
      ? "if any of its drives fails, that data is lost"
      : `it survives the loss of any ${oneOrMany(tolerance, "one drive", "drives")}`;
  const message =
    `New data lands on ${pool.name} and is moved on by schedule. Until then it has only the protection of ` +
    `${pool.name}: ${survives}.`;
  return [{ code: "landing-place", severity: tolerance === 0 ? "warn" : "note", message, drives: [] }];
}

/** Volumes that together ask for more than the pool has. */
function tooLargeVolumes({ pool, usableBytes, condition, family }: PoolView): Finding[] {
  const over = pool.volumes.reduce((sum, volume) => sum + volume.bytes, 0) - usableBytes;
  // Of what is lost with its drives, the pool is told about, not its volumes.
  if (over <= 0 || condition.redundancyLeft < 0) return [];
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
    const message =
      "Its new space was taken into use after a rewrite, which uses up some of the space before the data: " +
      `${pool.name} holds up to ${formatExactBytes(most - least)} more than is said here. ` +
      `${formatBytes(least, family)} is what you can count on.`;
    return [{ code: "size-open", severity: "note", message, drives: [] }];
  });
}

/** How the figures of chunk pools are meant. */
function chunkPlacement({ groups, tolerance }: PoolView): Finding[] {
  if (!groups.some((group) => layoutOf(group.layout).chunked)) return [];
  const message =
    `Count on surviving ${oneOrMany(tolerance, "one failed drive", "failed drives")}. Whether more is survived ` +
    "depends on where the box put the data.";
  return [{ code: "chunk-placement", severity: "note", message, drives: [] }];
}

/** Groups of different layouts in one pool. */
function mixedLayouts({ pool, groups }: PoolView): Finding[] {
  const names = [...new Set(groups.map((group) => inText(layoutOf(group.layout))))];
  if (names.length < 2) return [];
  const message =
    `The groups of ${pool.name} have different layouts (${names.join(", ")}). The pool is only as safe as the ` +
    "weakest. Check that your box takes this.";
  return [{ code: "mixed-layouts", severity: "warn", message, drives: [] }];
}

const CHECKS: readonly ((view: PoolView) => Finding[])[] = [
  stateFindings,
  usedBeside,
  sharedSpares,
  ({ pool, drivesOf, family }) => helperFindings(pool, drivesOf, family),
  landingPlace,
  tooLargeVolumes,
  openSizes,
  chunkPlacement,
  ({ pool, condition, rules }) => scheduleFindings(pool, condition, rules),
  mixedLayouts,
];

/**
 * What is to be said of a pool beyond its groups: its volumes, its spares, what stands beside it, how its figures are
 * meant.
 */
export const poolFindings = (view: PoolView): Finding[] => CHECKS.flatMap((check) => check(view));
