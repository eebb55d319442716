"use client";

import { useEffect, useRef, useState } from "react";
import type { Told } from "@/core/bestWay/told";
import type { GrowthAsked, GrowthJob, GrowthProgress } from "@/workers/startGrowth";

/** What is known of the best way. The last one stays until another is found. */
export interface Growth {
  told: Told | null;
  /** How far the search is; null while none runs. */
  progress: GrowthProgress | null;
  trouble: string | null;
  /** Whether what is told answers another question than the one on the page. */
  isOld: boolean;
  /** Whether the search was ended by hand. */
  isStopped: boolean;
  stop: () => void;
  again: () => void;
}

/** Typing must stand still for so long before it is searched, in milliseconds. */
const REST = 500;

interface Known {
  of: GrowthAsked | null;
  told: Told | null;
  progress: GrowthProgress | null;
  trouble: string | null;
  isStopped: boolean;
}

const isTold = (told: Told | GrowthProgress): told is Told => "way" in told;

/**
 * The best way for what is asked, searched in a worker whenever that changes.
 *
 * @param asked null while something is wrong with what was typed
 */
export function useGrowth(asked: GrowthAsked | null): Growth {
  const [known, setKnown] = useState<Known>({ of: null, told: null, progress: null, trouble: null, isStopped: false });
  const [attempt, setAttempt] = useState(0);
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => {
    if (!asked) return;
    let over = false;
    let job: GrowthJob<void> | null = null;
    const end = () => {
      over = true;
      job?.cancel();
    };
    const begin = async () => {
      const { startBestWay } = await import("@/workers/startGrowth");
      if (over) return;
      setKnown((old) => ({ ...old, trouble: null, isStopped: false, progress: { least: null, boxes: 0 } }));
      job = startBestWay(asked, (news) => {
        if (over) return;
        if (isTold(news)) setKnown((old) => ({ ...old, told: news, of: asked }));
        else setKnown((old) => ({ ...old, progress: news }));
      });
      await job.result;
      if (!over) setKnown((old) => ({ ...old, progress: null }));
    };
    const timer = setTimeout(() => {
      begin().catch((error: unknown) => {
        const trouble = error instanceof Error ? error.message : "The best way could not be worked out.";
        if (!over) setKnown((old) => ({ ...old, progress: null, trouble }));
      });
    }, REST);
    stop.current = () => {
      end();
      // What was proved by then is known, though nothing better was found since.
      setKnown((old) => ({
        ...old,
        told: old.told && { ...old.told, least: old.progress?.least ?? old.told.least },
        progress: null,
        isStopped: true,
      }));
    };
    return () => {
      clearTimeout(timer);
      end();
    };
  }, [asked, attempt]);
  const { of, ...rest } = known;
  return { ...rest, isOld: of !== asked, stop: () => stop.current(), again: () => setAttempt((old) => old + 1) };
}

/** What stands beside the best way, as far as it is known. */
export interface BesideKnown<T> {
  result: T | null;
  /** Whether that is all of it. */
  complete: boolean;
  trouble: boolean;
}

const UNKNOWN = { result: null, complete: false, trouble: false };

/**
 * What stands beside the best way, worked out once that has been found.
 *
 * @param asked null while it has not
 * @param start begins it, and may tell what is known on the way
 */
export function useBeside<T>(
  asked: GrowthAsked | null,
  start: (asked: GrowthAsked, onTold: (known: T) => void) => Promise<GrowthJob<T>>,
): BesideKnown<T> {
  const [known, setKnown] = useState<BesideKnown<T> & { of: GrowthAsked | null }>({ of: null, ...UNKNOWN });
  useEffect(() => {
    if (!asked) return;
    let over = false;
    let job: GrowthJob<T> | null = null;
    const told = (result: T | null, complete: boolean) =>
      !over && setKnown({ of: asked, result, complete, trouble: false });
    const begin = async () => {
      job = await start(asked, (result) => told(result, false));
      if (over) return void job.cancel();
      told(await job.result, true);
    };
    begin().catch(() => !over && setKnown((old) => ({ ...old, of: asked, trouble: true })));
    return () => {
      over = true;
      job?.cancel();
    };
  }, [asked, start]);
  return known.of === asked && asked !== null ? known : UNKNOWN;
}
