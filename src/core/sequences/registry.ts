import { extraGroup } from "./extraGroup";
import { hybridTwo, largerParity, mirrorToParity, secondParity } from "./levels";
import { oneAYear } from "./oneAYear";
import { oneByOne } from "./oneByOne";
import { mirrorOntoLarge, protectDrive } from "./protectDrive";
import type { Sequence, SequenceId } from "./sequence";
import { throughBackup } from "./throughBackup";

/** The ready-made sequences, in the order in which they are offered. A new one is a file and a line here. */
export const sequences: readonly Sequence[] = [
  oneByOne,
  oneAYear,
  extraGroup,
  mirrorToParity,
  hybridTwo,
  secondParity,
  largerParity,
  throughBackup,
  protectDrive,
  mirrorOntoLarge,
];

/** The sequence of an id. */
export function sequenceOf(id: SequenceId): Sequence {
  const found = sequences.find((each) => each.id === id);
  if (!found) throw new RangeError(`No ready-made steps are called ${id}.`);
  return found;
}
