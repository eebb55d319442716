import type { Command } from "../document/command";

/** How much a finding weighs: *block* must be mended before the work, *warn* should be, *note* is good to know. */
export type Severity = "block" | "warn" | "note";

/** Something that the core has to say about a plan. Expected problems are findings, never exceptions. */
export interface Finding {
  /** A stable name for programs, in kebab-case. */
  code: string;
  severity: Severity;
  /** One or two sentences for the owner: what is wrong, where, and what to do. */
  message: string;
  /** Ids of the drives concerned, in the order of the plan. */
  drives: string[];
  /** Where in the plan document, as an RFC 6901 JSON pointer. */
  pointer?: string;
  /** A command that mends it, with the words for its button. */
  mend?: { label: string; command: Command };
}

const WEIGHT: Record<Severity, number> = { block: 0, warn: 1, note: 2 };

/** The findings with the weightiest first; those of one weight keep their order. */
export function byWeight(findings: readonly Finding[]): Finding[] {
  return [...findings].sort((a, b) => WEIGHT[a.severity] - WEIGHT[b.severity]);
}
