import type { UnitFamily } from "@/core/bytes/formatBytes";
import type { Plan } from "@/core/document/plan";
import type { Trouble } from "@/core/rehearsal/stage";
import { driveWords } from "./mishapWords";

/**
 * What has gone wrong, in a sentence.
 *
 * @example troubleWords({ kind: "gone", drive: "d2", state: "failed" }, plan, labelOf, "TB")
 * // "The drive 4 TB, bay 2 (TJ4-0422) has died."
 */
export function troubleWords(
  trouble: Trouble,
  plan: Plan,
  labelOf: (step: string) => string,
  unit: UnitFamily,
): string {
  switch (trouble.kind) {
    case "gone":
      return `The drive ${driveWords(plan, trouble.drive, unit)} ${
        trouble.state === "failed" ? "has died." : "is not there any more."
      }`;
    case "refused":
      return `The box refuses a step: ${labelOf(trouble.step)}. ${trouble.why}`.trim();
    case "stopped":
      return `A step could not go on: ${labelOf(trouble.step)}.`;
    case "power-cut":
      return "The power was cut, and is back.";
    case "fire":
      return "The box is gone, with all that was in it.";
    case "deleted": {
      const volume = plan.pools.flatMap(({ volumes }) => volumes).find(({ id }) => id === trouble.volume);
      return `Everything on ${volume?.name || "a volume"} has been deleted.`;
    }
  }
}
