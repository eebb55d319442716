import "../commands/recordingCommands";
import "../commands/dataCommands";
import "../commands/priceCommands";
import fc from "fast-check";
import { HANDS } from "../calendar/planCalendar";
import { applyCommand } from "../commands/applyCommand";
import type { Command } from "../document/command";
import { emptyPlan } from "../document/emptyPlan";
import type { DayRange, Drive, HandsWindow, LayoutId, NewDrive, Plan, StepBody } from "../document/plan";
import { layouts } from "../layouts/registry";
import { anyBytes, testDrive } from "./arbitraries";

const newDrive: fc.Arbitrary<NewDrive> = fc.record(
  {
    label: fc.string({ maxLength: 20 }),
    serial: fc.string({ minLength: 1, maxLength: 12 }),
    bytes: anyBytes,
    medium: fc.constantFrom("hdd" as const, "ssd" as const),
    bus: fc.constantFrom("sata" as const, "sas" as const, "nvme" as const, "usb" as const),
    logicalSector: fc.constantFrom(512, 4096),
    physicalSector: fc.constant(4096),
    health: fc.record({ state: fc.constantFrom("good" as const, "watch" as const, "failing" as const) }),
  },
  { requiredKeys: ["label", "bytes", "medium", "bus", "logicalSector", "physicalSector", "health"] },
);

const driveId = fc.integer({ min: 1, max: 12 }).map((n) => `d${n}`);
const groupId = fc.integer({ min: 1, max: 4 }).map((n) => `g${n}`);
const poolId = fc.integer({ min: 1, max: 3 }).map((n) => `p${n}`);
const layout: fc.Arbitrary<LayoutId> = fc.constantFrom(...layouts.map((each) => each.id));
const place = fc.oneof(
  fc.constant({ shelf: true as const }),
  fc.integer({ min: 1, max: 9 }).map((bay) => ({ bay })),
);
const name = fc.string({ maxLength: 20 });

/** A thing without the fields that are undefined, as a plan document has it. */
const withoutNothing = <T extends object>(thing: T): T =>
  Object.fromEntries(Object.entries(thing).filter(([, value]) => value !== undefined)) as T;

type Of<K extends Command["kind"]> = Extract<Command, { kind: K }>;

/** A command of a kind, with what its fields can be, and how often it is drawn. */
const some = <K extends Command["kind"]>(
  kind: K,
  fields: { [F in keyof Omit<Of<K>, "kind">]?: fc.Arbitrary<Of<K>[F]> },
  weight = 1,
) => ({ weight, arbitrary: fc.record({ kind: fc.constant(kind), ...fields }) as unknown as fc.Arbitrary<Command> });

const drives = (most: number, least = 1) => fc.uniqueArray(driveId, { minLength: least, maxLength: most });
const volumeId = fc.constantFrom("v1", "v2");

const volume = fc.record({
  name,
  bytes: anyBytes,
  fileSystem: fc.constantFrom("ext4" as const, "xfs" as const, "btrfs" as const, "none" as const),
  usedBytes: anyBytes,
  headroomShare: fc.constantFrom(0, 0.2, 0.5),
});
const dataSet = fc
  .record(
    {
      id: fc.option(fc.constantFrom("s1", "s2"), { nil: undefined }),
      name,
      volume: volumeId,
      bytes: anyBytes,
      growth: fc.constantFrom({ bytesPerMonth: 5e10 }, { sharePerYear: 0.2 }),
      worth: fc.constantFrom("replaceable" as const, "useful" as const, "precious" as const),
    },
    { requiredKeys: ["name", "volume", "bytes", "worth"] },
  )
  .map(withoutNothing);
const backup = fc
  .record(
    {
      id: fc.option(fc.constantFrom("b1", "b2"), { nil: undefined }),
      name,
      kind: fc.constantFrom("box" as const, "usb-drive" as const, "service" as const),
      place: fc.constantFrom("here" as const, "elsewhere" as const),
      bytes: anyBytes,
      everyDays: fc.integer({ min: 1, max: 90 }),
      keepsVersions: fc.boolean(),
      lastVerified: fc.constantFrom("2026-11-01", "2024-02-29"),
      dataSets: fc.subarray(["s1", "s2"]),
    },
    { requiredKeys: ["name", "kind", "place", "everyDays", "keepsVersions", "dataSets"] },
  )
  .map(withoutNothing);
const calendar = fc.record({
  id: fc.constant("c1"),
  start: fc.constant("2026-11-23"),
  timeZone: fc.constantFrom("UTC", "Europe/Lisbon"),
  deliveryDays: fc.integer({ min: 0, max: 30 }),
  hands: fc.constant<HandsWindow[]>(HANDS["week-ends"].windows),
  excluded: fc.constant<DayRange[]>([]),
});
const price = fc.record({
  bytes: anyBytes,
  price: fc.integer({ min: 0, max: 900 }),
  medium: fc.constant("hdd" as const),
  bus: fc.constant("sata" as const),
  label: name,
});
/** Some drives in two heaps, of which one can be empty. */
const heaps = drives(6, 2).map((ids) => [ids.slice(0, 2), ids.slice(2)].filter((heap) => heap.length > 0));

