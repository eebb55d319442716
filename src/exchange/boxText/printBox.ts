import type { Band } from "@/core/bands/band";
import { usableOf } from "@/core/bands/contents";
import { bandsOfGroup } from "@/core/box/figures";
import { drivesOf } from "@/core/box/find";
import { rulesOfBox } from "@/core/box/rulesOfBox";
import { KiB, MiB, type Bytes } from "@/core/bytes/bytes";
import type { Drive, Group, LayoutId, Plan, Pool, Volume } from "@/core/document/plan";
import { bayOf } from "@/core/drives/drive";
import { isGone } from "@/core/drives/driveState";
import { roomOf } from "@/core/drives/room";
import type { Layout } from "@/core/layouts/layout";
import { layoutOf } from "@/core/layouts/registry";
import type { RunningKind } from "@/core/reading/printedBox";
import type { BlockDevice } from "../inventory/blockDevice";

// What a box in the state of a plan would print about itself: the reverse of reading, for the simulated box and tests.

/** Work that is under way on a group. */
export interface PrintedWork {
  group: string;
  kind: RunningKind;
  /** From 0 to 1. */
  done: number;
  minutesLeft: number;
  /** The drive that is filled, and the one in whose place; where that still works, it is copied. */
  by?: string;
  drive?: string;
  /** Drives that a rewrite brings in, and the layout that it makes, where that is another. */
  joins?: readonly string[];
  becomes?: LayoutId;
}

/** The two texts of a box. */
export interface BoxText {
  blockDevices: string;
  arrays: string;
}

/** A band as the array that it is. */
interface ArrayLine {
  name: string;
  level: string;
  bytes: Bytes;
  /** What of each drive is its member, by its name and size; the drive itself where it is whole. */
  slices: { drive: string; device: string; start: Bytes; bytes: Bytes }[];
  text: string;
}

const letters = (n: number): string =>
  n < 26 ? String.fromCharCode(97 + n) : letters(Math.floor(n / 26) - 1) + String.fromCharCode(97 + (n % 26));

/** Whether each of a layout's bands is an array of its own, over slices of its drives. */
const isInParts = (layout: Layout): boolean => layout.cutsAtSizes === true || layout.liesEndToEnd === true;

/** What the kernel calls a band of a layout. */
function levelOf(layout: Layout, { scheme }: Band): string {
  if (layout.kernelLevel) return layout.kernelLevel;
  const like = scheme.kind === "parity" ? `raid${4 + scheme.parity}` : "raid1";
  return like;
}

const parityOf = (level: string): number => Number(/^raid([56])$/.exec(level)?.[1] ?? 4) - 4;

/** Levels that keep whole copies. */
const MIRRORS: ReadonlySet<string> = new Set(["raid1"]);

/** The level that an array of a layout has on so many drives, until now another. */
function levelMade(layout: Layout, drives: number, until: string): string {
  const parity = layout.nominalTolerance({});
  if (!layout.cutsAtSizes) return layout.kernelLevel ?? until;
  return drives < parity + 2 ? "raid1" : `raid${4 + parity}`;
}

/** The arrangement of parity on drives of which one has the second parity to itself, until a rewrite has ended. */
const HALF_WAY = 18;

/** The sentence with which the kernel tells the size and the places of an array. */
function sizeLine(level: string, bytes: Bytes, pattern: string, metadata = "1.2", algorithm = 2): string {
  const blocks = `      ${bytes / KiB} blocks super ${metadata}`;
  const up = pattern.replaceAll("_", "").length;
  const places = ` [${pattern.length}/${up}] [${pattern}]`;
  if (level === "linear") return `${blocks} 0k rounding`;
  if (/raid0$/.test(level)) return `${blocks} 512k chunks`;
  if (/raid10$/.test(level)) return `${blocks} 512K chunks 2 near-copies${places}`;
  if (/raid[56]$/.test(level)) return `${blocks} level ${level.slice(4)}, 512k chunk, algorithm ${algorithm}${places}`;
  return blocks + places;
}

function workLine(work: PrintedWork | null, each: Bytes): string[] {
  if (!work) return [];
  // Arrays that share drives are worked on one after the other.
  if (work.done < 0) return ["      \tresync=DELAYED"];
  const total = Math.round(each / KiB);
  const part = Math.floor(work.done * total);
  const percent = (Math.floor((part / total) * 1000) / 10).toFixed(1);
  return [
    `      [====>...............]  ${work.kind} = ${percent}% (${part}/${total}) ` +
      `finish=${work.minutesLeft.toFixed(1)}min speed=98304K/sec`,
  ];
}

