import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";

/** What the parts of Rescue stand on. */
export interface RescueProps {
  plan: Plan;
  act: (command: Command, offersUndo?: boolean) => string | null;
  planHref: string;
}
