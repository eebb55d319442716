import type { Backup, FileSystem, LayoutId, Plan, Pool, RuleSetId, StepBody } from "../document/plan";
import { checkPlan } from "../document/readPlan";
import { choir } from "../document/samples/choir";
import { predict } from "../prediction/predict";
import { lateFindings } from "../schedule/demand";
import { numbered } from "../testing/anySteps";
import { testDrive } from "../testing/arbitraries";
import { boxWith } from "../testing/boxWith";
import { walkPlan } from "../walk/walkPlan";

// What stands against a step, and what is said beside it: of which drives, in which words, and how it is mended.

const volume = (bytes: number, more: Partial<Pool["volumes"][number]> = {}): Partial<Pool> => ({
  volumes: [{ id: "v1", name: "V", bytes, fileSystem: "ext4", ...more }],
});
const box = (set: RuleSetId, layout: LayoutId, sizes: number[], shelf: number[] = [], more: Partial<Pool> = {}) =>
  boxWith(set, layout, sizes, shelf, more);
const over = (plan: Plan, overrides: NonNullable<Plan["box"]["rules"]["overrides"]>): Plan => ({
  ...plan,
  box: { ...plan.box, rules: { ...plan.box.rules, overrides } },
});
const files = (fileSystem: FileSystem = "ext4") =>
  box("linux-host", "raid5", [4, 4, 4], [4, 8], volume(4e12, { fileSystem, usedBytes: 1e12 }));
const small: Backup = {
  id: "b1",
  name: "B",
  kind: "box",
  place: "here",
  everyDays: 1,
  keepsVersions: false,
  dataSets: [],
};
const full = (plan: Plan): Plan => ({ ...plan, box: { ...plan.box, bays: plan.pools[0]!.groups[0]!.drives.length } });
const drive = (plan: Plan, id: string, more: object): Plan => ({
  ...plan,
  drives: plan.drives.map((each) => (each.id === id ? { ...each, ...more } : each)),
});
const raid5 = box("linux-host", "raid5", [4, 4, 4], [4, 4, 8, 3]);
const parity = box("parity-drive", "parity-drive-1", [4, 4, 8], [8, 12, 4, 3]);
const copies = box("chunk-copies", "copies-2", [4, 4], [4], volume(3e12, { fileSystem: "btrfs", usedBytes: 1e12 }));
const mirror = box("linux-host", "raid1", [4, 4], [4, 4, 3], volume(4e12, { usedBytes: 1e12 }));
const held = (plan: Plan): Plan => ({
  ...plan,
  drives: [
    ...plan.drives,
    testDrive("h1", 4_000_787_030_016, { contents: { kind: "data" } }),
    testDrive("h2", 4_000_787_030_016, { contents: { kind: "system" } }),
  ],
});
const BOXES: Record<string, Plan> = {
  raid5,
  parity,
  copies,
  mirror,
  files: files(),
  "files without": files("none"),
  "files xfs": files("xfs"),
  "files, backup small": { ...files(), backups: [{ ...small, bytes: 1e11 }] },
  "files, backup large": { ...files(), backups: [{ ...small, bytes: 1e12 }] },
  "not known": box("linux-host", "raid5", [4, 4, 4], [], volume(1e12)),
  "mirror of three": box("linux-host", "raid1", [4, 4, 4], []),
  "claims each": over(raid5, { claiming: "per-drive" }),
  "claims itself": over(raid5, { claiming: "by-itself" }),
  "nearly full": box("chunk-copies", "copies-2", [4, 4, 4], [], volume(5.9e12)),
  "full chunks": box("chunk-copies", "copies-2", [4, 4, 4], [], volume(5.9e12, { usedBytes: 5.9e12 })),
  "three copies": box("chunk-copies", "copies-2", [4, 4, 4], [], volume(3e12, { usedBytes: 1e12 })),
  raid6: box("linux-host", "raid6", [4, 4, 4, 4], [4], volume(7e12, { usedBytes: 7e12 })),
  scheduled: box("scheduled-parity", "parity-drive-1", [4, 4, 8]),
  "no shrinking": over(files(), { shrinkVolumes: false }),
  "second pool": { ...raid5, pools: [...raid5.pools, { ...raid5.pools[0]!, id: "p2", groups: [] }] },
  "no bay": full(raid5),
  "one bay": { ...raid5, box: { ...raid5.box, bays: 4 } },
  "no bay, parity": full(parity),
  stripe: box("linux-host", "raid0", [4, 4], [4, 3]),
  "unequal stripe": box("linux-host", "raid0", [4, 8], [8]),
  classic: box("classic-raid", "raid5", [4, 4, 4], [4, 8, 4_000_787_030_000], volume(8e12)),
  "classic mirror": box("classic-raid", "raid1", [4, 4], [4, 4]),
  fixed: box("fixed-group", "raid5", [4, 4, 4], [4, 4]),
  hybrid: box("hybrid-box", "hybrid-1", [4, 4, 8], [4, 8, 12]),
  suspect: drive(drive(raid5, "x1", { health: { state: "failing" } }), "x2", {
    shingled: true,
    medium: "hdd",
    contents: { kind: "data" },
  }),
  mixed: drive(drive(box("classic-raid", "raid5", [4, 4, 4], [4, 4]), "x1", { medium: "ssd" }), "x2", {
    logicalSector: 4096,
  }),
  holders: held(box("linux-host", "raid5", [4, 4, 4], [4, 3])),
  separate: box("linux-host", "single", [4, 4], [8, 4], volume(8e12)),
  spared: box("linux-host", "raid5", [4, 4, 4], [4, 3], { spares: ["x1"] }),
  "no spares": over(raid5, { hotSpares: "none" }),
  "spare per group": over(raid5, { hotSpares: "per-group" }),
  chunks5: box("chunk-copies", "chunk-parity", [4, 4, 4], [4], volume(1e12, { usedBytes: 1e11 })),
  "one raid1": box("classic-raid", "raid1", [4, 4], [4, 8], volume(1e12)),
  desktop: box("desktop-mirror", "raid1", [4, 4], [4]),
};

