import { MiB } from "@/core/bytes/bytes";
import { checkPlan } from "@/core/document/readPlan";
import { recognise } from "@/core/reading/recognise";
import type { BlockDevice } from "../inventory/blockDevice";
import { readBoxText } from "./readBoxText";

// States of arrays, volumes and file systems that are rarer, each with the lines that a kernel prints of them.

const BYTES = 629_145_600;
type Extra = Record<string, Partial<BlockDevice>>;

/** A list of drives of one size, on which an array lies with what is on it. */
function listOf(names: string[], upper: BlockDevice[] | null, extra: Extra = {}): string {
  const blockdevices = names.map((name, i) => ({
    name,
    kname: name,
    type: "disk",
    size: BYTES,
    serial: `OLV-${i + 1}`,
    tran: "sata",
    rota: true,
    "log-sec": 512,
    "phy-sec": 4096,
    mountpoints: [null],
    ...(upper ? { fstype: "linux_raid_member", uuid: "a-1", label: "mill:0", children: upper } : {}),
    ...extra[name],
  }));
  return JSON.stringify({ blockdevices });
}
const md = (type: string, size: number, more: Partial<BlockDevice> = {}): BlockDevice => ({
  name: "md0",
  type,
  size,
  ...more,
});

function read(list: string, arrays = "") {
  const result = readBoxText(`${list}\nPersonalities :\n${arrays}\nunused devices: <none>\n`);
  if (!result.ok) throw new Error(result.message);
  const made = recognise(result.printed, null);
  const { plan } = made;
  return {
    ...made,
    layouts: plan.pools.flatMap((pool) => pool.groups.map(({ layout, drives }) => [layout, ...drives])),
    spares: plan.pools.flatMap(({ spares }) => spares),
    failed: plan.drives.flatMap(({ id, state }) => (state === "failed" ? [id] : [])),
    work: made.arrays.map(({ printed }) => printed.running?.kind ?? null),
  };
}
const SIZE = 628_097_024;
const PARITY = "blocks super 1.2 level 5, 512k chunk, algorithm 2";

test("a drive that is filled to take the place of another: said, and no member yet", () => {
  const list = listOf(["sda", "sdb", "sdc", "sdd"], [md("raid5", 1_254_096_896)]);
  const made = read(
    list,
    `md0 : active raid5 sdd[3](R) sdc[2] sdb[1] sda[0]\n      1224704 ${PARITY} [3/3] [UUU]\n      [>....]  ` +
      `recovery =  9.5% (58368/612352) finish=1.2min speed=7296K/sec\n`,
  );
  expect(made.layouts).toEqual([["raid5", "OLV-1", "OLV-2", "OLV-3"]]);
  expect(made.notMadeOut).toContain(
    "sdd is being filled to take the place of another drive. Which one is printed nowhere.",
  );
  expect([made.work, made.plan.steps]).toEqual([["recovery"], []]);
});

test("a journal stands beside the pool as its write log", () => {
  const list = listOf(["sda", "sdb", "sdc", "sdd"], [md("raid5", 1_254_096_896)]);
  const made = read(list, `md0 : active raid5 sdd[3](J) sdc[2] sdb[1] sda[0]\n      1224704 ${PARITY} [3/3] [UUU]\n`);
  expect(made.plan.pools[0]).toMatchObject({ helpers: [{ drive: "OLV-4", role: "write-log" }], spares: [] });
});

test("single parity that becomes double: degraded by count and not by loss; a step that is under way", () => {
  const list = listOf(["sda", "sdb", "sdc", "sdd"], [md("raid6", 1_254_096_896)]);
  const made = read(
    list,
    "md0 : active raid6 sdd[3] sdc[2] sdb[1] sda[0]\n      1224704 blocks super 1.2 level 6, 512k chunk, " +
      "algorithm 18 [4/3] [UUU_]\n      [=>...]  reshape = 12.0% (73482/612352) finish=2.0min speed=4000K/sec\n",
  );
  expect(made.layouts).toEqual([["raid5", "OLV-1", "OLV-2", "OLV-3"]]);
  expect(made.plan.steps).toEqual([
    { id: "s1", kind: "change-level", group: "g1", layout: "raid6", drives: ["OLV-4"] },
  ]);
  expect(made.failed).toEqual([]);
});

