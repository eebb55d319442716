import fc from "fast-check";
import { nominalBytes } from "../bytes/nominalBytes";
import type { Drive } from "../document/plan";
import { layouts } from "../layouts/registry";
import { ruleSets } from "../rules/ruleSets";
import { usualDrive } from "../drives/usualDrive";

/** A plain hard disk on the shelf. */
export function testDrive(id: string, bytes: number, more: Partial<Drive> = {}): Drive {
  return {
    ...usualDrive({ bytes, medium: "hdd", bus: "sata" }),
    id,
    place: { shelf: true },
    ...more,
  };
}

/** Drives of these nominal terabytes: d1, d2 … in bays 1, 2 … */
export function drivesOfTB(...terabytes: number[]): Drive[] {
  return terabytes.map((tb, i) => testDrive(`d${i + 1}`, nominalBytes(tb * 1000), { place: { bay: i + 1 } }));
}

/** Any drive size: sold ones, odd ones, a few that differ by less than a MiB, and some too small for anything. */
export const anyBytes = fc.oneof(
  fc.constantFrom(500, 1000, 2000, 3000, 4000, 6000, 8000, 12_000, 20_000).map(nominalBytes),
  fc.integer({ min: 1, max: 3e13 }),
  fc.integer({ min: 0, max: 5_000_000 }).map((less) => nominalBytes(4000) - less),
  fc.integer({ min: 1, max: 3e8 }),
);

export const anyDrives = (min: number, max: number) =>
  fc
    .array(anyBytes, { minLength: min, maxLength: max })
    .map((sizes) => sizes.map((bytes, i) => testDrive(`d${i + 1}`, bytes)));

export const anyLayout = fc.constantFrom(...layouts);

export const anyRules = fc
  .tuple(fc.constantFrom(...ruleSets), fc.constantFrom(0, 1_000_003, 10 * 2 ** 30), fc.constantFrom(0, 0.001, 0.1))
  .map(([set, systemReserveBytes, replacementMarginShare]) => ({
    ...set.rules,
    systemReserveBytes,
    replacementMarginShare,
  }));
