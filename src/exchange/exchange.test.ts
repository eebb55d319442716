import { applyCommand } from "@/core/commands/applyCommand";
import { emptyPlan } from "@/core/document/emptyPlan";
import { checkPlan } from "@/core/document/readPlan";
import { clinic } from "@/core/document/samples/clinic";
import fc from "fast-check";
import { execFileSync } from "node:child_process";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { planFileName } from "./exportPlan";
import { writePlans } from "./exportAll";
import { readPlanFile } from "./importPlan";
import { readLsblk, type Inventory } from "./inventory/readLsblk";

const folder = join(__dirname, "inventory/captures");
const capture = (name: string) => readFileSync(join(folder, name), "utf8");
const read = (text: string): Inventory => {
  const result = readLsblk(text);
  if (!result.ok) throw new Error(result.message);
  return result.inventory;
};
const inShort = (inventory: Inventory) =>
  inventory.found.map(({ name, drive }) =>
    drive.ok
      ? [
          name,
          drive.value.bytes,
          drive.value.model,
          drive.value.serial,
          `${drive.value.bus} ${drive.value.medium} ${drive.value.logicalSector}/${drive.value.physicalSector}`,
          drive.value.contents?.kind ?? "free",
        ]
      : [name, drive.reason],
  );
const refusal = (text: string) => {
  const result = readLsblk(text);
  return result.ok ? null : result.message;
};

describe("inventories of several boxes and releases", () => {
  test("a six-bay home server", () => {
    const inventory = read(capture("six-bay-home-server.json"));
    expect(inShort(inventory)).toEqual([
      ["nvme0n1", 500_107_862_016, "Alarife N500", "AL-N5-8841", "nvme ssd 512/512", "system"],
      ["sda", 4_000_787_030_016, "Tejora Cal 4", "TJ4-0417", "sata hdd 512/4096", "free"],
      ["sdb", 4_000_787_030_016, "Tejora Cal 4", "TJ4-0422", "sata hdd 512/4096", "free"],
      ["sdc", 8_001_563_222_016, "Tejora Cal 8", "TJ8-1190", "sata hdd 512/4096", "free"],
      ["sdd", 12_000_138_625_024, "Tejora Cal 12", "TJ12-0036", "sata hdd 512/4096", "free"],
      ["sde", 3_000_592_982_016, "Tejora Cal 3", "TJ3-9951", "sata hdd 512/4096", "mounted"],
      ["sdf", 30_752_636_928, "Baluarte Stick", "BQ0001", "usb hdd 512/4096", "free"],
    ]);
    expect(Object.fromEntries(inventory.leftOut.map(({ kind, count }) => [kind, count]))).toEqual({
      partition: 3,
      "volume or encrypted layer": 1,
      "loop device": 2,
      "memory device": 1,
      "optical drive": 1,
    });
  });

  test("an old release that prints numbers and booleans as strings", () => {
    expect(inShort(read(capture("old-release-strings.json")))).toEqual([
      ["sda", 2_000_398_934_016, "ALARIFE AX2000", "AX-77 12", "sata hdd 512/512", "mounted"],
      ["sdb", 2_000_398_934_016, "ALARIFE AX2000", "AX-7713", "sata hdd 512/512", "mounted"],
      ["sdc", 120_034_123_776, "Candil S120", "CS-01", "sata ssd 512/512", "system"],
    ]);
  });

  test("a flat list of a few columns: partitions are known by their names, what is missing is said", () => {
    const inventory = read(capture("column-list-flat.json"));
    expect(inShort(inventory)).toEqual([
      ["nvme0n1", 1_024_209_543_168, "Alarife N1000", "AL-N1-0007", "nvme ssd 512/512", "data"],
      ["sda", 1_000_204_886_016, "Tejora Cal 1", "TJ1-7730", "sata hdd 512/4096", "data"],
    ]);
    expect(inventory.found[1]!.assumed.join("; ")).toMatch(/hard disk or flash.*logical sector.*physical sector/);
  });

  test("a box that keeps its system on every drive", () => {
    expect(inShort(read(capture("hybrid-box-system-on-all.json"))).map((row) => row.at(-1))).toEqual([
      "system",
      "system",
    ]);
  });

  test("a shelf on two cables: each drive once, SATA behind SAS known, network disks and card readers left out", () => {
    const inventory = read(capture("sas-shelf-two-paths.json"));
    expect(inShort(inventory).map((row) => [row[0], row[2], row[4]])).toEqual([
      ["sda", "TEJORA TJS16", "sas hdd 4096/4096"],
      ["sdb", "TEJORA TJS16", "sas hdd 4096/4096"],
      ["sde", "Tejora Cal 4", "sata hdd 512/4096"],
    ]);
    expect(Object.fromEntries(inventory.leftOut.map(({ kind, count }) => [kind, count]))).toMatchObject({
      "second path": 2,
      "network disk": 1,
      "empty slot": 1,
      "memory card": 1,
    });
  });

  test("this machine's own lsblk", () => {
    const inventory = read(execFileSync("lsblk", ["--json", "--bytes", "--output-all"], { encoding: "utf8" }));
    const names = new Set<string>(
      JSON.parse(
        execFileSync("lsblk", ["--json", "--nodeps", "--output", "NAME"], { encoding: "utf8" }),
      ).blockdevices.map((device: { name: string }) => device.name),
    );
    for (const { name } of inventory.found) expect(names.has(name)).toBe(true);
    for (const { name, drive } of inventory.found) {
      const size = execFileSync("lsblk", ["--bytes", "--nodeps", "--noheadings", "--output", "SIZE", `/dev/${name}`], {
        encoding: "utf8",
      });
      expect(drive).toMatchObject({ ok: true, value: { bytes: Number(size) } });
    }
    expect(inventory.found.length + inventory.leftOut.reduce((sum, { count }) => sum + count, 0)).toBeGreaterThan(0);
  });

  test.each(readdirSync(folder))("the drives of %s make a valid plan", (name) => {
    const drives = read(capture(name)).found.flatMap(({ drive }) => (drive.ok ? [drive.value] : []));
    const result = applyCommand(emptyPlan("x"), { kind: "add-drives", drives });
    expect(result.ok && checkPlan(structuredClone(result.plan)).ok).toBe(true);
  });
});

