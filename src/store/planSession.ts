import { liveQuery, type Subscription } from "dexie";
import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import type { CortijoDatabase } from "./database";
import { perform, redo, startHistory, undo, type History, type HistoryResult } from "./history";
import { loadPlan, savePlan } from "./planRepository";

/** Something to tell the user that did not come of pressing a button here, or that did not work. */
export interface Notice {
  id: number;
  kind: "info" | "problem";
  text: string;
  /** Whether undoing the last command answers it. */
  offersUndo: boolean;
}

export interface SessionState {
  status: "loading" | "ready" | "missing";
  history: History;
  /** `kept`: all is in the database; `saving`: soon; `unkept`: the database refuses, the plan is only on this page. */
  keeping: "kept" | "saving" | "unkept";
  /** Why the database refuses. */
  trouble: string | null;
  notice: Notice | null;
}

/** What a tab wants done to the plan; replayed on the newer plan when another tab was faster. */
type Wish = { kind: "command"; command: Command } | { kind: "undo" | "redo"; at: number };

const FULL =
  "The browser's storage is full, so changes are kept on this page only. Export the plan, then delete plans that you no longer need or free space on this device.";
const BLOCKED =
  "The browser does not let Cortijo keep data here (a private window, or storage that is blocked), so changes are on this page only. Export the plan before you close it.";

function troubleOf(error: unknown): string {
  const names =
    error instanceof Error
      ? [error.name, String((error as { inner?: { name?: string } }).inner?.name ?? ""), error.message].join(" ")
      : String(error);
  return /quota/i.test(names) ? FULL : BLOCKED;
}

/**
 * One open plan: applies commands at once, keeps each in the database as it happens, and follows what other tabs do.
 * When two tabs act at the same time, the later command is applied to the plan as the earlier one left it.
 */
export class PlanSession {
  private state: SessionState;
  private readonly listeners = new Set<() => void>();
  private revision = -1;
  private saved: History;
  private queue: Promise<void> = Promise.resolve();
  private pending = 0;
  private noticeId = 0;
  private watching: Subscription | null = null;

