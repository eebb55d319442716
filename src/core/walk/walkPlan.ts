import { type Capacities, capacitiesOf } from "../box/capacities";
import { bandsOfPool, toleranceOfPool, usableOfPool } from "../box/figures";
import { driveOf, groupOf } from "../box/find";
import { rulesOfBox } from "../box/rulesOfBox";
import type { BoxState } from "../box/state";
import type { Bytes } from "../bytes/bytes";
import { formatBytes, type UnitFamily } from "../bytes/formatBytes";
import { loseBackups } from "../data/coverageChange";
import { preciousFindings } from "../data/precious";
import type { BoxRules, Plan, Step } from "../document/plan";
import { nameOfDriveFirst } from "../drives/nameOfDrive";
import { fateOf } from "../failures/fate";
import { byWeight, type Finding } from "../findings/finding";
import { layoutOf } from "../layouts/registry";
import { moduleOf } from "../steps/registry";
import { settle } from "../steps/settle";
import { noCost, type StepCost, type StepSetting } from "../steps/stepModule";
import { predict } from "../prediction/predict";
import type { PoolPrediction } from "../prediction/predictPool";

/** How exposed the data of a pool is while a step runs. */
export interface Exposure {
  pool: string;
  /** How many drives may fail, whichever, with nothing lost; −1 where data is lost already. */
  redundancy: number;
  /** The same before the step. */
  usual: number;
}

/** What a step of the plan does, and the box after it. */
export interface WalkedStep {
  step: Step;
  /** Whether it was carried out; a step that something blocks, or that is disabled, changes nothing. */
  done: boolean;
  findings: Finding[];
  cost: StepCost;
  exposure: Exposure[];
  /** Expected hours from the beginning of the plan. */
  from: number;
  to: number;
  does: string;
  why: string;
}

/** The box at one moment: before the first step, or after a step. */
export interface WalkedMoment {
  after: string | null;
  state: BoxState;
  capacities: Capacities;
  /** How many drives of each pool may fail, in the order of the pools. */
  tolerance: number[];
  /** What led here; null for the beginning. */
  walked: WalkedStep | null;
}

/** A plan walked from its beginning to its end. */
export interface Walk {
  plan: Plan;
  family: UnitFamily;
  /** The day, as YYYY-MM-DD, by which the age of backups is judged; null leaves that out. */
  day: string | null;
  /** One more than there are steps. */
  moments: WalkedMoment[];
}

/** Redundancy while a step runs: that of the bands before it without the drives that are missing meanwhile. */
function exposureOf(before: BoxState, after: BoxState, cost: StepCost, rules: BoxRules): Exposure[] {
  return before.plan.pools.flatMap((pool) => {
    const usual = toleranceOfPool(before.plan, pool, rules);
    const missing = cost.missing.filter((drive) => pool.groups.some((group) => group.drives.includes(drive)));
    const then = after.plan.pools.find((each) => each.id === pool.id);
    if (missing.length === 0) {
      const touched = cost.work.some(({ drive }) => pool.groups.some((group) => group.drives.includes(drive)));
      if (!touched || !then) return [];
      // While stripes are rewritten the weaker of the two shapes counts.
      const redundancy = Math.min(usual, toleranceOfPool(after.plan, then, rules));
      return redundancy < usual ? [{ pool: pool.id, redundancy, usual }] : [];
    }
    const fate = fateOf(bandsOfPool(before.plan, pool, rules), new Set(missing));
    return [
      { pool: pool.id, redundancy: fate.kind === "lost" || fate.kind === "partly-lost" ? -1 : fate.redundancy, usual },
    ];
  });
}

