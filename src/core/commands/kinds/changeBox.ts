import { MOST_BAYS } from "../../document/limits";
import type { Plan } from "../../document/plan";
import { bayOf } from "../../drives/drive";
import { IF_WRONG } from "../../rules/ifWrong";
import type { CommandModule } from "../commandModule";
import { refuse } from "../refusal";
import { rulesOf } from "../../rules/ruleSets";
import { counted } from "../../words/counted";

function setBays(plan: Plan, bays: number): void {
  if (!Number.isInteger(bays) || bays < 1 || bays > MOST_BAYS) refuse(`A box has 1 to ${MOST_BAYS} bays.`);
  const stranded = plan.drives.find((drive) => (bayOf(drive) ?? 0) > bays);
  if (stranded) refuse(`Bay ${bayOf(stranded)} holds a drive. Pull the drives from the bays above ${bays} first.`);
  const { mostDrives } = rulesOf(plan.box.rules);
  if (mostDrives !== null && bays > mostDrives && bays > plan.box.bays)
    refuse(`Your box takes ${counted(mostDrives, "drive")} at most. ${IF_WRONG}`);
  plan.box.bays = bays;
}

/** Another name, number of bays, or rules for the box; a battery supply for it. */
export const changeBox: CommandModule<"change-box"> = {
  apply: (plan, command) => {
    if (command.name !== undefined) plan.box.name = command.name;
    if (command.rules !== undefined) plan.box.rules = command.rules;
    if (command.ups !== undefined) {
      if (command.ups) plan.box.ups = true;
      else delete plan.box.ups;
    }
    if (command.bays !== undefined) setBays(plan, command.bays);
  },
  describe: ({ bays, rules, ups }) => {
    if (bays !== undefined) return `gave the box ${counted(bays, "bay")}`;
    if (ups !== undefined)
      return ups ? "put a battery supply (UPS) before the box" : "took the battery supply (UPS) away";
    return rules ? "changed the box's rules" : "renamed the box";
  },
};
