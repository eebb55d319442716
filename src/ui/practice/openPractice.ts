import type { UnitFamily } from "@/core/bytes/formatBytes";
import type { Drive, Plan, Step } from "@/core/document/plan";
import { shortSize } from "@/core/drives/nameOfDrive";
import type { Running } from "@/core/simulator/doing";
import type { Mishap } from "@/core/simulator/mishaps";
import { hoursLeft, shareDone, type Practice } from "@/core/simulator/practice";
import { doAct, replay, withDrives, type PracticeAct } from "@/core/simulator/practiceLog";
import { truthOf, type PoolTruth } from "@/core/simulator/truth";
import { lengthWords } from "@/core/time/hoursWords";
import { stepLabel } from "@/core/steps/stepLabel";
import { isReadable } from "@/exchange/practiceBox/isReadable";
import { planOfPractice } from "@/core/rehearsal/planOfPractice";
import { practiceFace, practiceSmart, type PracticeFace } from "@/exchange/practiceBox/practiceFace";
import type { KeptPractice } from "@/store/database";
import { saidWords } from "./saidWords";

const HOUR = 3_600_000;

/** A drive as one sees it at the practice box: its label, and the light at its bay. */
export interface SeenDrive {
  id: string;
  size: string;
  serial: string;
  /** The bay that it is in; null for what lies on the shelf. */
  bay: number | null;
  /** What it does, in words. */
  is: string;
  state: "works" | "failed" | "missing";
}

/** What is under way on a practice box. */
export interface SeenWork {
  label: string;
  /** From 0 to 1. */
  share: number;
  hoursLeft: number;
  /** Whether it stands still, since its pool cannot be read or other work comes first. */
  stands: boolean;
}

/** A practice box as it is at a moment. */
export interface PracticeView {
  /** By its own clock, in milliseconds since 1970. */
  now: number;
  work: SeenWork[];
  /** What it has said, the last first. */
  said: { at: number; words: string }[];
  drives: SeenDrive[];
  bays: number;
  volumes: { id: string; name: string }[];
}

/** What a step is called on the box: one that is done again under the same id is another for it. */
const AGAIN = "-again-";
const ofPlan = (id: string): string => id.split(AGAIN)[0] ?? id;

/** A practice box that is under way: its log played up to now, and what is done on it from here. */
export class OpenPractice {
  private kept: KeptPractice;
  private practice: Practice;

  constructor(kept: KeptPractice) {
    this.kept = kept;
    this.practice = replay(kept, kept.acts.at(-1)?.at ?? 0);
  }

  /** Whether it is as a kept one is, but for the clock. */
  isOf(kept: KeptPractice): boolean {
    return this.kept.since === kept.since && this.kept.acts.length === kept.acts.length;
  }

  /** How far its clock is ahead of this device's, in milliseconds. */
  get ahead(): number {
    return this.kept.ahead;
  }

  private hoursAt(now: number): number {
    return Math.max(0, (now - this.kept.since) / HOUR);
  }

  private to(now: number): Practice {
    const passes = this.hoursAt(now) - this.practice.box.hours;
    if (passes > 0) this.practice.pass(passes);
    return this.practice;
  }

  private planAt: { said: number; acts: number; plan: Plan } | null = null;

  /** The plan as the box is; it changes only when the box has said something, or something was done on it. */
  private planNow(): Plan {
    const [said, acts] = [this.practice.said.length, this.kept.acts.length];
    if (this.planAt?.said !== said || this.planAt.acts !== acts)
      this.planAt = { said, acts, plan: planOfPractice(this.kept.plan, this.practice) };
    return this.planAt.plan;
  }

  /** Does something on it now. Returns what is to be kept, and why it refused, where it did. */
  private act(
    act: PracticeAct,
    drives: readonly Drive[] = [],
  ): { act: PracticeAct; plan: Plan; refused: string | null } {
    const known = withDrives(this.kept, drives);
    if (known.plan !== this.kept.plan) this.practice = replay(known, act.at);
    const done = doAct(this.practice, act);
    this.kept = { ...this.kept, plan: known.plan, acts: [...this.kept.acts, act] };
    return { act, plan: known.plan, refused: done ? null : (this.practice.said.at(-1)?.why ?? "") };
  }

  /**
   * Lets it begin a step, unless it is at it already, or has done it and the plan took that back.
   *
   * @param recorded how often the plan has it as done
   * @returns what is to be kept; null where there is nothing to begin
   */
  begin(step: Step, label: string, plan: Plan, recorded: number, now: number) {
    const practice = this.to(now);
    const doneBefore = practice.done.filter((id) => ofPlan(id) === step.id).length;
    if (this.isAt(step.id) || doneBefore > recorded) return null;
    const begun = practice.steps.has(step.id);
    const own = begun ? { ...step, id: `${step.id}${AGAIN}${this.kept.acts.length}` } : step;
    return this.act({ at: practice.box.hours, begins: own, label }, plan.drives);
  }

