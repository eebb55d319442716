import type { Drive, Plan } from "@/core/document/plan";
import type { RunningKind } from "@/core/reading/printedBox";
import type { Running } from "@/core/simulator/doing";
import type { Practice } from "@/core/simulator/practice";
import { secondsOf } from "@/core/simulator/run";
import type { SimDrive } from "@/core/simulator/simulatedBox";
import type { Op } from "@/core/simulator/work";
import { printBox, type BoxText, type PrintedWork } from "../boxText/printBox";
import { afterStep, planOfPractice } from "@/core/rehearsal/planOfPractice";

/** What a simulated box prints at a moment, as a real one's operating system does. */
export interface PracticeFace extends BoxText {
  /** What each drive that answers prints of its health. */
  smart: object[];
}

/** What the kernel calls work on blocks; what is not work on arrays it does not print. */
const PRINTED: Partial<Record<Op["kind"], RunningKind>> = {
  fill: "recovery",
  copy: "recovery",
  agree: "resync",
  rewrite: "reshape",
  restripe: "reshape",
  "move-off": "reshape",
  check: "check",
};

/** Work that is under way, as the box prints it: on the group that is worked on. */
function printedWork(running: Running, plan: Plan): PrintedWork[] {
  const phase = running.phases[running.phase];
  const kind = phase && PRINTED[phase.op.kind];
  if (!phase || !kind) return [];
  const { op } = phase;
  const groups = "group" in op ? [op.group] : "pool" in op ? groupsOf(plan, op.pool) : [];
  const { step } = running;
  const places = "by" in step && "drive" in step ? { by: step.by, drive: step.drive } : {};
  const isIn = op.kind === "rewrite" || op.kind === "fill";
  const brings = isIn && "drives" in step ? { joins: step.drives ?? [] } : {};
  const becomes = isIn && "layout" in step ? { becomes: step.layout } : {};
  const left = secondsOf(running) - running.passed;
  return groups.map((group) => ({
    group,
    kind,
    done: Math.min(1, running.passed / phase.seconds),
    minutesLeft: Math.max(0, left / 60),
    ...places,
    ...brings,
    ...becomes,
  }));
}

const groupsOf = (plan: Plan, pool: string): string[] =>
  plan.pools.find(({ id }) => id === pool)?.groups.map(({ id }) => id) ?? [];

/** How the kinds of bus are printed, and where each has the counts of its drives. */
const PROTOCOL: Record<Drive["bus"], string> = { sata: "ATA", usb: "ATA", sas: "SCSI", nvme: "NVMe" };

/** What a drive has counted of itself; a sector counts as pending once it cannot be read. */
function countsOf({ is, unreadable }: SimDrive): object {
  const { reallocatedSectors = 0, pendingSectors = 0 } = is.health;
  const pending = pendingSectors + (unreadable?.size ?? 0);
  const row = (id: number, name: string, value: number) => ({ id, name, raw: { value } });
  if (is.bus === "nvme") return { nvme_smart_health_information_log: { media_errors: reallocatedSectors + pending } };
  if (is.bus === "sas") return { scsi_grown_defect_list: reallocatedSectors + pending };
  const table = [row(5, "Reallocated_Sector_Ct", reallocatedSectors), row(197, "Current_Pending_Sector", pending)];
  return { ata_smart_attributes: { table } };
}

/** What a drive prints of itself. */
function smartOf(drive: SimDrive): object {
  const { is, bytes } = drive;
  const { powerOnHours, state } = is.health;
  return {
    smartctl: { version: [7, 4] },
    device: { name: is.id, protocol: PROTOCOL[is.bus] },
    model_name: is.model ?? is.label,
    serial_number: is.serial ?? is.id,
    user_capacity: { bytes },
    logical_block_size: is.logicalSector,
    physical_block_size: is.physicalSector,
    rotation_rate: is.medium === "ssd" ? 0 : 7200,
    smart_status: { passed: state !== "failing" },
    ...(powerOnHours === undefined ? {} : { power_on_time: { hours: powerOnHours } }),
    ...countsOf(drive),
  };
}

/** What the drives that are in the box and answer print of their health, one after the other. */
export const practiceSmart = ({ box }: Practice): object[] =>
  box.drives.filter(({ state, bay }) => state === "works" && bay !== null).map(smartOf);

/**
 * What a box on which a plan is tried prints now: its devices, its arrays with what is under way, and the health of the
 * drives that are in it and answer.
 *
 * @param plan with which the practice was begun
 * @example practiceFace(plan, practice).arrays // "Personalities : … [UU_] … recovery = 37.0% …"
 */
export function practiceFace(plan: Plan, practice: Practice): PracticeFace {
  // What is made for the first time stands there while it is filled.
  const filled = practice.running.filter(({ phases, phase }) => phases[phase]?.op.kind === "agree");
  const now = filled.reduce((then, { step }) => afterStep(then, step), planOfPractice(plan, practice));
  // Of work that stands still the kernel prints nothing.
  const work = practice.running.flatMap((running) => (practice.stands(running) ? [] : printedWork(running, now)));
  return {
    ...printBox(now, work),
    smart: practiceSmart(practice),
  };
}
