import type { Plan } from "@/core/document/plan";
import { NotLoaded } from "./checking";

/**
 * The plan with which a first visit begins where the browser keeps nothing. It is loaded only there.
 *
 * @throws NotLoaded
 */
export async function demoPlan(): Promise<Plan> {
  try {
    return (await import("@/core/document/samples/clinic")).clinic;
  } catch (error) {
    throw new NotLoaded("The example could not be loaded.", { cause: error });
  }
}
