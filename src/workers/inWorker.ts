import { wrap, type Remote } from "comlink";

/** Work that is under way in a worker of its own; cancelled, its promise is never settled. */
export interface WorkerJob<T> {
  result: Promise<T>;
  cancel: () => void;
}

/**
 * Asks something of a worker that is begun for it and ended with it.
 *
 * @param worker begun by the caller, so that the bundler finds its file
 * @param trouble what is said where it cannot be begun
 * @example inWorker<ChanceWork, void>(new Worker(…), (work) => work.follow(…), "…").cancel()
 */
export function inWorker<W, T>(worker: Worker, ask: (work: Remote<W>) => Promise<T>, trouble: string): WorkerJob<T> {
  const broken = new Promise<never>((_, reject) => {
    worker.addEventListener("error", () => reject(new Error(trouble)));
  });
  const cancel = () => worker.terminate();
  return { result: Promise.race([ask(wrap<W>(worker)), broken]).finally(cancel), cancel };
}
