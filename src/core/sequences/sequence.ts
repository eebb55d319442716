import type { Bytes } from "../bytes/bytes";
import type { UnitFamily } from "../bytes/formatBytes";
import type { Box, BoxRules, Drive, LayoutId, Plan, StepBody } from "../document/plan";
export type SequenceId =
  | "one-by-one"
  | "one-a-year"
  | "mirror-to-parity"
  | "hybrid-two"
  | "second-parity"
  | "larger-parity"
  | "extra-group"
  | "through-backup"
  | "protect-drive"
  | "mirror-onto-large";

/** What is done for safety, or left out. */
export interface Variants {
  /** Keep the old drive attached while its replacement is filled, instead of pulling it first. */
  attached: boolean;
  /** Pull several drives at once, and fill the new ones in one go, where enough may be missing. */
  together: boolean;
  /** Put in a hot spare before anything else. */
  spareFirst: boolean;
  /** Test new drives before they join. */
  test: boolean;
  backUp: boolean;
  verify: boolean;
  /** Claim the space, grow the volume and the file system, whenever there is more. */
  grow: boolean;
}

/** What is wished of a sequence; each reads what it asks for. */
export interface Wish {
  pool: string;
  group: string;
  /** The drives that are to be changed, mirrored, or made into something. */
  drives: string[];
  /** The size of the drives that come. */
  bytes: Bytes;
  /** A drive that is there and is to be used, also if it holds something; null to take a free one, or buy one. */
  by: string | null;
  /** How many drives, or years. */
  count: number;
  layout: LayoutId;
  box: Box | null;
  variants: Variants;
}

/** The questions that a sequence asks, in the order in which they are asked. */
export type Question = "group" | "drives" | "by" | "size" | "count" | "years" | "layout" | "box";

/** What a sequence is worked out for. */
export interface SequenceSetting {
  /** The box at the moment at which the sequence begins. */
  plan: Plan;
  /** The whole document: new ids keep clear of everything in it. */
  document: Plan;
  rules: BoxRules;
  family: UnitFamily;
  /** The day on which it begins, as YYYY-MM-DD. */
  day: string;
}

/** The steps that a sequence comes to, and the drives to be bought for them; or why it cannot be done. */
export type Made =
  | {
      ok: true;
      does: string;
      steps: StepBody[];
      buys: Drive[];
      /** In which order, and why, where there is a choice. */ order?: string;
    }
  | { ok: false; reason: string };

/** What can be answered to the questions. */
export interface Answers {
  groups?: string[];
  drives?: string[];
  layouts?: LayoutId[];
  /** At least so large, in bytes. */
  leastBytes?: Bytes;
  counts?: number[];
  /** Drives that could be used, also if they hold something. */
  bys?: string[];
}

/** A ready-made sequence of steps, for what owners say they want. */
export interface Sequence {
  id: SequenceId;
  name: string;
  /** In the owner's words. */
  says: string;
  asks: Question[];
  /** The variants that matter to it. */
  variants: (keyof Variants)[];
  /** A wish to begin with, or why it is nothing for this box, in a sentence. */
  begin: (setting: SequenceSetting) => Wish | { cannot: string };
  /** What can be chosen, given what is wished so far. */
  answers: (wish: Wish, setting: SequenceSetting) => Answers;
  make: (wish: Wish, setting: SequenceSetting) => Made;
}

/** A sequence to begin with, and what is wished of it already. */
export interface FirstWish {
  sequence: SequenceId;
  wish: Partial<Wish>;
}

export const isWish = (begun: Wish | { cannot: string }): begun is Wish => !("cannot" in begun);
export const cannot = (reason: string): { ok: false; reason: string } => ({ ok: false, reason });
