import type { LayoutId } from "../document/plan";

/** What an owner should know of a layout before choosing it. That no layout is a backup holds for all. */
export interface Advice {
  goodFor: string;
  costs: string;
  bites: string;
}

/**
 * What each layout is good for, what it costs, and when it bites: a sentence each, for whoever chooses it. They stand
 * apart from the layouts, which every page loads, since they are read only where one asks.
 */
export const ADVICE: Readonly<Record<LayoutId, Advice>> = {
  raid1: {
    goodFor: "Two drives, and data that must be quick to get back: each drive can be read by itself.",
    costs: "All drives but one: of two drives of a size, you get the space of one.",
    bites: "It grows only when every drive of it has been replaced by a larger one.",
  },
  raid10: {
    goodFor:
      "Many small reads and writes at once: databases, virtual machines. Rebuilds are short, since only one " +
      "other drive is read.",
    costs: "Half of the space.",
    bites: "Two failed drives lose everything if they are the two of one pair.",
  },
  raid5: {
    goodFor: "Much space out of three to six drives of the same size, mostly for large files.",
    costs: "The space of one drive, and slow small writes.",
    bites:
      "While a failed drive is rebuilt, often for a day, all the others are read to the end; if one more fails " +
      "then, everything is lost.",
  },
  raid6: {
    goodFor: "Much space out of five to twelve drives of the same size, mostly for large files.",
    costs: "The space of two drives, and slow small writes.",
    bites:
      "A rebuild reads all other drives to the end and takes long. One small drive makes every drive count as small.",
  },
  "triple-parity": {
    goodFor: "Much space out of eight and more drives of the same size, mostly for large files.",
    costs: "The space of three drives, and slow small writes.",
    bites:
      "A rebuild reads all other drives to the end and takes long. One small drive makes every drive count as small.",
  },
  "hybrid-1": {
    goodFor:
      "Drives of mixed sizes in a box that makes such groups: nearly all of every drive is used, and one " +
      "larger drive after the other brings space.",
    costs: "About the space of the largest drive, and slow small writes.",
    bites: "It is made of several arrays: each is rebuilt in turn, and only boxes of this kind can read it.",
  },
  "hybrid-2": {
    goodFor:
      "Drives of mixed sizes in a box that makes such groups: nearly all of every drive is used, and one " +
      "larger drive after the other brings space.",
    costs: "About the space of the two largest drives, and slow small writes.",
    bites: "It is made of several arrays: each is rebuilt in turn, and only boxes of this kind can read it.",
  },
  "parity-drive-1": {
    goodFor:
      "Drives of many sizes that are added one at a time, and files that are read more often than written: " +
      "films, archives.",
    costs:
      "The largest drive, and speed: each file comes from one drive, and where parity is written at once every " +
      "write waits for it.",
    bites: "No data drive can be larger than the parity drive, so larger drives begin with that one.",
  },
  "parity-drive-2": {
    goodFor:
      "Drives of many sizes that are added one at a time, and files that are read more often than written: " +
      "films, archives.",
    costs:
      "The two largest drives, and speed: each file comes from one drive, and where parity is written at once " +
      "every write waits for it.",
    bites: "No data drive can be larger than the parity drive, so larger drives begin with that one.",
  },
  "copies-2": {
    goodFor: "Drives of any sizes that come and go one at a time.",
    costs: "Half of the space.",
    bites: "Any two failed drives can lose data, however many drives there are. It must not be filled to the end.",
  },
  "copies-3": {
    goodFor: "Drives of any sizes that come and go one at a time.",
    costs: "Two thirds of the space.",
    bites: "It must not be filled to the end: it needs space on several drives at once to go on.",
  },
  "chunk-parity": {
    goodFor: "More space than copies give, over drives of any sizes.",
    costs: "The space of its parity chunks, and slow small writes.",
    bites:
      "Every stripe needs as many drives with free space as it is wide, so a new drive alone brings little " +
      "until data is spread again.",
  },
  "mirror-onto-one": {
    goodFor: "Two or three small drives that hold data, and one large drive to protect them with.",
    costs: "The whole large drive.",
    bites: "Whatever the large drive has beyond the small ones stays unused.",
  },
  single: {
    goodFor: "Data that is kept elsewhere too, or a drive that only holds backups.",
    costs: "Nothing: all space is yours.",
    bites: "Whatever was on a failed drive is gone, unless a backup has it.",
  },
  span: {
    goodFor: "Data that can be had again, in one large volume over odd drives.",
    costs: "Nothing: all space is yours.",
    bites: "One failed drive loses the whole, and the more drives, the likelier that is.",
  },
  raid0: {
    goodFor: "Speed for data that can be had again: caches, work files.",
    costs: "No space, but the smallest drive counts for all.",
    bites: "One failed drive loses everything, and the more drives, the likelier that is.",
  },
};
