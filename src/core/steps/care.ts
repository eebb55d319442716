import { formatBytes } from "../bytes/formatBytes";
import { hoursFor } from "../time/hours";
import { selfTestRate, sequentialRate, VERIFY_SHARE } from "../time/rates";
import { NETWORKS } from "../time/speed";
import { bandsOfPool, changed, driveOf, drivesOf, isFree, occupied, poolOf, storedIn } from "./box";
import { capital, missingDrives, missingPool, named } from "./checks";
import { against, noCost, type StepModule } from "./stepModule";

// Steps that change nothing about the pools, but about how much may be relied on.

/** An extended self-test of a drive. */
export const testDrive: StepModule<"test-drive"> = {
  kind: "test-drive",
  name: "Test a drive",
  check: ({ plan }, step) => missingDrives(plan, [step.drive]),
  apply: (state, step) => ({ ...state, tested: new Set([...state.tested, step.drive]) }),
  cost: ({ plan }, _after, step) => {
    const drive = driveOf(plan, step.drive);
    return noCost(drive ? { hours: hoursFor(drive.bytes, selfTestRate(drive)), work: [{ drive: drive.id, reads: drive.bytes, writes: 0 }] } : {});
  },
  say: ({ plan }, step, setting) => ({ does: `${capital(named(plan, step.drive, setting))} gets an extended self-test.`, why: "A drive that is bad from the start shows now, and not when your data is on it." }),
};

/** A drive overwritten from end to end. */
export const wipeDrive: StepModule<"wipe-drive"> = {
  kind: "wipe-drive",
  name: "Wipe a drive",
  check: ({ plan }, step, setting) => [
    ...missingDrives(plan, [step.drive]),
    ...(driveOf(plan, step.drive) && !isFree(plan, step.drive) ? [against("block", "drive-in-use", `${capital(named(plan, step.drive, setting))} is in use at this moment and cannot be wiped.`, [step.drive])] : []),
    ...(driveOf(plan, step.drive)?.contents?.kind === "system" ? [against("block", "system-drive", "The running system is on that drive.", [step.drive])] : []),
  ],
  apply: (state, step) =>
    changed(state, (plan) => {
      const drive = driveOf(plan, step.drive);
      if (drive) delete drive.contents;
    }),
  cost: ({ plan }, _after, step) => {
    const drive = driveOf(plan, step.drive);
    return noCost(drive ? { hours: hoursFor(drive.bytes, sequentialRate(drive)), erased: [drive.id], work: [{ drive: drive.id, reads: 0, writes: drive.bytes }], undoable: false } : {});
  },
  say: ({ plan }, step, setting) => ({ does: `${capital(named(plan, step.drive, setting))} is overwritten from end to end.`, why: "Nothing of what was on it can be read afterwards." }),
};

/** Everything read and compared with its copies or parity. */
export const verify: StepModule<"verify"> = {
  kind: "verify",
  name: "Verify (scrub)",
  check: ({ plan }, step) => missingPool(plan, step.pool),
  apply: (state) => state,
  cost: ({ plan }, _after, step, { rules }) => {
    const pool = poolOf(plan, step.pool);
    if (!pool) return noCost({});
    const used = occupied(bandsOfPool(plan, pool, rules));
    const slowest = Math.max(0, ...drivesOf(plan, [...used.keys()]).map((drive) => (used.get(drive.id) ?? 0) / sequentialRate(drive)));
    return noCost({ hours: hoursFor(Math.round(slowest * 1e6), 1e6 * VERIFY_SHARE), work: [...used].map(([drive, bytes]) => ({ drive, reads: bytes, writes: 0 })), online: "slower" });
  },
  say: ({ plan }, step) => ({ does: `All of ${poolOf(plan, step.pool)?.name ?? "the pool"} is read and compared with its copies or parity.`, why: "An unreadable sector shows while there is still redundancy to mend it." }),
};

/** A full copy of a pool's data somewhere else. */
export const backUp: StepModule<"back-up"> = {
  kind: "back-up",
  name: "Back up",
  check: ({ plan }, step, { family }) => [
    ...missingPool(plan, step.pool),
    ...(poolOf(plan, step.pool)?.volumes.some((volume) => volume.usedBytes === undefined) ? [against("note", "stored-not-known", `How much is stored is not known for every volume; the hours are for all that they have (${formatBytes(storedIn(poolOf(plan, step.pool) ?? { id: "", name: "", groups: [], spares: [], volumes: [] }), family)}).`)] : []),
  ],
  apply: (state, step) => ({ ...state, backedUp: new Set([...state.backedUp, step.pool]) }),
  cost: ({ plan }, _after, step) => {
    const pool = poolOf(plan, step.pool);
    return noCost({ hours: hoursFor(pool ? storedIn(pool) : 0, step.rate ?? NETWORKS[0].rate), online: "slower" });
  },
  say: ({ plan }, step) => ({ does: `All data of ${poolOf(plan, step.pool)?.name ?? "the pool"} is copied to ${step.to || "another place"}, and the copy checked.`, why: "What follows rewrites or risks it." }),
};
