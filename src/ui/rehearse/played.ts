import type { Plan, Step } from "@/core/document/plan";
import type { UnitFamily } from "@/core/bytes/formatBytes";
import type { Adviser } from "@/core/rehearsal/errands";
import { keptOf } from "@/core/rehearsal/kept";
import { type Outcome, outcomeOf } from "@/core/rehearsal/outcome";
import { withBays, withFilled } from "@/core/rehearsal/planOfPractice";
import { playTo, type Stop } from "@/core/rehearsal/play";
import type { Answer, Owner, Script, Strike } from "@/core/rehearsal/script";
import { again, begin, forkStage, schedule, type Stage, type Trouble } from "@/core/rehearsal/stage";
import { hoursLeft, shareDone } from "@/core/simulator/practice";
import type { Mishap } from "@/core/simulator/mishaps";
import { stepLabel } from "@/core/steps/stepLabel";
import { saidWords } from "../practice/saidWords";

/** What a step of the plan takes on the strip of time. */
export interface Piece {
  step: string;
  label: string;
  from: number;
  to: number;
}

/** A mishap on the strip of time. */
export interface Struck {
  hours: number;
  mishap: Mishap;
}

/** A rehearsal as it is shown. */
export interface PlayedView {
  hours: number;
  /** Hours to the end, as far as it can be seen. */
  length: number;
  work: { label: string; share: number; hoursLeft: number; stands: boolean }[];
  /** Until which hour its owner waits for a delivery; null where for none. */
  waitsUntil: number | null;
  /** What the box has said, the last first. */
  said: { hours: number; words: string }[];
  /** What waits for an answer. */
  troubles: readonly Trouble[];
  isOver: boolean;
  outcome: Outcome;
  /** The box as a plan document, drives where they are. */
  plan: Plan;
  pieces: readonly Piece[];
  strikes: readonly Struck[];
}

/** What the name of a step that is done once more ends in. */
const AGAIN = again("");

/** No more states are kept to go back to. */
const MOST_SAVES = 120;

/** A rehearsal that is played, scrubbed and changed. */
export class Played {
  readonly script: { seed: number; strikes: Strike[]; answers: Answer[]; otherwise?: Owner };
  stage: Stage;
  private saves: Stage[] = [];
  private readonly usualTurns: readonly { id: string; at: number }[];
  readonly usual: Outcome;
  private readonly labels = new Map<string, string>();
  /** How many answers had been given when each mishap that was added here was. */
  private readonly added: { strike: Strike; answers: number; hours: number }[] = [];

  constructor(
    readonly asked: Plan,
    private readonly adviser: Adviser,
    script: Script,
  ) {
    const bare = begin(asked, { ...adviser, script: { seed: script.seed, strikes: [], answers: [] } });
    this.learn(bare.play.plan.steps, bare.plan);
    while (playTo(bare, Infinity) !== "over") continue;
    this.usual = outcomeOf(bare);
    this.usualTurns = [...bare.turns].map(([id, at]) => ({ id, at }));
    this.script = { ...script, strikes: [...script.strikes], answers: [...script.answers] };
    this.stage = this.fresh();
  }

  private fresh(): Stage {
    const stage = begin(this.asked, { ...this.adviser, script: this.script });
    this.saves = [forkStage(stage)];
    return stage;
  }

  get hours(): number {
    return this.stage.practice.box.hours;
  }

  get isOver(): boolean {
    return this.stage.isOver;
  }

  /** Names steps by how the box is before them; a step keeps the name by which it was first seen. */
  private learn(steps: Iterable<Step>, plan: Plan): void {
    for (const step of steps)
      if (!this.labels.has(step.id)) this.labels.set(step.id, stepLabel(step, plan, this.adviser.family));
  }

  /** Plays on to an hour, keeping states to go back to whenever something has happened. */
  playTo(until: number): Stop {
    for (;;) {
      const { practice } = this.stage;
      const said = practice.said.length;
      const left = practice.left();
      const next = Math.min(until, left === null ? Infinity : practice.box.hours + left);
      const before = practice.box.hours;
      const stop = playTo(this.stage, next);
      this.learn(practice.steps.values(), this.stage.plan);
      if (practice.said.length !== said && this.saves.length < MOST_SAVES) this.saves.push(forkStage(this.stage));
      if (stop !== "until" || next >= until || practice.box.hours <= before) return stop;
    }
  }

  /** Goes to an hour, forward or back: back by playing on from the last state that was kept before it. */
  seek(hours: number): Stop {
    if (hours < this.hours) {
      const save = this.saves.filter(({ practice }) => practice.box.hours <= hours).at(-1);
      this.stage = save ? forkStage(save) : this.fresh();
    }
    return this.playTo(hours);
  }

  /**
   * Goes on to the next thing that happens.
   *
   * @param atMost hours at most
   */
  toNext(atMost = Infinity): Stop {
    const begun = this.stage.practice.said.length;
    const stop = this.playTo(this.hours);
    // Something has begun now: that is what came next.
    if (stop !== "until" || this.stage.practice.said.length !== begun) return stop;
    const { practice, coming, waitsUntil } = this.stage;
    const left = practice.left();
    const at = Math.min(
      coming[0]?.at ?? Infinity,
      left === null ? Infinity : this.hours + left,
      waitsUntil > this.hours ? waitsUntil : Infinity,
      this.hours + atMost,
    );
    return this.playTo(Number.isFinite(at) ? at : this.hours + 24);
  }