function walkStep(
  state: BoxState,
  step: Step,
  begin: number,
  previous: WalkedStep | null,
  setting: StepSetting,
): { state: BoxState; walked: WalkedStep } {
  const own = moduleOf(step);
  // A backup that was made before a long wait is not current after it.
  if (step.notBefore !== undefined && !step.disabled && state.backedUp.size > 0)
    state = { ...state, backedUp: new Set() };
  const words = own.say(state, step, setting);
  const start = step.together && previous ? previous.from : begin;
  const still: WalkedStep = {
    step,
    done: false,
    findings: [],
    cost: noCost({ hours: { low: 0, expected: 0, high: 0 } }),
    exposure: [],
    from: start,
    to: start,
    ...words,
  };
  if (step.disabled) return { state, walked: still };
  const findings = byWeight([...own.check(state, step, setting), ...overlapFindings(step, previous)]);
  if (findings.some((finding) => finding.severity === "block")) return { state, walked: { ...still, findings } };
  const applied = own.apply(state, step, setting);
  const settled = settle(applied, rulesOfBox(applied.plan));
  const cost = own.cost(state, settled, step, setting);
  const exposure = exposureOf(state, settled, cost, setting.rules);
  const risks = state.plan.dataSets ? riskFindings(state, step, cost, exposure, setting) : [];
  if (risks.some((finding) => finding.severity === "block"))
    return { state, walked: { ...still, findings: byWeight([...findings, ...risks]) } };
  const lost = state.plan.backups
    ? loseBackups(state.plan, settled.plan, cost.erased, setting.day, setting.family)
    : { plan: settled.plan, findings: [] };
  const after = lost.plan === settled.plan ? settled : { ...settled, plan: lost.plan };
  return {
    state: after,
    walked: {
      ...still,
      done: true,
      findings: byWeight([...findings, ...risks, ...lost.findings]),
      cost,
      exposure,
      to: start + cost.hours.expected,
    },
  };
}

/** What the step risks of pools with precious data: a rewrite of all that is stored, or hours without redundancy. */
function riskFindings(
  state: BoxState,
  step: Step,
  cost: StepCost,
  exposure: readonly Exposure[],
  { day }: StepSetting,
): Finding[] {
  return state.plan.pools.flatMap((pool) => {
    if (state.backedUp.has(pool.id)) return [];
    const members = pool.groups.flatMap((group) => group.drives);
    const rewrites =
      (step.kind === "widen-group" || step.kind === "change-level") &&
      cost.work.some(({ drive, writes }) => writes > 0 && members.includes(drive));
    const bare = cost.missing.length > 0 && exposure.some((each) => each.pool === pool.id && each.redundancy <= 0);
    if (!rewrites && !bare) return [];
    return preciousFindings(
      state.plan,
      step,
      pool.id,
      rewrites ? `This rewrites all that is stored on ${pool.name || "the pool"}` : "While this runs no drive may fail",
      day,
    );
  });
}

/** Only one change at a time: a rewrite or a rebuild must have ended before the next begins. */
function overlapFindings(step: Step, previous: WalkedStep | null): Finding[] {
  if (!step.together || !previous?.done) return [];
  const heavy = previous.cost.work.length > 0 && !["test-drive", "wipe-drive", "back-up"].includes(previous.step.kind);
  if (!heavy || ["test-drive", "wipe-drive"].includes(step.kind)) return [];
  return [
    {
      code: "before-the-last-has-ended",
      severity: "block",
      message:
        "The step before is still rewriting or rebuilding then. Only one change at a time: begin this when it has ended.",
      drives: [],
      mend: {
        label: "Begin when the last has ended",
        command: { kind: "edit-step", step: step.id, changes: { together: false } },
      },
    },
  ];
}

/** Space that appears and that no later step gives to a volume, or to its file system. */
function forgottenGrowing(walk: WalkedMoment[], rules: BoxRules, family: UnitFamily): void {
  if (rules.growing === "by-itself") return;
  const end = walk.at(-1);
  if (!end) return;
  for (const pool of end.state.plan.pools) {
    if (pool.volumes.length === 0) continue;
    const spare =
      usableOfPool(end.state.plan, pool, rules) - pool.volumes.reduce((sum, volume) => sum + volume.bytes, 0);
    const volume = pool.volumes.at(-1);
    const gain = lastGain(walk, pool.id);
    if (volume && gain && spare >= MOST_NOT_WORTH_SAYING && gain.gained > 0) {
      gain.moment.findings = byWeight([
        ...gain.moment.findings,
        {
          code: "volume-not-grown",
          severity: "warn",
          message: `The pool grows, but no step gives ${formatBytes(spare, family)} of it to a volume: your folders will not see it.`,
          drives: [],
          mend: {
            label: "Add the steps: grow the volume, then the file system",
            command: {
              kind: "insert-steps",
              after: gain.moment.step.id,
              steps: [
                { kind: "grow-volume", pool: pool.id, volume: volume.id },
                ...(volume.fileSystem === "none"
                  ? []
                  : [{ kind: "grow-file-system" as const, pool: pool.id, volume: volume.id }]),
              ],
            },
          },
        },
      ]);
    }
    for (const one of pool.volumes) {
      if (one.fileSystemBytes === undefined) continue;
      const grown = walk.findLast(
        (moment) =>
          moment.walked?.done && moment.walked.step.kind === "grow-volume" && moment.walked.step.volume === one.id,
      )?.walked;
      if (grown)
        grown.findings = byWeight([
          ...grown.findings,
          {
            code: "file-system-not-grown",
            severity: "warn",
            message: `The volume ${one.name} grows, but no step grows its file system: folders still see the old size.`,
            drives: [],
            mend: {
              label: "Add the step: grow the file system",
              command: {
                kind: "insert-steps",
                after: grown.step.id,
                steps: [{ kind: "grow-file-system", pool: pool.id, volume: one.id }],
              },
            },
          },
        ]);
    }
  }
}

