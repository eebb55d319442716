"use client";

import { useState } from "react";
import type { Choice } from "@/core/compare/compare";
import type { Plan } from "@/core/document/plan";
import { emptyPlan } from "@/core/document/emptyPlan";
import { LayoutDialog } from "../layouts/lazily";
import { ruleSetOf } from "@/core/rules/ruleSets";
import { counted } from "@/core/words/counted";
import { inSentence, withArticle } from "@/core/words/inSentence";
import { Button } from "../kit/Button";
import { ProposalCard } from "./ProposalCard";
import { boxOfKind, type Proposals, type Said } from "./proposals";

interface Props {
  said: Said | null;
  proposals: Proposals | null;
  onBegin: (choice: Choice | null, place: "" | "/compare") => void;
}

/** What could be made of the drives, the best first, as small terraces with what they hold and survive. */
export function ProposalList({ said, proposals, onBegin }: Props) {
  const [asked, setAsked] = useState<Choice | null>(null);
  if (!said || !proposals)
    return (
      <section aria-label="What they would hold" className="border-t border-line pt-4 lg:border-t-0 lg:pt-0">
        <h2 className="font-serif text-xl">What they would hold</h2>
        <p className="mt-2 max-w-prose text-soft">
          Type your drives, and see here what they hold together: how much space, how many failed drives your data
          survives, and what your box will show. No drive yet? Type what you think of buying.
        </p>
        <p className="mt-3">
          <Button onClick={() => onBegin(null, "")}>Begin with an empty box</Button>
        </p>
      </section>
    );
  const { drives, choices, findings, refused } = proposals;
  const plan: Plan = { ...emptyPlan(""), box: boxOfKind(said.set, said.bays), drives };
  return (
    <section aria-label="What they would hold">
      <div className="flex flex-wrap items-center gap-3">
        <h2 className="mr-auto font-serif text-xl">
          What they would hold{" "}
          <span className="font-sans text-base text-soft">
            in {withArticle(inSentence(ruleSetOf({ set: said.set }).name))} with {counted(said.bays, "bay")}
          </span>
        </h2>
        {!refused && <Button onClick={() => onBegin(null, "/compare")}>Compare all layouts</Button>}
      </div>
      {refused && (
        <p role="alert" className="mt-2 text-geranium">
          {refused}
        </p>
      )}
      {findings.map((finding) => (
        <p key={finding.code + finding.message} className="mt-1 text-[0.95rem] text-ochre-text">
          {finding.severity === "note" ? "" : "Warning: "}
          {finding.message}
        </p>
      ))}
      <ul aria-label="Layouts" className="mt-3 grid gap-x-6 gap-y-5 sm:grid-cols-2 xl:grid-cols-3">
        {choices.map((choice, i) => (
          <li key={choice.id}>
            <ProposalCard
              choice={choice}
              drives={drives}
              plan={plan}
              first={i === 0}
              onTake={() => onBegin(choice, "")}
              onAsk={() => setAsked(choice)}
            />
          </li>
        ))}
      </ul>
      {!refused && choices.length === 0 && <p className="mt-2">Such a box makes no pool of these drives.</p>}
      {asked && (
        <LayoutDialog choices={choices} first={asked.id} drives={drives} plan={plan} onClose={() => setAsked(null)} />
      )}
    </section>
  );
}
