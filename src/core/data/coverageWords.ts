import type { Plan } from "../document/plan";
import { oneOrMany } from "../words/counted";
import type { Outcome, Threat } from "./coverage";

/** What may happen, as a heading. */
export const THREAT_NAMES: Record<Threat, string> = {
  "one-failure": "One drive fails",
  "two-failures": "Two drives fail",
  "theft-or-fire": "Theft or fire",
  deletion: "Deletion by mistake",
};

const days = (count: number) => oneOrMany(count, "a day", "days");

/**
 * An outcome in a few words.
 *
 * @example outcomeWords({ kind: "kept" }, plan) // "nothing is lost"
 */
export function outcomeWords(outcome: Outcome, plan: Pick<Plan, "backups">): string {
  const name = (id: string) => plan.backups?.find((backup) => backup.id === id)?.name ?? "a backup";
  switch (outcome.kind) {
    case "kept":
      return "nothing is lost";
    case "from-backup":
      return outcome.share < 1
        ? `in ${Math.round(outcome.share * 100)} % of cases lost, then restored from ${name(outcome.backup)} as ` +
            `it was up to ${days(outcome.days)} earlier`
        : `restored from ${name(outcome.backup)} as it was up to ${days(outcome.days)} earlier`;
    case "until-next-copy":
      return (
        `restored from ${name(outcome.backup)}, but only if you notice before the next backup ` +
        `(${days(outcome.days)} at most)`
      );
    case "partly":
      return `lost in ${Math.round(outcome.share * 100)} % of cases`;
    case "since-update":
      return "what came after the last update of the parity is lost, and nothing else";
    case "failed-drives":
      return (
        `${outcome.share < 1 ? `in ${Math.round(outcome.share * 100)} % of cases ` : ""}what is on the failed ` +
        "drives is lost, and nothing else"
      );
    case "lost":
      return "lost";
  }
}