test("a failed drive that is not even listed, and one that was taken out and is still plugged in", () => {
  const gone = read(
    listOf(["sda", "sdb"], [md("raid5", 1_254_096_896)]),
    `md0 : active raid5 sdc[2](F) sdb[1] sda[0]\n      1224704 ${PARITY} [3/2] [UU_]\n`,
  );
  expect(gone.layouts).toEqual([["raid5", "OLV-1", "OLV-2", "missing-md0-1"]]);
  const list = listOf(["sda", "sdb", "sdc"], [md("raid5", 1_254_096_896)], { sdc: { children: [] } });
  const out = read(list, `md0 : active raid5 sdb[1] sda[0]\n      1224704 ${PARITY} [3/2] [UU_]\n`);
  expect([out.layouts, out.failed]).toEqual([[["raid5", "OLV-1", "OLV-2", "OLV-3"]], ["OLV-3"]]);
  expect(out.notMadeOut[0]).toMatch(/^sdc carries the marks of md0 and is no part of it now/);
});

test("two failed drives that are not listed are two of the plan's, and not one twice", () => {
  const list = listOf(["sda", "sdb"], [md("raid6", 1_254_096_896)]);
  const text =
    `md0 : active raid6 sdd[3](F) sdc[2](F) sdb[1] sda[0]\n      1224704 blocks super 1.2 level 6, 512k chunk, ` +
    `algorithm 2 [4/2] [UU__]\n`;
  const { plan } = read(
    listOf(["sda", "sdb", "sdc", "sdd"], [md("raid6", 1_254_096_896)]),
    text.replaceAll("(F)", "").replace("[4/2] [UU__]", "[4/4] [UUUU]"),
  );
  const result = readBoxText(`${list}\n${text}`);
  if (!result.ok) throw new Error(result.message);
  const made = recognise(result.printed, plan).plan;
  expect(made.pools[0]?.groups[0]?.drives).toEqual(["OLV-1", "OLV-2", "OLV-3", "OLV-4"]);
  expect(made.drives.flatMap(({ id, state }) => (state ? [id] : []))).toEqual(["OLV-3", "OLV-4"]);
});

test("without serials the drives of a plan are known by their sizes, and that is said", () => {
  const names = ["sda", "sdb"];
  const mirror = "md0 : active raid1 sdb[1] sda[0]\n      613376 blocks super 1.2 [2/2] [UU]\n";
  const { plan } = read(listOf(names, [md("raid1", SIZE)]), mirror);
  const bare = Object.fromEntries(names.map((name) => [name, { serial: null, fstype: null, uuid: null, label: null }]));
  const result = readBoxText(`${listOf(names, [md("raid1", SIZE)], bare)}\n${mirror}`);
  if (!result.ok) throw new Error(result.message);
  const made = recognise(result.printed, plan);
  expect(made.plan).toEqual(plan);
  expect(made.notMadeOut).toContain("The drives of the plan are told from each other by their size and order only.");
});

test("an enclosure that prints one serial for all: the second is taken without one, and that is said", () => {
  const extra = { sdb: { serial: "OLV-1", wwn: "0x2" }, sda: { wwn: "0x1" } };
  const made = read(listOf(["sda", "sdb"], null, extra));
  expect(made.plan.drives.map(({ id, serial }) => [id, serial])).toEqual([
    ["OLV-1", "OLV-1"],
    ["OLV-1-1", undefined],
  ]);
  expect(made.notMadeOut).toContain("sdb prints the serial number of another drive, and is taken without one.");
  expect(checkPlan(made.plan)).toMatchObject({ ok: true });
});

test("a spare that is being filled stands in the step, and the failed one in its place", () => {
  const list = listOf(["sda", "sdb", "sdc", "sdd"], [md("raid5", 1_254_096_896)]);
  const made = read(
    list,
    `md0 : active raid5 sdd[4] sdc[2](F) sdb[1] sda[0]\n      1224704 ${PARITY} [3/2] [UU_]\n      [==>..]  ` +
      `recovery = 20.0% (122470/612352) finish=1.0min speed=7000K/sec\n`,
  );
  expect([made.layouts, made.failed, made.spares]).toEqual([[["raid5", "OLV-1", "OLV-2", "OLV-3"]], ["OLV-3"], []]);
  expect(made.plan.steps).toMatchObject([{ kind: "rebuild", drive: "OLV-3", by: "OLV-4" }]);
});

