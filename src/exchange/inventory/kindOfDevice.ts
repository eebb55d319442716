import { kernelName, type BlockDevice } from "./blockDevice";
import { ownValue } from "@/core/records/ownValue";

/** What a block device is to a person who looks for drives; everything but a disk is left out. */
export type DeviceKind =
  | "disk"
  | "partition"
  | "loop device"
  | "memory device"
  | "optical drive"
  | "RAID array"
  | "volume or encrypted layer"
  | "second path"
  | "network disk"
  | "memory card"
  | "empty slot"
  | "other device";

const BY_TYPE: Record<string, DeviceKind> = {
  part: "partition",
  loop: "loop device",
  rom: "optical drive",
  lvm: "volume or encrypted layer",
  crypt: "volume or encrypted layer",
  dm: "volume or encrypted layer",
  mpath: "volume or encrypted layer",
  md: "RAID array",
  linear: "RAID array",
};

const BY_NAME: [RegExp, DeviceKind][] = [
  [/^(zram|ram)\d+$/, "memory device"],
  [/^loop\d+/, "loop device"],
  [/^(sr|scd)\d+$/, "optical drive"],
  [/^mmcblk\d+(boot|rpmb|p)/, "partition"],
  [/^mmcblk\d+$/, "memory card"],
  [/^md(\d+|_\w+)p\d+$/, "partition"],
  [/^md/, "RAID array"],
  [/^dm-/, "volume or encrypted layer"],
  [/^(nbd|rbd|drbd)\d+/, "network disk"],
  [/^(fd|mtdblock)\d+/, "other device"],
  [/^(nvme\d+n\d+p\d+|(?:sd|hd|vd|xvd)[a-z]+\d+)$/, "partition"],
];

const DISK_NAME = /^(?:(?:sd|hd|vd|xvd)[a-z]+|nvme\d+(?:c\d+)?n\d+|dasd[a-z]+)$/;

const REMOTE = new Set(["iscsi", "fc", "fcoe", "nbd", "rbd", "rdma", "tcp"]);

/** Tells what a device is by its type, or by its name where the type was not asked for. */
export function kindOfDevice(device: BlockDevice): DeviceKind {
  const name = kernelName(device);
  const named = BY_NAME.find(([pattern]) => pattern.test(name));
  if (named) return named[1];
  const type = (device.type ?? "").trim().toLowerCase();
  if (type.startsWith("raid")) return "RAID array";
  const typed = ownValue(BY_TYPE, type);
  if (typed) return typed;
  if (type !== "" && type !== "disk") return "other device";
  if (type === "" && !DISK_NAME.test(name)) return "other device";
  if (REMOTE.has((device.tran ?? "").trim().toLowerCase())) return "network disk";
  return device.size === 0 || device.size === "0" || device.size === "0B" ? "empty slot" : "disk";
}
