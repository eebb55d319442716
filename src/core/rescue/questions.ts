import { driveOf } from "../box/find";
import { backupsOf } from "../data/stored";
import { nameOfDrive } from "../drives/nameOfDrive";
import type { Condition } from "../failures/condition";
import { gapsOf, insteadOf } from "./gaps";
import type { Instead, RescueChoices, RescueQuestion, RescueSetting } from "./rescue";
import { bestOf, isSame, type Variant, variantsOf } from "./variants";
import { whatFits } from "./whatFits";

/** A label for what takes the place of a drive. */
function insteadWords({ plan, family }: RescueSetting, instead: Instead): string {
  if ("spread" in instead) return "None: spread it over the others";
  if ("buy" in instead) return "A new drive";
  const drive = driveOf(plan, instead.by);
  return drive ? nameOfDrive(drive, family).replace(/^the /, "The ") : "A drive";
}

/** What is open, and what is chosen by now. */
interface Asked {
  setting: RescueSetting;
  condition: Condition;
  choices: RescueChoices;
  best: Variant;
}

/** An answer with what the course that follows from it would cost. */
function answer(
  { setting, condition, choices }: Asked,
  label: string,
  more: RescueChoices,
  chosen: boolean,
): RescueQuestion["options"][number] {
  const then = bestOf(variantsOf(setting, condition, { ...choices, ...more }));
  return {
    label,
    choices: more,
    chosen,
    hours: then?.tried.hours.expected ?? 0,
    bareHours: then?.tried.bareHours ?? 0,
    cannot: then?.tried.blocks[0] ?? null,
  };
}

/** What takes the place of each drive that is gone. */
function aboutInstead(asked: Asked): RescueQuestion[] {
  const { setting, choices, best } = asked;
  return gapsOf(setting).flatMap((gap): RescueQuestion[] => {
    const { id } = gap.old;
    const chosen = best.instead.get(id);
    const others = whatFits(setting, gap.group, gap.old)
      .fits.slice(1, 4)
      .map((drive): Instead => ({ by: drive.id }));
    const options = [...insteadOf(setting, gap), ...others];
    if (options.length < 2 || !chosen) return [];
    return [
      {
        id: "instead",
        drive: id,
        asks: `What takes the place of ${nameOfDrive(gap.old, setting.family)}?`,
        options: options.map((each) =>
          answer(
            asked,
            insteadWords(setting, each),
            { instead: { ...choices.instead, [id]: each } },
            isSame(each, chosen),
          ),
        ),
      },
    ];
  });
}

/** Whether a new drive is tested, where one comes and there is anything left to fill it from. */
function aboutTest(asked: Asked): RescueQuestion[] {
  const { condition, best } = asked;
  if (condition.redundancyLeft < 0 || !best.course.drafts.some(({ what }) => what === "swap")) return [];
  return [
    {
      id: "test",
      drive: null,
      asks: "Test the new drive before it is filled?",
      options: [
        answer(asked, "Test it first", { test: true }, best.test),
        answer(asked, "Fill it at once", { test: false }, !best.test),
      ],
    },
  ];
}

/** From which backup lost files come back, where there are several. */
function aboutFrom(asked: Asked): RescueQuestion[] {
  const { setting, condition, choices, best } = asked;
  const backups = backupsOf(setting.plan, setting.pool.id);
  if (condition.state !== "partly-lost" || backups.length < 2) return [];
  return best.course.drafts.flatMap(({ step }): RescueQuestion[] => {
    if (!step || !("from" in step)) return [];
    const old = driveOf(setting.plan, step.drive);
    return [
      {
        id: "from",
        drive: step.drive,
        asks: `Where does what was on ${old ? nameOfDrive(old, setting.family) : "it"} come back from?`,
        options: backups.map((backup) =>
          answer(asked, backup.name, { from: { ...choices.from, [step.drive]: backup.id } }, step.from === backup.id),
        ),
      },
    ];
  });
}

/** Whether a failing drive is copied while it is in its bay, where the box can do that. */
function aboutAttached(asked: Asked): RescueQuestion[] {
  const replaced = asked.best.course.drafts.find(({ what }) => what === "replace")?.step;
  if (!replaced || !("how" in replaced) || asked.setting.rules.replacing !== "old-attached") return [];
  return [
    {
      id: "attached",
      drive: replaced.drive,
      asks: "Leave the failing drive in its bay while it is copied?",
      options: [
        answer(asked, "Copy it while it is in", { attached: true }, replaced.how === "attached"),
        answer(asked, "Pull it first", { attached: false }, replaced.how === "pulled"),
      ],
    },
  ];
}

/** What is left to choose, each answer with what it costs in hours and exposure. */
export const questionsOf = (asked: Asked): RescueQuestion[] => [
  ...aboutInstead(asked),
  ...aboutTest(asked),
  ...aboutFrom(asked),
  ...aboutAttached(asked),
];
