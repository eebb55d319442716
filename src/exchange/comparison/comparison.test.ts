import { nominalBytes } from "@/core/bytes/nominalBytes";
import { compareDrives } from "@/core/compare/compare";
import { EXAMPLE_PRICES } from "@/core/drives/priceList";
import { rulesOf } from "@/core/rules/ruleSets";
import { drivesOfTB } from "@/core/testing/arbitraries";
import { readPriceCsv, writePriceCsv } from "../driveList/priceCsv";
import { comparisonCsv, comparisonMarkdown } from "./comparisonTable";

const { choices } = compareDrives({
  drives: drivesOfTB(4, 4, 4).map((drive) => ({ ...drive, price: 100 })),
  rules: rulesOf({ set: "classic-raid" }),
  network: 117e6,
  splits: false,
});
const raid5 = choices.find((choice) => choice.name === "RAID 5")!;

test("the comparison as CSV has exact bytes, and a cell that a spreadsheet would take for a formula is disarmed", () => {
  const [head, line] = comparisonCsv([{ choice: raid5, misfit: "=1+1" }]).split("\n");
  expect(head).toBe(
    "layout,groups,drives,usable_bytes,may_fail,lost_if_one_more_fails,idle_bytes,read_bytes_per_s,write_bytes_per_s,rebuild_hours,price_per_usable_tb,does_not_fit",
  );
  // 300 for 8.0016 TB: 37.49 a TB; the rebuild of 4 TB at 0.6 × 150 MB/s.
  expect(line).toBe("RAID 5,,3,8001572306944,1,1,0,117000000,117000000,12.3,37.49,'=1+1");
});

test("the comparison as a Markdown table: one line each, bars in names escaped", () => {
  const lines = comparisonMarkdown([{ choice: { ...raid5, name: "a | b" }, misfit: "2.00 TB short" }], "TB")
    .trim()
    .split("\n");
  expect(lines).toHaveLength(3);
  expect(lines[2]!.replaceAll("\u00a0", " ")).toBe(
    "| a \\| b | 8.00 TB | any 1 | 100 % | 0.00 B | 117 / 117 MB/s | about 12 hours | 37.50 | 2.00 TB short |".replace(
      "0.00 B",
      "0 B",
    ),
  );
});

test("a price list is read back as it was written; a line without a price says so", () => {
  const text = writePriceCsv(EXAMPLE_PRICES, (item) => String(item.bytes));
  expect(readPriceCsv(text)).toEqual({ ok: true, prices: EXAMPLE_PRICES });
  expect(readPriceCsv('size;price\n"12 TB";"238,50"')).toEqual({
    ok: true,
    prices: [{ bytes: nominalBytes(12_000), price: 238.5, medium: "hdd", bus: "sata", label: "" }],
  });
  expect(readPriceCsv("size,price\n12 TB,")).toEqual({ ok: false, problems: ["Line 2: there is no price."] });
  expect(readPriceCsv(`size,price\n${"4 TB,90\n".repeat(41)}`)).toMatchObject({
    ok: false,
    problems: [expect.stringMatching(/at most 40/)],
  });
});
