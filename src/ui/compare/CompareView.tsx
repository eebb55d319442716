"use client";

import { brokenSteps } from "@/core/commands/brokenSteps";
import type { Choice } from "@/core/compare/compare";
import { type Misfit } from "@/core/compare/needs";
import type { Command } from "@/core/document/command";
import { useCallback, useMemo, useState } from "react";
import { ChoiceCard } from "./ChoiceCard";
import { ChoiceLists } from "./ChoiceLists";
import { CompareBar } from "./CompareBar";
import { ComparePanel } from "./ComparePanel";
import { CompareStatus } from "./CompareStatus";
import { DriveChooser } from "./DriveChooser";
import { choiceName } from "./figureWords";
import { NeedsBar } from "./NeedsBar";
import { targetPool } from "./targetPool";
import { GrowthLink } from "../growth/GrowthLink";
import { useComparison } from "./useComparison";
import type { PlaceProps } from "../shell/planPlace";
import { usePlanId } from "../shell/usePlanId";
import { useCompareState } from "./viewState";
import { LayoutDialog } from "../layouts/lazily";
import { part } from "../kit/part";

const FaceToFace = part(() => import("./FaceToFace").then((module) => module.FaceToFace));
const ApplyDialog = part(() => import("./ApplyDialog").then((module) => module.ApplyDialog), {
  said: "over",
});

const NO_MISFITS: readonly Misfit[] = [];

/** Layouts side by side for the drives at hand, chosen by need; and the next drive to buy. */
export function CompareView({ plan, act }: PlaceProps) {
  const [state, change] = useCompareState(usePlanId());
  const [lit, light] = useState<string | null>(null);
  const [pins, setPins] = useState<string[]>([]);
  const [open, setOpen] = useState(false);
  const [asked, explain] = useState<string | null>(null);
  const [asking, setAsking] = useState<{ command: Command; name: string } | null>(null);
  const compared = useComparison(plan, state);
  const { chosen, drives, choices, presentId } = compared;

  const byId = useMemo(() => new Map(choices.map((choice) => [choice.id, choice])), [choices]);
  const apply = useCallback(
    (choiceId: string) => {
      const choice = byId.get(choiceId);
      if (!choice) return;
      const command: Command = { kind: "lay-out-pool", pool: targetPool(plan, chosen), groups: choice.groups };
      if (brokenSteps(plan, command).length > 0) return setAsking({ command, name: choiceName(choice) });
      const refused = act(command, true);
      if (!refused) setOpen(false);
    },
    [byId, act, plan, chosen],
  );
  const explained = asked === null ? null : choices.filter(({ id }) => id === asked);
  const pinned = pins.filter((pin) => byId.has(pin));
  const onPin = useCallback(
    (choiceId: string) => {
      const next = pinned.includes(choiceId)
        ? pinned.filter((each) => each !== choiceId)
        : [...pinned.slice(-1), choiceId];
      setPins(next);
      if (next.length === 2 && !pinned.includes(choiceId)) setOpen(true);
    },
    [pinned],
  );
  const [first, second] = pinned.flatMap((pin) => byId.get(pin) ?? []);
  const goTo = (choiceId: string) => {
    light(choiceId);
    const card = document.getElementById(`choice-${choiceId}`);
    card?.scrollIntoView({ block: "center" });
    card?.querySelector<HTMLButtonElement>("button:not(:disabled)")?.focus({ preventScroll: true });
  };

  const card = (choice: Choice) => (
    <ChoiceCard
      key={choice.id}
      choice={choice}
      plan={plan}
      drives={drives}
      beatenBy={compared.nameOf.get(compared.beaten.get(choice.id) ?? "") ?? null}
      misfits={compared.unfit.get(choice.id) ?? NO_MISFITS}
      change={compared.changeFor(choice.id)}
      present={choice.id === presentId}
      pinned={pinned.includes(choice.id)}
      lit={lit === choice.id}
      onPin={onPin}
      onApply={apply}
      onLight={light}
      onAsk={explain}
    />
  );

  return (
    <main id="main" tabIndex={-1} className="grid min-h-0 min-w-0 flex-1 lg:grid-cols-[minmax(0,1fr)_23rem]">
      <div
        tabIndex={0}
        role="region"
        aria-label="Layouts side by side"
        className="min-h-0 min-w-0 px-4 pb-6 desk:overflow-y-auto"
      >
        <div className="-mx-4 space-y-1 border-b border-line bg-ground px-4 py-3 desk:sticky desk:top-0 desk:z-10">
          <DriveChooser plan={plan} chosen={chosen} onChoose={(ids) => change({ drives: ids })} />
          <NeedsBar needs={state.needs} most={Math.max(1, drives.length)} onChange={(needs) => change({ needs })} />
        </div>
        <CompareBar
          currency={plan.currency}
          state={state}
          change={change}
          compared={compared}
          onFaceToFace={first && second ? () => setOpen(true) : null}
        />
        <CompareStatus {...compared} />
        <ChoiceLists compared={compared} card={card} />
        <p className="mt-3">
          Which layout costs least <GrowthLink part="#layouts">over the years</GrowthLink>, with what has to be bought
          and when.
        </p>
      </div>
      <ComparePanel plan={plan} act={act} state={state} change={change} compared={compared} lit={lit} onPoint={goTo} />
      {explained && <LayoutDialog choices={explained} drives={drives} plan={plan} onClose={() => explain(null)} />}
      {asking && (
        <ApplyDialog
          plan={plan}
          asking={asking}
          onClose={() => setAsking(null)}
          onApply={() => {
            act(asking.command, true);
            setAsking(null);
            setOpen(false);
          }}
        />
      )}
      {open && first && second && (
        <FaceToFace
          pair={[first, second]}
          presentId={presentId}
          plan={plan}
          drives={drives}
          onApply={apply}
          onClose={() => setOpen(false)}
        />
      )}
    </main>
  );
}
