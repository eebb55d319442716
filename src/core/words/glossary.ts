import type { Term } from "./terms";

/** What each word of the trade means, for an owner who meets it for the first time. */
export const GLOSSARY: Readonly<Record<Term, string>> = {
  RAID:
    "Ways of laying data over several drives so that it survives failures, or is quicker, called by numbers: " +
    "RAID 0 is a stripe, 1 a mirror, 5 single parity, 6 double parity, 10 striped mirrors.",
  mirror: "The same data on two drives or more: each can be read alone.",
  stripe: "Data laid in turn over all drives, a piece on each, so that they are read and written together.",
  parity:
    "What is worked out from the other drives, so that the data of a failed one can be worked out again. It " +
    "takes the space of one drive for each failure that is survived.",
  hybrid:
    "A group of drives of mixed sizes that is cut level: what all have in common is one array, what only the " +
    "larger have another.",
  band:
    "A level piece across several drives that is one array: the lower part of all four drives, for instance, or " +
    "the upper part of the two largest.",
  chunk:
    "A piece of 1 GiB. Some boxes lay data in chunks over whichever drives have space, so that their sizes " +
    "need not match.",
  degraded: "A drive is missing, and all data can still be read. Another failure could be too many: replace it now.",
  rebuild:
    "Filling the drive that replaces a failed one with what was on it, worked out from the others. It takes " +
    "hours to days.",
  scrub:
    "Reading all that is stored and comparing it with its copies or parity, so that damage is found while it " +
    "can still be repaired. Most boxes can do it by schedule.",
  "hot spare": "A drive that waits in the box, empty, and takes the place of a failed one by itself.",
  "first fill":
    "When a group with protection is made, its copies or parity are written once over the whole drives. It can " +
    "be used meanwhile, but is not yet protected.",
  "self-test": "A test that a drive makes of itself, reading its whole surface. It runs in the drive and takes hours.",
  SMART: "What a drive itself counts and reports of its health.",
  "worn-out sectors":
    "Places of a few thousand bytes that the drive gave up and replaced by spare ones. A few are no alarm; " +
    "more and more of them are.",
  "cannot be read":
    "Places whose data the drive cannot read at present (pending sectors). With protection the box writes them " +
    "again from the others.",
  TiB:
    "Drives are sold in TB of 1,000,000,000,000 bytes; many boxes count in TiB of 1,099,511,627,776. The same " +
    "drive of 4 TB shows as 3.64 TiB, and some boxes write TB there.",
  shingled:
    "A way of writing tracks that overlap, so that changing one means writing its neighbours: very slow when a " +
    "drive is rebuilt.",
  "logical sector": "The unit in which a drive is addressed, 512 or 4096 bytes. Many boxes do not mix them in a group.",
  "partition table": "How a drive notes what is where on it. The older way (MBR) ends at 2 TiB.",
  metadata: "Notes that the box or a file system keeps beside the data, on what is where.",
  volume: "A part of the pool that is used like one drive, with a file system on it.",
  "file system": "What keeps files and directories on a volume, and takes a part of it for that.",
  root:
    "The administrator of the box. ext4 keeps a share that only root can fill, so that the system goes on when " +
    "users have filled the rest.",
  UPS: "A battery supply: when the power goes, the box has time to end what it writes.",
  "read cache": "A flash drive that holds what is read often. Nothing is lost when it fails.",
  "write log": "A flash drive that notes what is about to be written, so that it is not lost in a power cut.",
  "landing place": "A small quick pool on which new files land before the box moves them to the large one by schedule.",
  snapshot:
    "The state of a volume at a moment, kept beside the present one. It helps against mistakes, not against " +
    "failed drives.",
  "replacement margin":
    "A little of each drive that stays unused, so that another of the same label that is slightly smaller fits.",
};