/**
 * What of a group's work is on one of its arrays: they share drives, so it goes from one to the next. A rewrite is
 * under way on all that it changes until all have ended, as is the size.
 *
 * @returns null where it has none of it
 */
function inTurn(work: PrintedWork, arrays: readonly (readonly Band[])[], i: number): PrintedWork | null {
  const lengths = arrays.map(([band]) => {
    const isOn = work.drive === undefined || band?.members.some(({ drive }) => drive === work.drive);
    return isOn ? (band?.members[0]?.length ?? 0) : 0;
  });
  const own = lengths[i] ?? 0;
  if (own === 0) return null;
  if (work.joins) return work;
  const sum = (some: readonly number[]) => some.reduce((all, each) => all + each, 0);
  return { ...work, done: Math.min(1, (work.done * sum(lengths) - sum(lengths.slice(0, i))) / own) };
}

/** An array with the drives in its places, and with what is under way on it. */
interface ArrayMade extends Omit<ArrayLine, "text"> {
  members: Drive[];
  /** What of each it uses. */
  each: Bytes;
  /** Whether its members are slices of drives. */
  isCut: boolean;
  work: PrintedWork | null;
}

/** Whether a drive takes the place of one that still works. */
const isCopied = ({ members, work }: ArrayMade): boolean =>
  members.some((drive) => drive.id === work?.drive && !isGone(drive));

/** Whether the drive that is filled has all of it already, and others of its arrays are still waiting. */
const isFull = ({ work }: ArrayMade): boolean => work !== null && work.by !== undefined && work.done >= 1;

/** Whether a drive has been thrown out because its copy has all of it. */
const isRelieved = (drive: Drive, array: ArrayMade): boolean =>
  isFull(array) && isCopied(array) && drive.id === array.work?.drive;

/** What a rewrite makes of an array. */
interface Made {
  level: string;
  /** Whether it is filled: a further copy of a mirror is, and so is second parity; others count on all drives. */
  fills: "all" | "last" | "none";
  algorithm?: number;
  work: PrintedWork | null;
}

function madeOf(group: Group, array: ArrayMade, joining: number): Made {
  const { work } = array;
  if (!work?.joins) return { level: array.level, fills: "none", work: isFull(array) ? null : work };
  const layout = layoutOf(work.becomes ?? group.layout);
  const level = levelMade(layout, array.members.length + joining, array.level);
  if (level === array.level && joining === 0) return { level, fills: "none", work: null };
  if (level === array.level && MIRRORS.has(level)) return { level, fills: "all", work: { ...work, kind: "recovery" } };
  const addsParity = parityOf(array.level) > 0 && parityOf(level) > parityOf(array.level);
  return addsParity ? { level, fills: "last", algorithm: HALF_WAY, work } : { level, fills: "none", work };
}

/** Which places are in sync. */
function patternOf(array: ArrayMade, joining: number, { fills }: Made): string {
  const isOut = (drive: Drive) => isGone(drive) && !(isFull(array) && drive.id === array.work?.drive);
  const isFilled = (i: number) => fills === "all" || (fills === "last" && i === joining - 1);
  return [
    ...array.members.map((drive) => (isOut(drive) ? "_" : "U")),
    ...Array.from({ length: joining }, (_, i) => (isFilled(i) ? "_" : "U")),
  ].join("");
}

class Printer {
  private readonly names = new Map<string, string>();
  private readonly devices = new Map<string, BlockDevice>();
  private readonly texts: string[] = [];
  private arrays = 0;
  private volumes = 0;
  private readonly rules;

  constructor(
    private readonly plan: Plan,
    private readonly work: readonly PrintedWork[],
  ) {
    this.rules = rulesOfBox(plan);
    const listed = plan.drives
      .filter((drive) => bayOf(drive) !== null && drive.state !== "missing")
      .sort((a, b) => (bayOf(a) ?? 0) - (bayOf(b) ?? 0));
    for (const [i, drive] of listed.entries()) this.list(drive, `sd${letters(i)}`);
  }

  print(): BoxText {
    this.printSystem();
    for (const pool of this.plan.pools) this.printPool(pool);
    return {
      blockDevices: JSON.stringify({ blockdevices: [...this.devices.values()] }, null, 3),
      arrays: [
        "Personalities : [raid1] [raid6] [raid5] [raid4] [raid0] [raid10] [linear]",
        ...this.texts,
        "unused devices: <none>",
        "",
      ].join("\n"),
    };
  }

