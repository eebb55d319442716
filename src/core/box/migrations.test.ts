import { emptyPlan } from "../document/emptyPlan";
import type { Plan } from "../document/plan";
import { drivesOfTB } from "../testing/arbitraries";
import { MIGRATIONS, upToDate } from "./migrations";

/** A box of an older program: of no edition, its parity drives not named. */
const old: Plan = {
  ...emptyPlan("Old"),
  box: { name: "", bays: 4, rules: { set: "parity-drive" } },
  drives: drivesOfTB(4, 8, 4),
  pools: [
    {
      id: "p1",
      name: "",
      groups: [{ id: "g1", layout: "parity-drive-1", drives: ["d1", "d2", "d3"] }],
      spares: [],
      volumes: [],
    },
  ],
};
delete old.edition;

test("each migration says what it is about and why, and leaves what is up to date as it is", () => {
  expect(MIGRATIONS.map(({ about }) => about)).toEqual(["edition", "parity drives", "missing drives"]);
  const now = upToDate(old);
  for (const { why, migrate } of MIGRATIONS) {
    expect(why.length).toBeGreaterThan(60);
    expect(migrate(now)).toBe(now);
  }
});

test("edition: what a box of the first edition did is written into its rules", () =>
  expect(MIGRATIONS[0]!.migrate(old)).toMatchObject({
    edition: 2,
    box: { rules: { set: "parity-drive", overrides: { claiming: "per-drive" } } },
  }));

test("parity drives: the largest is named, once and for all", () => {
  const named = MIGRATIONS[1]!.migrate(old);
  expect(named.pools[0]!.groups[0]!.options).toEqual({ parityDrives: ["d2"] });
  const larger = {
    ...named,
    drives: named.drives.map((drive) => (drive.id === "d1" ? { ...drive, bytes: 16e12 } : drive)),
  };
  expect(MIGRATIONS[1]!.migrate(larger).pools[0]!.groups[0]!.options).toEqual({ parityDrives: ["d2"] });
});

test("they are made in their order: all of them for a plan of the oldest program", () =>
  expect(upToDate(old)).toMatchObject({
    edition: 2,
    pools: [{ groups: [{ options: { parityDrives: ["d2"] } }] }],
  }));
