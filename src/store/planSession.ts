import { liveQuery, type Subscription } from "dexie";
import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import { capital } from "@/core/words/capital";
import { NotLoaded } from "./checking";
import type { CortijoDatabase } from "./database";
import { perform, redo, startHistory, undo, type History, type HistoryResult } from "./history";
import { loadPlan, putPlan, restorePlan, savePlan, type Damage, type Loading, type Saving } from "./planRepository";

/** Something to tell the user that did not come of pressing a button here, or that did not work. */
export interface Notice {
  id: number;
  kind: "info" | "problem";
  text: string;
  /** Whether undoing the last command answers it. */
  offersUndo: boolean;
}

export interface SessionState {
  status: "loading" | "ready" | "missing" | "deleted" | "damaged" | "unloaded";
  history: History;
  /** `kept`: all is in the database; `saving`: soon; `unkept`: some of it is only on this page. */
  keeping: "kept" | "saving" | "unkept";
  /** Why it is only on this page. */
  trouble: string | null;
  /** Whether the plan that is on this page has been deleted, or cleared with the site's data, meanwhile. */
  gone: "deleted" | "missing" | null;
  /** Why it cannot be opened. */
  damage: Damage | null;
  notice: Notice | null;
  /** Whether the plan is a copy of a sample, to look at. */
  example: boolean;
}

/** What a tab wants done to the plan; replayed on the newer plan when another tab was faster. */
type Wish = { kind: "command"; command: Command } | { kind: "undo" | "redo"; at: number };

const FULL =
  "The browser's storage is full, so changes are kept on this page only. Export the plan, then delete plans " +
  "that you no longer need or free space on this device: what is on this page is saved as soon as there is " +
  "space.";
const BLOCKED =
  "The browser does not let Cortijo keep data here (a private window, or storage that is blocked), so changes " +
  "are on this page only. Export the plan before you close it.";
const GONE = {
  deleted: "This plan was deleted in another tab. It is still on this page, and nowhere else.",
  missing:
    "The data that this browser kept for Cortijo was cleared. The plan is still on this page, and nowhere " +
    "else: export it, or save it again.",
};

/** How long after a database was closed it is looked whether the plan is still there, in milliseconds. */
const AFTER_CLOSING_MS = 300;

function troubleOf(error: unknown): string {
  const names =
    error instanceof Error
      ? [error.name, String((error as { inner?: { name?: string } }).inner?.name ?? ""), error.message].join(" ")
      : String(error);
  return /quota/i.test(names) ? FULL : BLOCKED;
}

/**
 * One open plan: applies commands at once, keeps each in the database as it happens, and follows what other tabs do.
 * When two tabs act at the same time, the later command is applied to the plan as the earlier one left it. What could
 * not be kept stays on the page, is tried again, and is never said to be saved.
 */
export class PlanSession {
  private state: SessionState;
  private readonly listeners = new Set<() => void>();
  private revision = -1;
  /** What is in the database, and what has been done here since. */
  private saved: History;
  private wishes: Wish[] = [];
  private queue: Promise<void> = Promise.resolve();
  private noticeId = 0;
  private watching: Subscription | null = null;
  private again: ReturnType<typeof setTimeout> | null = null;
  private closed = false;
  private fallback: (() => Promise<Plan>) | undefined;

