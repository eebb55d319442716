"use client";

import Link from "next/link";
import { useMemo } from "react";
import { formatChange } from "@/core/bytes/formatBytes";
import type { Plan, BoxRules, RuleName, RuleSetId } from "@/core/document/plan";
import { fewestDrives } from "@/core/layouts/problemsOfLayout";
import { besideShort } from "@/core/layouts/inText";
import { layouts } from "@/core/layouts/registry";
import { QUESTIONS } from "@/core/ruleBook/registry";
import type { AnyRuleEntry, RuleAnswer } from "@/core/ruleBook/ruleEntry";
import { ruleConsequence } from "@/core/ruleBook/ruleConsequence";
import { ruleEffect } from "@/core/ruleBook/ruleEffect";
import { ABOUT_SETS } from "@/core/rules/aboutSets";
import { rulesOf, ruleSetOf, ruleSets } from "@/core/rules/ruleSets";
import { counted, oneOrMany } from "@/core/words/counted";
import { Button } from "../kit/Button";
import { Explained } from "../kit/Explained";
import { Choice, Tick } from "../kit/Field";
import { useUnit } from "../preferences/preferences";
import { TypedAnswer } from "./TypedAnswer";
import { usePlanSession } from "../shell/usePlanSession";
import { usePlanId } from "../shell/usePlanId";

/** "What can your box do?": plain questions that start from a ready-made set, each with its effect on this plan. */
export function BoxRulesPage() {
  const id = usePlanId();
  const [session, state] = usePlanSession(id);
  if (state.status !== "ready") {
    return (
      <main className="p-6 text-soft" role="status">
        {state.status === "loading" ? "Opening the plan …" : "This plan is not in this browser."}
      </main>
    );
  }
  const { plan } = state.history;
  const choose = (overrides: Partial<BoxRules> | undefined) =>
    session.do({
      kind: "change-box",
      rules: { set: plan.box.rules.set, ...(overrides && Object.keys(overrides).length > 0 ? { overrides } : {}) },
    });
  return (
    <main className="mx-auto max-w-4xl px-5 py-8">
      <Link href={`/plan/${id}`} className="inline-block py-0.5 text-indigo underline underline-offset-4">
        Back to {plan.name}
      </Link>
      <div className="mt-3 flex flex-wrap items-end justify-between gap-3">
        <h1 className="font-serif text-3xl">What can your box do?</h1>
        <Button disabled={state.history.position === 0} onClick={() => session.undo()}>
          Undo
        </Button>
      </div>
      <p className="mt-2 text-soft">
        Boxes differ. Start from the kind that is most like yours and correct what is not so; every figure and every
        check follows. Beside each answer stands what it would change about this plan.
      </p>
      <Tick className="mt-4" checked={plan.box.ups === true} onTick={(ups) => session.do({ kind: "change-box", ups })}>
        A battery supply (UPS) keeps it running while the power is cut
      </Tick>
      <SetChoice plan={plan} onChoose={(set) => session.do({ kind: "change-box", rules: { set } })} />
      <LayoutsOffered plan={plan} onChoose={choose} />
      <FewestDrives plan={plan} onChoose={choose} />
      {QUESTIONS.map(({ heading, questions }) => (
        <section key={heading} className="mt-9">
          <h2 className="font-serif text-xl">{heading}</h2>
          {questions.map((each) => (
            <Answer key={each.rule} plan={plan} question={each} onChoose={choose} />
          ))}
        </section>
      ))}
    </main>
  );
}

