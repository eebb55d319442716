import fc from "fast-check";
import { nominalBytes, SOLD_GIGABYTES } from "../bytes/nominalBytes";
import { typedDrives } from "./typedDrives";

/** What was read, a word for each drive: "4" for a hard disk sold as 4 TB, "0.96 ssd nvme" for another. */
const read = (text: string): string => {
  const result = typedDrives(text);
  if (!result.ok) return result.message;
  const size = (bytes: number) => SOLD_GIGABYTES.find((each) => nominalBytes(each) === bytes)! / 1000 || bytes / 1e12;
  const words = result.drives.flatMap(({ count, bytes, medium, bus }) =>
    Array.from({ length: count }, () =>
      [size(bytes), ...(medium === "ssd" ? ["ssd"] : []), ...(bus === "sata" ? [] : [bus])].join(" "),
    ),
  );
  return words.join(", ") + (result.assumed ? ", taken as TB" : "");
};

test.each([
  ["4, 4, 8 and 12 TB", "4, 4, 8, 12"],
  ["4 4 8 12 TB", "4, 4, 8, 12"],
  ["4TB 4TB\n8TB\n12TB\n", "4, 4, 8, 12"],
  ["4+4+8 TB & 500 GB", "4, 4, 8, 0.5"],
  ["6 × 4 TB", "4, 4, 4, 4, 4, 4"],
  ["2x8TB, 12 TB", "8, 8, 12"],
  ["2 * 4 and 1 x 8 TB", "4, 4, 8"],
  ["4 TB x 2; 8 TB", "4, 4, 8"],
  ["4 TB x", "How many drives of 4 TB? Write it like 2 × 4 TB."],
  ["three", '"three" is not a drive. Write drives like 4 TB or 6 × 4 TB.'],
  ["2 drives of 4 TB and 2 of 8", "4, 4, 8, 8"],
  ["4, 4, 8", "4, 4, 8, taken as TB"],
  ["8 TB, 4", "8, 4"],
  ["1,5 TB", "1.5"],
  ["1,5 TB, 2 TB", "1, 5, 2"],
  ["4,8 TB", "4, 8"],
  ["3,64 TiB 3.64 TiB", "4, 4"],
  ["931,51 GiB", "1"],
  ["4 000 787 030 016", "4"],
  ["4000787030016, 8 TB", "4, 8"],
  ["2 × 960 GB ssd, 4 TB sas, 1 TB nvme", "0.96 ssd, 0.96 ssd, 4 sas, 1 ssd nvme"],
  ["4 TB SSDs usb", "4 ssd usb"],
  ["3 × drives", "What size do the 3 drives have? Write it like 3 × 4 TB."],
  ["ssd 4 TB", '"ssd" has no size. Write it like 4 TB or 6 × 4 TB.'],
  ["500", "500 of what? Write its unit, like 500 GB."],
  ["4 MB", '"4 MB" is less than 1 GB. Did you leave out the unit? Write it like 4 TB.'],
  ["0 × 4 TB", '"0 × 4 TB" adds no drive.'],
  ["49 × 4 TB", "That would add 49 drives. Add at most 48 at once."],
  ["  ", "Type the drives you have, like 4, 4 and 8 TB."],
  ["4 TB ".repeat(500), "That is too long to be typed drives. Bring the list in as a file."],
])("%j is read as %s", (text, drives) => expect(read(text)).toBe(drives));

test("whatever the style, the drives are those that were written", () => {
  const sizes = fc.array(fc.constantFrom(...SOLD_GIGABYTES.filter((each) => each >= 1000 && each % 1000 === 0)), {
    minLength: 1,
    maxLength: 12,
  });
  const style = fc.record({
    gap: fc.constantFrom(", ", " ", "\n", "; ", " + ", " and ", ","),
    unit: fc.constantFrom("TB", " TB", "tb", " T"),
    each: fc.boolean(),
  });
  fc.assert(
    fc.property(sizes, style, (gigabytes, { gap, unit, each }) => {
      // A comma between two digits alone can be a decimal sign, which has a table of its own above.
      fc.pre(gap !== "," || gigabytes.length > 2);
      const text = gigabytes
        .map((size, i) => `${size / 1000}${each || i === gigabytes.length - 1 ? unit : ""}`)
        .join(gap);
      expect(read(text)).toBe(gigabytes.map((size) => String(size / 1000)).join(", "));
    }),
  );
});

test("it never throws", () => {
  fc.assert(
    fc.property(
      fc.string({ unit: fc.constantFrom(..."0123456789 .,x×TGBi;+\nandofs") }),
      (text) => void typedDrives(text),
    ),
  );
});
