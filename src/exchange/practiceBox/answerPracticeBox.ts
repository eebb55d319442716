import type { Plan } from "@/core/document/plan";
import type { Mishap } from "@/core/simulator/mishaps";
import { PRACTICE_BLOCKS } from "@/core/simulator/practiceLog";
import { tryOut } from "@/core/simulator/tryOut";
import { jsonAnswer, type RequestAnswer } from "../prediction/answerRequest";
import { planAsked } from "../prediction/requestBody";
import { practiceFace } from "./practiceFace";
import validatePractice from "./generated/validatePractice.cjs";

/** A request, once its schema has been checked. */
interface Asked {
  seed?: number;
  hours?: number;
  mishaps?: (Mishap & { at: number })[];
  choices?: { steps?: "in-order" | "none"; afterAMishap?: "wait" | "go-on" };
}

/** What a mishap names that the plan does not have. */
function notInPlan(mishap: Mishap, { drives, pools }: Plan): ("drive" | "pool" | "volume")[] {
  const has = (some: readonly { id: string }[], id: string) => some.some((each) => each.id === id);
  if ("drive" in mishap) return has(drives, mishap.drive) ? [] : ["drive"];
  if ("pool" in mishap) return has(pools, mishap.pool) ? [] : ["pool"];
  if (!("volume" in mishap)) return [];
  const volumes = pools.flatMap((pool) => pool.volumes);
  return has(volumes, mishap.volume) ? [] : ["volume"];
}

/**
 * Answers a request to `/api/practice-box`: 200 with what a simulated box prints after so many hours, 400 for what is
 * no such request or no plan, 422 for a plan that contradicts itself, or a mishap to what is not in it.
 *
 * @param text the request's body
 * @example answerPracticeBox('{"plan": …, "hours": 30}').status // 200
 */
export function answerPracticeBox(text: string): RequestAnswer {
  const read = planAsked<Asked>(text, validatePractice);
  if (!read.ok) return read.answer;
  const { plan, asked } = read;
  const { seed = 1, hours = 0, mishaps = [], choices = {} } = asked;
  const strange = mishaps.flatMap((mishap, i) => notInPlan(mishap, plan).map((what) => ({ i, what })));
  if (strange.length > 0)
    return jsonAnswer(422, {
      message: `A mishap is to a ${strange[0]?.what} that is not in the plan.`,
      findings: strange.map(({ i, what }) => ({
        pointer: `/mishaps/${i}/${what}`,
        message: `No ${what} of the plan has this id.`,
      })),
    });
  const practice = tryOut(
    plan,
    { blocks: PRACTICE_BLOCKS, seed },
    {
      hours,
      mishaps,
      begins: choices.steps !== "none",
      goesOn: choices.afterAMishap === "go-on",
    },
  );
  try {
    return jsonAnswer(200, { ...practiceFace(plan, practice), hours: practice.box.hours, said: practice.said });
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return jsonAnswer(422, {
      message: `A box of this plan prints nothing that can be read: ${error.message}`,
      findings: [],
    });
  }
}