function SetChoice({ plan, onChoose }: { plan: Plan; onChoose: (set: RuleSetId) => void }) {
  const differs = Object.keys(plan.box.rules.overrides ?? {}).length;
  return (
    <fieldset className="mt-6">
      <legend className="font-serif text-xl">It is most like …</legend>
      <div className="mt-2 grid gap-x-6 gap-y-1 sm:grid-cols-2">
        {ruleSets.map((set) => (
          <label
            key={set.id}
            className={
              "flex cursor-pointer gap-2 rounded border border-transparent p-2 hover:bg-wall " +
              "has-checked:border-indigo"
            }
          >
            <input
              type="radio"
              name="set"
              checked={plan.box.rules.set === set.id}
              onChange={() => onChoose(set.id)}
              className="mt-1 shrink-0 self-start accent-indigo"
            />
            <span>
              <span className="font-semibold">{set.name}</span>
              <span className="block text-[0.9rem]">{ABOUT_SETS[set.id].typical}</span>
              <span className="block text-[0.9rem] text-soft">{ABOUT_SETS[set.id].description}</span>
            </span>
          </label>
        ))}
      </div>
      <p className="mt-2 text-soft" role="status">
        {differs === 0
          ? "All is as this set has it."
          : `${oneOrMany(differs, "1 answer differs", "answers differ")} from this set. Choosing a set takes its ` +
            "answers."}
      </p>
    </fieldset>
  );
}

