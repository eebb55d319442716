import type { Pace } from "../chance/rates";
import { Draw } from "../simulator/draw";

// What befalls a pool, drive by drive and event by event, drawn at random: an independent statement of what a chain of
// states works out. It shares nothing with that but the inputs. Failures are drawn more often than they come
// (importance sampling), and each run carries the weight by which it is too frequent.

/** A drive, by what is known of it. Rates an hour. */
export interface SimulatedDrive {
  id: string;
  bytes: number;
  /** How often it fails in each year. */
  rates: readonly number[];
  rebuildHours: number;
  batch: string | null;
  isGone: boolean;
}

export interface SimulatedPool extends Omit<Pace, "fails" | "rebuilds"> {
  drives: readonly SimulatedDrive[];
  clauses: readonly { drives: readonly string[]; tolerance: number; reads: readonly number[] }[];
  spares: readonly (readonly string[])[];
  /** One lot of ten is bad, and fails so many times as often; the good ones the more seldom. */
  badBatch: number;
  hours: number;
  hoursOfYear: number;
}

/** What was found: of 1, with the standard error of the mean. */
export interface Simulated {
  chance: number;
  error: number;
  lost: number;
}

/** A run with its state. */
interface Run {
  failed: Map<string, "waits" | "rebuilds">;
  spares: number;
  weight: number;
  damaged: number;
  lost: number;
}

interface Clause {
  drives: readonly string[];
  tolerance: number;
  reads: ReadonlyMap<string, number>;
}

/** Runs of a pool's time, all from one seed. */
export class LossSimulation {
  private readonly dice: Draw;
  private readonly clauses: readonly Clause[];
  private readonly bytes: ReadonlyMap<string, number>;
  private readonly served: ReadonlySet<string>;
  /** For each drive all that clauses and spares tie it to, over however many others. */
  private readonly tied: ReadonlyMap<string, ReadonlySet<string>>;

  constructor(
    private readonly pool: SimulatedPool,
    seed: number,
  ) {
    this.dice = new Draw(seed);
    this.clauses = pool.clauses.map(({ drives, tolerance, reads }) => ({
      drives,
      tolerance,
      reads: new Map(drives.map((id, i) => [id, reads[i]!])),
    }));
    this.bytes = new Map(pool.drives.map(({ id, bytes }) => [id, bytes]));
    this.served = new Set(pool.spares[0] ?? []);
    const sets = [...pool.clauses.map(({ drives }) => drives), ...pool.spares];
    this.tied = new Map(
      pool.drives.map(({ id }) => {
        const tied = new Set([id]);
        // A set grows while it is gone through.
        for (const one of tied) for (const set of sets) if (set.includes(one)) for (const other of set) tied.add(other);
        return [id, tied] as const;
      }),
    );
  }

  /** Runs so often that the error is small, at least and at most so many times. */
  run({ least, most, error: wanted }: { least: number; most: number; error: number }): Simulated {
    let [n, mean, square, lost] = [0, 0, 0, 0];
    while (n < most) {
      const one = this.once();
      n += 1;
      const loss = one.damaged + one.lost;
      const by = loss - mean;
      mean += by / n;
      square += by * (loss - mean);
      lost += (one.lost - lost) / n;
      if (n >= least && n % 500 === 0 && Math.sqrt(square / n / n) <= wanted * mean) break;
    }
    return { chance: mean, error: Math.sqrt(square / (n - 1) / n), lost };
  }

  private random(): number {
    return this.dice.below(2 ** 32) / 2 ** 32;
  }

  private once(): Run {
    const { pool } = this;
    const failed = pool.drives.filter(({ isGone }) => isGone).map(({ id }) => [id, "waits"] as const);
    const run: Run = { failed: new Map(failed), spares: pool.spares.length, weight: 1, damaged: 0, lost: 0 };
    if (this.clauses.some((clause) => this.failedOf(clause, run) > clause.tolerance)) {
      run.lost = 1;
      return run;
    }
    const times = this.lots(run);
    let now = 0;
    while (now < pool.hours && run.weight > 0) {
      const year = Math.floor(now / pool.hoursOfYear + 1e-9);
      const until = Math.min(pool.hours, (year + 1) * pool.hoursOfYear);
      now = this.step(run, now, until, (drive) => (drive.rates[year] ?? 0) * (times.get(drive.batch ?? "") ?? 1));
    }
    return run;
  }

  /** Which of the batches are bad in this run: half of them are drawn so, and weighed for it. */
  private lots(run: Run): Map<string, number> {
    const { badBatch: bad, drives } = this.pool;
    const times = new Map<string, number>();
    if (bad === 1) return times;
    for (const batch of new Set(drives.flatMap((drive) => drive.batch ?? []))) {
      if (drives.filter((drive) => drive.batch === batch).length < 2) continue;
      const isBad = this.random() < 0.5;
      run.weight *= isBad ? 0.1 / 0.5 : 0.9 / 0.5;
      times.set(batch, isBad ? bad : (1 - 0.1 * bad) / 0.9);
    }
    return times;
  }

