import { freeBay } from "../box/bays";
import { driveOf } from "../box/find";
import type { Plan } from "../document/plan";
import { bayOf } from "../drives/drive";
import { selfTestHours } from "../drives/rates";
import { capital } from "../words/capital";
import { missingDrives, named } from "./checks";
import { offerFor } from "./stepMenu";
import { against, noCost, type StepModule } from "./stepModule";

/** On the shelf a drive has no power: it goes into a free bay for the test, or is attached by an adapter. */
function whereTested(plan: Plan, id: string): string {
  const drive = driveOf(plan, id);
  if (!drive || bayOf(drive) !== null) return "";
  const bay = freeBay(plan);
  return bay === null ? "is attached by an adapter and " : `goes into bay ${bay}, or on an adapter, and `;
}

/** An extended self-test of a drive. */
export const testDrive: StepModule<"test-drive"> = {
  kind: "test-drive",
  name: "Test a drive",
  boxWork: () => "self-test",
  tells: ({ drive }, names) => [`Start the extended self-test of ${names.drive(drive)}.`],
  handles: (step) => [step.drive],
  besideOthers: true,
  letsOthersBegin: true,
  label: (step, names) => `Test ${names.place(step.drive)}`,
  menu: {
    under: "drives",
    title: "Test a drive",
    offers: ({ plan, unit }) =>
      plan.drives.map((drive) => offerFor(drive, unit, { kind: "test-drive", drive: drive.id })),
  },
  check: ({ plan }, step) => {
    const drive = driveOf(plan, step.drive);
    if (!drive) return missingDrives(plan, [step.drive]);
    if (bayOf(drive) !== null || freeBay(plan) !== null) return [];
    const message = "No bay is free for the test: attach the drive by an adapter meanwhile, on USB for instance.";
    return [against("note", "test-on-adapter", message, [drive.id])];
  },
  apply: (state, step) => ({ ...state, tested: new Set([...state.tested, step.drive]) }),
  cost: ({ plan }, _after, step) => {
    const drive = driveOf(plan, step.drive);
    return noCost(
      drive
        ? {
            hours: selfTestHours(drive),
            work: [{ drive: drive.id, reads: drive.bytes, writes: 0 }],
          }
        : {},
    );
  },
  say: ({ plan }, step, setting) => ({
    does: `${capital(named(plan, step.drive, setting))} ${whereTested(plan, step.drive)}gets an extended self-test.`,
    why: "A drive that is bad from the start shows now, and not when your data is on it.",
  }),
};
