import { checkContents } from "../drives/checks/contents";
import { driveOf, drivesOf } from "../box/find";
import { isAvailable, isFree } from "../box/members";
import { changed } from "../box/state";
import { sequentialRate } from "../drives/rates";
import { hoursFor } from "../time/hours";
import { capital } from "../words/capital";
import { missingDrives, named } from "./checks";
import { offerFor } from "./stepMenu";
import { against, noCost, type StepModule } from "./stepModule";

/** A drive overwritten from end to end. */
export const wipeDrive: StepModule<"wipe-drive"> = {
  kind: "wipe-drive",
  name: "Wipe a drive",
  boxWork: () => "wipe",
  tells: ({ drive }, names) => [`Start the erasing of ${names.drive(drive)}: all of it, once.`],
  handles: (step) => [step.drive],
  besideOthers: true,
  letsOthersBegin: true,
  label: (step, names) => `Wipe ${names.place(step.drive)}`,
  menu: {
    under: "drives",
    title: "Wipe a drive",
    none: "No drive is free",
    offers: ({ plan, unit }) =>
      plan.drives
        .filter((drive) => isAvailable(plan, drive.id))
        .map((drive) => offerFor(drive, unit, { kind: "wipe-drive", drive: drive.id })),
  },
  check: ({ plan }, step, setting) => [
    ...missingDrives(plan, [step.drive]),
    ...(driveOf(plan, step.drive) && !isFree(plan, step.drive)
      ? [
          against(
            "block",
            "drive-in-use",
            `${capital(named(plan, step.drive, setting))} is in use at this moment and cannot be wiped.`,
            [step.drive],
          ),
        ]
      : []),
    ...(driveOf(plan, step.drive)?.contents?.kind === "system"
      ? [against("block", "system-drive", "The running system is on that drive.", [step.drive])]
      : drivesOf(plan, [step.drive]).flatMap((drive) => checkContents(drive, setting.rules, setting.family))),
  ],
  apply: (state, step) =>
    changed(state, (plan) => {
      const drive = driveOf(plan, step.drive);
      if (drive) delete drive.contents;
    }),
  cost: ({ plan }, _after, step) => {
    const drive = driveOf(plan, step.drive);
    return noCost(
      drive
        ? {
            hours: hoursFor(drive.bytes, sequentialRate(drive)),
            erased: [drive.id],
            work: [{ drive: drive.id, reads: 0, writes: drive.bytes }],
            undoable: false,
          }
        : {},
    );
  },
  say: ({ plan }, step, setting) => ({
    does: `${capital(named(plan, step.drive, setting))} is overwritten from end to end.`,
    why: "Nothing of what was on it can be read afterwards.",
  }),
};