  private list(drive: Drive, name: string): void {
    this.names.set(drive.id, name);
    this.devices.set(name, {
      name,
      kname: name,
      type: "disk",
      size: drive.bytes,
      model: drive.model ?? null,
      vendor: drive.bus === "sata" ? "ATA     " : null,
      serial: drive.serial ?? null,
      wwn: null,
      tran: drive.bus,
      rota: drive.medium === "hdd",
      "log-sec": drive.logicalSector,
      "phy-sec": drive.physicalSector,
      fstype: null,
      uuid: null,
      pttype: null,
      mountpoints: [null],
      children: [],
    });
  }

  private part(drive: string, start: Bytes, bytes: Bytes): string {
    const disk = this.devices.get(this.names.get(drive) ?? "");
    if (!disk) return "";
    disk.pttype = "gpt";
    const name = `${disk.name}${(disk.children ?? []).length + 1}`;
    disk.children?.push({
      name,
      kname: name,
      pkname: disk.name,
      type: "part",
      size: bytes,
      start: start / 512,
      children: [],
    });
    return name;
  }

  /** A device of the list by its name, also below a drive. */
  private device(name: string): BlockDevice | undefined {
    return (
      this.devices.get(name) ??
      [...this.devices.values()].flatMap(({ children }) => children ?? []).find((each) => each.name === name)
    );
  }

  /** Puts a device on others, which are marked as parts of it. */
  private putOn(devices: readonly string[], upper: BlockDevice, mark: string, uuid: string): void {
    for (const name of devices) {
      const lower = this.device(name);
      if (!lower) continue;
      lower.fstype = mark;
      lower.uuid = uuid;
      lower.children = [...(lower.children ?? []), upper];
    }
  }

  /** The system's own mirror on the first part of every drive, in a box that keeps something for it there. */
  private printSystem(): void {
    const reserve = this.rules.systemReserveBytes;
    if (reserve === 0) return;
    const parts = [...this.names.keys()].map((id) => ({ id, device: this.part(id, MiB, reserve - MiB) }));
    const name = "md127";
    this.putOn(
      parts.map(({ device }) => device),
      { name, kname: name, type: "raid1", size: reserve - 2 * MiB, fstype: "ext4", uuid: "root", mountpoints: ["/"] },
      "linux_raid_member",
      "system",
    );
    const members = parts
      .map(({ device }, i) => `${device}[${i}]`)
      .reverse()
      .join(" ");
    const pattern = "U".repeat(parts.length);
    this.texts.push(`${name} : active raid1 ${members}`, sizeLine("raid1", reserve - 2 * MiB, pattern), "      ");
  }

  private printPool(pool: Pool): void {
    const grounds = pool.groups.map((group) => ({ group, arrays: this.printGroup(pool, group) }));
    const arrays = grounds.flatMap((each) => each.arrays);
    if (arrays.length === 0)
      this.printOwn(
        pool,
        grounds.flatMap(({ group }) => group.drives),
      );
    else this.printVolumes(pool, arrays);
  }

  /** The bands of a group as arrays; none for layouts without. */
  private printGroup(pool: Pool, group: Group): ArrayLine[] {
    const layout = layoutOf(group.layout);
    if (!layout.kernelLevel && !isInParts(layout)) return [];
    const bands = bandsOfGroup(this.plan, group, this.rules);
    // Zones of a stripe over unequal drives, and the parts of a span, are one array.
    const arrays = isInParts(layout) ? bands.map((band) => [band]) : [bands];
    const work = this.work.find((each) => each.group === group.id);
    return arrays.map((parts, i) =>
      this.printArray(pool, group, { parts, next: arrays[i + 1], work: work ? inTurn(work, arrays, i) : null }),
    );
  }

  /** What of a drive an array takes: all of it above the system's, or the slice up to the next array. */
  private sliceOf(
    drive: Drive,
    band: Band,
    next: readonly Band[] | undefined,
    members: readonly Drive[],
  ): { start: Bytes; bytes: Bytes } {
    const room = roomOf(drive, this.rules);
    const from = (band.members.find((member) => member.drive === drive.id)?.offset ?? 0) - band.metadata;
    const over = next?.[0];
    const overFrom = over ? (over.members[0]?.offset ?? 0) - over.metadata : null;
    const top = Math.min(...members.map((each) => roomOf(each, this.rules).length)) + room.systemReserve;
    return { start: from, bytes: (overFrom ?? top) - from };
  }

