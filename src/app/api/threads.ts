import { join } from "node:path";
import { Piscina } from "piscina";
import type { RequestAnswer } from "@/exchange/prediction/answerRequest";
import type { AnswerTask } from "@/workers/answer.thread";

/**
 * How long a request may wait and be worked on, in milliseconds, before it is given up and its thread is ended: the
 * longest queue of the costliest plans is done in half of it.
 */
const TIME_LIMIT_MS = 30_000;

const MOST_THREADS = 2;

/** Who has to wait longer than for so many others is asked to come back. */
const LONGEST_QUEUE = 8;

/** How many requests are worked on or wait. What can be given up is not counted by the pool's own limit. */
let underWay = 0;

let threads: Piscina<AnswerTask, RequestAnswer> | null = null;

/**
 * The threads that answer requests, so that none holds up the pages: two at most, which are kept, give way to the pages
 * where processors are short, and may not fill the memory. They run what the build has bundled for them.
 */
function kept(): Piscina<AnswerTask, RequestAnswer> {
  threads ??= new Piscina({
    filename: join(/* turbopackIgnore: true */ process.cwd(), ".cache", "answer.thread.mjs"),
    // All from the start: one that is begun when the crowd is there takes the processor from the pages.
    minThreads: MOST_THREADS,
    maxThreads: MOST_THREADS,
    niceIncrement: 10,
    resourceLimits: { maxOldGenerationSizeMb: 512 },
  });
  return threads;
}

/** Whether so many requests are worked on and wait that another is refused. */
export const areFull = (): boolean => underWay >= MOST_THREADS + LONGEST_QUEUE;

/**
 * Answers a request on a thread.
 *
 * @returns null where all are busy and the queue is full, or the time is over
 */
export async function onThread(task: AnswerTask): Promise<RequestAnswer | null> {
  if (areFull()) return null;
  underWay += 1;
  try {
    return await kept().run(task, { signal: AbortSignal.timeout(TIME_LIMIT_MS) });
  } catch (error) {
    if (error instanceof Error && error.name === "AbortError") return null;
    throw error;
  } finally {
    underWay -= 1;
  }
}
