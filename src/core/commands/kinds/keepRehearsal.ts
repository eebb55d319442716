import { freeId } from "../../records/freeId";
import type { CommandModule } from "../commandModule";
import { refuse } from "../refusal";

/** As the schema has it. */
const MOST_REHEARSALS = 30;

/** A rehearsal kept with the plan, or changed where its id is there. */
export const keepRehearsal: CommandModule<"keep-rehearsal"> = {
  apply: (plan, { rehearsal }) => {
    const kept = (plan.rehearsals ??= []);
    const at = kept.findIndex(({ id }) => id === rehearsal.id);
    if (rehearsal.id !== undefined && at < 0) refuse("That rehearsal is no longer in the plan.");
    if (at < 0 && kept.length >= MOST_REHEARSALS)
      refuse(`A plan keeps at most ${MOST_REHEARSALS} rehearsals: remove one first.`);
    const id =
      rehearsal.id ??
      freeId(
        "r",
        kept.map((each) => each.id),
      );
    kept.splice(at < 0 ? kept.length : at, 1, { ...rehearsal, id });
  },
  describe: ({ rehearsal }) => `${rehearsal.id === undefined ? "kept" : "renamed"} the rehearsal “${rehearsal.name}”`,
};

/** A kept rehearsal taken out of the plan. */
export const removeRehearsal: CommandModule<"remove-rehearsal"> = {
  apply: (plan, { rehearsal }) => {
    const kept = plan.rehearsals ?? [];
    const at = kept.findIndex(({ id }) => id === rehearsal);
    if (at < 0) refuse("That rehearsal is no longer in the plan.");
    kept.splice(at, 1);
    if (kept.length === 0) delete plan.rehearsals;
  },
  describe: ({ rehearsal }, { rehearsals = [] }) =>
    `removed the rehearsal “${rehearsals.find(({ id }) => id === rehearsal)?.name ?? ""}”`,
};