/** The last of some steps on a box, and every finding of it: how weighty, its code, its drives, its words, its mend. */
const SAID = `
files, backup small: [{"kind":"back-up","pool":"p1","to":"b1"}]
  block backup-too-small [] B holds 100.0 GB, and 1.00 TB are stored on P. Choose a larger destination.
files, backup large: [{"kind":"back-up","pool":"p1","to":"b1"}]
not known: [{"kind":"back-up","pool":"p1","to":"b1"}]
  note stored-not-known [] How much is stored is not known for every volume; the hours are for all that they have (1.00 TB).
files: [{"kind":"back-up","pool":"p1","to":"b1"}]
copies: [{"kind":"rebalance","group":"g1"}]
  note balanced [] It is balanced already at this moment.
copies: [{"kind":"widen-group","group":"g1","drives":["x1"]},{"kind":"rebalance","group":"g1"}]
raid5: [{"kind":"rebalance","group":"g1"}]
  block no-chunks [] RAID 5 is laid out in stripes, not in chunks: there is nothing to rebalance.
raid5: [{"kind":"rebalance","group":"g9"}]
  block no-such-group [] The group is not there at this moment.
raid5: [{"kind":"verify","pool":"p9"}]
  block no-such-pool [] The pool is not there at this moment: a step before makes it, or unmakes it.
raid5: [{"kind":"grow-volume","pool":"p1","volume":"v1"}]
  block no-such-volume [] The volume is not there at this moment.
raid5: [{"kind":"remove-drive","drive":"d1"}]
  block cannot-be-removed [d1] A drive cannot be taken out of RAID 5 for good: the others cannot hold its part. Replace it, or make the pool anew from a backup.
copies: [{"kind":"widen-group","group":"g1","drives":["x1"]},{"kind":"remove-drive","drive":"d1"}]
  note usable-falls [] Usable space falls to 3.98 TB.
parity: [{"kind":"remove-drive","drive":"d1"}]
  warn move-its-data [d1] What is on it has its own file system: move it to the other drives first.
  note usable-falls [] Usable space falls to 4.00 TB.
parity: [{"kind":"remove-drive","drive":"d3"}]
  block is-the-parity-drive [d3] That is the parity drive: without it nothing protects the others, and none of them can become it. Change it with its own step.
raid5: [{"kind":"remove-drive","drive":"x1"}]
  block not-a-member [x1] The 4 TB drive on the shelf is in no group at this moment.
mirror of three: [{"kind":"remove-drive","drive":"d1"}]
claims each: [{"kind":"claim-space","group":"g1"}]
  block claim-per-drive [] Your box claims the space of one drive at a time. Say of which.
claims itself: [{"kind":"claim-space","group":"g1"}]
  note claims-by-itself [] By its rules your box claims the space by itself; this step has nothing to do.
raid5: [{"kind":"claim-space","group":"g1"}]
  note nothing-to-claim [] There is nothing to claim at this moment.
raid5: [{"kind":"claim-space","group":"g1","drive":"x1"}]
  block not-a-member [x1] That drive is not in the group at this moment.
raid5: [{"kind":"claim-space","group":"g9"}]
  block no-such-group [] The group is not there at this moment.
raid5: [{"kind":"replace-drive","drive":"d1","by":"x3","how":"pulled"},{"kind":"claim-space","group":"g1"}]
  note claims-nothing [] The claim brings nothing yet: in this layout every drive counts as large as the smallest, and that has 4.00 TB.
spared: [{"kind":"replace-drive","drive":"d1","by":"x2","how":"pulled"}]
  block too-small [x2] The 3 TB drive on the shelf is too small by 1.00 TB: the group uses 4.00 TB of the drive it replaces.
  warn no-redundancy [d1] While the new drive is filled, no drive may fail.
raid5: [{"kind":"wipe-drive","drive":"d1"}]
  block drive-in-use [d1] The 4 TB drive in bay 1 is in use at this moment and cannot be wiped.
raid5: [{"kind":"wipe-drive","drive":"x1"}]
raid5: [{"kind":"wipe-drive","drive":"x9"}]
  block no-such-drive [] The drive “x9” is not there at this moment. Add it to the shelf, or choose another.
raid5: [{"kind":"test-drive","drive":"x9"}]
  block no-such-drive [] The drive “x9” is not there at this moment. Add it to the shelf, or choose another.
raid5: [{"kind":"add-group","pool":"p1","group":"g1","layout":"raid1","drives":["x1","x2"]}]
  block group-exists [] The group is there already at this moment: another step makes it before. Remove one of the two.
  warn mixed-layouts [] The groups of P would have different layouts (RAID 5 and RAID 1); many boxes refuse it.
  note stands-with-all [] From then on the pool is lost when any one of its groups is.
raid5: [{"kind":"create-group","pool":"p1","group":"g2","name":"N","layout":"raid1","drives":["x1","x2"]}]
  block pool-exists [] The pool is there already. Add a group to it instead.
raid5: [{"kind":"create-group","pool":"p2","group":"g2","name":"N","layout":"raid1","drives":["x1","x2"]}]
  note not-tested [x1,x2] 2 drives join without a test. An extended self-test finds a bad drive before your data is on it.
raid5: [{"kind":"create-group","pool":"p2","group":"g2","name":"N","layout":"raid5","drives":["x1","x1"]}]
  block named-twice [x1] A drive is named twice in this step. Choose different drives.
raid5: [{"kind":"create-group","pool":"p2","group":"g2","name":"N","layout":"raid5","drives":["x9"]}]
  block no-such-drive [] The drive “x9” is not there at this moment. Add it to the shelf, or choose another.
  block wrong-drive-count [] RAID 5 cannot be made of 1 drive. Needs 2 drives: 1 more.
raid5: [{"kind":"add-group","pool":"p1","group":"g2","layout":"raid1","drives":["x1","x2"]}]
  warn mixed-layouts [] The groups of P would have different layouts (RAID 5 and RAID 1); many boxes refuse it.
  note stands-with-all [] From then on the pool is lost when any one of its groups is.
raid5: [{"kind":"add-group","pool":"p1","group":"g2","layout":"raid5","drives":["x1","x2","x3"]}]
  note stands-with-all [] From then on the pool is lost when any one of its groups is.
raid5: [{"kind":"add-group","pool":"p9","group":"g2","layout":"raid5","drives":["x1","x2","x3"]}]
  block no-such-pool [] The pool is not there at this moment: a step before makes it, or unmakes it.
no bay: [{"kind":"create-group","pool":"p2","group":"g2","name":"N","layout":"raid1","drives":["x1","x2"]}]
  block no-free-bay [x1,x2] Every bay is taken at this moment. Take a drive out first, or replace one.
one bay: [{"kind":"create-group","pool":"p2","group":"g2","name":"N","layout":"raid1","drives":["x1","x2"]}]
  block no-free-bay [x1,x2] Only 1 bay is free at this moment, for 2 drives.
fixed: [{"kind":"create-group","pool":"p2","group":"g2","name":"N","layout":"hybrid-1","drives":["x1","x2"]}]
  block layout-not-offered [] By its rules your box does not offer Hybrid 1.
parity: [{"kind":"replace-drive","drive":"d3","by":"x2","how":"pulled"}]
  block is-the-parity-drive [d3] That is the parity drive: change it with its own step, which works the parity out anew. > {"label":"Change the parity drive","command":{"kind":"replace-step","step":"s1","by":[{"kind":"change-parity-drive","group":"g1","drive":"d3","by":"x2"}]}}
  warn no-redundancy [d3] While the new drive is filled, no drive may fail.
parity: [{"kind":"replace-drive","drive":"d1","by":"x1","how":"pulled"}]
  warn no-redundancy [d1] While the new drive is filled, no drive may fail.
  warn space-not-claimed [x1] 4.00 TB of the larger drives wait for a claim of each: your box does not take them in by itself. > {"label":"Add the step: claim the space","command":{"kind":"insert-steps","after":"s1","steps":[{"kind":"claim-space","group":"g1","drive":"x1"}]}}
parity: [{"kind":"replace-drive","drive":"d1","by":"x2","how":"pulled"}]
  block larger-than-parity [x2] The 12 TB drive on the shelf is larger than the parity drive, which cannot protect all of it. Change the parity drive for a larger one first. > {"label":"Make it the parity drive","command":{"kind":"replace-step","step":"s1","by":[{"kind":"change-parity-drive","group":"g1","drive":"d3","by":"x2"},{"kind":"replace-drive","drive":"d1","by":"d3","how":"pulled"}]}}
  warn no-redundancy [d1] While the new drive is filled, no drive may fail.
parity: [{"kind":"replace-drive","drive":"d1","by":"x9","how":"pulled"}]
  block no-such-drive [] The drive “x9” is not there at this moment. Add it to the shelf, or choose another.
parity: [{"kind":"replace-drive","drive":"x1","by":"x2","how":"pulled"}]
  block not-a-member [x1] The 8 TB drive on the shelf is in no group at this moment.
raid5: [{"kind":"replace-drive","drive":"d1","by":"d2","how":"pulled"}]
  block drive-taken [d2] The 4 TB drive in bay 2 is in use at this moment. Choose a free drive.
  warn no-redundancy [d1] While the new drive is filled, no drive may fail.
raid5: [{"kind":"replace-drive","drive":"d1","by":"x4","how":"pulled"}]
  block too-small [x4] The 3 TB drive on the shelf is too small by 1.00 TB: the group uses 4.00 TB of the drive it replaces.
  warn no-redundancy [d1] While the new drive is filled, no drive may fail.
raid5: [{"kind":"replace-drive","drive":"d1","by":"x1","how":"attached"}]
  note not-tested [x1] The 4 TB drive on the shelf joins without a test. An extended self-test finds a bad drive before your data is on it.
no bay: [{"kind":"replace-drive","drive":"d1","by":"x1","how":"attached"}]
  block no-free-bay [] No bay is free for the new drive while the old one is still in. > {"label":"Pull it first","command":{"kind":"edit-step","step":"s1","changes":{"how":"pulled"}}}
classic: [{"kind":"replace-drive","drive":"d1","by":"x1","how":"attached"}]
  block not-attached [] By its rules your box replaces a drive only after the old one is pulled. > {"label":"Pull it first","command":{"kind":"edit-step","step":"s1","changes":{"how":"pulled"}}}
classic: [{"kind":"replace-drive","drive":"d1","by":"x3","how":"pulled"}]
  warn no-redundancy [d1] While the new drive is filled, no drive may fail.
stripe: [{"kind":"replace-drive","drive":"d1","by":"x1","how":"pulled"}]
  block nothing-to-rebuild-from [d1] Without the 4 TB drive in bay 1 data is lost: nothing can be rebuilt. Rebuild from a backup.
stripe: [{"kind":"replace-drive","drive":"d1","by":"x1","how":"attached"}]
  block no-live-replacement [d1] No drive of a stripe can be copied to another while it runs. Make it anew from a backup.
raid6: [{"kind":"replace-drive","drive":"d1","by":"x1","how":"pulled"}]
  note not-tested [x1] The 4 TB drive on the shelf joins without a test. An extended self-test finds a bad drive before your data is on it.
parity: [{"kind":"change-parity-drive","group":"g1","drive":"d1","by":"x2"}]
  block no-parity-drive [d1] The 4 TB drive in bay 1 is no parity drive at this moment.
parity: [{"kind":"change-parity-drive","group":"g1","drive":"d3","by":"x3"}]
  note not-tested [x3] The 4 TB drive on the shelf joins without a test. An extended self-test finds a bad drive before your data is on it.
parity: [{"kind":"change-parity-drive","group":"g1","drive":"d3","by":"d1"}]
  block drive-taken [d1] The 4 TB drive in bay 1 is in use at this moment.
parity: [{"kind":"change-parity-drive","group":"g1","drive":"d3","by":"x2"}]
  note not-tested [x2] The 12 TB drive on the shelf joins without a test. An extended self-test finds a bad drive before your data is on it.
parity: [{"kind":"change-parity-drive","group":"g9","drive":"d3","by":"x2"}]
  block no-such-group [] The group is not there at this moment.
parity: [{"kind":"change-parity-drive","group":"g1","drive":"d3","by":"x9"}]
  block no-such-drive [] The drive “x9” is not there at this moment. Add it to the shelf, or choose another.
raid5: [{"kind":"change-level","group":"g1","layout":"raid6","drives":[]}]
  block level-refused [] Double parity needs a drive more: on the same drives it is refused.
  block wrong-drive-count [] RAID 6 of 3 drives: Needs 4 drives: 1 more.
raid5: [{"kind":"change-level","group":"g1","layout":"raid6","drives":["x1"]}]
  warn no-backup [] The change of level rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
  note riskiest [] This is the riskiest kind of step: interrupted half-way it has been seen to end in wrong data. Have a verified backup, and do not switch off.
raid5: [{"kind":"change-level","group":"g1","layout":"raid5","drives":["x1"]}]
  block same-level [] The group has RAID 5 already.
raid5: [{"kind":"change-level","group":"g9","layout":"raid5","drives":["x1"]}]
  block no-such-group [] The group is not there at this moment.
raid5: [{"kind":"change-level","group":"g1","layout":"raid6","drives":["x9"]}]
  block no-such-drive [] The drive “x9” is not there at this moment. Add it to the shelf, or choose another.
  block wrong-drive-count [] RAID 6 of 3 drives: Needs 4 drives: 1 more.
raid5: [{"kind":"change-level","group":"g1","layout":"raid6","drives":["x4"]}]
  block too-small [x4] The 3 TB drive on the shelf is too small: it must be as high as the group's members are used.
raid5: [{"kind":"change-level","group":"g1","layout":"triple-parity","drives":["x1","x2"]}]
  block layout-not-offered [] By its rules your box does not offer Triple parity.
  block level-jump [] Your box goes one level at a time: from RAID 5 by way of RAID 6 to Triple parity. > {"label":"Split it into 2 steps","command":{"kind":"replace-step","step":"s1","by":[{"kind":"change-level","group":"g1","layout":"raid6","drives":["x1"]},{"kind":"change-level","group":"g1","layout":"triple-parity","drives":["x2"]}]}}
raid5: [{"kind":"change-level","group":"g1","layout":"raid1","drives":[]}]
  block level-refused [] Only single parity of two drives becomes a mirror.
fixed: [{"kind":"change-level","group":"g1","layout":"raid6","drives":["x1"]}]
  block no-path [] Your box has no way from RAID 5 to RAID 6 that keeps the data. It has to be made anew from a backup. > {"label":"Back up and make it anew","command":{"kind":"replace-step","step":"s1","by":[{"kind":"back-up","pool":"p1","to":"a destination of your choice"},{"kind":"rebuild-from-backup","pool":"p1","layout":"raid6","drives":["d1","d2","d3","x1"]}]}}
classic mirror: [{"kind":"change-level","group":"g1","layout":"raid6","drives":["x1","x2"]}]
  block level-jump [] Your box goes one level at a time: from RAID 1 by way of RAID 5 to RAID 6. > {"label":"Split it into 2 steps","command":{"kind":"replace-step","step":"s1","by":[{"kind":"change-level","group":"g1","layout":"raid5","drives":["x1"]},{"kind":"change-level","group":"g1","layout":"raid6","drives":["x2"]}]}}
mirror: [{"kind":"change-level","group":"g1","layout":"raid6","drives":["x1","x2"]}]
  block level-jump [] Your box goes one level at a time: from RAID 1 by way of RAID 5 to RAID 6. > {"label":"Split it into 2 steps","command":{"kind":"replace-step","step":"s1","by":[{"kind":"change-level","group":"g1","layout":"raid5","drives":["x1"]},{"kind":"change-level","group":"g1","layout":"raid6","drives":["x2"]}]}}
classic: [{"kind":"change-level","group":"g1","layout":"hybrid-1","drives":["x1"]}]
  block layout-not-offered [] By its rules your box does not offer Hybrid 1.
  block no-path [] Your box has no way from RAID 5 to Hybrid 1 that keeps the data. It has to be made anew from a backup. > {"label":"Back up and make it anew","command":{"kind":"replace-step","step":"s1","by":[{"kind":"back-up","pool":"p1","to":"a destination of your choice"},{"kind":"rebuild-from-backup","pool":"p1","layout":"hybrid-1","drives":["d1","d2","d3","x1"]}]}}
nearly full: [{"kind":"change-level","group":"g1","layout":"copies-3","drives":[]}]
  block no-room-to-work [] What is stored would not fit in the new layout.
  block volumes-do-not-fit [] The volumes of P have 5.90 TB, and only 3.98 TB would be left. Shrink a volume first.
  warn little-room-to-work [] How much is stored is not known for every volume. Changing the layout of needs free room to work in: keep 597.1 GB of it free, and 4.29 GB of each drive.
  warn no-backup [] The change of level rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
  note riskiest [] This is the riskiest kind of step: interrupted half-way it has been seen to end in wrong data. Have a verified backup, and do not switch off.
full chunks: [{"kind":"change-level","group":"g1","layout":"copies-3","drives":[]}]
  block pool-too-full [] Changing the layout of a pool that is so full can stop for lack of room, and leave it read-only. Free 526.0 GB first, or add a drive: keep 597.1 GB of it free, and 4.29 GB of each drive.
full chunks: [{"kind":"rebalance","group":"g1"}]
  note balanced [] It is balanced already at this moment.
three copies: [{"kind":"change-level","group":"g1","layout":"copies-3","drives":[]}]
  warn no-backup [] The change of level rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
  note usable-falls [] Usable space falls to 3.98 TB.
  note riskiest [] This is the riskiest kind of step: interrupted half-way it has been seen to end in wrong data. Have a verified backup, and do not switch off.
raid6: [{"kind":"change-level","group":"g1","layout":"raid5","drives":[],"without":["d1"]}]
  warn no-backup [] The change of level rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
  note riskiest [] This is the riskiest kind of step: interrupted half-way it has been seen to end in wrong data. Have a verified backup, and do not switch off.
raid6: [{"kind":"change-level","group":"g1","layout":"raid5","drives":[]}]
  block level-refused [] Single parity takes one drive fewer: say which leaves.
raid5: [{"kind":"widen-group","group":"g1","drives":["x1","x1"]}]
  block named-twice [x1] A drive is named twice in this step. Choose different drives.
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
raid5: [{"kind":"widen-group","group":"g1","drives":[]}]
  block no-drives [] Choose the drives that are to join.
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
raid5: [{"kind":"widen-group","group":"g1","drives":["x1"]}]
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
raid5: [{"kind":"widen-group","group":"g9","drives":["x1"]}]
  block no-such-group [] The group is not there at this moment.
raid5: [{"kind":"widen-group","group":"g1","drives":["x4"]}]
  block too-small [x4] The 3 TB drive on the shelf is too small by 1.00 TB: it must be as high as the group's members are used, 4.00 TB. Taken in, it would drag the whole group down.
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
raid5: [{"kind":"widen-group","group":"g1","drives":["d1"]}]
  block drive-taken [d1] The 4 TB drive in bay 1 is in use at this moment. Choose a free drive, or take it out first.
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
raid5: [{"kind":"test-drive","drive":"x1"},{"kind":"widen-group","group":"g1","drives":["x1"]}]
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
classic: [{"kind":"widen-group","group":"g1","drives":["x1","x2"]}]
  block one-at-a-time [x1,x2] Your box widens by one drive at a time. Do it in as many steps. > {"label":"Split it into one step each","command":{"kind":"replace-step","step":"s1","by":[{"kind":"widen-group","group":"g1","drives":["x1"]},{"kind":"widen-group","group":"g1","drives":["x2"]}]}}
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
classic: [{"kind":"widen-group","group":"g1","drives":["x3"]}]
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
  warn volume-not-grown [] The pool grows, but no step gives 4.00 TB of it to a volume: your folders will not see it. > {"label":"Add the steps: grow the volume, then the file system","command":{"kind":"insert-steps","after":"s1","steps":[{"kind":"grow-volume","pool":"p1","volume":"v1"},{"kind":"grow-file-system","pool":"p1","volume":"v1"}]}}
fixed: [{"kind":"widen-group","group":"g1","drives":["x1"]}]
  block no-widening [] By its rules your box does not widen a group. Add a further group, or replace its drives.
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
hybrid: [{"kind":"widen-group","group":"g1","drives":["x1"]}]
  block too-small [x1] The 4 TB drive on the shelf is too small to join by 4.00 TB: your box wants at least 8.00 TB.
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
hybrid: [{"kind":"widen-group","group":"g1","drives":["x3"]}]
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
stripe: [{"kind":"widen-group","group":"g1","drives":["x2"]}]
  block too-small [x2] The 3 TB drive on the shelf is too small to join by 1.00 TB: your box wants at least 4.00 TB.
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
unequal stripe: [{"kind":"widen-group","group":"g1","drives":["x1"]}]
  block zoned-stripe [] A stripe over drives of different sizes cannot be widened.
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
suspect: [{"kind":"widen-group","group":"g1","drives":["x1"]}]
  block drive-failing [x1] The 4 TB drive on the shelf is failing. Do not let it join; replace it, and copy off what matters while it can be read.
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
suspect: [{"kind":"widen-group","group":"g1","drives":["x2"]}]
  warn will-be-erased [x2] The 4 TB drive on the shelf holds data. It will be erased when the group is made. Copy away what you want to keep.
  warn shingled-in-parity [x2] The 4 TB drive on the shelf uses shingled recording. Under parity its rebuild can take many times longer than shown.
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
mixed: [{"kind":"widen-group","group":"g1","drives":["x1"]}]
  block mixed-media [x1] The 4 TB drive on the shelf is of another kind than the rest: hard disks and flash do not belong in one group. Make the group of one kind.
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
mixed: [{"kind":"widen-group","group":"g1","drives":["x2"]}]
  block mixed-sectors [x2] The 4 TB drive on the shelf has logical sectors of 4096 bytes, unlike the rest. Choose drives with the same logical sector size.
  warn no-backup [] Widening rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
mixed: [{"kind":"create-group","pool":"p2","group":"g2","name":"N","layout":"raid1","drives":["x1","x2"]}]
  block mixed-media [x2] The 4 TB drive on the shelf is of another kind than the rest: hard disks and flash do not belong in one group. Make the group of one kind.
  block mixed-sectors [x2] The 4 TB drive on the shelf has logical sectors of 4096 bytes, unlike the rest. Choose drives with the same logical sector size.
files without: [{"kind":"grow-file-system","pool":"p1","volume":"v1"}]
  note no-file-system [] The volume has no file system.
files: [{"kind":"grow-file-system","pool":"p1","volume":"v1"}]
  note nothing-to-grow [] The file system fills its volume already at this moment.
files: [{"kind":"grow-file-system","pool":"p1","volume":"v9"}]
  block no-such-volume [] The volume is not there at this moment.
files: [{"kind":"grow-volume","pool":"p1","volume":"v1"},{"kind":"grow-file-system","pool":"p1","volume":"v1"}]
files: [{"kind":"grow-volume","pool":"p1","volume":"v1","bytes":3000000000000}]
  block not-larger [] The volume has 4.00 TB already; that is a shrinking.
files: [{"kind":"grow-volume","pool":"p1","volume":"v1","bytes":9000000000000}]
  block more-than-the-pool-has [] 9.00 TB is 998.7 GB more than the pool can give: sizes are rounded down, never up. At most 8 001 302 822 912 B. > {"label":"Use the largest size accepted, 8.00 TB","command":{"kind":"edit-step","step":"s1","changes":{"bytes":8001302822912}}}
files: [{"kind":"grow-volume","pool":"p1","volume":"v1","bytes":8001300000000}]
  warn file-system-not-grown [] The volume V grows, but no step grows its file system: folders still see the old size. > {"label":"Add the step: grow the file system","command":{"kind":"insert-steps","after":"s1","steps":[{"kind":"grow-file-system","pool":"p1","volume":"v1"}]}}
files: [{"kind":"grow-volume","pool":"p1","volume":"v1"},{"kind":"grow-volume","pool":"p1","volume":"v1"}]
  note nothing-to-grow [] The pool has nothing more for this volume at this moment.
files: [{"kind":"shrink-volume","pool":"p1","volume":"v1","bytes":4000000000000}]
  block not-smaller [] The volume has 4.00 TB; that is no shrinking.
files: [{"kind":"shrink-volume","pool":"p1","volume":"v1","bytes":1000000000000}]
  block does-not-fit [] 1.00 TB are stored, and only 933.2 GB would be left for them.
files: [{"kind":"shrink-volume","pool":"p1","volume":"v9","bytes":1000000000000}]
  block no-such-volume [] The volume is not there at this moment.
files: [{"kind":"shrink-volume","pool":"p1","volume":"v1","bytes":3990000000000}]
files xfs: [{"kind":"shrink-volume","pool":"p1","volume":"v1","bytes":3000000000000}]
  block xfs-does-not-shrink [] XFS cannot be made smaller. Copy the data away and make the volume anew.
no shrinking: [{"kind":"shrink-volume","pool":"p1","volume":"v1","bytes":3000000000000}]
  block no-shrinking [] By its rules your box cannot make a volume smaller.
raid5: [{"kind":"remove-spare","drive":"x1"}]
  block no-spare [] The 4 TB drive on the shelf is no hot spare at this moment.
spared: [{"kind":"remove-spare","drive":"x1"}]
raid5: [{"kind":"set-spare","pool":"p1","drive":"x1"}]
raid5: [{"kind":"set-spare","pool":"p1","drive":"x4"}]
  block spare-too-small [x4] The 3 TB drive on the shelf is too small by 1.00 TB: it must hold what the group uses of a member, and could stand in for none.
raid5: [{"kind":"set-spare","pool":"p9","drive":"x1"}]
  block no-such-pool [] The pool is not there at this moment: a step before makes it, or unmakes it.
raid5: [{"kind":"set-spare","pool":"p1","drive":"d1"}]
  block drive-taken [d1] The 4 TB drive in bay 1 is in use at this moment. Choose a free drive, or take it out first.
raid5: [{"kind":"set-spare","pool":"p1","drive":"x9"}]
  block no-such-drive [] The drive “x9” is not there at this moment. Add it to the shelf, or choose another.
no spares: [{"kind":"set-spare","pool":"p1","drive":"x1"}]
  block spares-not-offered [] By its rules your box knows no hot spares.
spare per group: [{"kind":"set-spare","pool":"p1","drive":"x1"}]
no bay: [{"kind":"set-spare","pool":"p1","drive":"x1"}]
  block no-free-bay [x1] Every bay is taken at this moment. Take a drive out first, or replace one.
stripe: [{"kind":"set-spare","pool":"p1","drive":"x1"}]
  block spare-of-no-use [] P has nothing from which a spare could be filled: stripe knows no hot spares.
parity: [{"kind":"sync","pool":"p1"}]
  note written-at-once [] Your box writes parity at once; there is nothing to sync.
raid5: [{"kind":"sync","pool":"p1"}]
  note written-at-once [] Your box writes parity at once; there is nothing to sync.
  note no-parity-drives [] Only pools with parity drives are synced.
scheduled: [{"kind":"sync","pool":"p1"}]
scheduled: [{"kind":"sync","pool":"p9"}]
  block no-such-pool [] The pool is not there at this moment: a step before makes it, or unmakes it.
second pool: [{"kind":"back-up","pool":"p1","to":"b1"},{"kind":"rebuild-from-backup","pool":"p1","layout":"raid6","drives":["d1","d2","d3","x1"],"box":{"name":"N","bays":6,"rules":{"set":"linux-host"}}}]
  block other-pools [] The box has other pools, which would be left behind. Move them in plans of their own, or take them apart first.
second pool: [{"kind":"back-up","pool":"p1","to":"b1"},{"kind":"rebuild-from-backup","pool":"p1","layout":"raid6","drives":["d1","d2","d3","x1"]}]
  note not-tested [x1] The 4 TB drive on the shelf joins without a test. An extended self-test finds a bad drive before your data is on it.
files: [{"kind":"rebuild-from-backup","pool":"p1","layout":"raid6","drives":["d1","d2","d3","x1"]}]
  block no-backup [] Everything in the pool is erased, and no full backup is made before. Put a backup before this step. > {"label":"Back up first","command":{"kind":"insert-steps","before":"s1","steps":[{"kind":"back-up","pool":"p1","to":"a destination of your choice"}]}}
files: [{"kind":"back-up","pool":"p1","to":"b1"},{"kind":"rebuild-from-backup","pool":"p1","layout":"raid1","drives":["d1","d2"]}]
files: [{"kind":"back-up","pool":"p1","to":"b1"},{"kind":"rebuild-from-backup","pool":"p1","layout":"raid6","drives":["d1","d2"]}]
  block wrong-drive-count [] RAID 6 cannot be made of 2 drives. Needs 4 drives: 2 more.
files: [{"kind":"back-up","pool":"p1","to":"b1"},{"kind":"rebuild-from-backup","pool":"p9","layout":"raid6","drives":["d1","d2"]}]
  block no-such-pool [] The pool is not there at this moment: a step before makes it, or unmakes it.
files: [{"kind":"back-up","pool":"p1","to":"b1"},{"kind":"rebuild-from-backup","pool":"p1","layout":"raid6","drives":["d1","d2","d3","x1"],"box":{"name":"N","bays":3,"rules":{"set":"linux-host"}}}]
  block no-free-bay [] The box has 3 bays for 4 drives.
files: [{"kind":"grow-volume","pool":"p1","volume":"v1"},{"kind":"back-up","pool":"p1","to":"b1"},{"kind":"rebuild-from-backup","pool":"p1","layout":"raid1","drives":["d1","d2"]}]
  block volumes-do-not-fit [] The volumes have 8.00 TB, and the new pool holds 4.00 TB. Make them smaller first, or choose another layout.
no bay: [{"kind":"back-up","pool":"p1","to":"b1"},{"kind":"rebuild-from-backup","pool":"p1","layout":"raid6","drives":["d1","d2","d3","x1"]}]
  block no-free-bay [] The box has 3 bays for 4 drives.
holders: [{"kind":"mirror-drive","pool":"p2","group":"g2","name":"N","drive":"h1","by":"x1"}]
  note not-tested [x1] The 4 TB drive on the shelf joins without a test. An extended self-test finds a bad drive before your data is on it.
holders: [{"kind":"mirror-drive","pool":"p2","group":"g2","name":"N","drive":"h1","by":"x2"}]
  block too-small [x2] The 3 TB drive on the shelf is too small by 1.00 TB for what it is to mirror. Choose a larger one.
holders: [{"kind":"mirror-drive","pool":"p2","group":"g2","name":"N","drive":"h2","by":"x1"}]
  block system-drive [h2] The running system is on that drive; it cannot become a member.
holders: [{"kind":"mirror-drive","pool":"p1","group":"g1","name":"N","drive":"h1","by":"x1"}]
  block group-exists [] The mirror is there already at this moment: another step makes it before. Remove one of the two.
holders: [{"kind":"mirror-drive","pool":"p2","group":"g2","name":"N","drive":"d1","by":"x1"}]
  block drive-taken [d1] The 4 TB drive in bay 1 is in use at this moment. Choose a free drive, or take it out first.
holders: [{"kind":"mirror-drive","pool":"p2","group":"g2","name":"N","drive":"h1","by":"x9"}]
  block no-such-drive [] The drive “x9” is not there at this moment. Add it to the shelf, or choose another.
separate: [{"kind":"mirror-drive","pool":"p1","group":"g1","name":"N","drive":"d1","by":"x1","also":["d2"]}]
  block too-small [x1] The 8 TB drive on the shelf is too small by 9.44 MB for what it is to mirror. Choose a larger one.
separate: [{"kind":"mirror-drive","pool":"p1","group":"g1","name":"N","drive":"d1","by":"x2","also":["d2"]}]
  block too-small [x2] The 4 TB drive on the shelf is too small by 4.00 TB for what it is to mirror. Choose a larger one.
separate: [{"kind":"mirror-drive","pool":"p1","group":"g1","name":"N","drive":"d1","by":"x2"}]
  block group-exists [] The mirror is there already at this moment: another step makes it before. Remove one of the two.
  block drive-taken [d1] The 4 TB drive in bay 1 is in use at this moment. Choose a free drive, or take it out first.
chunks5: [{"kind":"change-level","group":"g1","layout":"chunk-parity","drives":["x1"],"options":{"data":3}}]
  warn no-backup [] The change of level rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
  warn volume-not-grown [] The pool grows, but no step gives 10.94 TB of it to a volume: your folders will not see it. > {"label":"Add the steps: grow the volume, then the file system","command":{"kind":"insert-steps","after":"s1","steps":[{"kind":"grow-volume","pool":"p1","volume":"v1"},{"kind":"grow-file-system","pool":"p1","volume":"v1"}]}}
  note riskiest [] This is the riskiest kind of step: interrupted half-way it has been seen to end in wrong data. Have a verified backup, and do not switch off.
chunks5: [{"kind":"change-level","group":"g1","layout":"copies-2","drives":[]}]
  warn no-backup [] The change of level rewrites all that is stored. A power cut or a second fault in it can cost everything: make a backup first, and use a UPS.
  note usable-falls [] Usable space falls to 5.97 TB.
  note riskiest [] This is the riskiest kind of step: interrupted half-way it has been seen to end in wrong data. Have a verified backup, and do not switch off.
`;
const CASES = SAID.trim()
  .split(/\n(?=\S)/)
  .map((paragraph) => {
    const [first = "", ...expected] = paragraph.split("\n");
    const at = first.indexOf(": [");
    return [first.slice(0, at), JSON.parse(first.slice(at + 2)) as StepBody[], expected] as const;
  });

