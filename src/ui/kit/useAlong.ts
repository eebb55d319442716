"use client";

import { useRef, type PointerEvent } from "react";

/** How far a finger goes before it is known whether it swipes along or up and down, in CSS pixels. */
const UNDECIDED = 8;

type Handler = (event: PointerEvent<HTMLElement>) => void;

/**
 * Follows a pointer along a strip of time. A mouse is followed from its press on. A finger is followed once it goes
 * along; where it goes up or down the page scrolls; a tap chooses where it is. The strip wants the class `touch-pan-y`.
 *
 * @param onAt told where, in CSS pixels from the strip's left, and how wide the strip is
 */
export function useAlong(
  onAt: (x: number, width: number) => void,
): Record<"onPointerDown" | "onPointerMove" | "onPointerUp" | "onPointerCancel", Handler> {
  const finger = useRef<{ x: number; y: number } | null>(null);
  const held = useRef(false);
  const follow: Handler = ({ clientX, currentTarget }) => {
    const { left, width } = currentTarget.getBoundingClientRect();
    onAt(clientX - left, width);
  };
  const end = () => {
    finger.current = null;
    held.current = false;
  };
  return {
    onPointerDown: (event) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      held.current = event.pointerType !== "touch";
      finger.current = held.current ? null : { x: event.clientX, y: event.clientY };
      if (held.current) follow(event);
    },
    onPointerMove: (event) => {
      const { current: from } = finger;
      if (from) {
        const [along, across] = [Math.abs(event.clientX - from.x), Math.abs(event.clientY - from.y)];
        held.current ||= along > UNDECIDED && along > across;
      }
      if (held.current) follow(event);
    },
    onPointerUp: (event) => {
      const { current: from } = finger;
      if (from && Math.hypot(event.clientX - from.x, event.clientY - from.y) <= UNDECIDED) follow(event);
      end();
    },
    onPointerCancel: end,
  };
}