function LayoutsOffered({ plan, onChoose }: { plan: Plan; onChoose: (overrides: Partial<BoxRules>) => void }) {
  const rules = rulesOf(plan.box.rules);
  const toggle = (id: (typeof layouts)[number]["id"]) => {
    const next = layouts
      .map((layout) => layout.id)
      .filter((each) => (each === id ? !rules.layouts.includes(each) : rules.layouts.includes(each)));
    onChoose({ ...plan.box.rules.overrides, layouts: next });
  };
  return (
    <fieldset className="mt-9">
      <legend className="font-serif text-xl">Which layouts does it offer?</legend>
      <div className="mt-2 grid gap-x-6 gap-y-1 sm:grid-cols-3">
        {layouts.map((layout) => (
          <label
            key={layout.id}
            className="flex cursor-pointer items-baseline gap-2 rounded px-2 py-1 hover:bg-wall"
            title={layout.summary}
          >
            <input
              type="checkbox"
              checked={rules.layouts.includes(layout.id)}
              onChange={() => toggle(layout.id)}
              className="accent-indigo"
            />
            <span>
              {layout.shortName} <span className="text-[0.9rem] text-soft">{besideShort(layout)}</span>
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** As far up as the fewest drives of a layout can be said. */
const MOST_FEWEST = 8;

/** From how many drives on the box makes each of its layouts. */
function FewestDrives({ plan, onChoose }: { plan: Plan; onChoose: (overrides: Partial<BoxRules>) => void }) {
  const rules = rulesOf(plan.box.rules);
  const ofSet = ruleSetOf(plan.box.rules).rules;
  const offered = layouts.filter(({ id, drivesFor }) => rules.layouts.includes(id) && !drivesFor);
  return (
    <fieldset className="mt-9">
      <legend className="font-serif text-xl">How many drives does it want at least?</legend>
      <p className="text-[0.93rem] text-soft">
        Some boxes want more drives for a layout than its arithmetic does, for instance five for three copies.
      </p>
      <div className="mt-2 grid gap-x-6 gap-y-2 sm:grid-cols-3">
        {offered.map((layout) => {
          const fewest = fewestDrives(layout, rules);
          const usual = fewestDrives(layout, ofSet);
          const last = Math.max(MOST_FEWEST, fewest);
          const counts = Array.from({ length: last - layout.minimumDrives + 1 }, (_, i) => layout.minimumDrives + i);
          return (
            <Choice
              key={layout.id}
              label={`${layout.shortName}${fewest === usual ? "" : ` (the set has ${usual})`}`}
              value={String(fewest)}
              onPick={(count) =>
                onChoose({
                  ...plan.box.rules.overrides,
                  minimumDrives: { ...rules.minimumDrives, [layout.id]: Number(count) },
                })
              }
              options={counts.map((count) => ({ value: String(count), label: counted(count, "drive") }))}
            />
          );
        })}
      </div>
    </fieldset>
  );
}

function Answer({
  plan,
  question,
  onChoose,
}: {
  plan: Plan;
  question: AnyRuleEntry;
  onChoose: (overrides: Partial<BoxRules>) => void;
}) {
  const value = rulesOf(plan.box.rules)[question.rule];
  const ofSet = ruleSetOf(plan.box.rules).rules[question.rule];
  const { overrides = {} } = plan.box.rules;
  const differs = Object.hasOwn(overrides, question.rule) && value !== ofSet;
  const [unit] = useUnit();
  const consequence = ruleConsequence(plan, question.rule, unit);
  const rules = rulesOf(plan.box.rules);
  const isGiven = (answer: RuleAnswer) =>
    answer.value === value &&
    Object.entries(answer.also ?? {}).every(([rule, also]) => rules[rule as RuleName] === also);
  const list: readonly RuleAnswer[] = question.answers;
  const known = list.some(isGiven);
  const answers = known ? list : [...list, { value, label: answerWords(question, value) }];
  const back = () => onChoose(Object.fromEntries(Object.entries(overrides).filter(([rule]) => rule !== question.rule)));
  return (
    <fieldset className={`mt-3 border-t border-line pt-3 ${differs ? "border-l-4 border-l-[var(--parity)] pl-3" : ""}`}>
      <legend className="float-left mb-1 w-full font-semibold">{question.question}</legend>
      <div className="clear-both">
        {question.about && (
          <p className="text-[0.93rem] text-soft">
            <Explained text={question.about} />
          </p>
        )}
        <div className="mt-1 flex flex-wrap gap-x-5 gap-y-1">
          {answers.map((answer) => (
            <label key={answer.label} className="flex cursor-pointer items-baseline gap-2 py-0.5">
              <input
                type="radio"
                name={question.rule}
                checked={isGiven(answer)}
                onChange={() => onChoose({ ...overrides, [question.rule]: answer.value, ...answer.also })}
                className="accent-indigo"
              />
              <span>
                {answer.label}{" "}
                {!isGiven(answer) && <Effect plan={plan} change={{ [question.rule]: answer.value, ...answer.also }} />}
              </span>
            </label>
          ))}
        </div>
        {question.typed && (typeof value === "number" || value === null) && (
          <TypedAnswer
            question={question.question}
            typed={question.typed}
            value={value}
            onChoose={(typed) => onChoose({ ...overrides, [question.rule]: typed })}
          />
        )}
        {consequence && (
          <p className="mt-1 text-[0.93rem]">
            <Explained text={consequence} />
          </p>
        )}
        {differs && (
          <p className="mt-1 flex items-center gap-2 text-[0.93rem] text-ochre-text">
            Differs from the set:{" "}
            {question.answers.find((answer) => answer.value === ofSet)?.label ?? answerWords(question, ofSet)}.
            <Button small onClick={back}>
              As the set has it
            </Button>
          </p>
        )}
      </div>
    </fieldset>
  );
}

/** An answer that is none of those to choose from. */
const answerWords = ({ typed }: AnyRuleEntry, value: unknown): string =>
  typed && typeof value === "number"
    ? `${Number((value / typed.asValue).toPrecision(6))} ${typed.unit}`
    : String(value);

/**
 * What another answer would change about the plan, in a few words; nothing where it changes no figure and no finding.
 */
function Effect({ plan, change }: { plan: Plan; change: Partial<BoxRules> }) {
  const [unit] = useUnit();
  const effect = useMemo(() => ruleEffect(plan, change), [plan, change]);
  const words = [
    effect.usableBytes !== 0 ? formatChange(effect.usableBytes, unit) : "",
    effect.come.length > 0 ? counted(effect.come.length, "more warning", "more warnings") : "",
    effect.go.length > 0 ? counted(effect.go.length, "warning fewer", "warnings fewer") : "",
  ].filter(Boolean);
  if (words.length === 0) return null;
  return (
    <span
      className="text-[0.87rem] text-soft"
      title={[...effect.come, ...effect.go].map((finding) => finding.message).join("\n")}
    >
      ({words.join(", ")})
    </span>
  );
}
