import type { LayoutId, Plan, RuleSetId, StepBody } from "../document/plan";
import { numbered } from "../testing/anySteps";
import { testDrive } from "../testing/arbitraries";
import { boxWith } from "../testing/boxWith";
import { rulesOf } from "../rules/ruleSets";
import { walkPlan } from "../walk/walkPlan";
import { attentionOf } from "./attention";
import { stepModules } from "./registry";
import { stepLabel } from "./stepLabel";

// One line for each kind of step on each sort of pool, worked out by hand: a hard disk of 3 to 8 TB makes 150 MB/s, one
// of 10 TB and more 190 MB/s; a rebuild goes at 0.6 of that, a rewrite at 0.33, a scrub at 0.8, a self-test at 0.7.

const boxed = (set: RuleSetId, layout: LayoutId, tb: number[], shelf: number[]): Plan => {
  const volume = { id: "v1", name: "V", bytes: 4e12, fileSystem: "ext4" as const, usedBytes: 2e12 };
  const plan = boxWith(set, layout, tb, shelf, { volumes: [volume] });
  const held = testDrive("h1", 4_000_787_030_016, { contents: { kind: "data" } });
  const backup = { everyDays: 7, keepsVersions: false, dataSets: [] };
  return {
    ...plan,
    drives: [...plan.drives, held],
    backups: [
      { id: "b1", name: "Stick", kind: "usb-drive", place: "here", ...backup },
      { id: "b2", name: "Line", kind: "service", place: "elsewhere", ...backup },
    ],
  };
};
const BOXES = {
  classic: boxed("classic-raid", "raid5", [4, 4, 4], [4, 8, 4, 4]),
  linux: boxed("linux-host", "raid5", [4, 4, 4], [4, 8, 4, 4]),
  "linux 4 8 8": boxed("linux-host", "raid5", [4, 8, 8], [8]),
  "linux stripe": boxed("linux-host", "raid0", [4, 4], [4, 4]),
  "linux mirrors": boxed("linux-host", "raid10", [4, 4, 4, 4], []),
  hybrid: boxed("hybrid-box", "hybrid-1", [4, 4, 8], [8, 12, 12]),
  mirror: boxed("classic-raid", "raid1", [4, 4, 8], [8]),
  separate: boxed("linux-host", "single", [4], [8]),
  "two separate": boxed("linux-host", "single", [4, 4], [8]),
  parity: boxed("parity-drive", "parity-drive-1", [4, 4, 8], [8, 12]),
  scheduled: boxed("scheduled-parity", "parity-drive-1", [4, 4, 8], [8, 12]),
  chunks: boxed("chunk-copies", "copies-2", [4, 4, 8], [8]),
};

/** What the last of some steps is called, says, takes and leaves. */
function told(plan: Plan, steps: StepBody[]): string[] {
  const { moments } = walkPlan(numbered(plan, steps));
  const [before, after] = [moments.at(-2)!, moments.at(-1)!];
  const walked = after.walked!;
  const { step, cost, does, done, findings } = walked;
  if (!done) return [does, `blocked: ${findings.filter((each) => each.severity === "block").map((each) => each.code)}`];
  const tb = (bytes: number) => (bytes / 1e12).toFixed(1);
  const work = cost.work.map((each) => `${each.drive} ${tb(each.reads)}/${tb(each.writes)}`);
  const places = after.state.plan.drives.flatMap((drive, i) => {
    const was = before.state.plan.drives[i]!;
    const where = "bay" in drive.place ? `bay ${drive.place.bay}` : "shelf";
    return JSON.stringify(was) === JSON.stringify(drive) ? [] : [`${drive.id} ${where}`];
  });
  const { pool, volume, fileSystem } = after.capacities;
  return [
    does,
    [
      stepLabel(step, before.state.plan, "TB"),
      `${cost.hours.expected.toFixed(1)} h`,
      cost.online,
      ...(cost.offline.expected > 0 ? [`away ${cost.offline.expected.toFixed(2)} h`] : []),
      ...walked.exposure.map((each) => `${each.redundancy} of ${each.usual} may fail`),
      ...work,
    ].join(", "),
    [
      cost.undoable ? "can be undone" : "no way back",
      ...(cost.erased.length > 0 ? [`erases ${cost.erased}`] : []),
      ...(cost.missing.length > 0 ? [`without ${cost.missing}`] : []),
      `at the ${attentionOf(step, before.state.plan, after.state.plan)}`,
      ...places,
      `${tb(before.capacities.pool)} > ${tb(pool)} ${tb(volume)} ${tb(fileSystem)}`,
    ].join(", "),
  ].map((line) => line.replace(/\u00a0/g, " "));
}

