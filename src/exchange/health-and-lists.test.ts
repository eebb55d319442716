import { applyCommand } from "@/core/commands/applyCommand";
import type { Drive, PricedDrive } from "@/core/document/plan";
import { checkPlan } from "@/core/document/readPlan";
import { clinic } from "@/core/document/samples/clinic";
import { predict } from "@/core/prediction/predict";
import fc from "fast-check";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import Papa from "papaparse";
import { selfTestHours } from "@/core/drives/rates";
import { readDriveCsv, writeDriveCsv } from "./driveList/driveCsv";
import { readPriceCsv, writePriceCsv } from "./driveList/priceCsv";
import { matchReports, takeReports } from "./smart/matchReports";
import { readSmart } from "./smart/readSmart";

const capture = (name: string) => readFileSync(join(__dirname, "smart/captures", name), "utf8");
const reports = (text: string) => {
  const result = readSmart(text);
  if (!result.ok) throw new Error(result.message);
  return result;
};

describe("SMART data", () => {
  test("an array of ATA drives: reallocated and pending sectors, hours, temperature, a failed status", () => {
    expect(reports(capture("ata-array.json")).reports.map(({ serial, health }) => [serial, health])).toEqual([
      ["TJ4-0417", { state: "good", reallocatedSectors: 0, pendingSectors: 0, powerOnHours: 21_044, temperature: 34 }],
      [
        "TJ4-0422",
        { state: "watch", reallocatedSectors: 16, pendingSectors: 2, powerOnHours: 21_044, temperature: 34 },
      ],
      [
        "TJ8-1190",
        { state: "failing", reallocatedSectors: 0, pendingSectors: 0, powerOnHours: 21_044, temperature: 34 },
      ],
    ]);
  });

  test("a drive's own minutes for a self-test, which its test then takes; 0 where it does not know", () => {
    const [first] = JSON.parse(capture("ata-array.json")) as object[];
    const printed = (extended: number) =>
      JSON.stringify({ ...first, ata_smart_data: { self_test: { polling_minutes: { extended } } } });
    const { health } = reports(printed(431)).reports[0]!;
    expect(health.selfTestMinutes).toBe(431);
    expect(reports(printed(0)).reports[0]!.health.selfTestMinutes).toBeUndefined();
    const drive = { bytes: 4e12, medium: "hdd", bus: "sata" } as const;
    expect(selfTestHours({ ...drive, health }).expected).toBeCloseTo(431 / 60, 9);
    expect(selfTestHours({ ...drive, health: { state: "good" } }).expected).toBeCloseTo(4e12 / 105e6 / 3600, 9);
  });

  test("NVMe and SAS one after the other; a report without a serial is passed over and said", () => {
    const { reports: found, skipped } = reports(capture("nvme-and-sas-one-after-the-other.json"));
    expect(found).toMatchObject([
      {
        serial: "AL-N5-8841",
        bus: "nvme",
        medium: "ssd",
        bytes: 500_107_862_016,
        health: { state: "watch", powerOnHours: 8760, temperature: 41 },
      },
      {
        serial: "SH-1",
        bus: "sas",
        medium: "hdd",
        model: "TEJORA TJS16",
        logicalSector: 4096,
        health: { state: "watch", reallocatedSectors: 7 },
      },
    ]);
    expect(skipped).toEqual(["/dev/sdz"]);
  });

  test("taken over by serial, they become findings; the unknown go to the shelf; it is one command to undo", () => {
    const matched = matchReports(clinic.drives, [
      ...reports(capture("ata-array.json")).reports,
      ...reports(capture("nvme-and-sas-one-after-the-other.json")).reports,
    ]);
    expect([matched.matched.length, matched.unknown.length]).toEqual([3, 2]);
    const result = applyCommand(clinic, takeReports(matched, true));
    if (!result.ok) throw new Error(result.reason);
    expect(checkPlan(structuredClone(result.plan)).ok).toBe(true);
    expect(result.plan.drives).toHaveLength(7);
    expect(
      predict(result.plan).pools[0]!.findings.map((finding) => `${finding.severity} ${finding.code} ${finding.drives}`),
    ).toEqual(expect.arrayContaining(["block drive-failing d3", "block drive-gets-worse d2"]));
  });

  test.each([
    ["nothing", " ", /nothing in it/],
    ["half a report", capture("ata-array.json").slice(0, 500), /part of it is missing/],
    ["other JSON", '{"blockdevices":[]}', /not what smartctl prints.*smartctl/],
    ["a wrong type", '{"smartctl":{},"serial_number":7}', /\/serial_number/],
  ])("%s is refused with a reason", (_, text, message) => {
    const result = readSmart(text);
    expect(result.ok ? "" : result.message).toMatch(message);
  });

  test("never throws", () => {
    fc.assert(fc.property(fc.jsonValue(), (value) => void readSmart(JSON.stringify(value))));
    fc.assert(fc.property(fc.string(), (text) => void readSmart(text)));
  });
});

