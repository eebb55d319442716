"use client";

import { DropdownMenu } from "radix-ui";
import { useCallback, useRef, useState, type ComponentProps, type ReactNode } from "react";
import { overlayHome } from "./overlayHome";

const PANEL =
  "z-50 max-h-[var(--radix-dropdown-menu-content-available-height)] overflow-y-auto rounded-md border " +
  "border-line-strong/60 bg-raised p-1 text-ink shadow-lg shadow-black/10";
const ITEM =
  "flex min-h-8 select-none items-center gap-2 rounded px-2 py-1 outline-none data-[highlighted]:bg-indigo " +
  "data-[highlighted]:text-on-indigo data-[disabled]:text-soft";

interface Props {
  trigger: ReactNode;
  children: ReactNode;
  align: "start" | "end" | "center";
  width: string;
  /** Whether a key asked for it: then its first entry has the focus. */
  byKey: boolean;
}

/** A menu that is open from the start, under the button that is given as `trigger`; see `MenuButton`. */
export function OpenMenu({ trigger, children, align, width, byKey }: Props) {
  const [open, setOpen] = useState(true);
  const first = useRef(byKey);
  const focusFirst = useCallback((panel: HTMLDivElement | null) => {
    if (!panel || !first.current) return;
    first.current = false;
    requestAnimationFrame(() => panel.querySelector<HTMLElement>('[role^="menuitem"]')?.focus());
  }, []);
  return (
    <DropdownMenu.Root modal={false} open={open} onOpenChange={setOpen}>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal container={open ? overlayHome() : undefined}>
        <DropdownMenu.Content
          ref={focusFirst}
          // A menu that is higher than the window is scrolled by keys too.
          tabIndex={0}
          align={align}
          sideOffset={4}
          collisionPadding={8}
          className={`${PANEL} ${width}`}
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

export function MenuItem({
  danger = false,
  className = "",
  ...rest
}: ComponentProps<typeof DropdownMenu.Item> & { danger?: boolean }) {
  return (
    <DropdownMenu.Item
      className={
        `${ITEM} ` +
        (danger ? "text-geranium data-[highlighted]:bg-geranium data-[highlighted]:text-on-geranium" : "") +
        " " +
        `${className}`
      }
      {...rest}
    />
  );
}

export function MenuChoice({ className = "", ...rest }: ComponentProps<typeof DropdownMenu.RadioItem>) {
  return <DropdownMenu.RadioItem className={`${ITEM} ${className}`} {...rest} />;
}

export const MenuChoices = DropdownMenu.RadioGroup;

export function MenuHeading({ children }: { children: ReactNode }) {
  return <DropdownMenu.Label className="px-2 pt-2 pb-1 text-[0.8rem] text-soft">{children}</DropdownMenu.Label>;
}

export function MenuLine() {
  return <DropdownMenu.Separator className="my-1 h-px bg-line" />;
}

/** A menu within a menu. */
export function SubMenu({ label, children }: { label: ReactNode; children: ReactNode }) {
  return (
    <DropdownMenu.Sub>
      <DropdownMenu.SubTrigger
        className={`${ITEM} justify-between data-[state=open]:bg-wall data-[state=open]:text-ink`}
      >
        {label}
        <span aria-hidden="true">›</span>
      </DropdownMenu.SubTrigger>
      <DropdownMenu.Portal container={overlayHome()}>
        <DropdownMenu.SubContent sideOffset={2} collisionPadding={8} className={`${PANEL} min-w-36`}>
          {children}
        </DropdownMenu.SubContent>
      </DropdownMenu.Portal>
    </DropdownMenu.Sub>
  );
}
