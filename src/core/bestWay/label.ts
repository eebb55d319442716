import type { Act, Move } from "./acts";
import type { Boxes, BoxThen } from "./boxes";

/** A way up to some point: the box then, until when it suffices, and what has been spent. */
export interface Label {
  box: BoxThen;
  month: number;
  cents: number;
  hours: number;
  acts: number;
  by: { from: Label; act: Act; cents: number } | null;
  /** One that is no better has been found: it is not followed. */
  isOver: boolean;
}

/** An act of a way, in the month in which it is done. */
export interface WayAct {
  month: number;
  act: Act;
  cents: number;
  box: BoxThen;
}

/** The acts of a way in their order. */
export function wayOf(label: Label): WayAct[] {
  const acts: WayAct[] = [];
  for (let at: Label = label; at.by; at = at.by.from)
    acts.push({ month: at.by.from.month, act: at.by.act, cents: at.by.cents, box: at.box });
  return acts.reverse();
}

export const beginning = ({ start }: Boxes): Label => ({
  box: start,
  month: start.until,
  cents: 0,
  hours: 0,
  acts: 0,
  by: null,
  isOver: false,
});

/** A way with one more act: it waits until the box no longer suffices. */
export const following = (label: Label, { act, box, cents, hours }: Move): Label => ({
  box,
  month: Math.max(label.month, box.until),
  cents: label.cents + cents,
  hours: label.hours + hours,
  acts: label.acts + 1,
  by: { from: label, act, cents },
  isOver: false,
});