/** Any command, sensible for the plan at hand or not. */
export const anyCommand: fc.Arbitrary<Command> = fc.oneof(
  some("add-drives", { drives: fc.array(newDrive, { minLength: 1, maxLength: 4 }) }, 4),
  some("make-group", { drives: drives(6), layout, pool: fc.option(poolId) }, 4),
  some("move-drive", { drive: driveId, to: place }, 3),
  some(
    "set-drive-state",
    {
      drives: drives(2),
      state: fc.constantFrom("failed" as const, "missing" as const, null),
      since: fc.constantFrom("2026-11-20", "2026-11-20T21:40Z"),
    },
    2,
  ),
  some("set-parity-schedule", {
    pool: poolId,
    schedule: fc.constantFrom(
      null,
      { everyHours: 24 },
      { everyHours: 6, lastUpdate: "2026-11-20T03:00Z", paused: true },
    ),
  }),
  some("take-reading", {
    reading: fc.record({
      at: fc.constantFrom("2026-11-20", "2026-11-20T21:40Z"),
      drives: drives(3),
      arrays: fc.array(fc.record({ name, group: groupId, bytes: fc.nat(), lacks: fc.nat(24) }), { maxLength: 2 }),
    }),
  }),
  some("rename-plan", { name }),
  some("change-box", { bays: fc.integer({ min: 0, max: 26 }) }),
  some("edit-drive", { drive: driveId, changes: fc.record({ label: name, serial: fc.option(name) }) }),
  some("remove-drives", { drives: drives(2) }),
  some("change-layout", { group: groupId, layout }),
  some("add-to-group", { group: groupId, drives: drives(3) }),
  some("leave-group", { drives: drives(2) }),
  some("seat-drives", { drives: drives(3) }),
  some("take-apart", { group: groupId }),
  some("set-spare", { pool: poolId, drives: drives(2) }),
  some("set-spare", { pool: poolId, group: groupId, drives: drives(2) }),
  some("set-helper", {
    pool: poolId,
    drives: drives(2),
    role: fc.constantFrom("read-cache" as const, "write-log" as const),
  }),
  some("make-groups", { layout, groups: heaps }),
  some("lay-out-pool", {
    pool: fc.option(poolId),
    groups: fc.tuple(layout, heaps).map(([each, lists]) => lists.map((ids) => ({ layout: each, drives: ids }))),
  }),
  some("set-currency", { currency: fc.constantFrom("EUR", "JPY", null) }),
  some("set-prices", { prices: fc.array(price, { maxLength: 3 }) }),
  some("set-landing", { pool: poolId, landsFor: fc.option(poolId) }),
  some("set-options", {
    group: groupId,
    options: fc.record({ data: fc.integer({ min: 1, max: 6 }), parity: fc.integer({ min: 1, max: 3 }) }),
  }),
  some("add-volume", { pool: poolId, volume }, 2),
  some("edit-volume", { pool: poolId, volume: volumeId, changes: fc.record({ bytes: anyBytes }) }),
  some("remove-volume", { pool: poolId, volume: volumeId }),
  some("rename-pool", { pool: poolId, name }),
  some("put-data-set", { dataSet }, 2),
  some("remove-data-set", { dataSet: fc.constantFrom("s1", "s2") }),
  some("put-backup", { backup }, 2),
  some("remove-backup", { backup: fc.constantFrom("b1", "b2") }),
  some("set-calendar", { calendar: fc.option(calendar) }),
  some("insert-sequence", {
    name,
    steps: fc.constant<StepBody[]>([
      { kind: "verify", pool: "p1" },
      { kind: "test-drive", drive: "b1", notBefore: "2027-11-23" },
    ]),
    drives: fc.constantFrom<Drive[][]>([], [testDrive("b1", 4e12, { toBuy: true })]),
  }),
  some("edit-step", {
    step: fc.constantFrom("s1", "s2"),
    changes: fc.constantFrom(
      { notBefore: "2027-01-01" },
      { notBefore: null },
      { lifted: { on: "2026-11-23", words: "I have it on paper." } },
      { lifted: null },
    ),
  }),
);

/** A plan that some commands have led to; those that did not fit were refused. */
export const anyPlan: fc.Arbitrary<Plan> = fc.array(anyCommand, { maxLength: 25 }).map((commands) =>
  commands.reduce((plan, command) => {
    const result = applyCommand(plan, command);
    return result.ok ? result.plan : plan;
  }, emptyPlan("Any plan")),
);
