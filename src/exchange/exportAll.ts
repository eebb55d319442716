import type { Plan } from "@/core/document/plan";

/**
 * All plans as the text of one file, which is brought back like that of a single plan.
 *
 * @example writePlans([plan]) // '{ "format": "cortijo-plans", "version": 1, "plans": [ … ] }'
 */
export function writePlans(plans: readonly Plan[]): string {
  return `${JSON.stringify({ format: "cortijo-plans", version: 1, plans }, null, 1)}\n`;
}

/** The name of such a file, by its day as YYYY-MM-DD. */
export const plansFileName = (day: string): string => `all-plans-${day}.cortijo.json`;
