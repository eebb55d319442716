import type { RuleSetId } from "../document/plan";

/** What somebody is told of a kind of box who has to say which one is most like theirs. */
export interface AboutSet {
  /** A short description: what it does, and what it keeps. */
  description: string;
  /** What such boxes are used for. */
  typical: string;
}

/**
 * What the ready-made sets are told by. It stands apart from the sets, which every page loads, since it is read only
 * where a kind of box is chosen.
 */
export const ABOUT_SETS: Readonly<Record<RuleSetId, AboutSet>> = {
  "classic-raid": {
    description:
      "A box with the plain RAID levels. Every drive of a group counts as large as the smallest. For boxes " +
      "with a RAID controller of their own, which keep nothing of the drives for the system.",
    typical: "Typical of office boxes with a RAID controller, filled with equal drives.",
  },
  "hybrid-box": {
    description:
      "A box that makes use of drives of mixed sizes, cut level into bands. It keeps 10 GiB of every drive for itself.",
    typical: "Typical of home boxes of two to eight bays whose drives were bought at different times.",
  },
  "linux-host": {
    description:
      "A computer that runs the kernel's RAID driver, with the system on a drive of its own. Sizes of its " +
      "arrays are exact to the byte; copies of chunks belong to a file system, which keeps 1 to 1.5 GiB for " +
      "itself besides.",
    typical: "Typical of a home server that its owner set up.",
  },
  "fixed-group": {
    description:
      "Groups keep the number of drives that they were made of. The pool grows by another group, or when all " +
      "drives of a group have been replaced by larger ones and their new space is used. To a mirror, another " +
      "copy can be added. It keeps 1/32 of the pool.",
    typical: "Typical of office boxes that are filled with a set of equal drives, and later with another.",
  },
  "parity-drive": {
    description:
      "Every data drive keeps its own file system; one or two drives hold parity, written at once. No data " +
      "drive may be larger than the parity drive.",
    typical: "Typical of collections of films and music on drives of many sizes.",
  },
  "scheduled-parity": {
    description:
      "Every data drive keeps its own file system; parity is brought up to date by schedule. What came after " +
      "its last update is not protected.",
    typical: "Typical of archives that seldom change, on drives of many sizes.",
  },
  "chunk-copies": {
    description:
      "Any drive at any time: data is kept in chunks of 1 GiB on several drives. After a new drive the pool " +
      "grows at once, then the volume by hand.",
    typical: "Typical of home servers whose drives come and go one at a time.",
  },
  "desktop-mirror": {
    description:
      "A small box with two bays that mirrors one drive onto the other, or uses them separately or end to end. " +
      "It keeps nothing of them for itself. The power is switched off to change a drive.",
    typical: "Typical of a desk at home: the documents and photographs of a household.",
  },
};
