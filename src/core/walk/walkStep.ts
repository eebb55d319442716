import { rulesOfBox } from "../box/rulesOfBox";
import type { BoxState } from "../box/state";
import { loseBackups } from "../data/coverageChange";
import type { Step } from "../document/plan";
import { byWeight } from "../findings/finding";
import { goneFindings } from "../steps/goneFindings";
import { moduleOf } from "../steps/registry";
import { settle } from "../steps/settle";
import { noCost, type StepSetting } from "../steps/stepModule";
import { costOfStep } from "../steps/swapping";
import { NO_HOURS } from "../time/hours";
import { exposureOf } from "./exposure";
import type { WalkedStep } from "./moment";
import { overlapFindings, runningAt } from "./overlapFindings";
import { riskFindings } from "./riskFindings";

/** The box when a step begins: a backup that was made before a long wait is not current after it. */
const atItsBeginning = (state: BoxState, { notBefore, disabled }: Step): BoxState =>
  notBefore !== undefined && !disabled && state.backedUp.size > 0 ? { ...state, backedUp: new Map() } : state;

export function walkStep(
  was: BoxState,
  step: Step,
  begin: number,
  before: readonly WalkedStep[],
  asked: StepSetting,
): { state: BoxState; walked: WalkedStep } {
  const own = moduleOf(step);
  const state = atItsBeginning(was, step);
  const words = own.say(state, step, asked);
  const previous = before.at(-1);
  const start = step.together && previous ? previous.from : begin;
  const running = step.together ? runningAt(start, before) : [];
  const setting = running.length > 0 ? { ...asked, unready: running.flatMap(({ cost }) => cost.unready) } : asked;
  const still: WalkedStep = {
    step,
    done: false,
    findings: [],
    cost: noCost({ hours: NO_HOURS }),
    exposure: [],
    from: start,
    to: start,
    ...words,
  };
  if (step.disabled) return { state, walked: still };
  const checked = goneFindings(state, step, setting, own.check(state, step, setting));
  const findings = byWeight([...checked, ...overlapFindings(step, start, before, state.plan)]);
  if (findings.some((finding) => finding.severity === "block")) return { state, walked: { ...still, findings } };
  const applied = own.apply(state, step, setting);
  const settled = settle(applied, rulesOfBox(applied.plan));
  const cost = costOfStep(
    state,
    settled,
    step,
    setting,
    running.some(({ cost, from }) => cost.swaps > 0 && from === start),
  );
  const exposure = exposureOf(state, settled, cost, setting);
  const risks = state.plan.dataSets ? riskFindings(state, step, cost, exposure, setting) : [];
  const all = byWeight([...findings, ...risks]);
  if (risks.some((finding) => finding.severity === "block")) return { state, walked: { ...still, findings: all } };
  const lost = state.plan.backups
    ? loseBackups(state.plan, settled.plan, cost.erased, setting.day, setting.family)
    : { plan: settled.plan, findings: [] };
  const after = lost.plan === settled.plan ? settled : { ...settled, plan: lost.plan };
  return {
    state: after,
    walked: {
      ...still,
      done: true,
      findings: byWeight([...all, ...lost.findings]),
      cost,
      exposure,
      to: start + cost.hours.expected,
    },
  };
}
