import type { LayoutId } from "../document/plan";

/** Something that no text prints: proposed where there is a reason to, and asked. */
export interface Question {
  /** The array, file system or group of drives that it is about, by a name that does not change between readings. */
  id: string;
  /** What is asked, with what it is about. */
  asks: string;
  choices: { value: string; label: string }[];
  /** What is taken until it is answered; null where there is no reason to take anything. */
  guess: string | null;
  /** Why it is guessed; empty where nothing is. */
  because: string;
}

/** What the owner has answered, by the questions' ids. */
export type Answers = Readonly<Record<string, string>>;

/** The answer that leaves something as it is on its drives, without a pool. */
export const LEAVE_OUT = "leave-out";

/** Layouts as answers. */
export const layoutChoices = (layouts: readonly { id: LayoutId; name: string; shortName: string }[]) =>
  layouts.map(({ id, name, shortName }) => ({ value: id, label: `${shortName}: ${name}` }));