/** A box, the steps, and after "=" what the last of them says, takes and leaves. */
const TOLD = `
classic:
{"kind": "create-group", "pool": "p2", "group": "g2", "name": "Q", "layout": "raid1", "drives": ["x1", "x3"]}
= The 4 TB drive on the shelf and the 4 TB drive on the shelf become the new pool Q with RAID 1. Its first fill begins at once: until that has ended, none of its drives may fail.
  New pool Q: RAID 1 of 4 TB + 4 TB, 12.3 h, slower, 0 of 1 may fail, x1 4.0/0.0, x3 0.0/4.0
  can be undone, erases x1,x3, at the box, x1 bay 4, x3 bay 5, 8.0 > 12.0 8.0 7.7

classic:
{"kind": "add-group", "pool": "p1", "group": "g2", "layout": "raid5", "drives": ["x1", "x3", "x4"]}
= The 4 TB drive on the shelf, the 4 TB drive on the shelf, and the 4 TB drive on the shelf join P as a further RAID 5 group. Its first fill begins at once: until that has ended, none of its drives may fail.
  Add a RAID 5 group of 4 TB + 4 TB + 4 TB, 12.3 h, slower, 0 of 1 may fail, x1 4.0/4.0, x3 4.0/4.0, x4 4.0/4.0
  no way back, erases x1,x3,x4, at the box, x1 bay 4, x3 bay 5, x4 bay 6, 8.0 > 16.0 4.0 3.7

classic:
{"kind": "mirror-drive", "pool": "p2", "group": "g2", "name": "Q", "drive": "h1", "by": "x2"}
= The 4 TB drive on the shelf keeps its data and gets the 8 TB drive on the shelf as its mirror.
  Mirror 4 TB on 8 TB, 12.3 h, slower, 0 of 1 may fail, h1 4.0/0.0, x2 0.0/4.0
  can be undone, erases x2, at the box, x2 bay 4, h1 bay 5, 8.0 > 12.0 8.0 7.7

separate:
{"kind": "mirror-drive", "pool": "p1", "group": "g1", "name": "Q", "drive": "d1", "by": "x1"}
= The 4 TB drive in bay 1 keeps its data and gets the 8 TB drive on the shelf as its mirror.
  Mirror 4 TB in bay 1 on 8 TB, 12.3 h, slower, d1 4.0/0.0, x1 0.0/4.0
  can be undone, erases x1, at the box, x1 bay 2, 4.0 > 4.0 4.0 3.7

two separate:
{"kind": "mirror-drive", "pool": "p1", "group": "g1", "name": "Q", "drive": "d1", "also": ["d2"], "by": "x1"}
= The 4 TB drive in bay 1 and the 4 TB drive in bay 2 keep their data and get the 8 TB drive on the shelf as their mirror, each on a part of its own.
  blocked: too-small

classic:
{"kind": "widen-group", "group": "g1", "drives": ["x1"]}
= The 4 TB drive on the shelf joins the RAID 5 group of P.
  Widen by 4 TB, 22.5 h, slower, d1 4.0/4.0, d2 4.0/4.0, d3 4.0/4.0, x1 0.0/4.0
  no way back, erases x1, at the box, x1 bay 4, 8.0 > 12.0 4.0 3.7

linux:
{"kind": "widen-group", "group": "g1", "drives": ["x1", "x3"]}
= The 4 TB drive on the shelf and the 4 TB drive on the shelf join the RAID 5 group of P.
  Widen by 4 TB + 4 TB, 22.5 h, slower, d1 4.0/4.0, d2 4.0/4.0, d3 4.0/4.0, x1 0.0/4.0, x3 0.0/4.0
  no way back, erases x1,x3, at the box, x1 bay 4, x3 bay 5, 8.0 > 16.0 4.0 3.7

mirror:
{"kind": "widen-group", "group": "g1", "drives": ["x1"]}
= The 8 TB drive on the shelf joins the RAID 1 group of P.
  Widen by 8 TB, 12.3 h, slower, d1 4.0/0.0, x1 0.0/4.0
  can be undone, erases x1, at the box, x1 bay 4, 4.0 > 4.0 4.0 3.7

hybrid:
{"kind": "widen-group", "group": "g1", "drives": ["x2"]}
= The 12 TB drive on the shelf joins the Hybrid 1 group of P.
  Widen by 12 TB, 34.7 h, slower, d1 4.0/4.0, d2 4.0/4.0, d3 8.0/4.0, x2 0.0/8.0
  no way back, erases x2, at the box, x2 bay 4, 8.0 > 16.0 4.0 3.7

parity:
{"kind": "widen-group", "group": "g1", "drives": ["x1"]}
= The 8 TB drive on the shelf joins the Parity drive group of P.
  Widen by 8 TB, 15.1 h, online, away 0.25 h, x1 0.0/8.0
  no way back, erases x1, at the box, x1 bay 4, 8.0 > 16.0 16.0 15.1

scheduled:
{"kind": "widen-group", "group": "g1", "drives": ["x1"]}
= The 8 TB drive on the shelf joins the Parity drive group of P.
  Widen by 8 TB, 0.3 h, online, away 0.25 h
  no way back, erases x1, at the box, x1 bay 4, 8.0 > 16.0 4.0 3.7

chunks:
{"kind": "widen-group", "group": "g1", "drives": ["x1"]}
= The 8 TB drive on the shelf joins the 2 copies group of P.
  Widen by 8 TB, 0.1 h, online
  no way back, erases x1, at the box, x1 bay 4, 8.0 > 11.9 4.0 3.7

classic:
{"kind": "replace-drive", "drive": "d1", "by": "x2", "how": "pulled"}
= The 4 TB drive in bay 1 is pulled and replaced by the 8 TB drive on the shelf, and goes to the shelf.
  Replace 4 TB in bay 1 by 8 TB, 12.3 h, slower, 0 of 1 may fail, d2 4.0/0.0, d3 4.0/0.0, x2 0.0/4.0
  can be undone, erases x2, without d1, at the box, d1 shelf, x2 bay 1, 8.0 > 8.0 4.0 3.7

linux:
{"kind": "replace-drive", "drive": "d1", "by": "x2", "how": "attached"}
= The 4 TB drive in bay 1 is copied, while attached, to the 8 TB drive on the shelf, and goes to the shelf.
  Replace 4 TB in bay 1 by 8 TB, 12.3 h, slower, d1 4.0/0.0, x2 0.0/4.0
  can be undone, erases x2, at the box, d1 shelf, x2 bay 4, 8.0 > 8.0 4.0 3.7

linux:
{"kind": "replace-drive", "drive": "d1", "by": "x1", "how": "pulled"}
= The 4 TB drive in bay 1 is pulled and replaced by the 4 TB drive on the shelf, and goes to the shelf.
  Replace 4 TB in bay 1 by 4 TB, 12.3 h, slower, 0 of 1 may fail, d2 4.0/0.0, d3 4.0/0.0, x1 0.0/4.0
  can be undone, erases x1, without d1, at the box, d1 shelf, x1 bay 1, 8.0 > 8.0 4.0 3.7

hybrid:
{"kind": "replace-drive", "drive": "d1", "by": "x2", "how": "pulled"}
= The 4 TB drive in bay 1 is pulled and replaced by the 12 TB drive on the shelf, and goes to the shelf.
  Replace 4 TB in bay 1 by 12 TB, 24.7 h, slower, 0 of 1 may fail, d2 4.0/0.0, d3 8.0/0.0, x2 0.0/8.0
  can be undone, erases x2, without d1, at the box, d1 shelf, x2 bay 1, 8.0 > 12.0 4.0 3.7

chunks:
{"kind": "replace-drive", "drive": "d1", "by": "x1", "how": "attached"}
= The 4 TB drive in bay 1 is copied, while attached, to the 8 TB drive on the shelf, and goes to the shelf.
  Replace 4 TB in bay 1 by 8 TB, 3.1 h, slower, d1 1.0/0.0, x1 0.0/1.0
  can be undone, erases x1, at the box, d1 shelf, x1 bay 4, 8.0 > 8.0 4.0 3.7

parity:
{"kind": "replace-drive", "drive": "d1", "by": "x1", "how": "pulled"}
= The 4 TB drive in bay 1 is pulled and replaced by the 8 TB drive on the shelf, and goes to the shelf. Stop the pool to change drives.
  Replace 4 TB in bay 1 by 8 TB, 8.0 h, slower, away 0.25 h, 0 of 1 may fail, d2 4.0/0.0, d3 4.0/0.0, x1 0.0/4.0
  can be undone, erases x1, without d1, at the box, d1 shelf, x1 bay 1, 8.0 > 8.0 8.0 7.5

linux:
{"kind": "replace-drive", "drive": "d1", "by": "x2", "how": "attached"}
{"kind": "claim-space", "group": "g1"}
= P takes in the space of its larger drives.
  Claim the space of larger drives, 0.1 h, slower
  no way back, at the screen, 8.0 > 8.0 4.0 3.7

linux 4 8 8:
{"kind": "replace-drive", "drive": "d1", "by": "x1", "how": "attached"}
{"kind": "claim-space", "group": "g1"}
= P takes in the space of its larger drives.
  Claim the space of larger drives, 12.3 h, slower, x1 0.0/4.0, d2 0.0/4.0, d3 0.0/4.0
  no way back, at the screen, 8.0 > 16.0 4.0 3.7

chunks:
{"kind": "replace-drive", "drive": "d1", "by": "x1", "how": "attached"}
{"kind": "claim-space", "group": "g1", "drive": "x1"}
= P takes in the space of its larger drives, one drive of them.
  Claim the space of larger drives, 0.1 h, slower
  no way back, at the screen, 8.0 > 10.0 4.0 3.7

classic:
{"kind": "change-level", "group": "g1", "layout": "raid6", "drives": ["x1"]}
= P goes from RAID 5 to RAID 6, with the 4 TB drive on the shelf.
  To RAID 6 with 4 TB, 22.5 h, slower, d1 4.0/4.0, d2 4.0/4.0, d3 4.0/4.0, x1 0.0/4.0
  no way back, erases x1, at the box, x1 bay 4, 8.0 > 8.0 4.0 3.7

linux stripe:
{"kind": "change-level", "group": "g1", "layout": "raid10", "drives": ["x1", "x2"]}
= P goes from RAID 0 to RAID 10, with the 4 TB drive on the shelf and the 4 TB drive on the shelf.
  To RAID 10 with 4 TB + 4 TB, 22.5 h, slower, d1 4.0/4.0, d2 4.0/4.0, x1 0.0/4.0, x2 0.0/4.0
  no way back, erases x1,x2, at the box, x1 bay 3, x2 bay 4, 8.0 > 8.0 4.0 3.7

linux mirrors:
{"kind": "change-level", "group": "g1", "layout": "raid0", "drives": [], "without": ["d2", "d3"]}
= P goes from RAID 10 to RAID 0.
  To RAID 0, 22.5 h, slower, 0 of 1 may fail, d1 4.0/4.0, d2 4.0/0.0, d3 4.0/0.0, d4 4.0/4.0
  no way back, at the screen, 8.0 > 8.0 4.0 3.7

hybrid:
{"kind": "change-level", "group": "g1", "layout": "hybrid-2", "drives": ["x2", "x3"]}
= P goes from Hybrid 1 to Hybrid 2, with the 12 TB drive on the shelf and the 12 TB drive on the shelf.
  To Hybrid 2 with 12 TB + 12 TB, 22.4 h, slower, d1 4.0/4.0, d2 4.0/4.0, d3 4.0/8.0, x2 0.0/8.0, x3 0.0/8.0
  no way back, erases x2,x3, at the box, x2 bay 4, x3 bay 5, 8.0 > 16.0 4.0 3.7

parity:
{"kind": "change-level", "group": "g1", "layout": "parity-drive-2", "drives": ["x2"]}
= P goes from Parity drive to 2 parity drives, with the 12 TB drive on the shelf.
  To 2 parity drives with 12 TB, 8.0 h, slower, away 0.25 h, d1 4.0/0.0, d2 4.0/0.0, d3 4.0/0.0, x2 0.0/4.0
  can be undone, erases x2, at the box, x2 bay 4, 8.0 > 8.0 8.0 7.5

chunks:
{"kind": "change-level", "group": "g1", "layout": "chunk-parity", "drives": ["x1"]}
= P goes from 2 copies to Chunk parity 2 + 1, with the 8 TB drive on the shelf.
  To Chunk parity 2 + 1 with 8 TB, 44.9 h, slower, d1 4.0/4.0, d2 4.0/4.0, d3 8.0/8.0, x1 0.0/8.0
  no way back, erases x1, at the box, x1 bay 4, 8.0 > 15.9 4.0 3.7

classic:
{"kind": "set-spare", "pool": "p1", "drive": "x1"}
= The 4 TB drive on the shelf stands by as a hot spare of P.
  4 TB as hot spare, 0.1 h, online
  can be undone, erases x1, at the box, x1 bay 4, 8.0 > 8.0 4.0 3.7

classic:
{"kind": "set-spare", "pool": "p1", "drive": "x1"}
{"kind": "remove-spare", "drive": "x1"}
= The 4 TB drive in bay 4 no longer stands by.
  Remove a hot spare, 0.1 h, online
  can be undone, at the screen, 8.0 > 8.0 4.0 3.7

mirror:
{"kind": "remove-drive", "drive": "d3"}
= The 8 TB drive in bay 3 leaves P and goes to the shelf.
  Remove 8 TB in bay 3, 0.1 h, online
  can be undone, at the box, d3 shelf, 4.0 > 4.0 4.0 3.7

chunks:
{"kind": "widen-group", "group": "g1", "drives": ["x1"]}
{"kind": "remove-drive", "drive": "d1"}
= The 4 TB drive in bay 1 leaves P and goes to the shelf.
  Remove 4 TB in bay 1, 5.6 h, slower, d1 1.0/0.0
  can be undone, at the box, d1 shelf, 11.9 > 10.0 4.0 3.7

parity:
{"kind": "remove-drive", "drive": "d1"}
= The 4 TB drive in bay 1 leaves P and goes to the shelf.
  Remove 4 TB in bay 1, 0.3 h, online, away 0.25 h
  can be undone, at the box, d1 shelf, 8.0 > 4.0 4.0 3.7

classic:
{"kind": "grow-volume", "pool": "p1", "volume": "v1", "bytes": 7000000000000}
= The volume V grows to 7.00 TB.
  Grow the volume to 7.00 TB, 0.1 h, online
  can be undone, at the screen, 8.0 > 8.0 7.0 3.7

classic:
{"kind": "grow-volume", "pool": "p1", "volume": "v1"}
= The volume V grows to all that the pool has.
  Grow the volume, 0.1 h, online
  can be undone, at the screen, 8.0 > 8.0 8.0 3.7

linux:
{"kind": "shrink-volume", "pool": "p1", "volume": "v1", "bytes": 3000000000000}
= The volume V shrinks to 3.00 TB, its file system first.
  Shrink a volume to 3.00 TB, 5.6 h, offline, away 5.61 h
  can be undone, at the screen, 8.0 > 8.0 3.0 2.8

classic:
{"kind": "grow-volume", "pool": "p1", "volume": "v1"}
{"kind": "grow-file-system", "pool": "p1", "volume": "v1"}
= The file system of V grows to the whole volume.
  Grow the file system, 0.1 h, online
  can be undone, at the screen, 8.0 > 8.0 8.0 7.5

classic:
{"kind": "test-drive", "drive": "x1"}
= The 4 TB drive on the shelf gets an extended self-test.
  Test 4 TB, 10.6 h, online, x1 4.0/0.0
  can be undone, at the box, 8.0 > 8.0 4.0 3.7

classic:
{"kind": "wipe-drive", "drive": "h1"}
= The 4 TB drive on the shelf is overwritten from end to end.
  Wipe 4 TB, 7.4 h, online, h1 0.0/4.0
  no way back, erases h1, at the box, h1 shelf, 8.0 > 8.0 4.0 3.7

classic:
{"kind": "back-up", "pool": "p1", "to": "b1"}
= All data of P is copied to Stick, and the copy checked.
  Back up, 4.0 h, slower
  can be undone, at the box, 8.0 > 8.0 4.0 3.7

classic:
{"kind": "back-up", "pool": "p1", "to": "b2"}
= All data of P is copied to Line, and the copy checked.
  Back up, 88.9 h, slower
  can be undone, at the screen, 8.0 > 8.0 4.0 3.7

classic:
{"kind": "back-up", "pool": "p1", "to": ""}
= All data of P is copied to another place, and the copy checked.
  Back up, 4.7 h, slower
  can be undone, at the screen, 8.0 > 8.0 4.0 3.7

classic:
{"kind": "back-up", "pool": "p1", "to": "a drawer", "rate": 100000000}
= All data of P is copied to a drawer, and the copy checked.
  Back up, 5.6 h, slower
  can be undone, at the screen, 8.0 > 8.0 4.0 3.7

classic:
{"kind": "verify", "pool": "p1"}
= All of P is read and compared with its copies or parity.
  Verify (scrub), 9.3 h, slower, d1 4.0/0.0, d2 4.0/0.0, d3 4.0/0.0
  can be undone, at the screen, 8.0 > 8.0 4.0 3.7

chunks:
{"kind": "verify", "pool": "p1"}
= All of P is read and compared with its copies or parity.
  Verify (scrub), 4.6 h, slower, d1 1.0/0.0, d3 2.0/0.0, d2 1.0/0.0
  can be undone, at the screen, 8.0 > 8.0 4.0 3.7

parity:
{"kind": "change-parity-drive", "group": "g1", "drive": "d3", "by": "x2"}
= The 12 TB drive on the shelf becomes the parity drive of P in place of the 8 TB drive in bay 3.
  Parity drive: 12 TB for 8 TB, 8.0 h, slower, away 0.25 h, 0 of 1 may fail, d1 4.0/0.0, d2 4.0/0.0, x2 0.0/4.0
  can be undone, erases x2, without d3, at the box, d3 shelf, x2 bay 3, 8.0 > 8.0 8.0 7.5

chunks:
{"kind": "widen-group", "group": "g1", "drives": ["x1"]}
{"kind": "rebalance", "group": "g1"}
= What is stored in P is spread over all its drives again.
  Rebalance, 11.2 h, slower, d1 1.0/1.0, d2 1.0/1.0, d3 2.0/2.0, x1 0.0/0.0
  can be undone, at the screen, 11.9 > 11.9 4.0 3.7

classic:
{"kind": "back-up", "pool": "p1", "to": "b1"}
{"kind": "rebuild-from-backup", "pool": "p1", "layout": "raid6", "drives": ["d1", "d2", "d3", "x2"]}
= P is erased and made anew with RAID 6 over the 4 TB drive in bay 1, the 4 TB drive in bay 2, the 4 TB drive in bay 3, and the 8 TB drive on the shelf, then filled from the backup.
  Anew as RAID 6 from the backup, 12.3 h, offline, away 4.75 h, 0 of 1 may fail, d1 4.0/4.0, d2 4.0/4.0, d3 4.0/4.0, x2 4.0/4.0
  no way back, erases d1,d2,d3,x2, at the box, x2 bay 4, 8.0 > 8.0 4.0 3.7

classic:
{"kind": "back-up", "pool": "p1", "to": "b1"}
{"kind": "rebuild-from-backup", "pool": "p1", "layout": "hybrid-1", "drives": ["x2", "d2", "d3"], "box": {"name": "New", "bays": 4, "rules": {"set": "hybrid-box"}}}
= P is erased and made anew in New (Hybrid box) with Hybrid 1 over the 8 TB drive on the shelf, the 4 TB drive in bay 2, and the 4 TB drive in bay 3, then filled from the backup.
  Anew as Hybrid 1 from the backup, 12.3 h, offline, away 4.75 h, 0 of 1 may fail, x2 4.0/4.0, d2 4.0/4.0, d3 4.0/4.0
  no way back, erases d1,d2,d3,x2, at the box, d1 shelf, x2 bay 1, 8.0 > 8.0 4.0 3.7

scheduled:
{"kind": "sync", "pool": "p1"}
= The parity of P is brought up to date.
  Sync the parity, 7.8 h, slower, d1 4.0/0.0, d2 4.0/0.0, d3 4.0/0.0
  can be undone, at the screen, 8.0 > 8.0 4.0 3.7
`;
const CASES = TOLD.trim()
  .split("\n\n")
  .map((paragraph) => {
    const [box = "", ...lines] = paragraph.split("\n");
    const steps = lines.filter((line) => line.startsWith("{")).map((line) => JSON.parse(line) as StepBody);
    const expected = lines.filter((line) => !line.startsWith("{")).map((line) => line.slice(2));
    return [box.slice(0, -1) as keyof typeof BOXES, steps, expected] as const;
  });