test("a device's number is not its place: one that came later and is in sync, beside one that is still being filled", () => {
  const list = listOf(["sda", "sdb", "sdc"], [md("raid5", 1_254_096_896)]);
  const made = read(
    list,
    `md0 : active raid5 sdc[5] sdb[4] sda[0]\n      1224704 ${PARITY} [3/2] [UU_]\n      [>..]  recovery =  ` +
      `1.0% (6123/612352) finish=1.0min speed=7000K/sec\n`,
  );
  expect(made.layouts).toEqual([["raid5", "OLV-1", "OLV-2", "missing-md0-1"]]);
  expect(made.plan.steps).toMatchObject([{ kind: "rebuild", by: "OLV-3" }]);
});

test.each<[string, string, number, string, string[][]]>([
  [
    "striped mirrors of three",
    "raid10",
    941_883_392,
    "919808 blocks super 1.2 512K chunks 2 near-copies [3/3] [UUU]",
    [["raid10", "OLV-1", "OLV-2", "OLV-3"]],
  ],
  [
    "three copies of each block, which is no layout",
    "raid10",
    SIZE,
    "613376 blocks super 1.2 512K chunks 3 near-copies [3/3] [UUU]",
    [],
  ],
  [
    "drives end to end",
    "linear",
    3 * SIZE,
    "1840128 blocks super 1.2 0k rounding",
    [["span", "OLV-1", "OLV-2", "OLV-3"]],
  ],
  [
    "a mirror of three, never started to write",
    "raid1",
    SIZE,
    "613376 blocks super 1.2 [3/3] [UUU]\n      \tresync=PENDING",
    [["raid1", "OLV-1", "OLV-2", "OLV-3"]],
  ],
  [
    "RAID 4, which is no layout",
    "raid4",
    2 * SIZE,
    "1226752 blocks super 1.2 level 4, 512k chunk, algorithm 0 [3/3] [UUU]",
    [],
  ],
  [
    "a mirror of old metadata with a bitmap, being checked",
    "raid1",
    SIZE,
    "613376 blocks [3/3] [UUU]\n      [==>.]  check = 12.6% (77440/613376) finish=0.5min " +
      "speed=15488K/sec\n      bitmap: 0/1 pages [0KB], 65536KB chunk",
    [["raid1", "OLV-1", "OLV-2", "OLV-3"]],
  ],
])("%s", (_name, level, bytes, line, layouts) => {
  const made = read(
    listOf(["sda", "sdb", "sdc"], [md(level, bytes)]),
    `md0 : active (auto-read-only) ${level} sdc[2] sdb[1] sda[0]\n      ${line}\n`,
  );
  expect(made.layouts).toEqual(layouts);
  expect(made.plan.drives.map(({ id }) => id)).toEqual(["OLV-1", "OLV-2", "OLV-3"]);
  expect(made.notMadeOut.some((sentence) => /does not lay out/.test(sentence))).toBe(layouts.length === 0);
});

describe("two arrays on the same drives, with a file system each", () => {
  const cut = (name: string, first: [string, number], second: [string, number]): Partial<BlockDevice> => ({
    fstype: null,
    children: [first, second].map(([md, size], i) => ({
      name: `${name}${i + 1}`,
      type: "part",
      size: 300e6,
      start: i * 600_000 + 2048,
      fstype: "linux_raid_member",
      uuid: `u-${md}`,
      children: [
        { name: md, type: i === 0 ? "raid1" : md === "md1" ? "raid1" : "raid0", size, fstype: "ext4", label: md },
      ],
    })),
  });
  const text = (second: string) =>
    `md0 : active raid1 sdb1[1] sda1[0]\n      291840 blocks super 1.2 [2/2] [UU]\n\n${second}`;
  const both = (md: string, size: number) =>
    listOf(["sda", "sdb"], null, {
      sda: cut("sda", ["md0", 298_844_160], [md, size]),
      sdb: cut("sdb", ["md0", 298_844_160], [md, size]),
    });

  test("two mirrors are one group of two bands, with a volume on each", () => {
    const made = read(
      both("md1", 298_844_160),
      text("md1 : active raid1 sdb2[1] sda2[0]\n      291840 blocks super 1.2 [2/2] [UU]\n"),
    );
    expect(made.layouts).toEqual([["hybrid-1", "OLV-1", "OLV-2"]]);
    expect(made.plan.pools[0]?.volumes.map(({ name }) => name)).toEqual(["md0", "md1"]);
    expect(checkPlan(made.plan)).toMatchObject({ ok: true });
  });

  test("a mirror and a stripe are no layout: said, and no drive is in two groups", () => {
    const made = read(
      both("md2", 597_688_320),
      text("md2 : active raid0 sdb2[1] sda2[0]\n      583680 blocks super 1.2 512k chunks\n"),
    );
    expect([made.layouts, made.plan.drives.length]).toEqual([[], 2]);
    expect(made.notMadeOut[0]).toMatch(/^md0 and md2 lie on some of the same drives in a way that is no layout/);
    expect(checkPlan(made.plan)).toMatchObject({ ok: true });
  });
});

