import { GiB } from "@/core/bytes/bytes";
import type { BoxRules } from "@/core/document/plan";

/** A rule of a kind that has a few plain answers. */
export interface Question<K extends keyof BoxRules = keyof BoxRules> {
  rule: K;
  question: string;
  /** What it is good for, or when it matters. */
  about: string;
  answers: { value: BoxRules[K]; label: string }[];
}

const question = <K extends keyof BoxRules>(
  rule: K,
  text: string,
  about: string,
  answers: [BoxRules[K], string][],
): Question =>
  ({ rule, question: text, about, answers: answers.map(([value, label]) => ({ value, label })) }) as Question;

const MIXING: [BoxRules["mixedMedia"], string][] = [
  ["fine", "Yes"],
  ["note", "Yes, and tell me"],
  ["warn", "Better not"],
  ["block", "No"],
];

/** What is asked about a box, under plain headings. The layouts and their drive counts are asked apart. */
export const QUESTIONS: readonly { heading: string; questions: readonly Question[] }[] = [
  {
    heading: "What it keeps, and what it shows",
    questions: [
      question(
        "systemReserveBytes",
        "How much of every drive does it keep for itself?",
        "Many boxes keep a system partition and swap on every drive.",
        [
          [0, "Nothing"],
          [2 * GiB, "2 GiB"],
          [10 * GiB, "10 GiB"],
          [20 * GiB, "20 GiB"],
        ],
      ),
      question(
        "rightSizeShare",
        "How much of each drive should stay unused, so that a slightly smaller replacement fits?",
        "Two drives of one nominal size can differ by a few MB.",
        [
          [0, "Nothing"],
          [0.001, "0.1 %"],
          [0.005, "0.5 %"],
          [0.01, "1 %"],
        ],
      ),
      question("poolReserveShare", "Does it keep a share of the pool?", "Some systems hold room back to work in.", [
        [0, "No"],
        [0.005, "0.5 %"],
        [1 / 32, "1/32"],
      ]),
      question(
        "arrayFormat",
        "How does it write arrays?",
        "The kernel's RAID driver has its own metadata and chunks; by its rule sizes are exact to the byte.",
        [
          ["plain", "Plain, to the MiB"],
          ["linux-raid", "Linux kernel RAID"],
        ],
      ),
      question(
        "sizesShown",
        "How does its own screen show sizes?",
        "12 TB on the label is 10.91 TiB. Some boxes print “TB” behind that figure.",
        [
          ["decimal", "Decimal (12 TB)"],
          ["binary", "Binary (10.91 TiB)"],
          ["binary-printed-as-decimal", "Binary, printed as TB (10.91 TB)"],
        ],
      ),
      question("system", "Where is its system?", "A system drive is never a member of a group.", [
        ["own-drive", "On a drive of its own"],
        ["on-all-drives", "On all drives"],
      ]),
    ],
  },
  {
    heading: "What it lets into one group",
    questions: [
      question("mixedMedia", "Hard disks together with flash?", "", MIXING),
      question("mixedBuses", "Different interfaces?", "SATA together with SAS.", MIXING),
      question("mixedSectors", "Different logical sector sizes?", "512 bytes together with 4096.", MIXING),
      question("usbMembers", "Drives on USB?", "", MIXING),
      question("joining", "How small a drive may join?", "Decides which drives you can add or use as replacements.", [
        ["as-smallest-member", "As the smallest member"],
        ["as-largest-member", "As the largest member"],
        ["up-to-parity", "Any, up to the parity drive"],
        ["any-size", "Any size"],
      ]),
      question("hotSpares", "Does it know hot spares?", "A spare takes over by itself when a drive fails.", [
        ["none", "No"],
        ["per-group", "For each group"],
        ["shared", "Shared by all"],
      ]),
    ],
  },
  {
    heading: "How it grows and repairs",
    questions: [
      question("widening", "Can a group be widened?", "Matters when you add a drive.", [
        ["one-drive", "By one drive"],
        ["several-drives", "By several at once"],
        ["further-group", "No, only a further group"],
      ]),
      question("levelChanges", "Which changes of level does it make?", "Mirror to single to double parity.", [
        ["none", "None"],
        ["one-at-a-time", "One at a time"],
        ["in-one-go", "Any in one go"],
      ]),
      question(
        "replacing",
        "How is a drive replaced?",
        "With the old drive attached the redundancy stays during the copy; it takes a free bay.",
        [
          ["old-attached", "With the old one attached"],
          ["pull-first", "By pulling it first"],
        ],
      ),
      question(
        "claiming",
        "When does the room of larger drives appear?",
        "A forgotten claim is a common reason why nothing grew.",
        [
          ["by-itself", "By itself"],
          ["per-drive", "After a claim for each drive"],
          ["whole-group", "After a claim for the group"],
        ],
      ),
      question("growing", "Do the volume and the file system grow by themselves?", "", [
        ["by-itself", "Yes"],
        ["by-hand", "By hand"],
      ]),
      question("shrinkVolumes", "Can a volume be made smaller?", "", [
        [true, "Yes"],
        [false, "No"],
      ]),
      question("swapping", "How is a drive changed?", "", [
        ["hot-swap", "While it runs"],
        ["power-off", "With the power off"],
        ["stop-pool", "With the pool stopped"],
      ]),
      question(
        "parityWrites",
        "When is parity written?",
        "By schedule, what came after the last sync is not protected.",
        [
          ["at-once", "At once"],
          ["by-schedule", "By schedule"],
        ],
      ),
      question("rebuilding", "What does a rebuild copy?", "Changes the hours of a rebuild.", [
        ["whole-drive", "The whole drive"],
        ["used-only", "Only what is used"],
      ]),
    ],
  },
];
