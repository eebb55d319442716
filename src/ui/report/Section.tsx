import type { ReactNode } from "react";

/** A part of the report under its heading. */
export function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mt-6">
      <h2 className="mb-1.5 break-after-avoid border-b border-line font-serif text-xl">{title}</h2>
      {children}
    </section>
  );
}
