import fc from "fast-check";
import { applyCommand } from "../commands/applyCommand";
import type { Plan } from "../document/plan";
import { boxScreen } from "../prediction/boxScreen";
import { rulesOfBox } from "../box/rulesOfBox";
import { boxWith, withDrive, withRules } from "../testing/boxWith";
import { numbered } from "../testing/anySteps";
import { nominalBytes } from "../bytes/nominalBytes";
import { likelySeed, likelyWalk } from "../testing/likelyPlan";
import { attach, pull, widen } from "../testing/stepsInShort";
import { cardOf, type Card } from "./card";
import { checkDrive } from "./driveCheck";
import { expectedSize } from "./expectedSize";
import { seenSize } from "./seenSize";
import { stepNow } from "./stepNow";

/** Three 4 TB drives of RAID 5 in a box of four bays, and an 8 TB drive on the shelf. */
function box(steps: Parameters<typeof numbered>[1], rules: Parameters<typeof withRules>[1] = {}): Plan {
  const plan = boxWith("classic-raid", "raid5", [4, 4, 4], [8], {}, 4);
  const drives = plan.drives.map((drive, i) => ({ ...drive, serial: i < 3 ? `ORL-441${i + 1}` : "TRE-9981" }));
  return numbered(withRules({ ...plan, drives }, rules), steps);
}

const plainly = (text: string) => text.replaceAll("\u00a0", " ");
const said = ({ acts }: Card) => ({ first: acts.first.map(plainly), last: acts.last.map(plainly) });

describe("what is done at the box, in order", () => {
  test("a drive pulled and replaced in a box that has to be off", () => {
    const card = cardOf(box([pull("d1", "x1")], { swapping: "power-off", replacing: "pull-first" }), "s1", "TB")!;
    expect(said(card)).toEqual({
      first: [
        "Switch the box off, and wait until its lights are out.",
        "Pull the 4 TB drive (…4411) out of bay 1.",
        "Put the 8 TB drive (…9981) into bay 1.",
        "Switch the box on again, and wait until it answers.",
        "Tell the box to rebuild onto the 8 TB drive in bay 1 (…9981), if it does not begin by itself.",
      ],
      last: [],
    });
    expect(card.checks).toMatchObject([
      { drive: "d1", why: "pulled", bay: 1 },
      { drive: "x1", why: "erased", bay: 1 },
    ]);
    expect(card.atHand.map(plainly)).toEqual(["The 8 TB drive from the shelf (…9981)"]);
    expect(card.where).toBe("box");
    expect(card.never.join(" ")).toMatch(/Pull no drive: meanwhile, one more failed drive would lose data/);
    expect(card.size).toMatchObject({ same: true });
  });

  test("with the old drive still in, it is pulled only when the copy has ended", () => {
    const card = cardOf(box([attach("d1", "x1")], { swapping: "stop-pool", replacing: "old-attached" }), "s1", "TB")!;
    expect(said(card).first.slice(0, 3)).toEqual([
      "Stop the pool on the box.",
      "Put the 8 TB drive (…9981) into bay 4.",
      "Start the pool again.",
    ]);
    expect(said(card).last).toEqual([
      "Stop the pool on the box.",
      "Pull the 4 TB drive (…4411) out of bay 1.",
      "Start the pool again.",
    ]);
    expect(card.checks).toMatchObject([
      { drive: "d1", why: "pulled", bay: 1 },
      { drive: "x1", why: "erased", bay: 4 },
    ]);
    expect(card.never.join(" ")).not.toMatch(/initialise/);
  });

  test("of any plan: each drive that moves is named once, with its bay; whatever is erased is checked", () => {
    fc.assert(
      fc.property(likelySeed, ([seed, steps]) => {
        const { plan } = likelyWalk(seed, steps);
        for (const { id } of plan.steps.slice(0, 1)) {
          const [card, now] = [cardOf(plan, id, "TB")!, stepNow(plan, id, "TB")!];
          const [before, after] = [now.before.state.plan.drives, now.after.state.plan.drives];
          const acts = [...card.acts.first, ...card.acts.last];
          for (const drive of before) {
            const then = after.find((each) => each.id === drive.id)!;
            const [from, to] = [drive.place, then.place].map((place) => ("bay" in place ? place.bay : null));
            if (from === to) continue;
            const ends =
              to === null
                ? `out of bay ${from}.`
                : from === null
                  ? `into bay ${to}.`
                  : `from bay ${from} to bay ${to}.`;
            expect(acts.filter((act) => act.endsWith(ends))).toHaveLength(1);
            // Whoever pulls a drive makes sure of it first.
            if (to === null) expect(card.checks.map((check) => check.drive)).toContain(drive.id);
          }
          expect(card.checks.map(({ drive }) => drive)).toEqual(expect.arrayContaining(now.walked.cost.erased));
          expect(card.blocks.length > 0).toBe(!now.walked.done && !now.step.disabled);
        }
      }),
      { numRuns: 80 },
    );
  });
});

