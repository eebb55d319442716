import type { Bytes } from "../bytes/bytes";
import { actsOf, isPair, type Move } from "./acts";
import { type Boxes, boxesOf } from "./boxes";
import type { Instance } from "./instance";
import { beginning, following, type Label } from "./label";

/** What owners do without working it out. */
export const HABITS = ["sameSize", "bestPerTerabyte", "largest"] as const;

export type Habit = (typeof HABITS)[number];

/** A size as it can be bought in a month. */
interface Offer {
  bytes: Bytes;
  cents: number;
}

/** The size that a habit buys in a month, the one to try next first. */
const CHOOSES: Record<Habit, (offers: readonly Offer[], largest: Bytes) => Offer[]> = {
  // The size that one has; where that no longer helps, the next larger.
  sameSize: (offers, largest) => offers.filter(({ bytes }) => bytes >= largest),
  bestPerTerabyte: (offers) => [...offers].sort((a, b) => a.cents / a.bytes - b.cents / b.bytes || a.bytes - b.bytes),
  largest: (offers) => [...offers].reverse(),
};

const boughtIn = ({ act }: Move): readonly { bytes: Bytes }[] =>
  "bought" in act ? (Array.isArray(act.bought) ? act.bought : [act.bought as { bytes: Bytes }]) : [];

/** What is done with drives of one size: a bay more while there is one, else in the place of the smallest. */
function nextMove(moves: readonly Move[], bytes: Bytes): Move | undefined {
  const ofSize = moves.filter((move) => {
    const bought = boughtIn(move);
    return bought.length > 0 && bought.every((kind) => kind.bytes === bytes);
  });
  const replaced = (move: Move): readonly { bytes: Bytes; due: number }[] =>
    move.act.kind === "replace" ? move.act.olds : [];
  return (
    ofSize.find(({ act }) => act.kind === "add") ??
    ofSize.find(({ act }) => act.kind === "further-group") ??
    ofSize
      .filter((move) => replaced(move).some((old) => old.bytes < bytes || old.due < Infinity))
      .sort((a, b) => (replaced(a)[0]?.bytes ?? 0) - (replaced(b)[0]?.bytes ?? 0))[0]
  );
}

/** No habit buys more drives at once. */
const MOST_AT_ONCE = 30;

/** What a habit does in one month until the box suffices again; null where it does not get there. */
function batch(
  label: Label,
  chooses: (offers: readonly Offer[], largest: Bytes) => Offer[],
  instance: Instance,
  acts: ReturnType<typeof actsOf>,
): Label | null {
  const { month } = label;
  let now = label;
  for (let count = 0; count < MOST_AT_ONCE; count += 1) {
    const offers = instance.sold.flatMap(({ bytes, cents }): Offer[] =>
      (cents[month] as number) < Infinity ? [{ bytes, cents: cents[month] as number }] : [],
    );
    const largest = Math.max(0, ...now.box.groups.flatMap(({ kinds }) => kinds.map(({ bytes }) => bytes)));
    const moves = acts(now.box, month);
    const move = chooses(offers, largest).reduce<Move | undefined>(
      (found, { bytes }) => found ?? nextMove(moves, bytes),
      undefined,
    );
    if (!move) return null;
    now = following(now, move);
    if (now.month > month) return now;
  }
  return null;
}

/**
 * What a habit comes to: the box is left alone until it is full, and then gets what the habit says.
 *
 * @returns null where the habit does not last
 * @example habit(workedExample, "sameSize")?.cents // 64 906
 */
export function habitOf(instance: Instance, habit: Habit, boxes: Boxes = boxesOf(instance)): Label | null {
  // A pair is bought as two of a kind, whatever the search may do.
  const acts = actsOf({ ...instance, equalPairs: instance.equalPairs || hasPairs(boxes) }, boxes);
  let label: Label | null = beginning(boxes);
  while (label && label.month < instance.months) label = batch(label, CHOOSES[habit], instance, acts);
  return label;
}

const hasPairs = ({ start }: Boxes): boolean => start.groups.some(isPair);