/** Less than this is not worth a step. */
const MOST_NOT_WORTH_SAYING = 1e9;

/** The last step at which a pool gained space that its volumes did not have. */
function lastGain(walk: WalkedMoment[], id: string): { moment: WalkedStep; gained: Bytes } | null {
  for (let i = walk.length - 1; i > 0; i -= 1) {
    const [before, after] = [walk[i - 1], walk[i]];
    if (!before || !after?.walked?.done) continue;
    const usableAt = ({ state: { plan } }: WalkedMoment) => {
      const pool = plan.pools.find((each) => each.id === id);
      return pool ? usableOfPool(plan, pool, rulesOfBox(plan)) : 0;
    };
    const gained = usableAt(after) - usableAt(before);
    if (gained > 0) return { moment: after.walked, gained };
  }
  return null;
}

/** Larger drives whose space no later step claims, where the box does not by itself. */
function forgottenClaim(walk: WalkedMoment[], rules: BoxRules, family: UnitFamily): void {
  const end = walk.at(-1);
  if (!end || rules.claiming === "by-itself") return;
  for (const pool of end.state.plan.pools) {
    for (const group of pool.groups) {
      const open = Object.keys(group.reach ?? {});
      if (open.length === 0) continue;
      const { reach: _reach, ...claimed } = group;
      const then = { ...pool, groups: pool.groups.map((each) => (each.id === group.id ? claimed : each)) };
      const gain = usableOfPool(end.state.plan, then, rules) - usableOfPool(end.state.plan, pool, rules);
      const last = walk.findLast(
        (moment) =>
          moment.walked?.done && moment.walked.step.kind === "replace-drive" && open.includes(moment.walked.step.by),
      )?.walked;
      if (!last || gain < MOST_NOT_WORTH_SAYING) continue;
      const steps =
        rules.claiming === "per-drive"
          ? open.map((drive) => ({ kind: "claim-space" as const, group: group.id, drive }))
          : [{ kind: "claim-space" as const, group: group.id }];
      last.findings = byWeight([
        ...last.findings,
        {
          code: "space-not-claimed",
          severity: "warn",
          message: `${formatBytes(gain, family)} of the larger drives ${rules.claiming === "per-drive" ? "wait for a claim of each" : "wait to be claimed"}: your box does not take them in by itself.`,
          drives: open,
          mend: {
            label: "Add the step: claim the space",
            command: { kind: "insert-steps", after: last.step.id, steps },
          },
        },
      ]);
    }
  }
}

/** A chunk pool left unbalanced although that costs space. */
function forgottenRebalance(walk: WalkedMoment[], rules: BoxRules, family: UnitFamily): void {
  const end = walk.at(-1);
  if (!end) return;
  for (const pool of end.state.plan.pools) {
    for (const group of pool.groups) {
      if (!group.filled) continue;
      const { filled: _filled, ...balanced } = group;
      const then = { ...pool, groups: pool.groups.map((each) => (each.id === group.id ? balanced : each)) };
      const gain = usableOfPool(end.state.plan, then, rules) - usableOfPool(end.state.plan, pool, rules);
      const last = walk.findLast(
        (moment) =>
          moment.walked?.done &&
          ["widen-group", "replace-drive"].includes(moment.walked.step.kind) &&
          groupOf(moment.state.plan, group.id)?.filled !== undefined,
      )?.walked;
      if (!last || gain < MOST_NOT_WORTH_SAYING) continue;
      last.findings = byWeight([
        ...last.findings,
        {
          code: "not-rebalanced",
          severity: "warn",
          message: `What is stored stays where it is, so ${formatBytes(gain, family)} cannot be used: every chunk of ${layoutOf(group.layout).shortName} needs room on several drives.`,
          drives: [],
          mend: {
            label: "Add the step: rebalance",
            command: { kind: "insert-steps", after: last.step.id, steps: [{ kind: "rebalance", group: group.id }] },
          },
        },
      ]);
    }
  }
}

