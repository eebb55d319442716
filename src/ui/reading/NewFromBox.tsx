"use client";

import Link from "next/link";
import { useState } from "react";
import type { PrintedBox } from "@/core/reading/printedBox";
import { BoxSource } from "./BoxSource";
import { FoundBox } from "./FoundBox";

/** A plan of a box as it is, from what the box prints. */
export function NewFromBox() {
  const [text, setText] = useState("");
  const [printed, setPrinted] = useState<PrintedBox | null>(null);
  return (
    <main className="mx-auto max-w-4xl px-5 py-6">
      <Link href="/" className="font-serif text-xl text-indigo" title="All plans">
        Cortijo
      </Link>
      <h1 className="mt-2 font-serif text-2xl">Read your box</h1>
      {printed ? (
        <FoundBox
          printed={printed}
          heading="This is your box, by what it has printed"
          back="Read something else"
          onBack={() => setPrinted(null)}
        />
      ) : (
        <div className="mt-3">
          <p className="mb-3 text-soft">
            Instead of typing your drives and pools, let a Linux box tell them. Or{" "}
            <Link href="/new" className="font-semibold text-indigo underline underline-offset-2">
              type them
            </Link>
            .
          </p>
          <BoxSource text={text} onText={setText} onRead={setPrinted} />
        </div>
      )}
    </main>
  );
}
