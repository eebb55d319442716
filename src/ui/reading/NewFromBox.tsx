"use client";

import Link from "next/link";
import { useState } from "react";
import type { PrintedBox } from "@/core/reading/printedBox";
import { keepPractice } from "@/store/practiceBoxes";
import { Button } from "../kit/Button";
import { useListening } from "../kit/useListening";
import { NOT_LOADED } from "../kit/notLoaded";
import { openDatabase } from "../openDatabase";
import { BoxSource } from "./BoxSource";
import { FoundBox } from "./FoundBox";

/** A plan of a box as it is, from what the box prints. */
export function NewFromBox() {
  const [text, setText] = useState("");
  const [printed, setPrinted] = useState<PrintedBox | null>(null);
  /** What a practice box has printed, where that was asked for. */
  const [practice, setPractice] = useState<string | null>(null);
  const [trouble, setTrouble] = useState(false);
  const listens = useListening();
  const takePractice = () =>
    void import("../practice/samplePractice").then(
      ({ sampleText }) => {
        const given = sampleText();
        setPractice(given);
        setText(given);
        setTrouble(false);
      },
      () => setTrouble(true),
    );
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
          onKept={async (id, plan) => {
            if (text === practice) await keepPractice(openDatabase(), id, plan);
          }}
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
          <p className="mt-6 border-t border-line pt-3">
            No box at hand? A practice box is simulated, and goes with the plan that you make of it.{" "}
            <Button small disabled={!listens || text.trim() !== ""} onClick={takePractice}>
              Put in what a practice box prints
            </Button>
          </p>
          {trouble && (
            <p role="alert" className="mt-1 text-geranium">
              {NOT_LOADED}
            </p>
          )}
          <p role="status" className="text-soft">
            {practice !== null && text === practice ? "That is what it prints. Now read it." : ""}
          </p>
        </div>
      )}
    </main>
  );
}
