import { nominalBytes } from "../../src/core/bytes/nominalBytes";
import type { Plan, Step } from "../../src/core/document/plan";
import { clinic } from "../../src/core/document/samples/clinic";
import { befall } from "../../src/core/simulator/mishaps";
import { Practice } from "../../src/core/simulator/practice";
import { truthOf } from "../../src/core/simulator/truth";

const TB = (n: number) => nominalBytes(n * 1000);

/** Six bays, a hybrid of mixed drives, and eight steps: two drives replaced, one more, and another level. */
function sixBays(): Plan {
  const drive = (id: string, terabytes: number, bay: number | null) => ({
    ...clinic.drives[0]!,
    id,
    serial: id,
    bytes: TB(terabytes),
    place: bay === null ? { shelf: true as const } : { bay },
  });
  const steps: Step[] = [
    { id: "s1", kind: "back-up", pool: "p1", to: "elsewhere" },
    { id: "s2", kind: "replace-drive", drive: "d1", by: "x1", how: "pulled" },
    { id: "s3", kind: "replace-drive", drive: "d2", by: "x2", how: "pulled" },
    { id: "s4", kind: "claim-space", group: "g1" },
    { id: "s5", kind: "widen-group", group: "g1", drives: ["x3"] },
    { id: "s6", kind: "change-level", group: "g1", layout: "hybrid-2", drives: ["x4"] },
    { id: "s7", kind: "grow-volume", pool: "p1", volume: "v1" },
    { id: "s8", kind: "verify", pool: "p1" },
  ];
  return {
    ...clinic,
    box: { name: "Six", bays: 6, rules: { set: "hybrid-box", overrides: { claiming: "whole-group" } } },
    drives: [
      ...[4, 4, 8, 12].map((terabytes, i) => drive(`d${i + 1}`, terabytes, i + 1)),
      ...[8, 12, 12, 12].map((terabytes, i) => drive(`x${i + 1}`, terabytes, null)),
    ],
    pools: [
      {
        id: "p1",
        name: "P",
        groups: [{ id: "g1", layout: "hybrid-1", drives: ["d1", "d2", "d3", "d4"] }],
        spares: [],
        volumes: [{ id: "v1", name: "V", bytes: 1e13, fileSystem: "ext4", usedBytes: 8e12 }],
      },
    ],
    steps,
  };
}

/** A box of the finest grain that is asked for, saved at the beginning of each step. */
function saved(): { practice: Practice; step: Step }[] {
  const plan = sixBays();
  const practice = Practice.of(plan, { blocks: 1024, seed: 1 });
  return plan.steps.map((step) => {
    const before = { practice: practice.fork(), step };
    if (!practice.do(step)) throw new Error(`${step.kind}: ${JSON.stringify(practice.said.at(-1))}`);
    return before;
  });
}

/**
 * Runs a six-bay plan of eight steps with a drive that dies in the middle of a step, each from a saved state at the
 * step's beginning to its end, with all data read back; for so long.
 *
 * @returns how many runs were done, the blocks that were read back, and those that were lost: nothing is left out
 */
export function practiceRuns(milliseconds: number): { runs: number; blocks: number; lost: number } {
  const starts = saved();
  const result = { runs: 0, blocks: 0, lost: 0 };
  const until = performance.now() + milliseconds;
  while (performance.now() < until) {
    const { practice, step } = starts[result.runs % starts.length]!;
    const other = practice.fork();
    const group = other.box.pools[0]!.groups[0]!;
    const place = group.drives[result.runs % group.drives.length]!;
    other.begin(step);
    other.pass((other.left() ?? 0) * (((result.runs * 7) % 10) / 10));
    befall(other, { kind: "drive-dies", drive: other.box.drives[place]!.id });
    for (let left = other.left(); left !== null; left = other.left()) other.pass(left);
    for (const pool of truthOf(other)) {
      result.blocks += pool.blocks;
      result.lost += pool.lost;
    }
    result.runs += 1;
  }
  return result;
}
