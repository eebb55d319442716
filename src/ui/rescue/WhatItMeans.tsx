"use client";

import { Ban } from "lucide-react";
import type { Rescue } from "@/core/rescue/rescue";
import { Explained } from "../kit/Explained";

const TONES = {
  whole: "border-green",
  degraded: "border-ochre-text",
  rebuilding: "border-ochre-text",
  "partly-lost": "border-geranium",
  lost: "border-geranium",
};

/** Whether the data is safe, what would take it, and what must not be done. */
export function WhatItMeans({ rescue }: { rescue: Rescue }) {
  return (
    <>
      <section
        aria-label="Is it safe?"
        aria-live="polite"
        className={`border-l-4 pl-3 ${TONES[rescue.condition.state]}`}
      >
        <p className="font-serif text-xl leading-snug">{rescue.first}</p>
        {rescue.wouldTake && (
          <p className="mt-1">
            <Explained text={rescue.wouldTake} />
          </p>
        )}
        {rescue.comesBack.map((sentence) => (
          <p key={sentence} className="mt-1">
            {sentence}
          </p>
        ))}
      </section>
      {rescue.never.length > 0 && (
        <section aria-labelledby="never">
          <h2 id="never" className="font-serif text-lg text-geranium">
            What not to do
          </h2>
          <ul className="mt-1 space-y-1">
            {rescue.never.map((sentence) => (
              <li key={sentence} className="flex gap-2">
                <Ban size={16} aria-hidden className="mt-1 shrink-0 text-geranium" />
                <span>{sentence}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
