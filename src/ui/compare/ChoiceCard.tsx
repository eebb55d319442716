"use client";

import { memo } from "react";
import { showBytes, formatBytes, formatExactBytes } from "@/core/bytes/formatBytes";
import type { Choice } from "@/core/compare/compare";
import type { NearestChange } from "@/core/compare/nearestChange";
import type { Misfit } from "@/core/compare/needs";
import type { Plan, Drive } from "@/core/document/plan";
import { besideShort } from "@/core/layouts/inText";
import { layoutOf } from "@/core/layouts/registry";
import { boxScreen } from "@/core/prediction/boxScreen";
import { rulesOf } from "@/core/rules/ruleSets";
import { Button } from "../kit/Button";
import { useUnit } from "../preferences/preferences";
import {
  chanceOfLoss,
  changeWords,
  growthWords,
  nextFailureName,
  nextFailureWords,
  priceWords,
  rebuildReadsWords,
  rebuildWords,
  smallWritesWords,
  speedWords,
  toleranceShort,
} from "./figureWords";
import { MiniTerraces } from "./MiniTerraces";

export interface CardProps {
  choice: Choice;
  plan: Plan;
  drives: readonly Drive[];
  /** The name of the choice that beats it in every figure. */
  beatenBy: string | null;
  misfits: readonly Misfit[];
  /** What would make it fit; undefined while it is being looked for. */
  change: NearestChange | null | undefined;
  /** Whether the plan is laid out so already. */
  present: boolean;
  pinned: boolean;
  lit: boolean;
  onPin: (id: string) => void;
  onApply: (id: string) => void;
  onLight: (id: string | null) => void;
  /** Explains it. */
  onAsk: (id: string) => void;
}

/** One way to lay the drives out: its terraces and its figures. */
export const ChoiceCard = memo(function ChoiceCard({
  choice,
  plan,
  drives,
  beatenBy,
  misfits,
  change,
  present,
  pinned,
  lit,
  onPin,
  onApply,
  onLight,
  onAsk,
}: CardProps) {
  const [unit] = useUnit();
  const { figures } = choice;
  const shown = showBytes(figures.usableBytes, unit);
  const fits = misfits.length === 0;
  const name = choice.detail ? `${choice.name}, ${choice.detail}` : choice.name;
  return (
    <article
      id={`choice-${choice.id}`}
      aria-label={name}
      onPointerEnter={() => onLight(choice.id)}
      onPointerLeave={() => onLight(null)}
      className={
        "flex flex-col gap-1.5 border-t-2 pt-2 pb-4 " +
        (lit ? "border-t-indigo" : present ? "border-t-ink" : "border-t-line")
      }
    >
      <header className="flex min-h-[2.9rem] items-start justify-between gap-2 leading-tight">
        <h3>
          <span className="font-semibold">{choice.name}</span>
          <Detail choice={choice} present={present} />
        </h3>
        <p className="text-right font-serif whitespace-nowrap" title={formatExactBytes(figures.usableBytes)}>
          <span className="text-2xl">{shown.figure}</span> {shown.unit}
          <span className="block font-sans text-[0.8rem] text-soft">
            box shows “{boxScreen(figures.usableBytes, rulesOf(plan.box.rules))}”
          </span>
        </p>
      </header>
      <div className={fits ? "" : "opacity-45"}>
        <MiniTerraces choice={choice} drives={drives} plan={plan} width={248} height={74} />
      </div>
      {!fits && (
        <p className="text-[0.9rem] text-ochre-text">
          Does not fit: {misfits.map((misfit) => misfit.reason).join(", ")}.{" "}
          {change
            ? `It would ${changeWords(change, unit)}.`
            : change === null
              ? "One or two more or larger drives would not help."
              : ""}
        </p>
      )}
      {beatenBy && <p className="text-[0.9rem] text-soft">{beatenBy} is as good or better in everything.</p>}
      <dl className={`grid grid-cols-[auto_1fr] gap-x-3 text-[0.87rem] leading-[1.35rem] ${fits ? "" : "text-soft"}`}>
        <Row name="Survives">{toleranceShort(figures.tolerance)}</Row>
        <Row name={nextFailureName(figures)}>{nextFailureWords(figures)}</Row>
        <Row name="Loss in ten years">{chanceOfLoss(figures)}</Row>
        <Row name="Unused">
          {figures.idleBytes === 0
            ? "nothing"
            : `${formatBytes(figures.idleBytes, unit)} (${Math.round(figures.idleShare * 100)} %)`}
        </Row>
        <Row name="Read / write">{speedWords(figures)}</Row>
        <Row name="Small writes">{smallWritesWords(figures)}</Row>
        <Row name="Rebuild">{rebuildWords(figures)}</Row>
        <Row name="A rebuild reads">{rebuildReadsWords(figures, unit)}</Row>
        <Row name="Price per TB">{priceWords(figures, plan.currency)}</Row>
        <Row name="Grows by">{growthWords(figures, unit)}</Row>
      </dl>
      <div className="mt-auto flex gap-1.5 pt-1">
        <Button small disabled={present} onClick={() => onApply(choice.id)} aria-label={`Apply ${name}`}>
          Apply
        </Button>
        <Button
          small
          look={pinned ? "main" : "plain"}
          aria-pressed={pinned}
          onClick={() => onPin(choice.id)}
          aria-label={`Pin ${name}`}
        >
          {pinned ? "Pinned" : "Pin"}
        </Button>
        <Button small look="quiet" onClick={() => onAsk(choice.id)} aria-label={`What is it? ${name}`}>
          What is it?
        </Button>
      </div>
    </article>
  );
});

/** What the name leaves open: what a trade's number is called, how the drives are parted, whether it is the plan's. */
function Detail({ choice: { groups, detail }, present }: { choice: Choice; present: boolean }) {
  const [only, ...more] = groups;
  const other = only && more.length === 0 ? besideShort(layoutOf(only.layout)) : null;
  const words = [other, detail, present ? "as it is in the plan" : ""].filter(Boolean).join(", ");
  return words ? <span className="block text-[0.87rem] text-soft">{words}</span> : null;
}

function Row({ name, children }: { name: string; children: string }) {
  return (
    <>
      <dt className="text-soft">{name}</dt>
      <dd className="text-right">{children}</dd>
    </>
  );
}