  constructor(
    private readonly database: CortijoDatabase,
    private readonly id: string,
    placeholder: Plan,
    /** How long after saving failed it is tried again, in milliseconds; it is also tried on the next act. */
    private readonly tryAgainMs = 5000,
  ) {
    this.saved = startHistory(placeholder);
    this.state = {
      status: "loading",
      history: this.saved,
      keeping: "kept",
      trouble: null,
      gone: null,
      damage: null,
      notice: null,
      example: false,
    };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly getState = (): SessionState => this.state;

  /**
   * Reads the plan and begins to follow the database; what is only on this page stays as it is.
   *
   * @param fallback gives the plan to begin with where none can be read; asked again when it is opened anew
   */
  async open(fallback = this.fallback): Promise<void> {
    this.closed = false;
    this.fallback = fallback;
    let instead: Plan | undefined;
    try {
      instead = await fallback?.();
      if (this.state.status !== "ready" || !this.hasUnsaved()) {
        const read = await loadPlan(this.database, this.id);
        if (!this.isAhead(read)) {
          if (read.kind !== "there" && !instead) return this.cannotOpen(read);
          if (read.kind === "there") this.adopt(read.loaded.history, read.loaded.revision);
          else this.adopt(startHistory(instead as Plan), -1);
          this.set({ example: read.kind === "there" ? read.loaded.example : true, status: "ready" });
        }
      }
      this.watch();
    } catch (error) {
      if (error instanceof NotLoaded) return this.set({ status: "unloaded" });
      if (instead) {
        this.adopt(startHistory(instead), -1);
        this.set({ status: "ready", example: true });
      } else if (this.state.status === "loading") this.set({ status: "missing" });
      this.lose(error);
    }
  }

  close(): void {
    this.closed = true;
    this.watching?.unsubscribe();
    this.watching = null;
    this.database.on("close").unsubscribe(this.lookSoon);
    if (this.again) clearTimeout(this.again);
    this.again = null;
  }

  /** Whether something of the plan is on this page only. */
  hasUnsaved(): boolean {
    return this.wishes.length > 0 || this.state.gone !== null;
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

  /** Says why something cannot be done, or that it has been, without doing anything. */
  say(text: string, kind: Notice["kind"] = "problem"): void {
    this.tell(kind, text);
  }

  /**
   * Takes a notice away.
   *
   * @param id of which one: the time of an older one must not end a newer one
   */
  dismiss(id: number): void {
    if (this.state.notice?.id === id) this.set({ notice: null });
  }

  /** Resolves when everything that was done so far is kept or has failed to be. */
  settled(): Promise<void> {
    return this.queue;
  }

  /** Keeps the plan that is on this page again, with its history, after it was deleted or cleared elsewhere. */
  bringBack(): Promise<void> {
    this.queue = this.queue.then(async () => {
      const target = this.state.history;
      const count = this.wishes.length;
      try {
        this.revision = await putPlan(this.database, this.id, target);
        this.saved = target;
        this.wishes.splice(0, count);
        this.set({ gone: null });
        this.kept();
        this.watch();
        this.tell("info", "The plan is kept in this browser again.");
      } catch (error) {
        this.lose(error);
      }
    });
    return this.queue;
  }

  /** Brings a plan back that was deleted before this page opened it. */
  async restore(): Promise<void> {
    await restorePlan(this.database, this.id);
    await this.open();
  }

  /** Looks whether the plan is still where it was kept: after the browser has closed the database, or a while away. */
  look(): void {
    this.queue = this.queue.then(async () => {
      if (this.closed || this.state.status !== "ready" || this.revision < 0) return;
      try {
        const read = await loadPlan(this.database, this.id);
        if (read.kind === "deleted" || read.kind === "missing") this.gone(read.kind);
        else if (this.state.trouble !== null && this.state.gone === null) this.returned();
        this.watch();
      } catch (error) {
        this.lose(error);
      }
    });
  }

  /** A browser that clears the site's data closes the database under the page, and opens it again only afterwards. */
  private readonly lookSoon = (): void => {
    this.watching?.unsubscribe();
    this.watching = null;
    setTimeout(() => this.look(), AFTER_CLOSING_MS);
  };

  private watch(): void {
    if (this.watching || this.closed) return;
    this.database.on("close").unsubscribe(this.lookSoon);
    this.database.on("close", this.lookSoon);
    this.watching = liveQuery(() => this.database.plans.get(this.id)).subscribe({
      next: (kept) => {
        if (this.revision < 0) return;
        if (!kept) return this.gone("missing");
        if (kept.deletedAt !== 0) return this.gone("deleted");
        if (this.state.gone) this.returned();
        if (kept.revision > this.revision && this.wishes.length === 0) void this.follow();
      },
      error: (error: unknown) => {
        this.lose(error);
        this.lookSoon();
      },
    });
  }

  private step(result: HistoryResult, kind: "undo" | "redo", word: string): void {
    if (!result.ok) return this.tell("problem", result.reason);
    this.advance(result, { kind, at: result.entry.at });
    this.tell("info", `${word}: ${result.entry.description}.`);
  }

  private advance(result: Extract<HistoryResult, { ok: true }>, wish: Wish): void {
    this.wishes.push(wish);
    this.set({ history: result.history, ...(this.state.keeping === "kept" ? { keeping: "saving" } : {}) });
    if (this.state.gone === null) this.saveSoon();
  }

  private saveSoon(): void {
    this.queue = this.queue.then(() => this.save());
  }

  /** Writes what has been done since the last time; takes another tab's plan over where that was faster. */
  private async save(): Promise<void> {
    try {
      for (let attempt = 0; attempt < 20 && this.wishes.length > 0; attempt += 1) {
        const [target, count] = [this.state.history, this.wishes.length];
        const saving = await savePlan(this.database, this.id, this.revision, this.saved, target);
        if (saving === "saved") {
          this.saved = target;
          this.revision += 1;
          this.wishes.splice(0, count);
          if (this.wishes.length === 0) this.kept();
          return;
        }
        if (saving !== "overtaken") return this.gone(saving);
        if (!(await this.catchUp())) return;
      }
      if (this.wishes.length > 0) throw new Error("The plan changes too quickly in other tabs.");
    } catch (error) {
      this.lose(error);
    }
  }

  /** Another tab was faster: takes its plan over and does there what was wished here. */
  private async catchUp(): Promise<boolean> {
    const read = await loadPlan(this.database, this.id);
    if (read.kind !== "there") {
      if (read.kind === "damaged") this.cannotOpen(read);
      else this.gone(read.kind);
      return false;
    }
    let { history } = read.loaded;
    const done: Wish[] = [];
    for (const wish of this.wishes) {
      const again = replay(history, wish);
      if (again.ok) {
        history = again.history;
        done.push(wish);
        const last = `Last: ${again.entry.description}.`;
        this.tell("info", `The plan was also changed in another tab; both changes are in it. ${last}`, true);
      } else {
        const why = `The plan was changed in another tab meanwhile, so this could not be done: ${again.reason}`;
        this.tell("problem", why);
      }
    }
    this.saved = read.loaded.history;
    this.revision = read.loaded.revision;
    this.wishes = done;
    this.set({ history });
    if (done.length === 0) this.kept();
    return true;
  }

  /** Another tab has changed the plan while nothing was under way here. */
  private async follow(): Promise<void> {
    try {
      const read = await loadPlan(this.database, this.id);
      if (read.kind === "damaged") return this.cannotOpen(read);
      if (read.kind !== "there") return this.gone(read.kind);
      const { history, revision } = read.loaded;
      if (this.wishes.length > 0 || revision <= this.revision) return;
      const last = history.entries[history.position - 1];
      this.adopt(history, revision);
      this.tell("info", last ? `Changed in another tab. Last: ${last.description}.` : "Changed in another tab.");
    } catch (error) {
      this.lose(error);
    }
  }

  /**
   * Whether more has been done on the page than was read: another place shows an open plan while it is read again, and
   * who acts at once must not lose it.
   */
  private isAhead(read: Loading): boolean {
    if (this.state.status !== "ready") return false;
    return this.wishes.length > 0 || (read.kind === "there" && read.loaded.revision < this.revision);
  }

  private adopt(history: History, revision: number): void {
    this.saved = history;
    this.revision = revision;
    this.set({ history });
  }

  private cannotOpen(read: Exclude<Loading, { kind: "there" }>): void {
    if (read.kind === "damaged") this.set({ status: "damaged", damage: read.damage });
    else this.set({ status: read.kind });
  }

  private gone(how: Exclude<Saving, "saved" | "overtaken">): void {
    if (this.state.gone === how) return;
    this.set({ gone: how, keeping: "unkept", trouble: GONE[how] });
  }

  /** The plan that was gone is there again, brought back elsewhere: what was done here meanwhile is saved to it. */
  private returned(): void {
    this.set({ gone: null });
    this.kept();
    if (this.wishes.length > 0) this.saveSoon();
  }

  private kept(): void {
    const isAll = this.wishes.length === 0;
    this.set({ keeping: isAll ? "kept" : "saving", trouble: null });
  }

  private lose(error: unknown): void {
    this.set({ keeping: "unkept", trouble: troubleOf(error) });
    if (this.closed || this.again || this.wishes.length === 0 || this.revision < 0) return;
    this.again = setTimeout(() => {
      this.again = null;
      this.saveSoon();
    }, this.tryAgainMs);
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

const sentence = (words: string) => `${capital(words)}.`;

function replay(history: History, wish: Wish): HistoryResult {
  if (wish.kind === "command") return perform(history, wish.command, Date.now());
  // Undo means the very command that was seen as the last one, not whatever another tab has done since.
  const entry = history.entries[wish.kind === "undo" ? history.position - 1 : history.position];
  if (entry?.at !== wish.at)
    return { ok: false, reason: `look at the plan and ${wish.kind} again if you still want to.` };
  return wish.kind === "undo" ? undo(history) : redo(history);
}
