import type { BoxRules, LayoutId } from "../document/plan";
import type { LevelChange } from "./levelPath";
import { levelVerdict } from "./levelVerdict";

const change = (from: LayoutId, to: LayoutId, drives: number, joining = 0, leaving = 0, equal = true): LevelChange => ({
  from,
  to,
  drives,
  joining,
  leaving,
  equal,
});
const linux = { levelChanges: "one-at-a-time", arrayFormat: "linux-raid" } as const;
const plain = (levelChanges: BoxRules["levelChanges"]) => ({ levelChanges, arrayFormat: "plain" }) as const;

describe("measured on the kernel's RAID driver", () => {
  test.each<[string, LayoutId, LayoutId, number, number, number, boolean, boolean]>([
    ["mirror of two to single parity, on the same drives", "raid1", "raid5", 2, 0, 0, true, true],
    ["mirror of two to single parity of three", "raid1", "raid5", 2, 1, 0, true, true],
    ["mirror of three to single parity", "raid1", "raid5", 3, 1, 0, true, false],
    ["mirror of one", "raid1", "raid5", 1, 1, 0, true, false],
    ["single to double parity with a drive more", "raid5", "raid6", 3, 1, 0, true, true],
    ["single to double parity with two more", "raid5", "raid6", 3, 2, 0, true, true],
    ["single to double parity on the same drives", "raid5", "raid6", 4, 0, 0, true, false],
    ["double to single parity with one fewer", "raid6", "raid5", 4, 0, 1, true, true],
    ["single parity to a stripe of one fewer", "raid5", "raid0", 3, 0, 1, true, true],
    ["single parity of two to a mirror", "raid5", "raid1", 2, 0, 0, true, true],
    ["equal stripe to single parity", "raid0", "raid5", 3, 1, 0, true, true],
    ["equal stripe to striped mirrors with as many again", "raid0", "raid10", 2, 2, 0, true, true],
    ["striped mirrors to a stripe", "raid10", "raid0", 4, 0, 2, true, true],
    ["unequal stripe to single parity", "raid0", "raid5", 3, 1, 0, false, false],
    ["equal stripe of two to single parity of four in one request", "raid0", "raid5", 2, 2, 0, true, true],
    ["single parity of two to double parity", "raid5", "raid6", 2, 1, 0, true, false],
    ["the same with two more", "raid5", "raid6", 2, 2, 0, true, false],
    ["mirror to striped mirrors", "raid1", "raid10", 2, 2, 0, true, false],
    ["striped mirrors to single parity", "raid10", "raid5", 4, 1, 0, true, false],
    ["single parity to striped mirrors", "raid5", "raid10", 4, 0, 0, true, false],
    ["mirror to double parity", "raid1", "raid6", 2, 2, 0, true, false],
  ])("%s", (_, from, to, drives, joining, leaving, equal, possible) => {
    expect(levelVerdict({ from, to, drives, joining, leaving, equal }, linux).kind === "possible").toBe(possible);
  });
});

test("of striped mirrors exactly one drive of each pair may stay, whichever it is", () => {
  for (const places of [
    [0, 2],
    [0, 3],
    [1, 2],
    [3, 1],
  ])
    expect(levelVerdict({ ...change("raid10", "raid0", 4, 0, 2), places }, linux).kind).toBe("possible");
});

