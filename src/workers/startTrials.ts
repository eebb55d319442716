import { wrap, type Remote } from "comlink";
import type { Plan } from "@/core/document/plan";
import type { Mend, Tabled } from "@/core/rehearsal/mends";
import type { Outcome } from "@/core/rehearsal/outcome";
import type { Cells } from "@/core/rehearsal/table";
import type { Owner } from "@/core/rehearsal/script";
import type { At, Instant, TrialSetting } from "@/core/rehearsal/trials";
import type { RehearseWork } from "./rehearse.worker";

/** No more workers than this, however many cores there are: each holds a box at each instant. */
const MOST_WORKERS = 8;

/** What is told while mishaps are tried. */
export interface TrialEvents {
  onPrepared: (made: { instants: readonly Instant[]; usual: Outcome }) => void;
  /** A part of the table of an owner, of so many cases. */
  onPart: (owner: Owner, part: Cells, cases: number) => void;
}

/** Work that is under way on all cores. */
export interface Running<T> {
  result: Promise<T>;
  cancel: () => void;
}

/** Starts workers and lets each do the next piece of work until none is left. */
function onAllCores<J>(
  jobs: () => Promise<readonly J[]> | readonly J[],
  begin: (work: Remote<RehearseWork>) => Promise<unknown>,
  each: (work: Remote<RehearseWork>, job: J) => Promise<void>,
): Running<void> {
  const count = Math.max(1, Math.min(MOST_WORKERS, navigator.hardwareConcurrency || 1));
  const workers = Array.from(
    { length: count },
    () => new Worker(new URL("./rehearse.worker.ts", import.meta.url), { type: "module" }),
  );
  const cancel = () => workers.forEach((worker) => worker.terminate());
  const broken = new Promise<never>((_, reject) => {
    for (const worker of workers)
      worker.addEventListener("error", () => reject(new Error("The mishaps could not be tried in this browser.")));
  });
  const all = async () => {
    const ready = workers.map((worker) => wrap<RehearseWork>(worker));
    const begun = ready.map((work) => begin(work));
    await begun[0];
    const left = [...(await jobs())];
    await Promise.all(
      ready.map(async (work, i) => {
        await begun[i];
        for (let job = left.shift(); job !== undefined; job = left.shift()) await each(work, job);
      }),
    );
  };
  return { result: Promise.race([all(), broken]).finally(cancel), cancel };
}

/**
 * Tries all single mishaps of a plan, or all pairs, in workers on all cores; results are told as they come.
 *
 * @param owners for whom; pairs for the one who does what is advised
 * @example startTrials(plan, { seed: 1, of: "singles", family: "TB", day }, ["advised"], events).cancel()
 */
export function startTrials(
  plan: Plan,
  setting: TrialSetting,
  owners: readonly Owner[],
  { onPrepared, onPart }: TrialEvents,
): Running<void> {
  let told: ((made: { instants: readonly Instant[] }) => void) | null = null;
  const first = new Promise<{ instants: readonly Instant[] }>((resolve) => (told = resolve));
  const tell = (made: { instants: readonly Instant[]; usual: Outcome }) => {
    if (!told) return;
    onPrepared(made);
    told(made);
    told = null;
  };
  type Job = { owner: Owner; at: At; cases: number };
  const jobs = async (): Promise<Job[]> => {
    const { instants } = await first;
    return instants.flatMap(({ happenings }, instant) =>
      owners.flatMap((owner): Job[] =>
        setting.of === "singles"
          ? [{ owner, at: { instant, happening: 0 }, cases: happenings.length }]
          : happenings.map((_, happening) => ({
              owner,
              at: { instant, happening },
              cases: pairsAfter(instants, { instant, happening }),
            })),
      ),
    );
  };
  return onAllCores(
    jobs,
    (work) => work.prepare(plan, setting).then(tell),
    async (work, { owner, at, cases }) =>
      onPart(owner, await (setting.of === "singles" ? work.singles(at.instant, owner) : work.pairs(at, owner)), cases),
  );
}

/**
 * How many pairs begin with a mishap: with all that come later, or at the same instant after it.
 *
 * @example pairsAfter(instants, { instant: 0, happening: 0 }) // one less than there are mishaps
 */
export function pairsAfter(instants: readonly Instant[], { instant, happening }: At): number {
  const later = instants.slice(instant + 1).reduce((sum, { happenings }) => sum + happenings.length, 0);
  return later + Math.max(0, (instants[instant]?.happenings.length ?? 0) - happening - 1);
}

/**
 * Tries changes of a plan that may help, each as all single mishaps of the plan with it.
 *
 * @param onTried told of each as it has been tried, with how many there are
 * @example startMends(plan, { cells, usual }, { seed: 1, of: "singles", family: "TB", day }, show).result
 */
export function startMends(
  plan: Plan,
  before: Tabled,
  { seed, of: _of, blocks: _blocks, ...adviser }: TrialSetting,
  onTried: (mend: Mend | null, all: number) => void,
): Running<void> {
  let all = 0;
  let proposing: ReturnType<Remote<RehearseWork>["proposals"]> | null = null;
  return onAllCores(
    async () => {
      const proposals = (await proposing) ?? [];
      all = proposals.length;
      return proposals;
    },
    async (work) => {
      proposing ??= work.proposals(plan, before, adviser);
      await proposing;
    },
    async (work, proposal) => onTried(await work.mend(proposal, before, adviser, seed), all),
  );
}