test.each(CASES)("on %s: %j", (box, steps, expected) => {
  expect(told(BOXES[box], steps)).toEqual(expected);
});

test("every kind of step is among them", () => {
  const tried = new Set(CASES.map(([, steps]) => steps.at(-1)!.kind));
  expect([...tried].sort()).toEqual(Object.keys(stepModules).sort());
});

test("what menus offer, on each sort of pool", () => {
  const offers = (plan: Plan, under: "pool" | "drives") =>
    Object.values(stepModules).flatMap(({ menu }) => {
      const setting = { plan, rules: rulesOf(plan.box.rules), unit: "TB" as const };
      if (menu.under !== under) return [];
      return menu.under === "pool"
        ? menu.offers(plan.pools[0]!, setting)
        : menu.under === "drives"
          ? menu.offers(setting)
          : [];
    });
  const labels = (plan: Plan, under: "pool" | "drives") =>
    offers(plan, under).map(
      (offer) => `${offer.label.replace(/\u00a0/g, " ")} (${offer.steps.map((step) => step.kind)})`,
    );
  const grow = ["Grow V (grow-volume)", "Grow the file system of V (grow-file-system)"];
  const always = ["Back up (back-up)", "Verify (scrub) (verify)"];
  expect(labels(BOXES.linux, "pool").sort()).toEqual(
    [
      ...grow,
      ...always,
      "Claim the space of larger drives (claim-space)",
      "Shrink V by a hundredth (shrink-volume)",
    ].sort(),
  );
  expect(labels(BOXES.classic, "pool")).not.toContain("Shrink V by a hundredth (shrink-volume)");
  expect(labels(BOXES.scheduled, "pool")).toContain("Sync the parity (sync)");
  expect(labels(BOXES.parity, "pool")).not.toContain("Sync the parity (sync)");
  expect(labels(BOXES.chunks, "pool")).toContain("Rebalance (rebalance)");
  expect(labels(BOXES.linux, "pool")).not.toContain("Rebalance (rebalance)");
  // Of the drives: what lies free can be tested and wiped, and the one with data mirrored on the least that does.
  const drives = labels(BOXES.linux, "drives");
  expect(drives).toContain("Mirror 4 TB with its data on 4 TB (mirror-drive)");
  expect(drives.filter((label) => label.endsWith("(wipe-drive)"))).toHaveLength(5);
  expect(drives.filter((label) => label.endsWith("(test-drive)")).length).toBeGreaterThanOrEqual(5);
  const raw = { ...BOXES.linux, pools: [{ ...BOXES.linux.pools[0]!, volumes: [] }] };
  expect(labels(raw, "pool").sort()).toEqual([...always, "Claim the space of larger drives (claim-space)"].sort());
});