describe("inventories that cannot be read", () => {
  test.each([
    ["nothing", "  ", /nothing in it/],
    [
      "the table",
      "NAME   MAJ:MIN RM  SIZE RO TYPE MOUNTPOINTS\nsda      8:0    0  3.6T  0 disk",
      /table, which rounds/,
    ],
    ["a part of the output", capture("six-bay-home-server.json").slice(0, 900), /a part of it is missing/],
    ["other JSON", '{"drives": []}', /not what lsblk prints.*blockdevices/],
    ["devices of another shape", '{"blockdevices": [{"name": 7}]}', /\/blockdevices\/0\/name/],
    [
      "devices nested without end",
      `{"blockdevices":[${'{"name":"a","children":['.repeat(30_000)}${"]}".repeat(30_000)}]}`,
      /not what lsblk prints|missing/,
    ],
  ])("%s", (_, text, message) => expect(refusal(text)).toMatch(message));

  test("sizes that were printed rounded are said, drive by drive", () => {
    expect(inShort(read('{"blockdevices":[{"name":"sda","size":"3.6T","type":"disk"}]}'))).toEqual([
      ["sda", expect.stringMatching(/3.6T.*--bytes/)],
    ]);
  });

  test("sizes below zero are none", () =>
    expect(inShort(read('{"blockdevices":[{"name":"sda","size":-5,"type":"disk"}]}'))).toEqual([
      ["sda", expect.stringMatching(/-5, below zero/)],
    ]));

  test("without the device database nothing is told of contents, and no drive is taken for empty", () => {
    const device = (name: string) => ({ name, size: 4e12, type: "disk", fstype: null, serial: null, pttype: null });
    const inventory = read(JSON.stringify({ blockdevices: [device("sda"), device("sdb")] }));
    expect(inventory.found.map(({ drive }) => drive.ok && drive.value.contents?.kind)).toEqual(["data", "data"]);
    expect(inventory.assumedOfAll.join("; ")).toMatch(
      /health.*taken as good.*nothing can be told about their contents/,
    );
    const known = read(JSON.stringify({ blockdevices: [device("sda"), { ...device("sdb"), serial: "S1" }] }));
    expect(known.found.map(({ drive }) => drive.ok && drive.value.contents)).toEqual([undefined, undefined]);
    expect(known.assumedOfAll).toHaveLength(1);
  });

  test("a file system over several drives is mounted on all of them; partitions of an array are no arrays", () => {
    const member = (name: string, mountpoint: string | null) => ({
      ...{ name, size: 4e12, type: "disk", serial: name, fstype: "btrfs", uuid: "u1", mountpoint },
    });
    const array = { name: "md127", type: "raid1", size: 1, children: [{ name: "md127p1", type: "md", size: 1 }] };
    const { found, leftOut } = read(
      JSON.stringify({ blockdevices: [member("sda", "/srv"), member("sdb", null), member("sdc", null), array] }),
    );
    expect(found.map(({ drive }) => drive.ok && drive.value.contents?.kind)).toEqual(["mounted", "mounted", "mounted"]);
    expect(leftOut).toEqual([
      { kind: "RAID array", count: 1 },
      { kind: "partition", count: 1 },
    ]);
  });

  test("the partition table and shingled recording are told", () => {
    const { found } = read(
      '{"blockdevices":[{"name":"sda","type":"disk","size":4000787030016,"pttype":"dos","zoned":"host-managed"},{"name":"sdb","type":"disk","size":4000787030016,"pttype":"gpt","zoned":"none"}]}',
    );
    expect(found.map(({ drive }) => drive.ok && [drive.value.partitionTable, drive.value.shingled])).toEqual([
      ["mbr", true],
      ["gpt", undefined],
    ]);
  });

  test("a prompt that was copied along does no harm", () => {
    expect(
      read(`you@box:~$ lsblk --json --bytes --output-all\n${capture("column-list-flat.json")}\nyou@box:~$ `).found,
    ).toHaveLength(2);
  });

  test("text of any kind is answered, never thrown at", () => {
    const device: fc.Arbitrary<unknown> = fc.letrec((tie) => ({
      device: fc.record(
        {
          name: fc.string(),
          size: fc.anything(),
          type: fc.constantFrom("disk", "part", "loop", null),
          rota: fc.constantFrom(true, "0", null),
          children: fc.option(fc.array(tie("device"), { maxLength: 2 }), { nil: undefined }),
        },
        { requiredKeys: ["name"] },
      ),
    })).device;
    fc.assert(
      fc.property(
        fc.array(device, { maxLength: 4 }),
        (blockdevices) =>
          void readLsblk(
            JSON.stringify({ blockdevices }, (_, value: unknown) =>
              typeof value === "bigint" ? String(value) : value,
            ),
          ),
      ),
    );
    fc.assert(fc.property(fc.string(), (text) => void readLsblk(text)));
  });
});