/**
 * Walks a plan through its steps to its moments: what each does, takes and risks, and what pool, volumes and file
 * systems hold after it. Steps that cannot be carried out say why and change nothing; the later ones are walked on from
 * there.
 *
 * @param family the units in which findings and sentences speak
 * @param earlier a walk of an earlier state of the same plan: as far as the box and the steps are the same, it is taken over
 * @param today as YYYY-MM-DD; the age of backups is judged by it, or by the plan's first day where it has a calendar
 * @example walk(plan).moments.at(-1).capacities.pool // what the pools hold in the end
 */
export function walkPlan(plan: Plan, family: UnitFamily = "TB", earlier?: Walk, today: string | null = null): Walk {
  const day = plan.calendar?.start ?? today;
  const moments: WalkedMoment[] = [];
  const sameStart =
    earlier !== undefined &&
    earlier.family === family &&
    earlier.plan.box === plan.box &&
    earlier.plan.drives === plan.drives &&
    earlier.plan.pools === plan.pools &&
    earlier.day === day &&
    earlier.plan.dataSets === plan.dataSets &&
    earlier.plan.backups === plan.backups;
  const momentOf = (state: BoxState, walked: WalkedStep | null, before: WalkedMoment | undefined): WalkedMoment => ({
    after: walked?.step.id ?? null,
    state,
    capacities:
      before && before.state.plan === state.plan ? before.capacities : capacitiesOf(state.plan, rulesOfBox(state.plan)),
    tolerance:
      before && before.state.plan === state.plan
        ? before.tolerance
        : state.plan.pools.map((pool) => toleranceOfPool(state.plan, pool, rulesOfBox(state.plan))),
    walked,
  });
  let state: BoxState = { plan: { ...plan, steps: [] }, tested: new Set(), backedUp: new Set() };
  const first = sameStart ? earlier.moments[0] : undefined;
  moments.push(first ?? momentOf(state, null, undefined));
  if (first) state = first.state;
  let same = sameStart;
  let end = 0;
  plan.steps.forEach((step, i) => {
    const previous = moments[i];
    const old = earlier?.moments[i + 1];
    same &&= old?.walked?.step === step;
    if (same && old?.walked) {
      // What looks ahead is said anew.
      const walked = {
        ...old.walked,
        findings: old.walked.findings.filter((finding) => !LOOKS_AHEAD.has(finding.code)),
      };
      moments.push({ ...old, walked });
      state = old.state;
    } else {
      const next = walkStep(state, step, end, previous?.walked ?? null, { rules: rulesOfBox(state.plan), family, day });
      state = next.state;
      moments.push(momentOf(state, next.walked, previous));
    }
    end = Math.max(end, moments.at(-1)?.walked?.to ?? end);
  });
  const rules = rulesOfBox(state.plan);
  forgottenClaim(moments, rules, family);
  forgottenRebalance(moments, rules, family);
  forgottenGrowing(moments, rules, family);
  return { plan, family, day, moments };
}

const LOOKS_AHEAD = new Set(["volume-not-grown", "file-system-not-grown", "space-not-claimed", "not-rebalanced"]);

/**
 * Everything that the core says of the pools at a moment; worked out when it is asked for, and kept.
 *
 * @example poolsAt(moment, "TB")[0].tolerance
 */
export function poolsAt(moment: WalkedMoment, family: UnitFamily): PoolPrediction[] {
  const kept = predictions.get(moment.state.plan);
  if (kept && kept.family === family) return kept.pools;
  const pools = predict(moment.state.plan, family).pools;
  predictions.set(moment.state.plan, { family, pools });
  return pools;
}

const predictions = new WeakMap<Plan, { family: UnitFamily; pools: PoolPrediction[] }>();

/** The drives that a plan erases, by serial, bay and size, each as it is before the step that erases it. */
export function erasedDrives({ moments, family }: Walk): { id: string; name: string }[] {
  const seen = new Map<string, string>();
  moments.forEach((moment, i) => {
    const before = moments[i - 1];
    for (const id of moment.walked?.cost.erased ?? []) {
      const drive = before && driveOf(before.state.plan, id);
      if (drive && !drive.toBuy && !seen.has(id)) seen.set(id, nameOfDriveFirst(drive, family));
    }
  });
  return [...seen].map(([id, name]) => ({ id, name }));
}
