import { driveOf } from "../box/find";
import { selfTestRate } from "../drives/rates";
import { hoursFor } from "../time/hours";
import { capital } from "../words/capital";
import { missingDrives, named } from "./checks";
import { offerFor } from "./stepMenu";
import { noCost, type StepModule } from "./stepModule";

/** An extended self-test of a drive. */
export const testDrive: StepModule<"test-drive"> = {
  kind: "test-drive",
  name: "Test a drive",
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
  check: ({ plan }, step) => missingDrives(plan, [step.drive]),
  apply: (state, step) => ({ ...state, tested: new Set([...state.tested, step.drive]) }),
  cost: ({ plan }, _after, step) => {
    const drive = driveOf(plan, step.drive);
    return noCost(
      drive
        ? {
            hours: hoursFor(drive.bytes, selfTestRate(drive)),
            work: [{ drive: drive.id, reads: drive.bytes, writes: 0 }],
          }
        : {},
    );
  },
  say: ({ plan }, step, setting) => ({
    does: `${capital(named(plan, step.drive, setting))} gets an extended self-test.`,
    why: "A drive that is bad from the start shows now, and not when your data is on it.",
  }),
};