  private printArray(
    pool: Pool,
    group: Group,
    { parts, next, work }: { parts: readonly Band[]; next: readonly Band[] | undefined; work: PrintedWork | null },
  ): ArrayLine {
    const layout = layoutOf(group.layout);
    const [first] = parts;
    if (!first) throw new RangeError(`Group ${group.id} holds nothing.`);
    const ids = [...new Set(parts.flatMap((band) => band.members.map(({ drive }) => drive)))];
    const ordered = group.drives.filter((id) => ids.includes(id));
    const members = drivesOf(this.plan, ordered);
    const isCut = isInParts(layout) || this.rules.systemReserveBytes > 0;
    const slice = (drive: Drive) => {
      if (layout.cutsAtSizes) return this.sliceOf(drive, first, next, members);
      const part = first.members.find((member) => member.drive === drive.id);
      if (layout.liesEndToEnd && part) return { start: part.offset, bytes: part.length };
      const room = roomOf(drive, this.rules);
      return { start: room.systemReserve, bytes: room.between };
    };
    const slices = members.flatMap((drive) => {
      const name = this.names.get(drive.id);
      if (name === undefined) return [];
      const { start, bytes } = slice(drive);
      return [{ drive: drive.id, device: isCut ? this.part(drive.id, start, bytes) : name, start, bytes }];
    });
    const name = `md${this.arrays}`;
    this.arrays += 1;
    const level = levelOf(layout, first);
    const bytes = usableOf([...parts]);
    const text = this.textOf(pool, group, {
      name,
      level,
      bytes,
      slices,
      members,
      each: first.members[0]?.length ?? 0,
      isCut,
      work,
    });
    return { name, level, bytes, slices, text };
  }

  private textOf(pool: Pool, group: Group, array: ArrayMade): string {
    const extras = this.besideMembers(pool, group, array);
    const { members } = array;
    const words = members.flatMap((drive, place) => {
      const device = array.slices.find((slice) => slice.drive === drive.id)?.device;
      return device === undefined
        ? []
        : [`${device}[${place}]${isGone(drive) || isRelieved(drive, array) ? "(F)" : ""}`];
    });
    const beside = extras.map(({ device, mark }, i) => `${device}[${members.length + i}]${mark}`);
    this.putOn(
      [...array.slices.map(({ device }) => device), ...extras.map(({ device }) => device)],
      { name: array.name, kname: array.name, type: array.level, size: array.bytes, children: [], mountpoints: [null] },
      "linux_raid_member",
      `array-${array.name}`,
    );
    const joining = extras.filter(({ joins }) => joins).length;
    const made = madeOf(group, array, joining);
    const metadata = layoutOf(group.layout).liesEndToEnd ? "1.0" : "1.2";
    const lines = [
      `${array.name} : active ${made.level} ${[...beside.reverse(), ...words.reverse()].join(" ")}`,
      // What is mirrored in its place has the driver's notes behind it.
      sizeLine(made.level, array.bytes, patternOf(array, joining, made), metadata, made.algorithm),
      ...workLine(made.work, array.each),
      "      ",
    ];
    this.texts.push(...lines);
    return lines.join("\n");
  }

  /** What stands in an array beside its members: a drive that is filled, those that join, and spares. */
  private besideMembers(
    pool: Pool,
    group: Group,
    array: ArrayMade,
  ): { device: string; mark: string; joins: boolean }[] {
    const { work } = array;
    const spares =
      this.first(group) === array.name ? [...pool.spares, ...(group.spares ?? [])].filter((id) => id !== work?.by) : [];
    const joining = this.joinsIn(group, array);
    return [
      ...(work?.by === undefined ? [] : [{ id: work.by, mark: isCopied(array) && !isFull(array) ? "(R)" : "" }]),
      ...joining.map((id) => ({ id, mark: "" })),
      ...spares.map((id) => ({ id, mark: "(S)" })),
    ].flatMap(({ id, mark }) => {
      const device = this.extra(id, array);
      return device === null ? [] : [{ device, mark, joins: joining.includes(id) }];
    });
  }

  /** Which of the drives that a rewrite brings in join an array: those of a hybrid only where they reach its top. */
  private joinsIn(group: Group, { work, slices }: { work: PrintedWork | null; slices: ArrayLine["slices"] }): string[] {
    const [like] = slices;
    const top = like ? like.start + like.bytes : 0;
    return drivesOf(this.plan, [...(work?.joins ?? [])])
      .filter(({ bytes }) => !layoutOf(group.layout).cutsAtSizes || bytes >= top)
      .map(({ id }) => id);
  }

  private readonly firsts = new Map<string, string>();

