import { nominalBytes } from "../bytes/nominalBytes";
import { MiB } from "../bytes/bytes";
import { applyCommand } from "../commands/applyCommand";
import type { Command } from "../document/command";
import type { Drive, Plan } from "../document/plan";
import { clinic } from "../document/samples/clinic";
import { oddDrives } from "../document/samples/oddDrives";
import { checkJoining } from "../drives/checks/joining";
import { rulesOf } from "../rules/ruleSets";
import { drivesOfTB } from "../testing/arbitraries";
import { boxScreen } from "./boxScreen";
import { layoutChoices } from "./layoutChoices";
import { predict } from "./predict";

const after = (plan: Plan, command: Command) => {
  const result = applyCommand(plan, command);
  if (!result.ok) throw new Error(result.reason);
  return result.plan;
};
const codes = (plan: Plan) =>
  predict(plan).pools.flatMap((pool) => pool.findings.map((finding) => `${finding.severity} ${finding.code}`));
const withDrive = (changes: Partial<Drive>): Plan => ({
  ...clinic,
  drives: clinic.drives.map((drive) => (drive.id === "d1" ? { ...drive, ...changes } : drive)),
});

test("the clinic, by hand: 4 + 4 + 8 TB of rooms less 10 GiB each", () => {
  const [pool] = predict(clinic).pools;
  // (3 815 447 − 10 240) × 2 + (7 630 885 − 10 240) MiB
  expect(pool!.usableBytes).toBe((3_805_207 * 2 + 7_620_645) * MiB);
  expect(pool).toMatchObject({
    tolerance: 1,
    smallestFatalSet: ["d1", "d2"],
    survival: [
      { failed: 1, survived: 4, sets: 4 },
      { failed: 2, survived: 0, sets: 6 },
      { survived: 0, sets: 4 },
      { survived: 0, sets: 1 },
    ],
  });
  expect(codes(clinic)).toEqual(["note idle-room"]);
});

test.each([
  ["decimal", "12.00 TB"],
  ["binary", "10.91 TiB"],
  ["binary-printed-as-decimal", "10.91 TB"],
] as const)("a box that shows sizes as %s prints 12 TB as %s", (sizesShown, text) =>
  expect(boxScreen(12_000_138_625_024, { sizesShown }).replace("\u00a0", " ")).toBe(text),
);

test("a pool of two groups is the sum, and is lost with either", () => {
  const plan = after(
    after(clinic, {
      kind: "add-drives",
      drives: drivesOfTB(4, 4).map(({ id: _id, place: _place, ...drive }) => drive),
    }),
    { kind: "make-group", drives: ["d6", "d7"], layout: "raid1", pool: "p1" },
  );
  const [pool] = predict(plan).pools;
  expect(pool!.usableBytes).toBe(pool!.groups[0]!.usableBytes + pool!.groups[1]!.usableBytes);
  expect(pool!.tolerance).toBe(1);
  // Two drives of different groups: 4 × 2 of the 15 pairs are survived.
  expect(pool!.survival[1]).toEqual({ failed: 2, survived: 8, sets: 15 });
});