describe("plan files", () => {
  const file = (...parts: BlobPart[]) => new File(parts, "x.cortijo.json");
  const two = writePlans([clinic, { ...clinic, name: "The other" }]);
  test("a good one is read", async () =>
    expect(await readPlanFile(file(JSON.stringify(clinic)))).toMatchObject({ ok: true, plan: clinic, others: [] }));
  test("50 MB are refused before they are read", async () => {
    const huge = file(new Uint8Array(50e6));
    huge.arrayBuffer = () => Promise.reject(new Error("was read"));
    expect(await readPlanFile(huge)).toMatchObject({
      ok: false,
      problems: [{ code: "too-large", message: expect.stringContaining("50 MB") }],
    });
  });
  test("all plans come back from one file; one that is damaged is named and harms no other", async () => {
    expect(await readPlanFile(file(two))).toMatchObject({
      ok: true,
      plan: clinic,
      others: [{ name: "The other" }],
      refused: [],
    });
    expect(await readPlanFile(file(two.replace('"bays": 6', '"bays": 60')))).toMatchObject({
      ok: true,
      plan: { name: "The other" },
      refused: [{ code: "not-read", message: expect.stringContaining(clinic.name), pointer: "/plans/0/box/bays" }],
    });
    const none = await readPlanFile(file(two.replaceAll('"bays": 6', '"bays": 60')));
    expect(none.ok ? [] : none.problems.map(({ code }) => code)).toEqual(["no-plans", "not-read", "not-read"]);
    expect(await readPlanFile(file(two.slice(0, -9)))).toMatchObject({ problems: [{ code: "damaged-plans" }] });
  });
  test("a plan that a program saved in UTF-16 or Latin-1 is read; what is no text is named", async () => {
    const named = JSON.stringify({ ...clinic, name: "Clínica de Córdoba" });
    const utf16 = (from: string) => Uint8Array.from(Buffer.from(from, "utf16le"));
    const encodings = [utf16(named), utf16(`\uFEFF${named}`), utf16(named).map((_, i, all) => all[i ^ 1]!)];
    for (const bytes of [...encodings, Uint8Array.from(Buffer.from(named, "latin1"))])
      expect(await readPlanFile(file(bytes))).toMatchObject({ ok: true, plan: { name: "Clínica de Córdoba" } });
    expect(await readPlanFile(file(utf16(`\uFEFF${two}`)))).toMatchObject({
      ok: true,
      others: [{ name: "The other" }],
    });
    const noText = file(Uint8Array.from({ length: 64 }, (_, i) => i * 7));
    expect(await readPlanFile(noText)).toMatchObject({ problems: [{ code: "encoding" }] });
  });
  test("names are safe on every file system", () => {
    expect(planFileName("Animal clinic, Villarrolla")).toBe("animal-clinic-villarrolla.cortijo.json");
    expect(planFileName("../Año/…")).toBe("ano.cortijo.json");
    expect(planFileName("計画")).toBe("plan.cortijo.json");
  });
});
