import fc from "fast-check";
import { GiB, MiB, TiB } from "./bytes";
import { floorTo } from "./floorTo";
import { formatBytes, formatChange, formatExactBytes, showBytes } from "./formatBytes";
import { nominalBytes, SOLD_GIGABYTES, soldAs } from "./nominalBytes";
import { parseSize } from "./parseSize";

const bytesOf = (text: string) => {
  const result = parseSize(text);
  return result.ok ? result.size.bytes : result.message;
};
const plain = (text: string) => text.replace(/[\u202f\u00a0]/g, " ");

describe("nominal sizes", () => {
  test.each([
    [500, 500_107_862_016],
    [1000, 1_000_204_886_016],
    [4000, 4_000_787_030_016],
    [8000, 8_001_563_222_016],
    [10_000, 10_000_831_348_736],
    [12_000, 12_000_138_625_024],
    [20_000, 20_000_588_955_648],
  ])("%i GB", (gigabytes, bytes) => expect(nominalBytes(gigabytes)).toBe(bytes));

  test("every sold size is a whole number of 4096-byte sectors and is recognised again", () => {
    for (const gigabytes of SOLD_GIGABYTES) {
      expect(nominalBytes(gigabytes) % 4096).toBe(0);
      expect(soldAs(nominalBytes(gigabytes))).toBe(gigabytes);
    }
    expect(soldAs(4_000_787_030_017)).toBeNull();
  });

  test("never falls as the label grows, and never gives less than the label says", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 50, max: 60_000 }),
        (gb) => nominalBytes(gb) >= gb * 1e9 && nominalBytes(gb + 1) >= nominalBytes(gb),
      ),
    );
  });

  test.each([49, 1000.5, Number.NaN, -4000])("%p has none", (gigabytes) =>
    expect(() => nominalBytes(gigabytes)).toThrow(RangeError),
  );
});

describe("typed sizes", () => {
  test.each([
    ["4 TB", 4e12],
    ["4tb", 4e12],
    ["500gb", 500e9],
    ["500 G", 500e9],
    ["3.6TiB", Math.round(3.6 * TiB)],
    ["3,6 TiB", Math.round(3.6 * TiB)],
    ["931.51 GiB", Math.round(931.51 * GiB)],
    ["931.513 GiB", Math.round(931.513 * GiB)],
    ["3.639 TiB", Math.round(3.639 * TiB)],
    ["4 000 787 030 016", 4_000_787_030_016],
    ["4'000'787'030'016 B", 4_000_787_030_016],
    ["4,000,787,030,016", 4_000_787_030_016],
    ["4.000.787.030.016", 4_000_787_030_016],
    ["1.234,5 GB", 1234.5e9],
    ["1,234.5 GB", 1234.5e9],
    [".5 TB", 5e11],
    ["0.1 TB", 1e11],
  ])("%s", (text, bytes) => expect(bytesOf(text)).toBe(bytes));

  test.each([
    ["", /Type a size/],
    ["four TB", /not a size/],
    ["4 XB", /not a unit/],
    ["1,000 GB", /two ways.*1000 GB/],
    ["12.3456,7 GB", /grouped in threes/],
    ["1.5", /no fraction/],
    ["99999 PB", /more than Cortijo can count/],
    ["-4 TB", /not a size/],
    ["9".repeat(70), /too long/],
    [".", /./],
  ])("%p is refused with a reason", (text, reason) => expect(bytesOf(text)).toMatch(reason));

  test("any byte count that is shown exactly is read back to the byte", () => {
    fc.assert(
      fc.property(fc.maxSafeNat(), (bytes) => {
        expect(bytesOf(formatExactBytes(bytes))).toBe(bytes);
      }),
    );
  });

  test("never throws, whatever is typed", () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom(..."0123456789.,'_ kKmMgGtTiIbBx-") }),
        (text) => void parseSize(text),
      ),
    );
  });
});

describe("shown sizes", () => {
  test.each([
    [8_001_572_831_232, "8.00 TB", "7.28 TiB"],
    [12_000_138_625_024, "12.00 TB", "10.91 TiB"],
    [1_000_204_886_016, "1.00 TB", "931.5 GiB"],
    [999_999_999_999, "1.00 TB", "931.3 GiB"],
    [144e12, "144.0 TB", "131.0 TiB"],
    [MiB, "1.05 MB", "1.00 MiB"],
    [512, "512 B", "512 B"],
    [0, "0 B", "0 B"],
  ])("%i", (bytes, decimal, binary) => {
    expect(plain(formatBytes(bytes, "TB"))).toBe(decimal);
    expect(plain(formatBytes(bytes, "TiB"))).toBe(binary);
  });

  test("the shown figure is within half a unit of its last digit", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9e14 }),
        fc.constantFrom("TB" as const, "TiB" as const),
        (bytes, family) => {
          const shown = showBytes(bytes, family);
          const factor = {
            B: 1,
            kB: 1e3,
            MB: 1e6,
            GB: 1e9,
            TB: 1e12,
            KiB: 2 ** 10,
            MiB: 2 ** 20,
            GiB: 2 ** 30,
            TiB: 2 ** 40,
          }[shown.unit]!;
          const figure = shown.figure.replaceAll("\u202f", "");
          const half = 0.5 * 10 ** -(figure.split(".")[1]?.length ?? 0);
          expect(Math.abs(Number(figure) - bytes / factor)).toBeLessThanOrEqual(half * 1.0001);
        },
      ),
    );
  });

  test("changes carry their sign", () => {
    expect(plain(formatChange(4e12, "TB"))).toBe("+4.00 TB");
    expect(plain(formatChange(-4e12, "TB"))).toBe("−4.00 TB");
    expect(plain(formatChange(0, "TiB"))).toBe("±0 B");
  });
});

test("floorTo gives the largest multiple below", () => {
  fc.assert(
    fc.property(fc.maxSafeNat(), fc.integer({ min: 1, max: 2 ** 30 }), (bytes, unit) => {
      const floor = floorTo(bytes, unit);
      expect(floor % unit).toBe(0);
      expect(bytes - floor).toBeLessThan(unit);
    }),
  );
  expect(floorTo(-5, 4)).toBe(0);
});