test.each(CASES)("on %s: %j", (name, steps, expected) => {
  const { findings } = walkPlan(numbered(BOXES[name]!, steps)).moments.at(-1)!.walked!;
  // That a drive joins without a test is said of most: only where nothing else is.
  const others = findings.filter(({ code }) => code !== "not-tested");
  const said = (others.length > 0 ? others : findings).map(
    ({ severity, code, drives, message, mend }) =>
      `  ${severity} ${code} [${drives.join()}] ${message}${mend ? ` > ${JSON.stringify(mend)}` : ""}`,
  );
  expect(said.map((line) => line.replaceAll("\u00a0", " "))).toEqual(expected);
});

test("what is said of a pool as it is", () => {
  const codes = (plan: Plan) => predict(plan).pools[0]!.findings.map((finding) => finding.code);
  expect(codes(copies)).toContain("chunk-placement");
  expect(codes(raid5)).not.toContain("chunk-placement");
  expect(codes(box("scheduled-parity", "parity-drive-1", [4, 4, 8]))).toContain("protected-as-of-last-sync");
  expect(codes(parity)).not.toContain("protected-as-of-last-sync");
  const two: Plan = {
    ...raid5,
    pools: [
      {
        ...raid5.pools[0]!,
        groups: [...raid5.pools[0]!.groups, { id: "g2", layout: "raid1", drives: ["x1", "x2"] }],
        spares: ["x3"],
      },
    ],
  };
  expect(codes(two)).toContain("mixed-layouts");
  expect(codes(over(two, { hotSpares: "per-group" }))).toContain("spare-of-one-group");
  expect(codes(over(two, { hotSpares: "shared" }))).not.toContain("spare-of-one-group");
  expect(codes(over(two, { hotSpares: "none" }))).toContain("spares-not-offered");
});

