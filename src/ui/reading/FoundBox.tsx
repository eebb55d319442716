"use client";

import { useRouter } from "next/navigation";
import { useEffect, useMemo, useRef, useState } from "react";
import type { Plan } from "@/core/document/plan";
import { checkPlan } from "@/core/document/readPlan";
import { lastReading } from "@/core/reading/asRead";
import { differencesOf } from "@/core/reading/differences";
import type { PrintedBox } from "@/core/reading/printedBox";
import { recognise } from "@/core/reading/recognise";
import { keepPlan } from "@/store/keepPlan";
import { Button } from "../kit/Button";
import { openDatabase } from "../openDatabase";
import { useUnit } from "../preferences/preferences";
import { BoxShown } from "./BoxShown";
import { nowInstant } from "./nowInstant";

const NOT_KEPT =
  "The plan could not be kept: the browser's storage is full or blocked. Free some space or leave the private " +
  "window, then try again.";

interface Props {
  printed: PrintedBox;
  /** The first words about it. */
  heading: string;
  /** The way back to where the texts are brought in, in words. */
  back: string;
  onBack: () => void;
  /** Told of the plan that was made of it, before it is shown. */
  onKept?: (id: string, plan: Plan) => Promise<void>;
}

/** A box as it was made out, of which a plan of its own can be made. */
export function FoundBox({ printed, heading: words, back, onBack, onKept }: Props) {
  const router = useRouter();
  const [unit] = useUnit();
  const [answers, setAnswers] = useState<Record<string, string>>({});
  const [trouble, setTrouble] = useState<string | null>(null);
  const recognised = useMemo(() => recognise(printed, null, answers), [printed, answers]);
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus(), []);
  const take = async () => {
    const at = nowInstant();
    const differences = differencesOf(recognised, null, unit, at);
    const plan = { ...recognised.plan, lastReading: lastReading(recognised, differences, at) };
    const checked = checkPlan(plan);
    if (!checked.ok) return setTrouble(checked.problems[0]?.message ?? "This box is more than a plan holds.");
    try {
      const id = await keepPlan(openDatabase(), plan);
      await onKept?.(id, plan);
      router.push(`/plan/${id}`);
    } catch {
      setTrouble(NOT_KEPT);
    }
  };
  return (
    <div className="mt-4">
      <h2 ref={heading} tabIndex={-1} className="font-serif text-xl outline-none">
        {words}
      </h2>
      <div className="my-4 flex flex-wrap items-center gap-2">
        <Button look="main" onClick={() => void take()}>
          Make a plan of it
        </Button>
        <Button onClick={onBack}>{back}</Button>
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
