"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useMemo, useRef, useState } from "react";
import { checkPlan } from "@/core/document/readPlan";
import { differencesOf } from "@/core/reading/differences";
import type { PrintedBox } from "@/core/reading/printedBox";
import { recognise } from "@/core/reading/recognise";
import { lastReading } from "@/core/reading/asRead";
import { keepPlan } from "@/store/keepPlan";
import { Button } from "../kit/Button";
import { openDatabase } from "../openDatabase";
import { useUnit } from "../preferences/preferences";
import { BoxShown } from "./BoxShown";
import { BoxSource } from "./BoxSource";
import { nowInstant } from "./nowInstant";

const NOT_KEPT =
  "The plan could not be kept: the browser's storage is full or blocked. Free some space or leave the private window, then try again.";

/** A plan of a box as it is, from what the box prints. */
export function NewFromBox() {
  const [printed, setPrinted] = useState<PrintedBox | null>(null);
  return (
    <main className="mx-auto max-w-4xl px-5 py-6">
      <Link href="/" className="font-serif text-xl text-indigo" title="All plans">
        Cortijo
      </Link>
      <h1 className="mt-2 font-serif text-2xl">Read your box</h1>
      {printed ? (
        <Found printed={printed} onBack={() => setPrinted(null)} />
      ) : (
        <div className="mt-3">
          <p className="mb-3 text-soft">
            Instead of typing your drives and pools, let a Linux box tell them. Or{" "}
            <Link href="/new" className="font-semibold text-indigo underline underline-offset-2">
              type them
            </Link>
            .
          </p>
          <BoxSource onRead={setPrinted} />
        </div>
      )}
    </main>
  );
}

function Found({ printed, onBack }: { printed: PrintedBox; onBack: () => void }) {
  const router = useRouter();
  const [unit] = useUnit();
  const [answers, setAnswers] = useState<Record<string, string>>({});
  const [trouble, setTrouble] = useState<string | null>(null);
  const recognised = useMemo(() => recognise(printed, null, answers), [printed, answers]);
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus(), []);
  const take = async () => {
    const at = nowInstant();
    const plan = {
      ...recognised.plan,
      lastReading: lastReading(recognised, differencesOf(recognised, null, unit, at), at),
    };
    const checked = checkPlan(plan);
    if (!checked.ok) return setTrouble(checked.problems[0]?.message ?? "This box is more than a plan holds.");
    try {
      router.push(`/plan/${await keepPlan(openDatabase(), plan)}`);
    } catch {
      setTrouble(NOT_KEPT);
    }
  };
  return (
    <div className="mt-4">
      <h2 ref={heading} tabIndex={-1} className="font-serif text-xl outline-none">
        This is your box, by what it has printed
      </h2>
      <div className="my-4 flex flex-wrap items-center gap-2">
        <Button look="main" onClick={() => void take()}>
          Make a plan of it
        </Button>
        <Button onClick={onBack}>Read something else</Button>
      </div>
      {trouble && (
        <p role="alert" className="mb-3 text-geranium">
          {trouble}
        </p>
      )}
      <BoxShown
        recognised={recognised}
        answers={answers}
        onAnswer={(question, answer) => setAnswers({ ...answers, [question]: answer })}
      />
    </div>
  );
}