  /** Whether it is at a step now. */
  private isAt(step: string): boolean {
    return this.practice.running.some((running) => ofPlan(running.step.id) === step);
  }

  /** Why a step of the plan has not ended on it, as a sentence; null where it has, or was never begun on it. */
  notEnded(step: string, now: number): string | null {
    const practice = this.to(now);
    const { running, steps, done } = practice;
    const work = running.find((each) => ofPlan(each.step.id) === step);
    if (work && practice.stands(work))
      return (
        `On the practice box it stands still at ${Math.floor(shareDone(work) * 100)} %: its pool cannot be read, or ` +
        "other work comes first. Put right what has gone wrong, or record below that it has stopped."
      );
    if (work)
      return (
        `The practice box is still at it: ${Math.floor(shareDone(work) * 100)} % is done, and it takes ` +
        `${lengthWords(hoursLeft(work))} more. Let its clock go on first.`
      );
    const begun = [...steps.keys()].filter((id) => ofPlan(id) === step);
    const isDone = begun.some((id) => done.includes(id));
    return begun.length > 0 && !isDone
      ? "The practice box could not end this step. See what it has said, and record below that it has stopped."
      : null;
  }

  befall(mishap: Mishap, now: number) {
    return this.act({ at: this.to(now).box.hours, befalls: mishap });
  }

  pull(drive: string, now: number) {
    return this.act({ at: this.to(now).box.hours, pulls: drive });
  }

  seat(drive: string, now: number) {
    return this.act({ at: this.to(now).box.hours, seats: drive });
  }

  /** How many hours are left until the first of what it does has ended; null where it does nothing. */
  left(now: number): number | null {
    return this.to(now).left();
  }

  /** How much it has said: grows when something has happened. */
  get saidCount(): number {
    return this.practice.said.length;
  }

  private readable: boolean | null = null;

  /** Whether what it prints is read back as how it is; asked of how it was set up. */
  get isReadable(): boolean {
    return (this.readable ??= isReadable(this.kept.plan, new Date(this.kept.since).toISOString()));
  }

  face(now: number): PracticeFace {
    return practiceFace(this.kept.plan, this.to(now));
  }

  /** What its drives print of their health. */
  health(now: number): object[] {
    return practiceSmart(this.to(now));
  }

  /** What is on it, read back from end to end. */
  truth(now: number): PoolTruth[] {
    return truthOf(this.to(now));
  }

  view(now: number, unit: UnitFamily): PracticeView {
    const practice = this.to(now);
    const plan = this.planNow();
    const labels = new Map(this.kept.acts.flatMap((act) => ("begins" in act ? [[act.begins.id, act.label]] : [])));
    const labelOf = (id: string) => {
      const step = practice.steps.get(id);
      return labels.get(id) ?? (step ? stepLabel(step, plan, unit) : id);
    };
    return {
      now: this.kept.since + practice.box.hours * HOUR,
      work: practice.running.map((running) => ({
        label: labelOf(running.step.id),
        share: shareDone(running),
        hoursLeft: hoursLeft(running),
        stands: practice.stands(running),
      })),
      said: practice.said
        .map((said) => ({ at: this.kept.since + said.hours * HOUR, words: saidWords(said, plan, labelOf, unit) }))
        .reverse(),
      drives: seenDrives(practice, plan, unit),
      bays: practice.box.bays,
      volumes: plan.pools.flatMap((pool) => pool.volumes.map(({ id, name }) => ({ id, name }))),
    };
  }
}

/** Places of drives that are filled now. */
const filledBy = ({ phases, phase }: Running): number[] => {
  const op = phases[phase]?.op;
  if (op?.kind === "fill") return [op.place];
  return op?.kind === "copy" ? [op.to] : [];
};

function seenDrives({ box, running }: Practice, plan: Plan, unit: UnitFamily): SeenDrive[] {
  const filled = new Set(running.flatMap(filledBy));
  return box.drives
    .map(({ id, is, bay, state }, place): SeenDrive => {
      const pool = box.pools.find(({ groups }) => groups.some((group) => group.drives.includes(place)));
      const spare = box.pools.find(
        ({ spares, groups }) => spares.includes(place) || groups.some((group) => group.spares.includes(place)),
      );
      const nameOf = (known: { id: string } | undefined) =>
        plan.pools.find((each) => each.id === known?.id)?.name ?? "";
      const does =
        state === "failed"
          ? "failed"
          : filled.has(place)
            ? "is being filled"
            : pool
              ? `in ${nameOf(pool)}`
              : spare
                ? `stands by for ${nameOf(spare)}`
                : "idle";
      return { id, size: shortSize(is, unit), serial: is.serial ?? is.label, bay, is: does, state };
    })
    .sort((a, b) => (a.bay ?? Infinity) - (b.bay ?? Infinity));
}
