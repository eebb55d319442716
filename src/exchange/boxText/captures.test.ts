import { usableIfWhole } from "@/core/box/figures";
import { rulesOfBox } from "@/core/box/rulesOfBox";
import { checkPlan } from "@/core/document/readPlan";
import { recognise, type Recognised } from "@/core/reading/recognise";
import { capture, truths } from "../../../tests/captures/capture";
import { readBoxText } from "./readBoxText";

// What a real kernel has printed, held against what is so by other sources of the same kernel.

interface Truth {
  expected_layout: string | null;
  arrays: {
    name: string;
    level: string | null;
    members: string[];
    spares: string[];
    failed: string[];
    rebuilding: string[];
    missing: number | null;
    size_bytes: number;
    running: { kind: string; percent: number | null } | null;
  }[];
  volumes: { name: string; bytes: number; fileSystem: string; used_bytes: number | null; mounted: string[] }[];
}

const TRUTHS = truths<Truth>();

function recognised(folder: string, answers: Record<string, string> = {}): Recognised {
  // Both texts in one paste, with what stands around them in a terminal.
  const text =
    `root@box:~# lsblk --json --bytes --output-all\n${capture(folder, "lsblk.txt")}\nroot@box:~# cat ` +
    `/proc/mdstat\n${capture(folder, "mdstat.txt")}root@box:~# `;
  const result = readBoxText(text);
  if (!result.ok) throw new Error(result.message);
  return recognise(result.printed, null, answers);
}

/** What is printed nowhere is answered here as the truth has it. */
const ANSWERS: Record<string, Record<string, string>> = {
  "33-raid6-4-inactive": { md127: "raid6" },
};

const RUNNING: Record<string, string> = { recover: "recovery", resync: "resync", reshape: "reshape", check: "check" };

describe.each(Object.entries(TRUTHS))("%s", (folder, truth) => {
  const made = recognised(folder, ANSWERS[folder] ?? {});
  const { plan } = made;
  const serialOf = (id: string) => plan.drives.find((drive) => drive.id === id)?.serial ?? null;
  const groups = plan.pools.flatMap((pool) => pool.groups);
  const group = (array: string) =>
    groups.find(({ id }) => id === made.arrays.find(({ printed }) => printed.name === array)?.group);

  test("the layout, and a plan that can be opened", () => {
    expect(groups.map(({ layout }) => layout)).toEqual(truth.expected_layout === null ? [] : [truth.expected_layout]);
    expect(checkPlan({ ...plan })).toMatchObject({ ok: true });
    expect(plan.steps.map(({ id }) => id)).toEqual([...new Set(plan.steps.map(({ id }) => id))]);
  });

  test("members in their places, spares, failed and missing drives", () => {
    for (const array of truth.arrays.filter(({ name }) => group(name) && name !== "md127")) {
      const found = made.arrays.find(({ printed }) => printed.name === array.name)!.printed;
      const drives = group(array.name)!.drives;
      const present = array.members.filter((serial) => !array.rebuilding.includes(serial));
      // A member that a rewrite is only bringing in stands in the step that does so.
      const joining = found.joining.map(({ drive }) => made.ids.get(drive ?? ""));
      expect(drives.map(serialOf).filter((serial) => serial !== null && present.includes(serial))).toEqual(
        present.filter((serial) => !joining.includes(serial)),
      );
      for (const serial of array.rebuilding) {
        const by = plan.drives.find((drive) => drive.serial === serial)?.id;
        expect(plan.steps).toContainEqual(
          expect.objectContaining({ kind: "rebuild", group: group(array.name)!.id, by }),
        );
      }
      const state = (which: "failed" | "missing") => plan.drives.filter((drive) => drive.state === which);
      expect(state("failed").map(({ serial }) => serial)).toEqual(array.failed);
      expect(plan.pools.flatMap(({ spares }) => spares).map(serialOf)).toEqual(array.spares);
      expect(drives.filter((id) => state("missing").some((drive) => drive.id === id))).toHaveLength(
        (array.missing ?? 0) - array.failed.length + array.rebuilding.length,
      );
    }
  });

  test("sizes to the byte: as printed, as the kernel has them, as the driver's rule gives them, and in the plan", () => {
    for (const { array, readBytes, predictedBytes } of made.sizes) {
      const size = truth.arrays.find(({ name }) => name === array)?.size_bytes;
      expect([readBytes, predictedBytes]).toEqual([size, size]);
    }
    for (const pool of plan.pools) {
      const read = made.arrays
        .filter(({ pool: id }) => id === pool.id)
        .reduce((sum, { printed }) => sum + printed.bytes, 0);
      if (read > 0) expect(usableIfWhole(plan, pool, rulesOfBox(plan))).toBe(read);
    }
  });

  test("work that is under way, with how much of it is done", () => {
    for (const array of truth.arrays.filter(({ running }) => running)) {
      const running = made.arrays.find(({ printed }) => printed.name === array.name)?.printed.running;
      expect(running?.kind).toBe(RUNNING[array.running!.kind]);
      const percent = array.running!.percent;
      if (percent === null) expect(running?.done).toBeNull();
      else expect(Math.abs((running?.done ?? 0) * 100 - percent)).toBeLessThan(7);
    }
  });

  test("volumes with file system and what is used", () => {
    const printed = plan.pools.flatMap((pool) => pool.volumes);
    // Parity is in a file on the drive that holds it, which is no place for data.
    const data = truth.volumes.filter(
      ({ name, mounted, used_bytes }) =>
        !/^nvme/.test(name) && used_bytes !== null && !mounted.some((at) => at === "/" || /parity/.test(at)),
    );
    if (plan.pools.length === 0) return;
    const readable = data.filter(({ mounted }) => mounted.length > 0);
    expect(
      printed
        .filter(({ usedBytes }) => usedBytes !== undefined)
        .map(({ usedBytes, fileSystem }) => [fileSystem, usedBytes])
        .sort(),
    ).toEqual(readable.map(({ fileSystem, used_bytes }) => [fileSystem, used_bytes]).sort());
    for (const volume of printed) expect(volume.fileSystemBytes).toBeUndefined();
  });
});

