import { proxy, wrap, type Remote } from "comlink";
import type { Work } from "./work.worker";

/** A piece of work under way in a worker of its own. */
export interface Job<T> {
  result: Promise<T>;
  /** Ends the worker at once; the promise is then never settled. */
  cancel: () => void;
}

/**
 * Starts a piece of work off the main thread. Every job has a worker of its own, so that cancelling is ending it.
 *
 * @param start what to ask of the worker, with the function that it tells its progress to (0 to 1)
 * @example startJob((work, onProgress) => work.compare(request, onProgress), setShare)
 */
export function startJob<T>(
  start: (work: Remote<Work>, onProgress: (share: number) => void) => Promise<T>,
  onProgress: (share: number) => void,
): Job<T> {
  const worker = new Worker(new URL("./work.worker.ts", import.meta.url), { type: "module" });
  const broken = new Promise<never>((_, reject) => {
    worker.addEventListener("error", () => reject(new Error("The computation could not be started in this browser.")));
  });
  const done = start(wrap<Work>(worker), proxy(onProgress));
  const result = Promise.race([done, broken]).finally(() => worker.terminate());
  return { result, cancel: () => worker.terminate() };
}
