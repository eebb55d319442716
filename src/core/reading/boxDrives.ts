import type { Bytes } from "../bytes/bytes";
import type { Drive, Plan } from "../document/plan";
import { isGone } from "../drives/driveState";
import { freeId } from "../records/freeId";
import type { PrintedBox, PrintedDrive } from "./printedBox";
import { usualDrive } from "../drives/usualDrive";

/** What can stand in an id; everything else in a serial becomes a hyphen. */
const asId = (text: string): string => text.replace(/[^A-Za-z0-9_-]+/g, "-").slice(0, 64);

/** The id of a drive that no plan knows: its serial, else its world-wide name, else the kernel's name. */
const idOf = ({ name, wwn, drive }: PrintedDrive): string =>
  asId(drive.serial ?? "") || asId(wwn) || asId(name) || "drive";

/** Whether a drive is the box's own: the system runs from it, or it hangs on USB. */
const isAside = ({ drive }: PrintedDrive): boolean => drive.contents?.kind === "system" || drive.bus === "usb";

/** A drive that is listed: one that the plan takes to be dead may be listed and dead. */
const there = (drive: Drive): Drive => (drive.state === "failed" ? drive : working(drive));

/** A drive that is there and works, whatever was said of it before. */
function working({ state: _state, since: _since, lastBay, toBuy: _bought, ...drive }: Drive): Drive {
  return lastBay === undefined || "bay" in drive.place ? drive : { ...drive, place: { bay: lastBay } };
}

/**
 * The drives of a plan that these are: by their serials, else by the names that ids are made of; then those of which
 * the plan does not know the serial yet, by their size and as they come.
 */
function matches(printed: readonly PrintedDrive[], known: readonly Drive[]): Map<string, Drive> {
  const matched = new Map<string, Drive>();
  const left = new Set(known);
  const match = (found: PrintedDrive, fits: (drive: Drive) => boolean) => {
    const old = matched.has(found.name) ? undefined : [...left].find(fits);
    if (!old) return;
    matched.set(found.name, old);
    left.delete(old);
  };
  for (const found of printed) {
    const serial = found.drive.serial?.toLowerCase();
    match(found, (drive) => serial !== undefined && drive.serial?.toLowerCase() === serial);
  }
  for (const found of printed)
    match(found, (drive) => drive.id === idOf(found) && (!drive.serial || !found.drive.serial));
  // Where one side does not know serials: by size, in the order of both.
  for (const found of printed)
    match(
      found,
      (drive) => !(drive.serial && found.drive.serial) && drive.bytes === found.drive.bytes && "bay" in drive.place,
    );
  return matched;
}

/**
 * The drives of a box as a plan keeps them: those of a given plan by its ids, the others by ids made of their serials,
 * and one in the place of each member that is printed nowhere.
 */
export class BoxDrives {
  private readonly byName = new Map<string, Drive>();
  private readonly taken = new Set<string>();
  private readonly listed = new Set<string>();
  private readonly inPools = new Set<string>();
  private readonly gone = new Map<string, Drive>();
  private readonly left: string[] = [];
  private readonly serials = new Set<string>();
  /** Names of drives that print the serial of another. */
  readonly doubled: string[] = [];

  constructor(
    printed: PrintedBox,
    private readonly plan: Plan | null,
  ) {
    const known = plan?.drives ?? [];
    const matched = matches(printed.drives, known);
    const { taken } = this;
    for (const { id } of known) taken.add(id);
    for (const found of printed.drives) {
      const old = matched.get(found.name);
      if (!old && isAside(found)) this.left.push(found.name);
      const wanted = idOf(found);
      const id = old?.id ?? (taken.has(wanted) ? freeId(`${wanted.slice(0, 58)}-`, taken) : wanted);
      taken.add(id);
      this.listed.add(id);
      const { serial, ...nameless } = found.drive;
      // Some enclosures print one serial for all of their drives; a plan tells drives by it.
      const isOwn = serial !== undefined && !this.serials.has(serial.toLowerCase());
      if (isOwn) this.serials.add(serial.toLowerCase());
      else if (serial !== undefined) this.doubled.push(found.name);
      const own = isOwn ? { serial } : {};
      this.byName.set(
        found.name,
        old ? { ...there(old), bytes: nameless.bytes, ...own } : { ...nameless, ...own, id, place: { shelf: true } },
      );
    }
  }