describe("findings", () => {
  test.each<[string, Partial<Drive>, string]>([
    ["a failing drive", { health: { state: "failing" } }, "block drive-failing"],
    ["pending sectors", { health: { state: "good", pendingSectors: 3 } }, "warn drive-suspect"],
    [
      "a drive with a system, on a box that keeps its own on all",
      { contents: { kind: "system", detail: "/" } },
      "warn will-be-erased",
    ],
    ["mounted data", { contents: { kind: "mounted", detail: "/srv" } }, "warn will-be-erased"],
    ["flash among hard disks", { medium: "ssd" }, "block mixed-media"],
    ["other logical sectors", { logicalSector: 4096 }, "block mixed-sectors"],
    ["a USB drive", { bus: "usb" }, "block usb-member"],
    ["another interface", { bus: "sas" }, "warn mixed-buses"],
    ["a member on the shelf", { place: { shelf: true } }, "warn member-on-shelf"],
    ["an MBR table on 4 TB", { partitionTable: "mbr" }, "note mbr-replaced"],
    ["shingled recording under parity", { shingled: true }, "warn shingled-in-parity"],
  ])("%s", (_, changes, expected) => expect(codes(withDrive(changes))).toContain(expected));

  test("drives of one model bought together", () => {
    const plan = {
      ...clinic,
      drives: clinic.drives.map((drive) => ({ ...drive, model: "Tejora Cal", purchased: "2024-05" })),
    };
    expect(predict(plan).pools[0]!.findings.find(({ code }) => code === "all-alike")?.message).toMatch(
      /bought in May 2024:/,
    );
    expect(codes(clinic)).not.toContain("note all-alike");
  });

  test("volumes that ask for too much, with the size that fits as the way out", () => {
    const plan = after(clinic, {
      kind: "add-volume",
      pool: "p1",
      volume: { name: "X-rays", bytes: 20e12, fileSystem: "ext4" },
    });
    const finding = predict(plan).pools[0]!.findings.find((each) => each.code === "volumes-too-large")!;
    const mended = predict(after(plan, finding.mend!.command)).pools[0]!;
    expect(mended.volumes[0]!.bytes).toBe(mended.usableBytes);
    expect(mended.findings.map((each) => each.code)).not.toContain("volumes-too-large");
  });

  test("a spare that is too small for any member, or for one of which more is used", () => {
    // Of the 12 TB drive 8 TB are used: a spare of 8 TB does for every member, one of 4 TB for some.
    expect(codes(after(clinic, { kind: "set-spare", pool: "p1", drives: ["d5"] }))).toContain("block spare-too-small");
    const withSpare = (bytes: number) => {
      const drives = clinic.drives.map((drive) => (drive.id === "d5" ? { ...drive, bytes } : drive));
      return codes(after({ ...clinic, drives }, { kind: "set-spare", pool: "p1", drives: ["d5"] }));
    };
    expect(withSpare(nominalBytes(4000))).toContain("note spare-for-some");
    expect(withSpare(nominalBytes(8000))).not.toContain("note spare-for-some");
  });

  test("joining by the box's rule, by a few MB, and above the parity drive", () => {
    const [three, four, eight] = drivesOfTB(3, 4, 8);
    const few = { ...four!, id: "x", bytes: four!.bytes - 4096 };
    expect(checkJoining(three!, [four!], { joining: "as-smallest-member" })).toMatchObject([
      { code: "too-small", severity: "block" },
    ]);
    expect(checkJoining(few, [four!], { joining: "as-smallest-member" })[0]!.message).toMatch(
      /by 4096.B.*Next time leave 0\.1 %/,
    );
    expect(checkJoining(four!, [three!, eight!], { joining: "as-largest-member" })).toHaveLength(1);
    expect(checkJoining(four!, [three!, eight!], { joining: "as-smallest-member" })).toEqual([]);
    expect(checkJoining(eight!, [four!], { joining: "up-to-parity" })).toMatchObject([{ code: "larger-than-parity" }]);
    expect(checkJoining(three!, [eight!], { joining: "any-size" })).toEqual([]);
  });

  test("the weightiest come first, name the drive and point into the document", () => {
    const [first] = predict(oddDrives).pools[0]!.findings;
    expect(first).toMatchObject({
      severity: "block",
      code: "pool-degraded",
      drives: ["d2"],
      pointer: "/pools/0",
    });
    expect(first!.message).toMatch(/2.TB drive in bay 2 \(serial TJ2-1018\)/);
  });

  test("a layout that the rules do not offer, or of too few drives, is a finding and never a refusal", () => {
    const triple = after(clinic, { kind: "change-layout", group: "g1", layout: "triple-parity" });
    expect(codes(triple)).toEqual(expect.arrayContaining(["warn layout-not-offered", "block wrong-drive-count"]));
    expect(predict(triple).pools[0]).toMatchObject({ usableBytes: 0, tolerance: 0, survival: [] });
  });
});

test("every layout with what it would hold, or why it cannot be", () => {
  const choices = layoutChoices(drivesOfTB(4, 4, 8), rulesOf({ set: "hybrid-box" }));
  const said = Object.fromEntries(choices.map(({ layout, offered, outcome }) => [layout.id, { offered, ...outcome }]));
  expect(said["hybrid-1"]).toMatchObject({
    offered: true,
    possible: true,
    tolerance: 1,
    usableBytes: 2 * 3_805_207 * MiB,
  });
  expect(said.raid6).toEqual({ offered: true, possible: false, reason: "Needs 4 drives: 1 more." });
  expect(said["triple-parity"]).toMatchObject({ offered: false, possible: false });
  expect(choices.slice(0, 5).every((choice) => choice.offered)).toBe(true);
});
