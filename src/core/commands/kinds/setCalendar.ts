import type { CommandModule } from "../commandModule";

/** When the plan is carried out; null takes the calendar away. */
export const setCalendar: CommandModule<"set-calendar"> = {
  apply: (plan, command) => {
    if (command.calendar === null) delete plan.calendar;
    else plan.calendar = command.calendar;
  },
  describe: ({ calendar }, plan) => {
    if (calendar === null) return "removed the calendar";
    return plan.calendar ? "changed the calendar" : "gave the plan a calendar";
  },
};