  /** The name of the array in which a group's spares stand by. */
  private first(group: Group): string {
    const known = this.firsts.get(group.id) ?? `md${this.arrays - 1}`;
    this.firsts.set(group.id, known);
    return known;
  }

  /** A drive that stands in an array without being a member: all of it, or a slice as large as the others. */
  private extra(id: string, array: { slices: ArrayLine["slices"]; isCut: boolean }): string | null {
    const name = this.names.get(id);
    const [like] = array.slices;
    if (name === undefined || !like) return null;
    return array.isCut ? this.part(id, like.start, like.bytes) : name;
  }

  private fileSystem(volume: Volume, bytes: Bytes): Partial<BlockDevice> {
    const printed = volume.fileSystem === "none" ? null : volume.fileSystem;
    // What ext4 keeps for its own tables; what is printed of it is what folders see.
    const seen = volume.fileSystemBytes ?? Math.round(bytes * 0.984);
    return {
      fstype: printed,
      uuid: printed ? `fs-${volume.id}` : null,
      label: volume.name,
      fssize: printed && volume.usedBytes !== undefined ? seen : null,
      fsused: printed ? (volume.usedBytes ?? null) : null,
      mountpoints: [printed && volume.usedBytes !== undefined ? `/srv/${volume.id}` : null],
    };
  }

  private printVolumes(pool: Pool, arrays: readonly ArrayLine[]): void {
    const [only] = arrays;
    const [volume, ...more] = pool.volumes;
    if (arrays.length === 1 && only && volume && more.length === 0 && volume.bytes === only.bytes) {
      const device = this.find(only.name);
      if (device) Object.assign(device, this.fileSystem(volume, only.bytes));
      return;
    }
    for (const each of pool.volumes) {
      const kname = `dm-${this.volumes}`;
      this.volumes += 1;
      const upper = {
        name: `${pool.id}-${each.id}`,
        kname,
        type: "lvm",
        size: each.bytes,
        ...this.fileSystem(each, each.bytes),
      };
      for (const { name } of arrays) {
        const device = this.find(name);
        if (!device) continue;
        device.fstype = "LVM2_member";
        device.uuid = `pv-${name}`;
        device.children = [...(device.children ?? []), upper];
      }
    }
  }

  /** An array of the list, which stands under each of its members and is one thing here. */
  private find(name: string): BlockDevice | undefined {
    const queue = [...this.devices.values()];
    for (let next = queue.pop(); next; next = queue.pop()) {
      if (next.name === name) return next;
      queue.push(...(next.children ?? []));
    }
    return undefined;
  }

  /** A pool without arrays: one file system over its drives, or one on each. */
  private printOwn(pool: Pool, ids: readonly string[]): void {
    const layout = layoutOf(pool.groups[0]?.layout ?? "single");
    const [volume] = pool.volumes;
    const drives = drivesOf(this.plan, [...ids]);
    const { copies } = layout.stripe({});
    const all = drives.reduce((sum, drive) => sum + drive.bytes, 0);
    for (const [i, drive] of drives.entries()) {
      const device = this.devices.get(this.names.get(drive.id) ?? "");
      if (!device) continue;
      if (layout.chunked && volume) {
        const seen = { fssize: Math.floor(all / (copies === "all" ? 1 : copies)), fsused: volume.usedBytes ?? 0 };
        Object.assign(
          device,
          this.fileSystem(volume, all),
          i === 0 ? seen : { fssize: null, fsused: null, mountpoints: [null] },
          { fstype: "btrfs" },
        );
      } else {
        const name = this.part(drive.id, MiB, drive.bytes - 2 * MiB);
        const part = this.device(name);
        const parity = pool.groups.some((group) => group.options?.parityDrives?.includes(drive.id));
        if (part)
          Object.assign(part, {
            fstype: "ext4",
            uuid: `fs-${drive.id}`,
            label: parity ? "parity" : `data-${drive.id}`,
            fssize: Math.round(drive.bytes * 0.98),
            fsused: 0,
            mountpoints: [parity ? "/srv/parity" : `/srv/${drive.id}`],
          });
      }
    }
  }
}

/**
 * What a Linux host in the state of a plan's beginning prints: the list of its devices and the kernel's text of arrays.
 * Drives on the shelf are not in it.
 *
 * @param work what is under way on its groups
 * @throws RangeError for a group that holds nothing
 * @example printBox(plan).arrays // "Personalities : …\nmd0 : active raid5 sdc[2] sdb[1] sda[0]\n …"
 */
export const printBox = (plan: Plan, work: readonly PrintedWork[] = []): BoxText => new Printer(plan, work).print();