  /** Whatever was to come from here on is not any more: something else happens. */
  private cut(): void {
    // Also what the script left to its owner has been answered so far, and stays so.
    this.script.answers.splice(0, Infinity, ...this.stage.answers);
    this.saves = this.saves.filter(({ practice }) => practice.box.hours <= this.hours + 1e-9);
  }

  /** Lets something befall the box, now or later. */
  strike(mishap: Mishap, at: number): void {
    const hours = Math.max(at, this.hours);
    this.cut();
    // Whoever plays decides from here.
    delete this.script.otherwise;
    const strike: Strike = { hours, mishap };
    this.added.push({ strike, answers: this.stage.answers.length, hours: this.hours });
    this.script.strikes.push(strike);
    for (const stage of [this.stage, ...this.saves]) {
      schedule(stage, { at: hours, mishap });
      if (stage.isOver) stage.isOver = false;
    }
    this.playTo(this.hours);
  }

  /** Takes the last mishap that was added back; says whether there was one. */
  takeBack(): boolean {
    const last = this.added.pop();
    if (!last) return false;
    const at = this.script.strikes.indexOf(last.strike);
    this.script.strikes.splice(at, 1);
    this.script.answers.length = Math.min(this.script.answers.length, last.answers);
    this.stage = this.fresh();
    this.playTo(last.hours);
    return true;
  }

  get canTakeBack(): boolean {
    return this.added.length > 0;
  }

  /** Answers what has gone wrong. */
  answer(given: Answer): void {
    this.cut();
    this.script.answers.push(given);
    this.playTo(this.hours);
  }

  /** The rehearsal as a plan keeps it: each mishap counted from the step in which it strikes. */
  kept(name: string) {
    const turns = [...this.stage.turns];
    const strikes = this.script.strikes.map((strike): Strike => {
      if (strike.step !== undefined) return strike;
      const turn = turns.filter(([, at]) => at <= strike.hours).at(-1);
      return turn ? { ...strike, step: turn[0], hours: strike.hours - turn[1] } : strike;
    });
    return keptOf({ ...this.script, strikes }, name);
  }

  /** Each step on the strip: those whose turn has come where they are, the rest as long as they usually take. */
  private pieces(): Piece[] {
    const { turns, practice, isOver } = this.stage;
    const pieces: Piece[] = [];
    let at = 0;
    this.usualTurns.forEach(({ id, at: usual }, i) => {
      const length = (this.usualTurns[i + 1]?.at ?? this.usual.hours) - usual;
      const from = turns.get(id) ?? Math.max(at, practice.box.hours);
      const next = this.usualTurns[i + 1];
      const nextTurn = next && turns.get(next.id);
      if (!turns.has(id) && isOver) return;
      const to =
        nextTurn ?? (isOver ? practice.box.hours : Math.max(from + length, turns.has(id) ? practice.box.hours : 0));
      pieces.push({ step: id, label: this.labels.get(id) ?? id, from, to });
      at = to;
    });
    return pieces;
  }

  private struck(): Struck[] {
    const { turns } = this.stage;
    return this.script.strikes.flatMap(({ step, hours, mishap }): Struck[] => {
      if (step === undefined) return [{ hours, mishap }];
      const turn = turns.get(step) ?? this.usualTurns.find(({ id }) => id === step)?.at;
      return turn === undefined ? [] : [{ hours: turn + hours, mishap }];
    });
  }

  private planAt: { key: string; of: Plan; plan: Plan } | null = null;

  /** The box as a plan document; the same one for as long as nothing of it has changed. */
  private planNow(): Plan {
    const { practice, plan } = this.stage;
    const bays = practice.box.drives.map(({ bay, state }) => `${bay} ${state}`);
    const work = practice.running.map(({ step, phase }) => `${step.id} ${phase}`);
    const key = [...bays, ...work].join();
    if (this.planAt?.key !== key || this.planAt.of !== plan)
      this.planAt = { key, of: plan, plan: withBays(withFilled(plan, practice), practice) };
    return this.planAt.plan;
  }

  labelOf(step: string): string {
    return this.labels.get(step) ?? this.labels.get(step.replace(AGAIN, "")) ?? "A step";
  }

  view(unit: UnitFamily): PlayedView {
    const { practice, troubles, isOver } = this.stage;
    const plan = this.planNow();
    const pieces = this.pieces();
    const strikes = this.struck();
    const ends = [this.hours, ...pieces.map(({ to }) => to), ...strikes.map(({ hours }) => hours)];
    return {
      hours: this.hours,
      length: Math.max(isOver ? 0 : this.usual.hours, 0.1, ...ends),
      work: practice.running.map((running) => ({
        label: this.labelOf(running.step.id),
        share: shareDone(running),
        hoursLeft: hoursLeft(running),
        stands: practice.stands(running),
      })),
      waitsUntil: this.stage.waitsUntil > this.hours + 1e-6 ? this.stage.waitsUntil : null,
      said: practice.said
        .map((said) => ({ hours: said.hours, words: saidWords(said, plan, (id) => this.labelOf(id), unit) }))
        .reverse(),
      troubles,
      isOver,
      outcome: outcomeOf(this.stage),
      plan,
      pieces,
      strikes,
    };
  }
}
