"use client";

import { useEffect, useRef } from "react";

interface Acts {
  onUndo: () => void;
  onRedo: () => void;
  onHelp: () => void;
  onEscape: () => void;
  onGroup: () => void;
}

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** The keys that work anywhere on the workbench, except while something is typed or a dialog or menu is open. */
export function useKeys(acts: Acts): void {
  const latest = useRef(acts);
  useEffect(() => {
    latest.current = acts;
  });
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      if (event.defaultPrevented || isTyping(event.target) || document.querySelector('[role="dialog"],[role="menu"]'))
        return;
      const letter = event.key.toLowerCase();
      const control = event.ctrlKey || event.metaKey;
      if (control && letter === "z") {
        event.preventDefault();
        if (event.shiftKey) latest.current.onRedo();
        else latest.current.onUndo();
      } else if (control && letter === "y") {
        event.preventDefault();
        latest.current.onRedo();
      } else if (event.key === "?") latest.current.onHelp();
      else if (letter === "g" && !event.altKey) latest.current.onGroup();
      else if (event.key === "Escape") latest.current.onEscape();
    };
    window.addEventListener("keydown", onKeyDown);
    return () => window.removeEventListener("keydown", onKeyDown);
  }, []);
}
