"use client";

import { useEffect, useId, useMemo, useRef, useState } from "react";
import { rulesOf } from "@/core/rules/ruleSets";
import { stepsOfAct, usualChoices, type Act } from "@/core/steps/propose";
import { counted } from "@/core/words/counted";
import { Button } from "../../kit/Button";
import { part } from "../../kit/part";
import { say } from "../../kit/say";
import { useUnit } from "../../preferences/preferences";
import { today } from "../../today";
import { useWorkbench } from "../useWorkbench";
import { ActQuestions } from "./ActQuestions";
import { TrialFindings } from "./TrialFindings";
import { actTrial } from "./actTrial";
import { actTitle, trialWords } from "./actWords";

const TrialChance = part(() => import("../../chance/TrialChance").then((module) => module.TrialChance));

/** A menu that has led here gives the focus back to its button first, in so many milliseconds. */
const MENU_CLOSES_MS = 50;

/** Gives the focus to a question while it is asked, and back to where it was where nothing comes of it. */
function useAsked() {
  const place = useRef<HTMLDivElement>(null);
  const origin = useRef<Element | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => {
      origin.current = document.activeElement;
      place.current?.focus();
    }, MENU_CLOSES_MS);
    say("Nothing is planned yet: a question is asked first.");
    return () => clearTimeout(timer);
  }, []);
  const giveBack = () => {
    if (origin.current instanceof HTMLElement) origin.current.focus();
  };
  return { place, giveBack };
}

/** An act on the box that is to become steps: what matters about it is asked here, and what it comes to is said. */
export function PendingAct({ act: given, onDone }: { act: Act; onDone: () => void }) {
  const { plan, insert, walk: whole, at } = useWorkbench();
  const [unit] = useUnit();
  const rules = rulesOf(plan.box.rules);
  const { place, giveBack } = useAsked();
  const title = useId();
  const [act, setAct] = useState(given);
  const [choices, setChoices] = useState(() => usualChoices(given, plan, rules));
  const steps = useMemo(
    () => stepsOfAct(act, choices, { ...plan, steps: whole.plan.steps }, rules),
    [act, choices, plan, whole, rules],
  );
  const trial = useMemo(() => actTrial(whole, at, steps, unit, today()), [whole, at, steps, unit]);
  const { blocks, instead } = trial;
  const planThese = (those: typeof steps) => {
    insert(those);
    onDone();
  };
  return (
    <div
      ref={place}
      tabIndex={-1}
      role="group"
      aria-label="A change to plan"
      aria-describedby={title}
      className="rounded border border-indigo bg-raised p-2.5 text-[0.95rem]"
    >
      <p id={title} className="font-semibold">
        {actTitle(act, plan, unit)}
      </p>
      <ActQuestions
        act={act}
        plan={plan}
        rules={rules}
        choices={choices}
        onChoices={(change) => setChoices({ ...choices, ...change })}
        onAct={setAct}
      />
      <p aria-live="polite" className={`mt-1 ${blocks.length > 0 ? "text-geranium" : ""}`}>
        {trialWords(trial, unit)}
        {trial.warnings.length > 1 && ` ${counted(trial.warnings.length, "warning")}:`}
      </p>
      {trial.planned && trial.hours > 0 && blocks.length === 0 && <TrialChance planned={trial.planned} />}
      {trial.warnings.length + trial.notes.length + blocks.length > 0 && (
        // The box stays in sight below: what is long is scrolled here.
        <div
          role="region"
          aria-label="What is to be known before"
          tabIndex={0}
          className="mt-1 max-h-[4.6rem] overflow-y-auto"
        >
          <TrialFindings {...trial} />
        </div>
      )}
      <div className="mt-1.5 flex gap-1.5">
        <Button
          small
          look={blocks.length > 0 ? "plain" : "main"}
          disabled={steps.length === 0}
          onClick={() => planThese(steps)}
        >
          {blocks.length > 0 ? "Plan it nevertheless" : "Plan it"}
        </Button>
        {instead && (
          <Button small look="main" onClick={() => planThese(instead.steps)}>
            {instead.label}
          </Button>
        )}
        <Button
          small
          look="quiet"
          onClick={() => {
            onDone();
            giveBack();
          }}
        >
          Cancel
        </Button>
      </div>
    </div>
  );
}
