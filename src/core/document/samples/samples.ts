import type { Plan } from "../plan";
import { choir } from "./choir";
import { clinic } from "./clinic";
import { coveredClinic } from "./coveredClinic";
import { oddDrives } from "./oddDrives";
import { practiceBox } from "./practiceBox";

/** A plan that comes with Cortijo. */
export interface Sample {
  id: string;
  title: string;
  about: string;
  plan: Plan;
  /** Whether a simulated box is set up with it, on which it is carried out. */
  isPractice?: true;
}

/** The plans that come with Cortijo, the one that a first visit opens first. All names are invented. */
export const samples: readonly Sample[] = [
  { id: "clinic", title: "An animal clinic", about: "Six bays, drives of 4 to 12 TB, two bays free", plan: clinic },
  {
    id: "clinic-grows",
    title: "The clinic as it grows",
    about: "Two larger drives, with dates, data and backups",
    plan: coveredClinic,
  },
  { id: "choir", title: "A choir's archive", about: "A mirror that should become a parity group", plan: choir },
  { id: "odd-drives", title: "An old box of odd drives", about: "One of them has just failed", plan: oddDrives },
  {
    id: "practice",
    title: "A practice box",
    about: "Carried out, broken and rescued, with nothing to lose",
    plan: practiceBox,
    isPractice: true,
  },
];
