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

/** Any command, sensible for the plan at hand or not. */
export const anyCommand: fc.Arbitrary<Command> = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.record({
      kind: fc.constant("add-drives" as const),
      drives: fc.array(newDrive, { minLength: 1, maxLength: 4 }),
    }),
  },
  {
    weight: 4,
    arbitrary: fc.record({
      kind: fc.constant("make-group" as const),
      drives: fc.uniqueArray(driveId, { minLength: 1, maxLength: 6 }),
      layout,
      pool: fc.option(poolId),
    }),
  },
  { weight: 3, arbitrary: fc.record({ kind: fc.constant("move-drive" as const), drive: driveId, to: place }) },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant("rename-plan" as const), name }) },
  {
    weight: 1,
    arbitrary: fc.record({ kind: fc.constant("change-box" as const), bays: fc.integer({ min: 0, max: 26 }) }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("edit-drive" as const),
      drive: driveId,
      changes: fc.record({ label: name, serial: fc.option(name) }),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("remove-drives" as const),
      drives: fc.uniqueArray(driveId, { minLength: 1, maxLength: 2 }),
    }),
  },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant("change-layout" as const), group: groupId, layout }) },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("add-to-group" as const),
      group: groupId,
      drives: fc.uniqueArray(driveId, { minLength: 1, maxLength: 3 }),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("leave-group" as const),
      drives: fc.uniqueArray(driveId, { minLength: 1, maxLength: 2 }),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("seat-drives" as const),
      drives: fc.uniqueArray(driveId, { minLength: 1, maxLength: 3 }),
    }),
  },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant("take-apart" as const), group: groupId }) },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("set-spare" as const),
      pool: poolId,
      drives: fc.uniqueArray(driveId, { minLength: 1, maxLength: 2 }),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("set-spare" as const),
      pool: poolId,
      group: groupId,
      drives: fc.uniqueArray(driveId, { minLength: 1, maxLength: 2 }),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("set-helper" as const),
      pool: poolId,
      drives: fc.uniqueArray(driveId, { minLength: 1, maxLength: 2 }),
      role: fc.constantFrom("read-cache" as const, "write-log" as const),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("make-groups" as const),
      layout,
      groups: fc
        .uniqueArray(driveId, { minLength: 2, maxLength: 6 })
        .map((ids) => [ids.slice(0, ids.length / 2), ids.slice(ids.length / 2)]),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("lay-out-pool" as const),
      pool: fc.option(poolId),
      groups: fc.uniqueArray(driveId, { minLength: 2, maxLength: 6 }).chain((ids) =>
        layout.map((each) =>
          [
            { layout: each, drives: ids.slice(0, 2) },
            { layout: each, drives: ids.slice(2) },
          ].filter(({ drives }) => drives.length > 0),
        ),
      ),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("set-prices" as const),
      prices: fc.array(
        fc.record({
          bytes: anyBytes,
          price: fc.integer({ min: 0, max: 900 }),
          medium: fc.constant("hdd" as const),
          bus: fc.constant("sata" as const),
          label: name,
        }),
        { maxLength: 3 },
      ),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({ kind: fc.constant("set-landing" as const), pool: poolId, landsFor: fc.option(poolId) }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("set-options" as const),
      group: groupId,
      options: fc.record({ data: fc.integer({ min: 1, max: 6 }), parity: fc.integer({ min: 1, max: 3 }) }),
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      kind: fc.constant("add-volume" as const),
      pool: poolId,
      volume: fc.record({
        name,
        bytes: anyBytes,
        fileSystem: fc.constantFrom("ext4" as const, "xfs" as const, "btrfs" as const, "none" as const),
        usedBytes: anyBytes,
        headroomShare: fc.constantFrom(0, 0.2, 0.5),
      }),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("edit-volume" as const),
      pool: poolId,
      volume: fc.constantFrom("v1", "v2"),
      changes: fc.record({ bytes: anyBytes }),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("remove-volume" as const),
      pool: poolId,
      volume: fc.constantFrom("v1", "v2"),
    }),
  },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant("rename-pool" as const), pool: poolId, name }) },
  {
    weight: 2,
    arbitrary: fc.record({
      kind: fc.constant("put-data-set" as const),
      dataSet: fc
        .record(
          {
            id: fc.option(fc.constantFrom("s1", "s2"), { nil: undefined }),
            name,
            volume: fc.constantFrom("v1", "v2"),
            bytes: anyBytes,
            growth: fc.constantFrom({ bytesPerMonth: 5e10 }, { sharePerYear: 0.2 }),
            worth: fc.constantFrom("replaceable" as const, "useful" as const, "precious" as const),
          },
          { requiredKeys: ["name", "volume", "bytes", "worth"] },
        )
        .map(withoutNothing),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({ kind: fc.constant("remove-data-set" as const), dataSet: fc.constantFrom("s1", "s2") }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      kind: fc.constant("put-backup" as const),
      backup: fc
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
        .map(withoutNothing),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({ kind: fc.constant("remove-backup" as const), backup: fc.constantFrom("b1", "b2") }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("set-calendar" as const),
      calendar: fc.option(
        fc.record({
          id: fc.constant("c1"),
          start: fc.constant("2026-11-23"),
          timeZone: fc.constantFrom("UTC", "Europe/Lisbon"),
          deliveryDays: fc.integer({ min: 0, max: 30 }),
          hands: fc.constant<HandsWindow[]>(HANDS["week-ends"].windows),
          excluded: fc.constant<DayRange[]>([]),
        }),
      ),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("insert-sequence" as const),
      name,
      steps: fc.constant<StepBody[]>([
        { kind: "verify" as const, pool: "p1" },
        { kind: "test-drive" as const, drive: "b1", notBefore: "2027-11-23" },
      ]),
      drives: fc.constantFrom<Drive[][]>([], [testDrive("b1", 4e12, { toBuy: true })]),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant("edit-step" as const),
      step: fc.constantFrom("s1", "s2"),
      changes: fc.constantFrom(
        { notBefore: "2027-01-01" },
        { notBefore: null },
        { lifted: { on: "2026-11-23", words: "I have it on paper." } },
        { lifted: null },
      ),
    }),
  },
);

/** A plan that some commands have led to; those that did not fit were refused. */
export const anyPlan: fc.Arbitrary<Plan> = fc.array(anyCommand, { maxLength: 25 }).map((commands) =>
  commands.reduce((plan, command) => {
    const result = applyCommand(plan, command);
    return result.ok ? result.plan : plan;
  }, emptyPlan("Any plan")),
);
