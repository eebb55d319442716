import { storedIn } from "../box/capacities";
import { poolOf } from "../box/find";
import { formatBytes } from "../bytes/formatBytes";
import { destinationOf as bestDestination } from "../data/destination";
import type { Backup, Plan, StepOf } from "../document/plan";
import { NETWORKS } from "../speeds/speed";
import { hoursFor } from "../time/hours";
import { missingPool } from "./checks";
import { against, besideFilling, noCost, type StepModule } from "./stepModule";

/** What a copy to a drive over USB reaches, in bytes per second: that of a hard disk behind a USB 3 adapter. */
const USB_RATE = 140e6;
/** What a copy over an ordinary line to a service reaches: 50 Mbit/s upwards. */
const LINE_RATE = 50e6 / 8;

const destinationOf = (plan: Plan, step: StepOf<"back-up">): Backup | undefined =>
  plan.backups?.find((backup) => backup.id === step.to);

/** What the way to a backup and back reaches, in bytes per second. */
export const rateTo = (backup: Backup | undefined): number =>
  backup?.kind === "usb-drive" ? USB_RATE : backup?.kind === "service" ? LINE_RATE : NETWORKS[0].rate;

/** The rate of the way there and back, in bytes per second. */
const rateOf = (plan: Plan, step: StepOf<"back-up">): number => step.rate ?? rateTo(destinationOf(plan, step));

/** A full copy of a pool's data somewhere else: to a backup of the plan, or to where the step says in words. */
export const backUp: StepModule<"back-up"> = {
  kind: "back-up",
  name: "Back up",
  boxWork: () => "backup",
  tells: ({ pool, to }, names) => [
    `Start the backup of ${names.pool(pool)} to ${names.backup(to)}: all of it, not only what has changed.`,
  ],
  handles: () => [],
  mayRunBeside: besideFilling,
  // A drive on USB is attached by hand; a copy over the network is begun at the screen.
  attention: (step, { backups }) =>
    backups?.some((backup) => backup.id === step.to && backup.kind === "usb-drive") ? "box" : "screen",
  letsOthersBegin: true,
  label: () => backUp.name,
  menu: {
    under: "pool",
    offers: (pool, { plan }) => [
      { label: "Back up", steps: [{ kind: "back-up", pool: pool.id, to: bestDestination(plan, pool) }] },
    ],
  },
  check: ({ plan }, step, { family }) => {
    const pool = poolOf(plan, step.pool);
    if (!pool) return missingPool(plan, step.pool);
    const stored = storedIn(pool);
    const destination = destinationOf(plan, step);
    return [
      ...(pool.volumes.some((volume) => volume.usedBytes === undefined)
        ? [
            against(
              "note",
              "stored-not-known",
              "How much is stored is not known for every volume; the hours are for all that they have " +
                `(${formatBytes(stored, family)}).`,
            ),
          ]
        : []),
      ...(destination?.bytes !== undefined && destination.bytes < stored
        ? [
            against(
              "block",
              "backup-too-small",
              `${destination.name} holds ${formatBytes(destination.bytes, family)}, and ` +
                `${formatBytes(stored, family)} are stored on ${pool.name || "the pool"}. Choose a larger ` +
                "destination.",
            ),
          ]
        : []),
    ];
  },
  apply: (state, step) => ({ ...state, backedUp: new Map([...state.backedUp, [step.pool, rateOf(state.plan, step)]]) }),
  cost: ({ plan }, _after, step) => {
    const pool = poolOf(plan, step.pool);
    return noCost({
      hours: hoursFor(pool ? storedIn(pool) : 0, rateOf(plan, step)),
      online: "slower",
    });
  },
  say: ({ plan }, step) => ({
    does:
      `All data of ${poolOf(plan, step.pool)?.name ?? "the pool"} is copied to ` +
      `${destinationOf(plan, step)?.name || step.to || "another place"}.`,
    why: "What follows rewrites or risks it.",
  }),
};