  private failedOf({ drives }: Clause, { failed }: Run): number {
    return drives.filter((id) => failed.has(id)).length;
  }

  private rebuildingOf({ drives }: Clause, { failed }: Run): number {
    return drives.filter((id) => failed.get(id) === "rebuilds").length;
  }

  /** What has to be read of the drives of a clause that are there: bytes, and whole drives. */
  private toRead(clause: Clause, { failed }: Run, rebuilding: number): { bytes: number; drives: number } {
    const there = clause.drives.filter((id) => !failed.has(id));
    const part = 1 / (1 + rebuilding);
    return {
      bytes: part * there.reduce((sum, id) => sum + clause.reads.get(id)!, 0),
      drives: part * there.reduce((sum, id) => sum + clause.reads.get(id)! / this.bytes.get(id)!, 0),
    };
  }

  /** Whether one of those that a drive has to do with is out. */
  private isStressed({ id }: SimulatedDrive, { failed }: Run): boolean {
    return this.pool.stressedAlways || [...this.tied.get(id)!].some((other) => failed.has(other));
  }

  /** Lets a run come to what happens next, or to the end of its year. */
  private step(run: Run, now: number, until: number, rateOf: (drive: SimulatedDrive) => number): number {
    const { pool } = this;
    const up = pool.drives.filter(({ id }) => !run.failed.has(id));
    const rates = up.map((drive) => rateOf(drive) * (this.isStressed(drive, run) ? pool.stress : 1));
    const fails = rates.reduce((sum, rate) => sum + rate, 0);
    const waiting = [...run.failed].filter(([, how]) => how === "waits").map(([id]) => id);
    const rebuilding = pool.drives.filter(({ id }) => run.failed.get(id) === "rebuilds");
    const arrives = pool.arrives * (waiting.length + pool.spares.length - run.spares);
    const rebuilt = rebuilding.reduce((sum, { rebuildHours }) => sum + 1 / rebuildHours, 0);
    const bare = this.clauses
      .filter((clause) => this.failedOf(clause, run) === clause.tolerance)
      .reduce((sum, clause) => sum + this.toRead(clause, run, this.rebuildingOf(clause, run)).drives, 0);
    const sector = bare * pool.latent;
    // Something happens about once in the time, however short: where that is too often, time itself weighs. What
    // happens is a failure about as often as a repair; where drives fail again and again that is pushed less, since
    // weights would multiply with each repair.
    const all = fails + arrives + rebuilt;
    const drawn = Math.max(all, 1.5 / pool.hours);
    const passes = -Math.log(1 - this.random()) / drawn;
    const ends = now + passes > until;
    const hours = ends ? until - now : passes;
    const grows = drawn - all - sector;
    run.damaged += run.weight * sector * (Math.abs(grows * hours) < 1e-12 ? hours : Math.expm1(grows * hours) / grows);
    run.weight *= Math.exp(grows * hours);
    if (ends) return until;
    run.weight *= all / drawn;
    const truly = fails / all;
    const likely = Math.max(truly, 0.4 / (1 + 2 * fails * pool.hours));
    const isFailure = this.random() < likely;
    run.weight *= isFailure ? truly / likely : (1 - truly) / (1 - likely);
    if (isFailure) {
      let at = this.random() * fails;
      const i = rates.findIndex((rate) => (at -= rate) < 0);
      this.fail(run, (up[i] ?? up.at(-1))!);
    } else if (this.random() * (arrives + rebuilt) < arrives) {
      const id = waiting[Math.floor(this.random() * waiting.length)];
      if (id === undefined) run.spares += 1;
      else run.failed.set(id, "rebuilds");
    } else {
      let at = this.random() * rebuilt;
      const drive = rebuilding.find(({ rebuildHours }) => (at -= 1 / rebuildHours) < 0) ?? rebuilding.at(-1);
      run.failed.delete(drive!.id);
    }
    return now + hours;
  }

  private fail(run: Run, { id }: SimulatedDrive): void {
    const hit = this.clauses.filter((clause) => clause.drives.includes(id));
    const before = hit.map((clause) => ({
      clause,
      rebuilding: this.rebuildingOf(clause, run),
      failed: this.failedOf(clause, run),
    }));
    const takesSpare = run.spares > 0 && this.served.has(id);
    if (takesSpare) run.spares -= 1;
    run.failed.set(id, takesSpare ? "rebuilds" : "waits");
    if (before.some(({ clause, failed }) => failed + 1 > clause.tolerance)) {
      run.lost += run.weight;
      run.weight = 0;
      return;
    }
    let sound = 1;
    for (const { clause, rebuilding } of before.filter((each) => each.failed + 1 === each.clause.tolerance)) {
      const { bytes, drives } = this.toRead(clause, run, rebuilding);
      const x = drives * this.pool.latent * this.pool.scrubHours;
      sound *= Math.exp(-this.pool.unreadable * bytes) * (x < 1e-9 ? 1 - x / 2 : (1 - Math.exp(-x)) / x);
    }
    run.damaged += run.weight * (1 - sound);
    run.weight *= sound;
  }
}
