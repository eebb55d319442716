"use client";

import { useCallback, useEffect, useMemo, useRef, useState, type RefObject } from "react";
import type { Plan } from "@/core/document/plan";
import type { Answer, Script } from "@/core/rehearsal/script";
import type { Stage } from "@/core/rehearsal/stage";
import type { Mishap } from "@/core/simulator/mishaps";
import { useUnit } from "../preferences/preferences";
import { today } from "../today";
import { Played, type PlayedView } from "./played";

/** How often what is written about the box is brought up to date while it plays, in milliseconds. */
const WORDS_MS = 120;
/** How long a state is shown where motion is not wished, in milliseconds. */
const STATE_MS = 1500;

/** Into so many states the whole is cut, besides those at which something happens. */
const STATES = 16;

/** Hours of the box in a second. */
export type Speed = 1 | 6 | 24;

/** A rehearsal under way on the page. */
export interface Playing {
  view: PlayedView;
  isPlaying: boolean;
  speed: Speed;
  play: (on: boolean) => void;
  setSpeed: (speed: Speed) => void;
  seek: (hours: number) => void;
  next: () => void;
  strike: (mishap: Mishap, at: number) => void;
  answer: (answer: Answer) => void;
  takeBack: () => void;
  canTakeBack: boolean;
  /** Begins again with a script. */
  load: (script: Script) => void;
  played: Played;
  /** Told of the box at each frame. */
  onFrame: (draw: ((stage: Stage) => void) | null) => void;
}

/** Whether the person would rather see states than motion. */
export const wantsLessMotion = (): boolean =>
  typeof window !== "undefined" && window.matchMedia("(prefers-reduced-motion: reduce)").matches;

export const EMPTY_SCRIPT: Script = { seed: 1, strikes: [], answers: [] };

/** A plan played on a simulated box: its clock, what happens, and what its owner does. */
export function usePlayed(plan: Plan): Playing {
  const [unit] = useUnit();
  const [script, setScript] = useState<Script>(EMPTY_SCRIPT);
  const { box, drives, pools, steps, dataSets, backups, calendar } = plan;
  const played = useMemo(
    () => new Played(plan, { family: unit, day: plan.calendar?.start ?? today() }, script),
    // What of the plan is rehearsed; a rehearsal that is kept with it changes nothing.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [box, drives, pools, steps, dataSets, backups, calendar, unit, script],
  );
  const [shown, setShown] = useState<{ of: Played; view: PlayedView } | null>(null);
  const [isPlaying, setPlaying] = useState(false);
  const [speed, setSpeed] = useState<Speed>(6);
  const draw = useRef<((stage: Stage) => void) | null>(null);
  const refresh = useCallback(() => {
    setShown({ of: played, view: played.view(unit) });
    draw.current?.(played.stage);
  }, [played, unit]);
  const view = shown?.of === played ? shown.view : null;
  const first = useMemo(() => played.view(unit), [played, unit]);
  usePlaying({ played, isPlaying, speed, setPlaying, refresh, draw });
  const doing = (act: () => void) => {
    act();
    refresh();
  };
  return {
    view: view ?? first,
    isPlaying,
    speed,
    play: setPlaying,
    setSpeed,
    seek: (hours) => doing(() => void played.seek(hours)),
    next: () => doing(() => void played.toNext()),
    strike: (mishap, at) => doing(() => played.strike(mishap, at)),
    answer: (given) => doing(() => played.answer(given)),
    takeBack: () => doing(() => void played.takeBack()),
    canTakeBack: played.canTakeBack,
    load: (next) => {
      setPlaying(false);
      setScript({ ...next });
    },
    played,
    onFrame: useCallback((next) => void (draw.current = next), []),
  };
}

interface Loop {
  played: Played;
  isPlaying: boolean;
  speed: Speed;
  setPlaying: (on: boolean) => void;
  refresh: () => void;
  draw: RefObject<((stage: Stage) => void) | null>;
}

/** Lets the box's clock run, frame by frame; from one state to the next where motion is not wished. */
function usePlaying({ played, isPlaying, speed, setPlaying, refresh, draw }: Loop): void {
  useEffect(() => {
    if (!isPlaying) return;
    if (wantsLessMotion()) {
      const clock = setInterval(() => {
        const stop = played.toNext(played.usual.hours / STATES);
        refresh();
        if (stop !== "until") setPlaying(false);
      }, STATE_MS);
      return () => clearInterval(clock);
    }
    let [frame, last, told] = [0, performance.now(), 0];
    const struck = played.stage.struckAt;
    const step = (now: number) => {
      // A page that was hidden goes on where it was.
      const passed = Math.min(200, now - last);
      last = now;
      const said = played.stage.practice.said.length;
      const stop = played.playTo(played.hours + (passed / 1000) * speed);
      draw.current?.(played.stage);
      const hasStruck = played.stage.struckAt !== struck;
      if (stop !== "until" || hasStruck || played.stage.practice.said.length !== said || now - told > WORDS_MS) {
        told = now;
        refresh();
      }
      // Something has happened: it stops, so that one can look.
      if (stop !== "until" || hasStruck) setPlaying(false);
      else frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [isPlaying, played, speed, refresh, setPlaying, draw]);
}
