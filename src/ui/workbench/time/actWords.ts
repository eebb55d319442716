import { survivesMeanwhile } from "@/core/words/survives";
import { driveOf } from "@/core/box/find";
import { formatBytes, type UnitFamily } from "@/core/bytes/formatBytes";
import type { Plan } from "@/core/document/plan";
import { nameOfDrive, shortSize } from "@/core/drives/nameOfDrive";
import { layoutOf } from "@/core/layouts/registry";
import type { Act } from "@/core/steps/propose";
import { lengthWords } from "@/core/time/hoursWords";
import { counted } from "@/core/words/counted";
import type { ActTrial } from "./actTrial";

/** An act on the box, as a heading: "Replace the 4 TB drive in bay 2 by the 12 TB drive on the shelf". */
export function actTitle(act: Act, plan: Plan, unit: UnitFamily): string {
  const name = (id: string) => {
    const drive = driveOf(plan, id);
    return drive ? nameOfDrive(drive, unit) : "a drive";
  };
  switch (act.kind) {
    case "replace":
      return `Replace ${name(act.drive)} by ${name(act.by)}`;
    case "join": {
      const sizes = act.drives.map((id) => shortSize(driveOf(plan, id) ?? { bytes: 0 }, unit));
      const pool = plan.pools.find((each) => each.groups.some((group) => group.id === act.group));
      return `${sizes.join(" + ")} for ${pool?.name ?? "the pool"}`;
    }
    case "level":
      return `Change to ${layoutOf(act.layout).shortName}`;
    case "steps":
      return act.title;
    case "pull":
      return `Remove ${name(act.drive)} for good`;
  }
}

/** What it would come to: what stands against it, else how many steps, how long, what changes, what it risks. */
export function trialWords(
  { steps, hours, bareHours, before, after, away, blocks }: ActTrial,
  unit: UnitFamily,
): string {
  const [block] = blocks;
  if (block) return block.message;
  const usable = before === after ? "stays" : `${formatBytes(before, unit)} → ${formatBytes(after, unit)}`;
  const bare = bareHours > 0 ? `; for ${lengthWords(bareHours)}, ${survivesMeanwhile(0)}` : "";
  return `${counted(steps.length, "step")}, ${lengthWords(hours)}. Usable ${usable}${bare}${away ? `; ${away}` : ""}.`;
}
