import fc from "fast-check";
import { Temporal } from "temporal-polyfill";
import { parseExcluded, writeExcluded } from "./excludedDays";

describe("days off as people write them", () => {
  test.each([
    ["24–26 Dec", [["2026-12-24", "2026-12-26"]]],
    [
      "24-26 Dec, 1 Jan",
      [
        ["2026-12-24", "2026-12-26"],
        ["2027-01-01", "2027-01-01"],
      ],
    ],
    ["24 Dec – 2 Jan", [["2026-12-24", "2027-01-02"]]],
    ["24 December to 2 January 2028", [["2027-12-24", "2028-01-02"]]],
    [
      "Dec 24, 2027; 2027-02-14 to 2027-02-20",
      [
        ["2027-12-24", "2027-12-24"],
        ["2027-02-14", "2027-02-20"],
      ],
    ],
    ["29 Feb", [["2028-02-29", "2028-02-29"]]],
    [
      "1st May\n3rd Oct.",
      [
        ["2027-05-01", "2027-05-01"],
        ["2027-10-03", "2027-10-03"],
      ],
    ],
    ["", []],
  ])("%j", (text, expected) => {
    expect(parseExcluded(text, "2026-11-23")).toEqual({
      ok: true,
      ranges: (expected as string[][]).map(([from, to]) => ({ from, to })),
    });
  });
  test.each([
    "Easter",
    "31 Feb 2027",
    "2027-13-01",
    "5",
    "26 Dec 2027 to 24 Dec 2027",
    "1 Jan to 2 Jan to 3 Jan",
    "<b>1 Jan</b>",
  ])("%j is refused, with words", (text) => {
    const read = parseExcluded(text, "2026-11-23");
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.message.length).toBeGreaterThan(20);
  });
  test("what is written can be read again, for any days", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 3000 }), fc.integer({ min: 0, max: 30 })), { maxLength: 8 }),
        (days) => {
          const ranges = days.map(([from, length]) => {
            const day = Temporal.PlainDate.from("2026-11-23").add({ days: from });
            return { from: day.toString(), to: day.add({ days: length }).toString() };
          });
          expect(parseExcluded(writeExcluded(ranges), "2026-11-23")).toEqual({ ok: true, ranges });
        },
      ),
    );
  });
});

describe("as people write them", () => {
  const ranges = (text: string) => {
    const read = parseExcluded(text, "2026-11-23");
    return read.ok ? read.ranges.map(({ from, to }) => (from === to ? from : `${from}/${to}`)) : read.message;
  };
  test.each<[string, string[]]>([
    ["24.  Dec., 2026", ["2026-12-24"]],
    ["24th   december   2026", ["2026-12-24"]],
    ["Dec.  1st,  2026", ["2026-12-01"]],
    ["december 2nd 2026", ["2026-12-02"]],
    ["24-26   Dec", ["2026-12-24/2026-12-26"]],
    ["24 - 26 Dec", ["2026-12-24/2026-12-26"]],
    ["24 Dec   to   2 Jan", ["2026-12-24/2027-01-02"]],
    ["30 Dec – 2 Jan 2028", ["2027-12-30/2028-01-02"]],
    ["1 Dec – 5 Dec 2027", ["2027-12-01/2027-12-05"]],
    ["23 Nov", ["2026-11-23"]],
    ["22 Nov", ["2027-11-22"]],
    ["29 Feb", ["2028-02-29"]],
    ["24 Dec, 2026, 1 Jan", ["2026-12-24", "2027-01-01"]],
    ["24 Dec, 2026 to 2 Jan, 2027", ["2026-12-24/2027-01-02"]],
    ["24 Dec,  26 Dec;\n 2027-2-1", ["2026-12-24", "2026-12-26", "2027-02-01"]],
    ["1 Jan until 3 Jan", ["2027-01-01/2027-01-03"]],
    ["", []],
  ])("%j", (text, expected) => expect(ranges(text)).toEqual(expected));
  test.each<[string, RegExp]>([
    ["x2027-01-01", /no day that can be read/],
    ["2027-01-01x", /no day that can be read/],
    ["x 1 Jan", /no day that can be read/],
    ["1 Jan x", /no day that can be read/],
    ["1 abc", /no day that can be read/],
    ["5 Jan to 7", /names no month/],
    ["5 to 7", /names no month/],
    ["30 Feb", /not in the calendar/],
    ["1 Jan 2027 to 31 Feb 2027", /not in the calendar/],
    ["5 Jan 2027 to 4 Jan 2027", /ends before it begins/],
  ])("%j is refused", (text, reason) => expect(ranges(text)).toMatch(reason));
  test("at most a hundred", () => {
    const days = (count: number) => Array.from({ length: count }, () => "1 Jan 2027").join("; ");
    expect(ranges(days(100))).toHaveLength(100);
    expect(parseExcluded(days(101), "2026-11-23")).toEqual({
      ok: false,
      message: expect.stringMatching(/^At most 100/),
    });
  });
  test("are written with their end only where there is one", () => {
    expect(writeExcluded([{ from: "2026-12-24", to: "2026-12-24" }])).toBe("24 Dec 2026");
    expect(writeExcluded([{ from: "2026-12-24", to: "2026-12-26" }])).toBe("24 Dec 2026 – 26 Dec 2026");
  });
});