describe("what a refusal says", () => {
  test.each<[LevelChange, RegExp]>([
    [change("raid1", "raid5", 3, 1), /more than two is refused/],
    [change("raid1", "raid5", 1, 1), /Only a mirror of two/],
    [change("raid1", "raid5", 2, 1, 1), /Only a mirror of two/],
    [change("raid5", "raid6", 3), /needs a drive more/],
    [change("raid5", "raid6", 4, 1, 1), /needs a drive more/],
    [change("raid6", "triple-parity", 4), /needs a drive more/],
    [change("raid6", "raid5", 4), /one drive fewer/],
    [change("raid6", "raid5", 4, 1, 1), /one drive fewer/],
    [change("raid5", "raid0", 3), /one drive fewer/],
    [change("raid5", "raid1", 3), /Only single parity of two/],
    [change("raid5", "raid1", 2, 1), /Only single parity of two/],
    [change("raid0", "raid5", 3), /needs a drive more/],
    [change("raid5", "raid6", 2, 1), /must have three first/],
    [change("raid5", "raid6", 2, 2), /must have three first/],
    [{ ...change("raid10", "raid0", 4, 0, 2), places: [0, 1] }, /One drive of each pair must stay/],
    [{ ...change("raid10", "raid0", 4, 0, 2), places: [3, 2] }, /One drive of each pair must stay/],
    [change("raid0", "raid5", 3, 1, 0, false), /different sizes/],
    [change("raid0", "raid5", 3, 1, 1), /needs a drive more/],
    [change("raid0", "raid10", 2, 1), /as many drives again/],
    [change("raid0", "raid10", 2, 2, 0, false), /different sizes/],
    [change("raid0", "raid10", 2, 2, 1), /as many drives again/],
    [change("raid10", "raid0", 4, 0, 1), /one drive of each pair/],
    [change("raid10", "raid0", 4, 1, 2), /one drive of each pair/],
    [change("raid10", "raid0", 3, 0, 1), /one drive of each pair/],
    [change("hybrid-1", "hybrid-2", 4, 0, 1), /No drive can leave/],
    [change("parity-drive-1", "parity-drive-2", 3), /a drive more/],
    [change("parity-drive-1", "parity-drive-2", 3, 1, 1), /a drive more/],
    [change("copies-2", "chunk-parity", 3, 0, 1), /No drive can leave/],
  ])("%j", (asked, reason) => {
    expect(levelVerdict(asked, linux)).toEqual({ kind: "refused", reason: expect.stringMatching(reason) });
  });
});

describe("by the rules of a box", () => {
  test("one level at a time goes by way of the levels between; in one go it takes as many drives", () => {
    expect(levelVerdict(change("raid1", "raid6", 2, 2), plain("one-at-a-time"))).toEqual({
      kind: "by-way-of",
      levels: ["raid5", "raid6"],
    });
    expect(levelVerdict(change("raid1", "triple-parity", 2), plain("one-at-a-time"))).toEqual({
      kind: "by-way-of",
      levels: ["raid5", "raid6", "triple-parity"],
    });
    expect(levelVerdict(change("raid1", "raid6", 2, 2), plain("in-one-go"))).toEqual({ kind: "possible" });
    expect(levelVerdict(change("raid1", "raid6", 2, 1), plain("in-one-go"))).toEqual({
      kind: "refused",
      reason: "It needs 2 drives more.",
    });
    expect(levelVerdict(change("raid1", "raid6", 2, 2, 1), plain("in-one-go")).kind).toBe("refused");
    expect(levelVerdict(change("raid1", "raid6", 3, 2), plain("one-at-a-time"))).toMatchObject({
      kind: "refused",
      reason: expect.stringMatching(/more than two/),
    });
  });
  test("a box that changes no levels has no path; nor has one for what only the kernel's driver does", () => {
    expect(levelVerdict(change("raid5", "raid6", 3, 1), plain("none"))).toEqual({ kind: "no-path" });
    for (const [from, to, drives, joining, leaving] of [
      ["raid6", "raid5", 4, 0, 1],
      ["raid5", "raid0", 3, 0, 1],
      ["raid5", "raid1", 2, 0, 0],
      ["raid0", "raid5", 3, 1, 0],
      ["raid0", "raid10", 2, 2, 0],
      ["raid10", "raid0", 4, 0, 2],
      ["hybrid-2", "hybrid-1", 4, 0, 0],
      ["triple-parity", "raid5", 5, 0, 0],
      ["single", "raid1", 2, 0, 0],
    ] as const)
      expect(levelVerdict(change(from, to, drives, joining, leaving), plain("in-one-go"))).toEqual({ kind: "no-path" });
  });
  test.each<[LayoutId, LayoutId, number]>([
    ["hybrid-1", "hybrid-2", 0],
    ["parity-drive-1", "parity-drive-2", 1],
    ["copies-2", "copies-3", 0],
    ["copies-2", "chunk-parity", 0],
    ["chunk-parity", "copies-2", 1],
    ["copies-3", "copies-2", 0],
    ["raid6", "triple-parity", 1],
  ])("every kind of box brings %s to %s", (from, to, joining) => {
    expect(levelVerdict(change(from, to, 4, joining), plain("one-at-a-time"))).toEqual({ kind: "possible" });
  });
});
