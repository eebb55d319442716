import type { ReactNode } from "react";

interface Props {
  title: string;
  /** The step that its heading stands for: what an act on the step has led to gets the focus. */
  step?: string;
  children: ReactNode;
}

/** A part of a card, with a heading. */
export function Part({ title, step, children }: Props) {
  return (
    <section className="mt-5">
      <h3
        className="font-serif text-lg outline-none"
        {...(step ? { "data-step": step, "aria-current": "step", tabIndex: -1 } : {})}
      >
        {title}
      </h3>
      {children}
    </section>
  );
}
