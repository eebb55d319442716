import { applyCommand } from "../commands/applyCommand";
import { destinationOf } from "../data/destination";
import type { UnitFamily } from "../bytes/formatBytes";
import type { Command } from "../document/command";
import type { Drive, Plan, Pool, PricedDrive, Step, StepBody } from "../document/plan";
import { freeId } from "../records/freeId";
import { moduleOf } from "../steps/registry";
import { walkPlan } from "../walk/walkPlan";

/** What changes of a plan are worked out with. */
export interface ProposalSetting {
  family: UnitFamily;
  /** The day, as YYYY-MM-DD, by which the age of backups is judged; null leaves that out. */
  day: string | null;
}

/** What is done to a plan so that fewer mishaps cost data. */
export type MendKind = "attached" | "backup" | "verify" | "spare" | "order" | "ups";

/** A change of a plan that might help, before it is tried. */
export interface Proposal {
  kind: MendKind;
  /** The step that it is about, by its id; none where it is about the box or all steps. */
  step: string | null;
  /** Where the step goes instead, counted from 0. */
  to?: number;
  command: Command;
  /** What has to be bought for it. */
  buys: Drive[];
  /** The plan with it. */
  plan: Plan;
}

/** A proposal as it would stand in the plan; null where it does not fit, blocks a step, or asks for new warnings. */
export function proposed(
  plan: Plan,
  { family, day }: ProposalSetting,
  proposal: Omit<Proposal, "plan" | "buys"> & { buys?: Drive[] },
): Proposal | null {
  const result = applyCommand(plan, proposal.command);
  if (!result.ok) return null;
  const against = (of: Plan) => {
    const walked = walkPlan(of, family, undefined, day).moments.flatMap((moment) => moment.walked ?? []);
    const warns = walked.flatMap(({ findings }) => findings.filter(({ severity }) => severity === "warn")).length;
    return { blocks: walked.filter(({ done }) => !done).length, warns };
  };
  const [was, is] = [against(plan), against(result.plan)];
  const isWorse = is.blocks > was.blocks || (proposal.kind === "order" && is.warns > was.warns);
  return isWorse ? null : { buys: [], ...proposal, plan: result.plan };
}

/** The pool that a step works on, as far as one can see from outside; the first where none is named. */
function poolFor(plan: Plan, step: Step): Pool | undefined {
  const named = plan.pools.find(
    ({ id, groups }) =>
      ("pool" in step && step.pool === id) ||
      groups.some(
        (group) =>
          ("group" in step && step.group === group.id) ||
          ("drive" in step && step.drive !== undefined && group.drives.includes(step.drive)),
      ),
  );
  return named ?? plan.pools[0];
}

/** The cheapest drive to buy that is as large as any of a pool, or one as large where the plan has no price. */
export function spareToBuy(plan: Plan, pool: Pool): Drive | null {
  const members = plan.drives.filter(({ id }) => pool.groups.some(({ drives }) => drives.includes(id)));
  const [largest] = [...members].sort((a, b) => b.bytes - a.bytes);
  if (!largest) return null;
  const fits = (priced: PricedDrive) =>
    priced.bytes >= largest.bytes && priced.medium === largest.medium && priced.bus === largest.bus;
  const [priced] = (plan.prices ?? []).filter(fits).sort((a, b) => a.price - b.price);
  return {
    id: freeId(
      "b",
      plan.drives.map(({ id }) => id),
    ),
    label: priced?.label ?? "",
    bytes: priced?.bytes ?? largest.bytes,
    medium: largest.medium,
    bus: largest.bus,
    logicalSector: largest.logicalSector,
    physicalSector: largest.physicalSector,
    health: { state: "good" },
    toBuy: true,
    ...(priced ? { price: priced.price } : {}),
    place: { shelf: true },
  };
}

/** What may help one step. */
export function forStep(plan: Plan, id: string, setting: ProposalSetting): (Proposal | null)[] {
  const at = plan.steps.findIndex((step) => step.id === id);
  const step = plan.steps[at];
  const pool = step && poolFor(plan, step);
  if (!step || !pool) return [];
  const before = (kind: MendKind, body: StepBody) =>
    proposed(plan, setting, { kind, step: id, command: { kind: "insert-steps", before: id, steps: [body] } });
  // What is done to a drive before it is used is not put after it.
  const shares = (other: Step | undefined) =>
    other === undefined ||
    moduleOf(other)
      .handles(other)
      .some((drive) => moduleOf(step).handles(step).includes(drive));
  const moved = (to: number) =>
    shares(plan.steps[to])
      ? null
      : proposed(plan, setting, { kind: "order", step: id, to, command: { kind: "move-step", step: id, to } });
  return [
    "how" in step && step.how === "pulled"
      ? proposed(plan, setting, {
          kind: "attached",
          step: id,
          command: { kind: "edit-step", step: id, changes: { how: "attached" } },
        })
      : null,
    before("backup", { kind: "back-up", pool: pool.id, to: destinationOf(plan, pool) }),
    before("verify", { kind: "verify", pool: pool.id }),
    moved(at - 1),
    moved(at + 1),
  ];
}

/** A hot spare before everything else, for each pool that has none. */
export const forPools = (plan: Plan, setting: ProposalSetting): (Proposal | null)[] =>
  plan.pools.map((pool) => {
    const spare = pool.spares.length > 0 ? null : spareToBuy(plan, pool);
    const [first] = plan.steps;
    if (!spare) return null;
    return proposed(plan, setting, {
      kind: "spare",
      step: null,
      command: {
        kind: "insert-sequence",
        name: "A hot spare",
        ...(first ? { before: first.id } : {}),
        steps: [{ kind: "set-spare", pool: pool.id, drive: spare.id }],
        drives: [spare],
      },
      buys: [spare],
    });
  });