test("room that comes after a volume is full comes too late", () => {
  const rise = { step: "s1", first: "s1", capacity: 2e12, begins: 0, there: 40, fullWithout: 10, latestBegin: -30 };
  const demand = { volume: volume(1e12).volumes![0]!, capacity: 1e12, fullWithPlan: 10, fullWithoutPlan: 10 };
  expect(lateFindings([{ ...demand, rises: [rise] }], "2026-11-23", 3).get("s1")).toEqual([
    expect.objectContaining({
      code: "too-late",
      message: expect.stringMatching(/30 days too late.*on 2026-12-03.*on 2027-01-02.*Even begun/),
    }),
  ]);
  expect(lateFindings([{ ...demand, rises: [{ ...rise, there: 10 }] }], "2026-11-23", 3).size).toBe(0);
});

test.each<[string, Partial<Plan>, string, string]>([
  [
    "a backup of what is not there",
    { backups: [{ ...small, dataSets: ["s9"] }] },
    "no-such-data-set",
    "/backups/0/dataSets/0",
  ],
  [
    "a backup on a drive that is not there",
    { backups: [{ ...small, drive: "d9" }] },
    "no-such-drive",
    "/backups/0/drive",
  ],
  [
    "a day that there is not",
    { backups: [{ ...small, lastVerified: "2027-02-29" }] },
    "no-such-day",
    "/backups/0/lastVerified",
  ],
  [
    "data on no volume",
    { dataSets: [{ id: "s1", name: "", volume: "v9", bytes: 1, worth: "useful" }] },
    "no-such-volume",
    "/dataSets/0/volume",
  ],
  [
    "a pool that lands for itself",
    { pools: [{ ...choir.pools[0]!, landsFor: "p1" }] },
    "no-such-pool",
    "/pools/0/landsFor",
  ],
  [
    "a zone that there is not",
    { calendar: calendar({ timeZone: "Moon/Base" }) },
    "no-such-time-zone",
    "/calendar/timeZone",
  ],
  [
    "hours that end before they begin",
    { calendar: calendar({ hands: [{ days: [1], from: "22:00", to: "18:00" }] }) },
    "hours-backwards",
    "/calendar/hands/0",
  ],
  [
    "days that end before they begin",
    { calendar: calendar({ excluded: [{ from: "2027-01-02", to: "2027-01-01" }] }) },
    "days-backwards",
    "/calendar/excluded/0",
  ],
])("a plan file with %s contradicts itself", (_, more, code, pointer) => {
  expect(checkPlan({ ...choir, ...more })).toMatchObject({
    kind: "impossible",
    problems: expect.arrayContaining([expect.objectContaining({ code, pointer })]),
  });
});

function calendar(more: Partial<NonNullable<Plan["calendar"]>>): NonNullable<Plan["calendar"]> {
  const hands = [{ days: [1], from: "18:00", to: "22:00" }];
  return { id: "c1", start: "2026-11-23", timeZone: "Europe/Lisbon", deliveryDays: 3, hands, excluded: [], ...more };
}

test("a plan of a newer version is not taken apart", () => {
  expect(checkPlan({ ...choir, version: 2 })).toMatchObject({ kind: "newer", problems: [{ code: "newer-version" }] });
});
