import type { Plan, Step } from "../document/plan";
import type { Running } from "./doing";
import { doingOf } from "./doings/registry";
import { canBeRead } from "./canBeRead";
import { advance, begin, secondsOf } from "./run";
import { setUp, type Grain } from "./setUp";
import { forkBox, groupNamed, groupWith, placeOf, type SimBox, type SimPool } from "./simulatedBox";

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
  /** Groups that cannot be read, since too many of their drives are gone: nothing is written to them, by their ids. */
  down = new Set<string>();
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
    other.down = new Set(this.down);
    other.forgets = this.forgets;
    return other;
  }

  /** The pool that a step would change. */
  private poolOf(step: Step): SimPool | undefined {
    const { box } = this;
    const group = "group" in step ? groupNamed(box, step.group) : null;
    const drive = "drive" in step && step.drive ? groupWith(box, placeOf(box, step.drive)) : null;
    return group?.pool ?? drive?.pool;
  }

  /** Whether work that is under way changes a pool. */
  private changes({ phases, phase }: Running, pool: SimPool): boolean {
    const op = phases[phase]?.op;
    return op !== undefined && "group" in op && groupNamed(this.box, op.group)?.pool === pool;
  }

  /** Why a step cannot be begun beside what is under way, or on a pool that cannot be read; null where it can. */
  private whyNotNow(step: Step): string | null {
    const pool = this.poolOf(step);
    if (!pool || doingOf(step).bringsBack === true || step.together === true) return null;
    if (pool.groups.some(({ id }) => this.down.has(id))) return "The pool cannot be read.";
    const isBusy = this.running.some((running) => !running.held && this.changes(running, pool));
    return isBusy ? "Another change of the pool is under way." : null;
  }

  /** Work that rewrites the group in which a step fills a drive. */
  private rewriting(step: Step): Running | undefined {
    return this.running.find(({ phases, phase }) => {
      const op = phases[phase]?.op;
      return op !== undefined && "group" in op && "group" in step && op.group === step.group && op.kind !== "fill";
    });
  }

  /** Whether work stands still: its pool cannot be read, or it waits for other work. */
  stands({ held, waitsFor }: Running): boolean {
    return held === true || (waitsFor !== undefined && this.running.some(({ step }) => step.id === waitsFor));
  }

  /** Work that stood still is given up once something else is begun on its pool. */
  private giveUpHeld(step: Step): void {
    const pool = this.poolOf(step);
    this.giveUp((running) => running.held === true && pool !== undefined && this.changes(running, pool));
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
    const begun = this.whyNotNow(step) ?? begin(box, step);
    if (typeof begun === "string") {
      this.said.push({ hours: box.hours, what: "refused", step: step.id, why: begun });
      return false;
    }
    this.giveUpHeld(step);
    this.readAgain();
    const rewriting = doingOf(step).bringsBack && this.rewriting(step);
    if (rewriting) begun.waitsFor = rewriting.step.id;
    this.running.push(begun);
    this.steps.set(step.id, step);
    this.said.push({ hours: box.hours, what: "began", step: step.id });
    return true;
  }

  /** How many hours are left until the first of what is under way ends; null where nothing is, or all stands still. */
  left(): number | null {
    const each = this.running.filter((running) => !this.stands(running)).map((running) => hoursLeft(running));
    return each.length === 0 ? null : Math.min(...each);
  }

  /** How many hours are left until the first piece of what is under way is done; null where nothing is. */
  piece(): number | null {
    const each = this.running
      .filter((running) => !this.stands(running))
      .map(({ phases, phase, passed, away }) => Math.max(0, away + (phases[phase]?.seconds ?? 0) - passed) / 3600);
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
      const before = this.running.map((running) => ({ running, stands: this.stands(running) }));
      this.running = [];
      const goOn: Running[] = [];
      for (const { running, stands } of before) {
        if (stands) {
          goOn.push(running);
          continue;
        }
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

  /** Groups that have been filled, or made again, can be read; what stood still on them is given up. */
  private readAgain(): void {
    for (const id of this.down) {
      const group = groupNamed(this.box, id)?.group;
      if (group && !canBeRead(this.box, group)) continue;
      this.down.delete(id);
      this.giveUp(({ held, phases, phase }) => {
        const op = phases[phase]?.op;
        return held === true && op !== undefined && "group" in op && op.group === id;
      });
    }
  }

  /** Gives up work that is under way. */
  private giveUp(which: (running: Running) => boolean): void {
    const given = this.running.filter(which);
    this.running = this.running.filter((running) => !given.includes(running));
    for (const { step } of given) this.said.push({ hours: this.box.hours, what: "stopped", step: step.id });
  }

  private tell({ step, stuck }: Running): void {
    const { hours } = this.box;
    this.readAgain();
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
