"use client";

import { showBytes, formatExactBytes } from "@/core/bytes/formatBytes";
import type { Choice } from "@/core/compare/compare";
import type { Drive, Plan } from "@/core/document/plan";
import { besideShort } from "@/core/layouts/inText";
import { layoutOf } from "@/core/layouts/registry";
import { boxScreen } from "@/core/prediction/boxScreen";
import { rulesOf } from "@/core/rules/ruleSets";
import { survivesWords } from "@/core/words/survives";
import { MiniTerraces } from "../compare/MiniTerraces";
import { Button } from "../kit/Button";
import { Explained } from "../kit/Explained";
import { useUnit } from "../preferences/preferences";

/** So many sentences on what is wrong with it are shown; the plan tells the rest. */
const MOST_FINDINGS = 2;

interface Props {
  choice: Choice;
  drives: readonly Drive[];
  /** The box, for the small picture. */
  plan: Plan;
  /** Whether it is the one that is proposed before the others. */
  first: boolean;
  onTake: () => void;
  onAsk: () => void;
}

/** One layout of somebody's drives: what it looks like, holds and survives, what is wrong with it, and two presses. */
export function ProposalCard({ choice, drives, plan, first, onTake, onAsk }: Props) {
  const [unit] = useUnit();
  const { figures, pool, groups } = choice;
  const shown = showBytes(figures.usableBytes, unit);
  const layout = groups.length === 1 && groups[0] ? layoutOf(groups[0].layout) : null;
  const other = layout && besideShort(layout);
  const lost = figures.tolerance === 0;
  return (
    <article
      aria-label={choice.name}
      className={`flex h-full flex-col gap-1.5 border-t-2 pt-2 ${first ? "border-t-indigo" : "border-t-line"}`}
    >
      <header className="flex min-h-[2.9rem] items-start justify-between gap-2 leading-tight">
        <h3 className="font-semibold">
          {choice.name}
          {other && <span className="block text-[0.87rem] font-normal text-soft">{other}</span>}
          {choice.detail && <span className="block text-[0.87rem] font-normal text-soft">{choice.detail}</span>}
        </h3>
        <p className="text-right font-serif whitespace-nowrap" title={formatExactBytes(figures.usableBytes)}>
          <span className="text-2xl">{shown.figure}</span> {shown.unit}
        </p>
      </header>
      <MiniTerraces choice={choice} drives={drives} plan={plan} width={228} height={84} />
      <p className={lost ? "text-geranium" : ""}>{survivesWords(figures.tolerance)}.</p>
      <p className="text-[0.9rem] text-soft">
        Your box will show “{boxScreen(figures.usableBytes, rulesOf(plan.box.rules))}”.
      </p>
      {pool.findings.slice(0, MOST_FINDINGS).map((finding) => (
        <p
          key={finding.code + finding.message}
          className={`text-[0.9rem] leading-snug ${finding.severity === "note" ? "text-soft" : "text-ochre-text"}`}
        >
          <Explained text={finding.message} />
        </p>
      ))}
      <p className="mt-auto flex flex-wrap gap-1.5 pt-1">
        <Button small look={first ? "main" : "plain"} onClick={onTake} aria-label={`Make it my plan: ${choice.name}`}>
          Make it my plan
        </Button>
        <Button small look="quiet" onClick={onAsk} aria-label={`What is it? ${choice.name}`}>
          What is it?
        </Button>
      </p>
    </article>
  );
}
