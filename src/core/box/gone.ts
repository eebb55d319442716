import { isDraft } from "immer";
import type { Drive, Plan, Pool } from "../document/plan";
import { isGone } from "../drives/driveState";

const known = new WeakMap<readonly Drive[], ReadonlySet<string>>();

/**
 * The drives of a plan that have failed or are missing, by their ids: they hold nothing for any pool.
 *
 * @example goneIn({ drives: [{ id: "d2", state: "failed", … }, …] }) // Set { "d2" }
 */
export function goneIn({ drives }: Pick<Plan, "drives">): ReadonlySet<string> {
  const old = isDraft(drives) ? undefined : known.get(drives);
  if (old) return old;
  const gone = new Set(drives.filter(isGone).map(({ id }) => id));
  if (!isDraft(drives)) known.set(drives, gone);
  return gone;
}

/** The drives of a pool's groups that have failed or are missing, in the order of the groups. */
export function goneOf(plan: Pick<Plan, "drives">, pool: Pool): string[] {
  const gone = goneIn(plan);
  return gone.size === 0 ? [] : pool.groups.flatMap((group) => group.drives.filter((id) => gone.has(id)));
}