describe("is it this drive?", () => {
  const plan = box([pull("d1", "x1")]);
  const [old, next] = cardOf(plan, "s1", "TB")!.checks as [never, never];
  test("the last four characters are enough, in any case and with what stands between them", () => {
    expect(checkDrive(old, "4411", plan, "TB")).toEqual({ ok: true });
    expect(checkDrive(next, " tre-9981 ", plan, "TB")).toEqual({ ok: true });
  });
  test("another drive of the plan stops it and is named; so does one that is in no plan", () => {
    expect(checkDrive(next, "4412", plan, "TB")).toMatchObject({ message: expect.stringMatching(/^Stop: .*bay 2/) });
    expect(checkDrive(next, "0000", plan, "TB")).toMatchObject({ message: expect.stringMatching(/not the drive/) });
    expect(checkDrive(next, "81", plan, "TB")).toMatchObject({ message: expect.stringMatching(/last 4/) });
    // Four characters out of the middle are not its end.
    expect(checkDrive(next, "TRE-99", plan, "TB").ok).toBe(false);
  });
  test("what the box prints of it does as well, where it names this drive alone", () => {
    const printed = (...serials: string[]) =>
      JSON.stringify(
        serials.map((serial) => ({ name: "/dev/sdx", model: "Torreblanca 8000", serial_number: serial, size: 8e12 })),
      );
    expect(checkDrive(next, printed("TRE-9981"), plan, "TB")).toEqual({ ok: true });
    expect(checkDrive(next, printed("ORL-4412"), plan, "TB")).toMatchObject({
      message: expect.stringMatching(/^Stop: .*bay 2/),
    });
    expect(checkDrive(next, printed("TRE-9981", "ORL-4412"), plan, "TB")).toMatchObject({
      message: expect.stringMatching(/several/),
    });
    expect(checkDrive(next, printed("ZZZ-0000"), plan, "TB")).toMatchObject({
      message: expect.stringMatching(/no drive of the plan/),
    });
  });

  test("of a new drive the serial number is taken over, unless it is that of another", () => {
    const { serial: _serial, ...fresh } = plan.drives.find(({ id }) => id === "x1")!;
    const bought = {
      ...plan,
      drives: plan.drives.map((drive) => (drive.id === "x1" ? { ...fresh, toBuy: true } : drive)),
    };
    const check = cardOf(bought as Plan, "s1", "TB")!.checks[1]!;
    expect(checkDrive(check, " TRE-7777 ", bought as Plan, "TB")).toEqual({ ok: true, serial: "TRE-7777" });
    expect(checkDrive(check, "ORL-4412", bought as Plan, "TB")).toMatchObject({
      message: expect.stringMatching(/bay 2.*not a new drive/),
    });
  });
});

describe("seen and predicted", () => {
  test("what the box's screen shows is as predicted, with its unit and without, on any plan", () => {
    fc.assert(
      fc.property(likelySeed, ([seed, steps]) => {
        const { plan } = likelyWalk(seed, steps);
        const id = plan.steps[0]!.id;
        const card = cardOf(plan, id, "TB")!;
        if (!card.size) return;
        expect(seenSize(card.size.shown, plan, id, "TB").kind).toBe("as-predicted");
        expect(seenSize(card.size.shown.replace(/\s?[A-Za-z]+$/, ""), plan, id, "TB").kind).toBe("as-predicted");
      }),
      { numRuns: 60 },
    );
  });

  /** The figure that the box would show if it were otherwise than the plan says. */
  function shownBy(plan: Plan, id = "s1"): string {
    const now = stepNow(plan, id, "TB")!;
    const rules = rulesOfBox(plan);
    return boxScreen(expectedSize(now.before.state.plan, now.after.state.plan, rules)!.bytes, rules);
  }

  const wide = box([widen("x1")]);
  const chunks = numbered(boxWith("chunk-copies", "copies-2", [4, 4, 4], [8]), [widen("x1")]);
  test.each<[string, Plan, Plan, RegExp]>([
    [
      "other units",
      withRules(wide, { sizesShown: "decimal" }),
      withRules(wide, { sizesShown: "binary-printed-as-decimal" }),
      /same size/,
    ],
    [
      "a reserve",
      wide,
      withRules(wide, { poolReserveShare: 0.031, poolReserveMaxBytes: null }),
      /keeps [\d.]+.% of its pools/,
    ],
    ["a smaller drive", chunks, withDrive(chunks, "x1", { bytes: nominalBytes(6000) }), /6.TB: look at its label/],
  ])("%s explain a difference, and with the plan so changed it is as predicted", (_, plan, real, words) => {
    const typed = shownBy(real);
    const seen = seenSize(typed, plan, "s1", "TB");
    if (seen.kind !== "differs") throw new Error(`${typed}: ${seen.message}`);
    const explained = seen.explanations.find(({ message }) => words.test(message));
    expect(explained?.mend).toBeDefined();
    const changed = applyCommand(plan, explained!.mend!.command);
    if (!changed.ok) throw new Error(changed.reason);
    expect(seenSize(typed, changed.plan, "s1", "TB").kind).toBe("as-predicted");
  });

  test("a step of growing that was forgotten shows the size from before", () => {
    const { before } = stepNow(wide, "s1", "TB")!;
    const typed = boxScreen(before.capacities.pool, rulesOfBox(wide));
    const seen = seenSize(typed, wide, "s1", "TB");
    if (seen.kind !== "differs") throw new Error(seen.message);
    expect(seen.explanations[0]?.message).toMatch(/size from before/);
  });

  test("what is no size says how to type it", () => {
    expect(seenSize("about ten", wide, "s1", "TB")).toMatchObject({
      kind: "unclear",
      message: expect.stringMatching(/like/),
    });
    expect(seenSize("7.3 furlongs", wide, "s1", "TB").kind).toBe("unclear");
  });
});
