import type { FileSystem } from "@/core/document/plan";
import type { PrintedVolume } from "@/core/reading/printedBox";
import { cleanText, wholeNumber } from "../inventory/blockDevice";
import { groundsOf, type DeviceGraph, type Node } from "../inventory/deviceGraph";
import { mountsOf } from "../inventory/readLsblk";

/** Marks of what a device is a part of, which are no file systems. */
const PARTS_OF =
  /^(linux_raid_member|LVM2_member|crypto_LUKS|zfs_member|bcache|ddf_raid_member|isw_raid_member|drbd|swap)$/;

/** Devices that the volume manager makes for itself: metadata, copies, parts of thin pools. */
const HELPER =
  /_(?:rmeta|rimage|mimage|mlog|tmeta|tdata|cdata|cmeta|corig|pmspare|vorigin|tpool|iorig|imeta)(?:_\d+)?$|^lvol\d+_pmspare$/;

/** Those of them with which it keeps copies or parity itself. */
const REDUNDANT = /_(?:rmeta|rimage|mimage|mlog)(?:_\d+)?$/;

/** Whether a device is one of those on which volumes lie in the end: an array, or a drive. */
const isGround = (node: Node): boolean => node.kind === "RAID array" || node.kind === "disk";

const FILE_SYSTEMS: ReadonlyMap<string, FileSystem> = new Map([
  ["ext2", "ext4"],
  ["ext3", "ext4"],
  ["ext4", "ext4"],
  ["xfs", "xfs"],
  ["btrfs", "btrfs"],
]);

const fileSystemOf = (node: Node): string => {
  const printed = cleanText(node.device.fstype);
  return PARTS_OF.test(printed) ? "" : printed;
};

/** What people call it: its label, the end of where it is mounted, its volume's name. */
function nameOf(nodes: readonly Node[]): string {
  const label = nodes.map(({ device }) => cleanText(device.label)).find(Boolean);
  const mount = nodes.flatMap(({ device }) => mountsOf(device)).find((at) => at.startsWith("/") && at.length > 1);
  const [first] = nodes;
  const volume = first?.kind === "volume or encrypted layer" ? first.listed.replace(/^.*[^-]-(?=[^-])/, "") : "";
  return label ?? (mount?.split("/").filter(Boolean).at(-1) || volume || (first?.name ?? ""));
}

/** The file systems of a list, each with the devices that it is on: one over several drives has one uuid on all. */
function withFileSystems(graph: DeviceGraph): Node[][] {
  const byUuid = new Map<string, Node[]>();
  for (const node of graph.values()) {
    if (!fileSystemOf(node)) continue;
    const uuid = cleanText(node.device.uuid);
    const key = fileSystemOf(node) === "btrfs" && uuid ? uuid : node.name;
    byUuid.set(key, [...(byUuid.get(key) ?? []), node]);
  }
  return [...byUuid.values()];
}

const isVolume = (node: Node): boolean => cleanText(node.device.type) === "lvm" && !HELPER.test(node.listed);

/** Volumes on which no file system is known: not formatted, or locked. */
const bareVolumes = (graph: DeviceGraph): Node[] =>
  [...graph.values()].filter(
    (node) =>
      isVolume(node) &&
      !fileSystemOf(node) &&
      cleanText(node.device.fstype) !== "swap" &&
      ![...node.children].some((child) => isVolume(child) || fileSystemOf(child)),
  );

/** What a file system over several drives shows as its size is what folders see of it. */
const bytesOf = (nodes: readonly Node[], shown: number | null): number =>
  nodes.length > 1 && shown !== null
    ? shown
    : nodes.reduce((sum, { device }) => sum + (wholeNumber(device.size) ?? 0), 0);

function volumeOf(nodes: Node[]): PrintedVolume[] {
  const [first] = nodes;
  if (!first) return [];
  const under = nodes.map((node) => groundsOf(node, isGround));
  const between = under.flatMap((each) => each.between);
  const on = [...new Set(under.flatMap(({ grounds }) => grounds.map(({ name }) => name)))];
  const mounted = nodes.map(({ device }) => ({
    size: wholeNumber(device.fssize),
    used: wholeNumber(device.fsused),
  }));
  const shown = mounted.find(({ size }) => size !== null);
  const printed = fileSystemOf(first);
  return [
    {
      name: nameOf(nodes),
      set: between.find(isVolume)?.listed.replace(/(?<=[^-])-(?=[^-]).*$/, "") ?? "",
      device: first.name,
      bytes: bytesOf(nodes, shown?.size ?? null),
      fileSystem: FILE_SYSTEMS.get(printed) ?? "none",
      printed: printed || cleanText(first.device.fstype),
      fileSystemBytes: shown?.size ?? null,
      usedBytes: shown?.used ?? null,
      mounts: [...new Set(nodes.flatMap(({ device }) => mountsOf(device)))],
      on,
      through: between.some((node) => REDUNDANT.test(node.listed))
        ? "redundant-volumes"
        : between.some((node) => cleanText(node.device.type) === "lvm")
          ? "volumes"
          : "nothing",
    },
  ];
}

/** The file systems and logical volumes of a list that lie on arrays or drives. */
export function printedVolumes(graph: DeviceGraph): PrintedVolume[] {
  const all = [...withFileSystems(graph), ...bareVolumes(graph).map((node) => [node])];
  return all.flatMap(volumeOf).filter(({ on }) => on.length > 0);
}