test("a container in a maker's own format is left out and said", () => {
  const made = read(
    listOf(["sda", "sdb"], null),
    "md127 : inactive sdb[1](S) sda[0](S)\n      5928 blocks super external:imsm\n",
  );
  expect([made.layouts, made.notMadeOut]).toEqual([
    [],
    ["md127 is a container in a maker's own format, and is left out."],
  ]);
});

describe("what lies on an array", () => {
  const mirror = "md0 : active raid1 sdb[1] sda[0]\n      613376 blocks super 1.2 [2/2] [UU]\n";
  const on = (upper: Partial<BlockDevice>) =>
    read(listOf(["sda", "sdb"], [md("raid1", SIZE, upper)]), mirror).plan.pools[0]?.volumes;
  const mounted = { fssize: 600_000_000, fsused: 1e8, mountpoints: ["/srv/mill"] };

  test("a partition of it, an encrypted layer that is open, a thin pool, a file system that is not mounted", () => {
    expect(
      on({ children: [{ name: "md0p1", type: "part", size: SIZE - MiB, fstype: "ext4", ...mounted }] }),
    ).toMatchObject([{ name: "mill", bytes: SIZE - MiB, usedBytes: 1e8 }]);
    const open = { name: "luks-1", kname: "dm-0", type: "crypt", size: SIZE - 16 * MiB, fstype: "xfs", ...mounted };
    expect(on({ fstype: "crypto_LUKS", children: [open] })).toMatchObject([{ name: "mill", fileSystem: "xfs" }]);
    const thin = {
      name: "vg-thin",
      kname: "dm-4",
      type: "lvm",
      size: 4e8,
      fstype: "ext4",
      ...mounted,
      fssize: 390_000_000,
    };
    const pool = { name: "vg-pool-tpool", kname: "dm-2", type: "lvm", size: 5e8, children: [thin] };
    const parts = ["tdata", "tmeta"].map((part, i) => ({
      name: `vg-pool_${part}`,
      kname: `dm-${i}`,
      type: "lvm",
      size: 5e8,
      children: [pool],
    }));
    expect(on({ fstype: "LVM2_member", children: parts })).toMatchObject([{ name: "mill", bytes: 4e8 }]);
    expect(on({ fstype: "ext4", label: "attic" })).toEqual([
      { id: "v1", name: "attic", bytes: SIZE, fileSystem: "ext4" },
    ]);
  });
});

test("file systems over several drives: the profile that fits their size, or asked", () => {
  const drives = (fssize: number | null) =>
    listOf(
      ["sda", "sdb", "sdc"],
      null,
      Object.fromEntries(
        ["sda", "sdb", "sdc"].map((name, i) => [
          name,
          {
            fstype: "btrfs",
            uuid: "f-1",
            label: "mill",
            ...(i === 0 && fssize ? { fssize, fsused: 1e6, mountpoints: ["/srv/mill", "/home"] } : {}),
          },
        ]),
      ),
    );
  const guessed = (fssize: number | null) => read(drives(fssize)).layouts.map(([layout]) => layout);
  expect([guessed((3 * BYTES) / 2), guessed(BYTES)]).toEqual([["copies-2"], ["copies-3"]]);
  // Parity of some sort, or no size at all: nothing is guessed.
  expect([guessed(BYTES * 2), guessed(null)]).toEqual([[], []]);
});
