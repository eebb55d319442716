"use client";

import { useEffect, useRef } from "react";
import { adviceNow } from "@/core/rehearsal/play";
import type { Answer } from "@/core/rehearsal/script";
import type { Trouble } from "@/core/rehearsal/stage";
import { lengthWords } from "@/core/time/hoursWords";
import { Button } from "../kit/Button";
import { useUnit } from "../preferences/preferences";
import { WhatItMeans } from "../rescue/WhatItMeans";
import { troubleWords } from "./troubleWords";
import type { Playing } from "./usePlayed";

/** What each answer is called; what is advised first. */
function answersTo(troubles: readonly Trouble[]): { answer: Answer; label: string }[] {
  const isOut = troubles.some((each) => each.kind === "gone" && each.state === "missing");
  if (troubles.every(({ kind }) => kind === "fire")) return [{ answer: "advised", label: "See what is left" }];
  return [
    ...(isOut ? [{ answer: "put-back" as const, label: "Put it back in" }] : []),
    { answer: "advised", label: isOut ? "Look, and put it back" : "Do what is advised" },
    { answer: "go-on", label: "Go on with the plan" },
    { answer: "wait", label: "Wait and see" },
  ];
}

/** Something has gone wrong: what it means, what is advised, and what its owner does. */
export function AskPanel({ playing }: { playing: Playing }) {
  const { view, played, answer } = playing;
  const { plan, troubles } = view;
  const [unit] = useUnit();
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    // After the dialog has given the focus back to what opened it.
    const timer = setTimeout(() => heading.current?.focus());
    return () => clearTimeout(timer);
  }, [troubles]);
  // Just what is done by whoever follows it.
  const { rescues } = adviceNow(played.stage);
  const nameOf = (pool: string) => plan.pools.find(({ id }) => id === pool)?.name;
  const words = troubles.map((each) => troubleWords(each, plan, (step) => played.labelOf(step), unit));
  return (
    <section aria-labelledby="asks" className="border-l-4 border-geranium pl-3">
      <h2 id="asks" ref={heading} tabIndex={-1} className="font-serif text-xl outline-none">
        {words[0]}
      </h2>
      {words.slice(1).map((each) => (
        <p key={each}>{each}</p>
      ))}
      <p className="mt-1 font-semibold">What do you do?</p>
      <div className="mt-1 flex flex-wrap gap-1.5">
        {answersTo(troubles).map((each, i) => (
          <Button key={each.answer} look={i === 0 ? "main" : "plain"} onClick={() => answer(each.answer)}>
            {each.label}
          </Button>
        ))}
      </div>
      {rescues.map((rescue) => (
        <div key={rescue.pool} className="mt-3 space-y-2">
          <h3 className="text-soft">What to do now{nameOf(rescue.pool) ? `: ${nameOf(rescue.pool)}` : ""}</h3>
          <WhatItMeans rescue={rescue} />
          {rescue.acts.length > 0 && (
            <ol className="list-decimal space-y-1 pl-5">
              {rescue.acts.map((act, i) => (
                <li key={i}>
                  {act.does}
                  {act.hours && <span className="text-soft"> {lengthWords(act.hours.expected)}.</span>}
                </li>
              ))}
            </ol>
          )}
        </div>
      ))}
    </section>
  );
}
