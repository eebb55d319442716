import type { ReactNode } from "react";

/** A part of a card, with a heading. */
export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mt-5">
      <h3 className="font-serif text-lg">{title}</h3>
      {children}
    </section>
  );
}
