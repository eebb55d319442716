import { original } from "immer";
import type { Plan } from "../document/plan";

/**
 * The plan of a draft as it was before the command: what walks it keeps what it finds, and must find no draft, which is
 * gone afterwards.
 */
export const asItWas = (draft: Plan): Plan => original(draft) ?? draft;