  constructor(
    private readonly database: CortijoDatabase,
    private readonly id: string,
    placeholder: Plan,
  ) {
    this.saved = startHistory(placeholder);
    this.state = { status: "loading", history: this.saved, keeping: "kept", trouble: null, notice: null };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly getState = (): SessionState => this.state;

  /** Reads the plan and begins to follow the database. */
  async open(fallback?: Plan): Promise<void> {
    try {
      const loaded = await loadPlan(this.database, this.id);
      if (!loaded) return this.set({ status: "missing" });
      this.adopt(loaded.history, loaded.revision);
      this.set({ status: "ready" });
      this.watching = liveQuery(() => this.database.plans.get(this.id)).subscribe({
        next: (kept) => {
          if (kept && kept.revision > this.revision && this.pending === 0) void this.follow();
        },
        error: (error: unknown) => this.lose(error),
      });
    } catch (error) {
      if (fallback) {
        this.adopt(startHistory(fallback), -1);
        this.set({ status: "ready" });
      } else this.set({ status: "missing" });
      this.lose(error);
    }
  }

  close(): void {
    this.watching?.unsubscribe();
    this.watching = null;
  }

  /** Does a command at once and keeps it. Returns why it cannot be done, or null. */
  do(command: Command, offersUndo = false): string | null {
    const result = perform(this.state.history, command, Date.now());
    if (!result.ok) {
      this.tell("problem", result.reason);
      return result.reason;
    }
    if (result.entry.patches.length === 0) return null;
    this.advance(result, { kind: "command", command });
    if (offersUndo) this.tell("info", sentence(result.entry.description), true);
    return null;
  }

  undo(): void {
    this.step(undo(this.state.history), "undo", "Undone");
  }

  redo(): void {
    this.step(redo(this.state.history), "redo", "Done again");
  }

  /** Says why something cannot be done, without doing anything. */
  say(reason: string): void {
    this.tell("problem", reason);
  }

  dismiss(): void {
    this.set({ notice: null });
  }

  /** Resolves when everything that was done so far is kept or has failed to be. */
  settled(): Promise<void> {
    return this.queue;
  }

  private step(result: HistoryResult, kind: "undo" | "redo", word: string): void {
    if (!result.ok) return;
    this.advance(result, { kind, at: result.entry.at });
    this.tell("info", `${word}: ${result.entry.description}.`);
  }

  private advance(result: Extract<HistoryResult, { ok: true }>, wish: Wish): void {
    const base = this.state.history;
    this.set({ history: result.history });
    if (this.state.keeping === "unkept") return;
    this.pending += 1;
    this.set({ keeping: "saving" });
    this.queue = this.queue.then(() => this.keep(base, result.history, wish));
  }

  private async keep(base: History, target: History, wish: Wish): Promise<void> {
    try {
      if (this.state.keeping === "unkept") return;
      // What was done on a plan that has since been overtaken must be done again on the newer one.
      if (base === this.saved && (await savePlan(this.database, this.id, this.revision, this.saved, target))) {
        this.saved = target;
        this.revision += 1;
      } else await this.catchUp(wish);
    } catch (error) {
      this.lose(error);
    } finally {
      this.pending -= 1;
      if (this.pending === 0 && this.state.keeping === "saving") this.set({ keeping: "kept" });
    }
  }

  /** Another tab was faster: takes its plan over and does there what was wished here. */
  private async catchUp(wish: Wish): Promise<void> {
    for (let attempt = 0; attempt < 20; attempt += 1) {
      const loaded = await loadPlan(this.database, this.id);
      if (!loaded) return this.set({ status: "missing" });
      this.adopt(loaded.history, loaded.revision);
      const again = replay(loaded.history, wish);
      if (!again.ok)
        return this.tell(
          "problem",
          `The plan was changed in another tab meanwhile, so this could not be done: ${again.reason}`,
        );
      if (await savePlan(this.database, this.id, this.revision, this.saved, again.history)) {
        this.saved = again.history;
        this.revision += 1;
        this.set({ history: again.history });
        return this.tell(
          "info",
          `The plan was also changed in another tab; both changes are in it. Last: ${again.entry.description}.`,
          true,
        );
      }
    }
    throw new Error("The plan changes too quickly in other tabs.");
  }

  /** Another tab has changed the plan while nothing was under way here. */
  private async follow(): Promise<void> {
    try {
      const loaded = await loadPlan(this.database, this.id);
      if (!loaded) return this.set({ status: "missing" });
      if (this.pending > 0 || loaded.revision <= this.revision) return;
      const last = loaded.history.entries[loaded.history.position - 1];
      this.adopt(loaded.history, loaded.revision);
      this.tell("info", last ? `Changed in another tab. Last: ${last.description}.` : "Changed in another tab.");
    } catch (error) {
      this.lose(error);
    }
  }

  private adopt(history: History, revision: number): void {
    this.saved = history;
    this.revision = revision;
    this.set({ history });
  }

  private lose(error: unknown): void {
    this.set({ keeping: "unkept", trouble: troubleOf(error) });
  }

  private tell(kind: Notice["kind"], text: string, offersUndo = false): void {
    this.noticeId += 1;
    this.set({ notice: { id: this.noticeId, kind, text, offersUndo } });
  }

  private set(change: Partial<SessionState>): void {
    this.state = { ...this.state, ...change };
    this.listeners.forEach((listener) => listener());
  }
}

const sentence = (words: string) => `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;

function replay(history: History, wish: Wish): HistoryResult {
  if (wish.kind === "command") return perform(history, wish.command, Date.now());
  // Undo means the very command that was seen as the last one, not whatever another tab has done since.
  const entry = history.entries[wish.kind === "undo" ? history.position - 1 : history.position];
  if (entry?.at !== wish.at)
    return { ok: false, reason: `look at the plan and ${wish.kind} again if you still want to.` };
  return wish.kind === "undo" ? undo(history) : redo(history);
}