describe("lists of drives", () => {
  const drivesOf = (text: string) => {
    const result = readDriveCsv(text);
    if (!result.ok) throw new Error(result.problems.join(" "));
    return result.drives;
  };

  test("commas or semicolons, both decimal signs, quotes, any order of columns", () => {
    expect(
      drivesOf('size,model,serial,price\n4 TB,"Tejora ""Cal"", 4",A1,99.90\n"3,64 TiB",,,"1.099,50 €"\n'),
    ).toMatchObject([
      { bytes: 4_000_787_030_016, model: 'Tejora "Cal", 4', serial: "A1", price: 99.9 },
      { bytes: 4_000_787_030_016, price: 1099.5 },
    ]);
    expect(drivesOf("Price;Size;Kind\n129,5;960 GB;ssd\n")).toMatchObject([
      { bytes: 960e9, price: 129.5, medium: "ssd" },
    ]);
  });

  test("every problem is told with its line", () => {
    const result = readDriveCsv("size,price,kind\n4 XB,1,hdd\n4 TB,cheap,hdd\n4 TB,1,tape\n4,1,hdd\n");
    expect(result).toEqual({
      ok: false,
      problems: [
        expect.stringMatching(/Line 2.*"XB"/),
        expect.stringMatching(/Line 3.*"cheap"/),
        expect.stringMatching(/Line 4.*"tape"/),
        expect.stringMatching(/Line 5.*unit/),
      ],
    });
    expect(readDriveCsv("model,serial\nx,y")).toMatchObject({
      ok: false,
      problems: [expect.stringMatching(/"size" is needed/)],
    });
  });

  test("a quotation mark that is not closed and a field too many are told with their line, in lines of several too", () => {
    expect(readDriveCsv('\n\nsize,model\n4 TB,"two\nlines"\n\n8 TB,one,more\n4 TB,"open\n8 TB,x')).toEqual({
      ok: false,
      problems: [expect.stringMatching(/^Line 7: .*more fields/), expect.stringMatching(/^Line 8: .*never closed/)],
    });
    expect(drivesOf('size;model\n"4 TB";"a;b";;\n')).toMatchObject([{ model: "a;b" }]);
  });

  test("kinds are those that there are, whatever else objects know", () =>
    expect(readDriveCsv("size,kind\n4 TB,constructor\n4 TB,toString")).toMatchObject({
      problems: [expect.stringMatching(/Line 2.*"constructor"/), expect.stringMatching(/Line 3.*"toString"/)],
    }));

  test("a price list keeps names that a spreadsheet would take for a formula", () => {
    const item: PricedDrive = { bytes: 4e12, price: 99, medium: "hdd", bus: "sata", label: " =HYPERLINK(1)" };
    const text = writePriceCsv([item], () => "4 TB");
    expect(text).toContain("' =HYPERLINK(1)");
    expect(readPriceCsv(text)).toMatchObject({ prices: [{ label: " =HYPERLINK(1)" }] });
  });

  test("what was written is read back, and no cell is a formula", () => {
    const drive: fc.Arbitrary<Drive> = fc
      .record({
        bytes: fc.integer({ min: 1e9, max: 3e13 }),
        model: fc.string({ maxLength: 20 }).map((text) => text.replace(/\s+/g, " ").trim()),
        serial: fc.oneof(
          fc.constant("=1+1"),
          fc.constantFrom("@x", "'=1+1", "''@x", "'", "＝1+1", "'＋2", "-"),
          fc.string({ unit: "grapheme-ascii", maxLength: 12 }).map((text) => text.trim()),
        ),
        price: fc.option(
          fc.integer({ min: 0, max: 99_999 }).map((cents) => cents / 100),
          { nil: undefined },
        ),
      })
      .map((each) => ({ ...clinic.drives[0]!, ...each }));
    fc.assert(
      fc.property(fc.array(drive, { minLength: 1, maxLength: 5 }), (drives) => {
        const text = writeDriveCsv(drives);
        expect(drivesOf(text).map((each) => [each.bytes, each.model ?? "", each.serial ?? "", each.price])).toEqual(
          drives.map((each) => [each.bytes, each.model, each.serial, each.price]),
        );
        for (const cell of Papa.parse<string[]>(text).data.slice(1).flat())
          expect(cell).not.toMatch(/^[\s\u3000]*[=@+\-＝＠＋－]/);
      }),
    );
  });
});
