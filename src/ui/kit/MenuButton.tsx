"use client";

import {
  cloneElement,
  Suspense,
  useState,
  type ButtonHTMLAttributes,
  type KeyboardEvent,
  type MouseEvent,
  type ReactElement,
  type ReactNode,
} from "react";
import { part } from "./part";

// Menus are loaded, and made, when they are first opened: a full box has dozens of them.
const OpenMenu = part(() => import("./Menu").then((module) => module.OpenMenu), {
  needed: "menus",
  said: "over",
  meanwhile: "whatever is around",
  beside: ({ trigger }) => trigger,
});

interface Props {
  /** The button that opens the menu. */
  trigger: ReactElement<ButtonHTMLAttributes<HTMLButtonElement>>;
  /** The entries: a lazy component, so that they too are loaded when they are first wanted. */
  children: ReactNode;
  align?: "start" | "end" | "center";
  width?: string;
}

/** A button with a menu under it. */
export function MenuButton({ trigger, children, align = "start", width = "min-w-44" }: Props) {
  const [opened, setOpened] = useState<"no" | "by pointer" | "by key">("no");
  // A click that a key caused has no detail.
  const onClick = (event: MouseEvent) => setOpened(event.detail === 0 ? "by key" : "by pointer");
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== "ArrowDown") return;
    event.preventDefault();
    setOpened("by key");
  };
  const closed = cloneElement(trigger, { "aria-haspopup": "menu", "aria-expanded": false, onClick, onKeyDown });
  if (opened === "no") return closed;
  return (
    <Suspense fallback={closed}>
      <OpenMenu trigger={trigger} align={align} width={width} byKey={opened === "by key"}>
        {children}
      </OpenMenu>
    </Suspense>
  );
}