test("what no text prints is guessed with its reason, or asked, and never stated", () => {
  const told = (folder: string) => {
    const { questions, notMadeOut } = recognised(folder);
    return [questions.map(({ id, guess }) => [id, guess]), notMadeOut];
  };
  expect(told("33-raid6-4-inactive")).toEqual([
    [["md127", null]],
    ["md127 over sdc and sdb does not run. Which level has it? That is printed nowhere, so no pool is made of it."],
  ]);
  expect(told("39-btrfs-two-copies-3-unlike")[0]).toEqual([["file-system-sdc", "copies-2"]]);
  expect(told("42-plain-drives-with-parity-drive")[0]).toEqual([["parity-of-sda", "sde"]]);
  expect(told("67-four-drives-with-data-no-device-database")).toEqual([
    [],
    [
      "The list tells nothing of what is on the drives, not even their serial numbers: none of them is known " +
        "to be empty.",
    ],
  ]);
  // Another answer than the guess, and one that leaves it out.
  const answered = (answer: string) =>
    recognised("42-plain-drives-with-parity-drive", { "parity-of-sda": answer }).plan.pools.map(
      (pool) => pool.groups[0]?.layout,
    );
  expect([answered("none"), answered("leave-out"), answered("sdz")]).toEqual([["single"], [], ["parity-drive-1"]]);
});

test("what an array keeps: where it begins above the system's part, and what it uses of each drive", () => {
  const kept = (folder: string) =>
    recognised(folder).plan.pools.flatMap((pool) =>
      pool.groups.flatMap((group) => (group.kept ?? []).map(({ from, used }) => [from, used])),
    );
  expect(kept("19-system-on-all-raid5-4")).toEqual([[0, 327_155_712]]);
  expect(kept("15-hybrid-1-four-sizes-top-idle")).toEqual([
    [1_048_576, 616_562_688],
    [619_708_416, 207_618_048],
    [829_423_616, 233_832_448],
  ]);
});

test("without the kernel's text the members are guessed from the size, and that is said", () => {
  const result = readBoxText(capture("21-raid5-3-hot-spare", "lsblk.txt"));
  if (!result.ok) throw new Error(result.message);
  const { plan, notMadeOut } = recognise(result.printed, null);
  expect(plan.pools[0]?.groups[0]?.drives).toHaveLength(3);
  expect(plan.pools[0]?.spares).toHaveLength(1);
  expect(notMadeOut[0]).toMatch(/hold its data, stand by as spares or have failed stands only in the kernel's text/);
});
