import type { Plan, Step } from "../document/plan";
import type { Running } from "./doing";
import { doingOf } from "./doings/registry";
import { advance, begin, secondsOf } from "./run";
import { setUp, type Grain } from "./setUp";
import { forkBox, groupNamed, groupWith, placeOf, type SimBox } from "./simulatedBox";

/** Something that the box said of itself. */
export interface Said {
  /** Hours since the beginning. */
  hours: number;
  what:
    | "began"
    | "ended"
    | "refused"
    | "stopped"
    | "thrown-out"
    | "not-there"
    | "spare-took-over"
    | "back"
    | "filled-again"
    | "power-cut"
    | "gone"
    | "forgotten";
  drive?: string;
  /** The step that it is about, by its id, and why it was refused. */
  step?: string;
  why?: string;
}

/** A simulated box on which a plan is tried: its clock, what it does, and what has befallen it. */
export class Practice {
  /** What is under way. */
  running: Running[] = [];
  /** Steps that have been begun, by their ids. */
  steps = new Map<string, Step>();
  /** Steps that have ended, by their ids. */
  done: string[] = [];
  said: Said[] = [];
  /** Since when drives are away, in hours since the beginning. */
  away = new Map<string, number>();
  /** Volumes whose data was deleted by mistake, and when. */
  deleted = new Map<string, number>();
  /** Whether the owner forgets the next step that makes a volume or its files larger. */
  forgets = false;

  private constructor(
    readonly box: SimBox,
    readonly seed: number,
  ) {}

  /**
   * A box as a plan says that it is before its first step.
   *
   * @example Practice.of(plan, { blocks: 1024, seed: 1 }).pass(24)
   */
  static of(plan: Plan, grain: Grain): Practice {
    return new Practice(setUp(plan, grain), grain.seed);
  }

  /** Another that is as this one is, and goes its own way from here. */
  fork(): Practice {
    const other = new Practice(forkBox(this.box), this.seed);
    other.running = this.running.map((running) => ({
      ...running,
      phases: running.phases.map((phase) => ({ ...phase })),
    }));
    other.steps = new Map(this.steps);
    other.done = [...this.done];
    other.said = [...this.said];
    other.away = new Map(this.away);
    other.deleted = new Map(this.deleted);
    other.forgets = this.forgets;
    return other;
  }

  /** Whether a step would change what is being changed already. */
  private isBusy(step: Step): boolean {
    const { box } = this;
    const group = "group" in step ? groupNamed(box, step.group) : null;
    const drive = "drive" in step && step.drive ? groupWith(box, placeOf(box, step.drive)) : null;
    const pool = group?.pool ?? drive?.pool;
    if (!pool) return false;
    const changing = this.running.some(({ phases, phase }) => {
      const op = phases[phase]?.op;
      return op !== undefined && "group" in op && groupNamed(box, op.group)?.pool === pool;
    });
    // A further drive that is gone is filled beside the first.
    return changing && doingOf(step).bringsBack !== true && step.together !== true;
  }

  /**
   * Begins a step, unless the box refuses it.
   *
   * @returns whether it began
   */
  begin(step: Step): boolean {
    const { box } = this;
    if (this.forgets && doingOf(step).enlarges) {
      this.forgets = false;
      this.said.push({ hours: box.hours, what: "forgotten", step: step.id });
      return false;
    }
    const begun = this.isBusy(step) ? "Another change of the pool is under way." : begin(box, step);
    if (typeof begun === "string") {
      this.said.push({ hours: box.hours, what: "refused", step: step.id, why: begun });
      return false;
    }
    this.running.push(begun);
    this.steps.set(step.id, step);
    this.said.push({ hours: box.hours, what: "began", step: step.id });
    return true;
  }

  /** How many hours are left until the first of what is under way ends; null where nothing is. */
  left(): number | null {
    const each = this.running.map((running) => hoursLeft(running));
    return each.length === 0 ? null : Math.min(...each);
  }

  /**
   * Lets hours pass on the box's clock.
   *
   * @example practice.pass(practice.left() ?? 0) // until what is under way has ended
   */
  pass(hours: number): void {
    let left = hours;
    for (;;) {
      const first = this.left();
      const passes = first === null ? left : Math.min(left, first);
      this.box.hours += passes;
      const before = this.running;
      this.running = [];
      const goOn: Running[] = [];
      for (const running of before) {
        // A hair more, so that what ends now does, whatever the rounding.
        const ended = advance(this.box, running, passes * 3600 + 1e-6);
        if (ended === null && !running.stuck) goOn.push(running);
        else this.tell(running);
      }
      this.running = [...goOn, ...this.running];
      left -= passes;
      if (left <= 0 || first === null) return;
    }
  }

  private tell({ step, stuck }: Running): void {
    const { hours } = this.box;
    if (!stuck) this.done.push(step.id);
    this.said.push({ hours, what: stuck ? "stopped" : "ended", step: step.id });
  }

  /** Does a step from its beginning to its end; says whether it did. */
  do(step: Step): boolean {
    if (!this.begin(step)) return false;
    const running = this.running.at(-1);
    while (running && this.running.includes(running)) this.pass(hoursLeft(running));
    return this.done.includes(step.id);
  }
}

const secondsBefore = ({ phases, phase }: Running): number =>
  phases.slice(0, phase).reduce((sum, { seconds }) => sum + seconds, 0);

/** How many hours a step that is under way still takes, if nothing comes between. */
export const hoursLeft = (running: Running): number =>
  Math.max(0, secondsOf(running) - secondsBefore(running) - running.passed) / 3600;

/** How much of its work is done, from 0 to 1. */
export function shareDone(running: Running): number {
  const all = running.phases.reduce((sum, { seconds }) => sum + seconds, 0);
  return all > 0 ? Math.min(1, (secondsBefore(running) + running.passed) / all) : 1;
}