  /** The drive that the kernel calls so, as it is before anything is said of it; null where the list has none. */
  named(name: string | null): Drive | null {
    return name === null ? null : (this.byName.get(name) ?? null);
  }

  /** Takes a drive for a part of a pool, which then holds nothing of its own. */
  use(name: string | null): string | null {
    const drive = this.named(name);
    if (!drive || name === null) return null;
    const { contents: _contents, ...rest } = working(drive);
    this.byName.set(name, rest);
    this.inPools.add(drive.id);
    return drive.id;
  }

  /** Says that a drive has been thrown out of its array. */
  fail(name: string): void {
    const drive = this.byName.get(name);
    if (drive) this.byName.set(name, { ...drive, state: "failed" });
  }

  /** A drive of the given plan that the box does not list, said to be missing. */
  missing(id: string): string | null {
    const drive = this.plan?.drives.find((each) => each.id === id);
    if (!drive || this.isListed(id)) return null;
    this.gone.set(id, this.outOfBay(drive));
    return id;
  }

  /** Something in the place of a member of which nothing is printed, as large as the least of the others. */
  unknown(array: string, bytes: Bytes): string {
    let n = 1;
    while (this.gone.has(`missing-${asId(array)}-${n}`) || this.taken.has(`missing-${asId(array)}-${n}`)) n += 1;
    const id = `missing-${asId(array)}-${n}`;
    this.gone.set(id, {
      ...usualDrive({ bytes, medium: "hdd", bus: "sata" }),
      id,
      label: `Missing from ${array}`,
      state: "missing",
      place: { shelf: true },
    });
    return id;
  }

  isListed(id: string): boolean {
    return this.listed.has(id);
  }

  /** Drives by their ids, as far as they are known by now. */
  of(ids: readonly string[]): Drive[] {
    const wanted = new Set(ids);
    return [...this.byName.values(), ...this.gone.values()].filter(({ id }) => wanted.has(id));
  }

  /** Names of drives that are left out, since the system runs from them or they hang on USB. */
  aside(): string[] {
    return this.left.filter((name) => !this.inPools.has(this.byName.get(name)?.id ?? ""));
  }

  /**
   * All drives with their bays: those of the plan where they were, the others in the lowest that are free.
   *
   * @returns the drives, and how many bays they need
   */
  seated(least: number): { drives: Drive[]; bays: number } {
    const aside = new Set(this.aside());
    const listed = [...this.byName].filter(([name]) => !aside.has(name)).map(([, drive]) => drive);
    const now = new Map([...listed, ...this.gone.values()].map((drive) => [drive.id, drive]));
    const old = (this.plan?.drives ?? []).map((drive) => now.get(drive.id) ?? this.notListed(drive));
    const oldIds = new Set(old.map(({ id }) => id));
    const all = [...old, ...[...now.values()].filter(({ id }) => !oldIds.has(id))];
    const bays = new Set<number>();
    const stays = all.filter(({ place }) => "bay" in place && !bays.has(place.bay) && bays.add(place.bay));
    let free = 1;
    const drives = all.map((drive): Drive => {
      if (stays.includes(drive)) return drive;
      const isNew = this.inPools.has(drive.id) || !oldIds.has(drive.id) || "bay" in drive.place;
      if (!this.isListed(drive.id) || !(isNew || drive.state === "failed")) return drive;
      while (bays.has(free)) free += 1;
      bays.add(free);
      return { ...drive, place: { bay: free } };
    });
    return { drives, bays: Math.max(least, ...bays) };
  }

  /** A drive of the plan that the box does not list and that no pool lacks: it is not in its bay. */
  private notListed(drive: Drive): Drive {
    return "bay" in drive.place ? this.outOfBay(drive) : drive;
  }

  private outOfBay(drive: Drive): Drive {
    const { place } = drive;
    // What the plan takes to be dead is often not listed at all, and still in its bay.
    if (isGone(drive)) return drive;
    return {
      ...drive,
      state: "missing",
      place: { shelf: true },
      ...("bay" in place ? { lastBay: place.bay } : {}),
    };
  }
}
