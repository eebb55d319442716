import type { Drive } from "../document/plan";
import { bayOf } from "./drive";

/**
 * Drives in the one order in which every list has them: by bay, then those on the shelf as the shelf has them.
 *
 * @example inOrder([shelved, inBay2, inBay1]) // [inBay1, inBay2, shelved]
 */
export const inOrder = (drives: readonly Drive[]): Drive[] =>
  [...drives].sort((a, b) => (bayOf(a) ?? Infinity) - (bayOf(b) ?? Infinity) || 0);
