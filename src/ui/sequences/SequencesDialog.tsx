"use client";

import { useMemo, useState } from "react";
import { sequences } from "@/core/sequences/registry";
import { soldFrom } from "@/core/sequences/parts";
import { type FirstWish, isWish, type Sequence, type SequenceSetting, type Wish } from "@/core/sequences/sequence";
import { settingAt, type Place, type Tried } from "@/core/sequences/tried";
import { plural } from "@/core/words/counted";
import { usualCalendar } from "../calendar/usualCalendar";
import { GrowthLink } from "../growth/GrowthLink";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import { today } from "../today";
import { useWorkbench } from "../workbench/useWorkbench";
import { SequenceFigures } from "./SequenceFigures";
import { SequenceQuestions } from "./SequenceQuestions";
import { useTried } from "./useTried";
import { ownValue } from "@/core/records/ownValue";

/** A wish about certain drives begins with the smallest size that is sold and larger than each of them. */
function beginWith(wish: Wish, { plan }: SequenceSetting): Wish {
  const sizes = plan.drives.filter((drive) => wish.drives.includes(drive.id)).map((drive) => drive.bytes);
  return { ...wish, bytes: soldFrom(Math.max(...sizes) + 1) };
}

/**
 * Ready-made sequences of steps: what owners say they want, worked out for this box, to be put in at the chosen moment.
 */
export function SequencesDialog({ first, onClose }: { first?: FirstWish | undefined; onClose: () => void }) {
  const { walk: walked, at, insertSequence } = useWorkbench();
  const place = useMemo<Place>(() => ({ document: walked.plan, walked, at, today: today() }), [walked, at]);
  const setting = useMemo(() => settingAt(place), [place]);
  const begun = useMemo(() => sequences.map((sequence) => ({ sequence, begun: sequence.begin(setting) })), [setting]);
  const suiting = begun.filter((each): each is { sequence: Sequence; begun: Wish } => isWish(each.begun));
  const others = begun.flatMap(({ sequence, begun: not }) => (isWish(not) ? [] : [{ sequence, why: not.cannot }]));
  const [chosen, setChosen] = useState(first?.sequence ?? suiting[0]?.sequence.id ?? null);
  const [wishes, setWishes] = useState<Record<string, Wish>>(() => {
    const own = suiting.find(({ sequence }) => sequence.id === first?.sequence);
    return own && first ? { [first.sequence]: beginWith({ ...own.begun, ...first.wish }, setting) } : {};
  });
  const current = suiting.find((each) => each.sequence.id === chosen);
  const wish = current ? (ownValue(wishes, current.sequence.id) ?? current.begun) : null;
  const [calendar] = useState(usualCalendar);
  const trial = useTried(current?.sequence.id ?? null, wish, place, calendar);
  return (
    <Dialog
      open
      size="large"
      onClose={onClose}
      title="What do you want to do?"
      about={
        at === 0
          ? "Worked out for your box and its rules. The steps come before any that are planned, and each can be " +
            "changed afterwards."
          : `Worked out for the box after step ${at}. Each step can be changed afterwards.`
      }
      acts={
        <>
          <Button onClick={onClose}>Cancel</Button>
          {trial.result?.ok && (
            <PlanButton
              tried={trial.result.tried}
              isFresh={trial.isFresh}
              onPlan={(command) => {
                insertSequence(command);
                onClose();
              }}
            />
          )}
        </>
      }
    >
      <div className="grid gap-x-6 gap-y-4 md:grid-cols-[17rem_minmax(0,1fr)]">
        <Choices
          suiting={suiting.map(({ sequence }) => sequence)}
          others={others}
          chosen={chosen}
          onChoose={setChosen}
        />
        {current && wish ? (
          <div className="min-w-0 space-y-4 border-line md:border-l md:pl-6">
            <p className="text-soft">“{current.sequence.says}”</p>
            <SequenceQuestions
              key={current.sequence.id}
              sequence={current.sequence}
              wish={wish}
              setting={setting}
              onChange={(next) => setWishes({ ...wishes, [current.sequence.id]: next })}
            />
            {current.sequence.asks.includes("years") && (
              <p>
                Which sizes, when, and at what cost for years: <GrowthLink />
              </p>
            )}
            <Outcome {...trial} />
          </div>
        ) : (
          <p className="text-soft">
            Nothing ready-made suits this box as it is. Put drives in its bays and make a pool first.
          </p>
        )}
      </div>
    </Dialog>
  );
}

interface PlanButtonProps {
  tried: Tried;
  isFresh: boolean;
  onPlan: (command: Tried["command"]) => void;
}

function PlanButton({ tried, isFresh, onPlan }: PlanButtonProps) {
  const blocked = tried.blocks.length > 0;
  return (
    <Button disabled={!isFresh} look={blocked ? "plain" : "main"} onClick={() => onPlan(tried.command)}>
      {blocked
        ? "Plan it nevertheless"
        : `Plan ${plural(tried.command.steps.length, "this step", `these ${tried.command.steps.length} steps`)}`}
    </Button>
  );
}

interface ChoicesProps {
  suiting: readonly Sequence[];
  others: readonly { sequence: Sequence; why: string }[];
  chosen: string | null;
  onChoose: (id: Sequence["id"]) => void;
}

/** The sequences that suit this box, and why the others do not. */
function Choices({ suiting, others, chosen, onChoose }: ChoicesProps) {
  return (
    <div>
      <ul aria-label="Ready-made steps" className="space-y-0.5">
        {suiting.map((sequence) => (
          <li key={sequence.id}>
            <button
              type="button"
              aria-pressed={sequence.id === chosen}
              onClick={() => onChoose(sequence.id)}
              className={
                "w-full rounded px-2.5 py-1.5 text-left hover:bg-wall aria-pressed:bg-indigo " +
                "aria-pressed:text-on-indigo"
              }
            >
              {sequence.name}
            </button>
          </li>
        ))}
      </ul>
      {others.length > 0 && (
        <details className="mt-3 text-[0.93rem]">
          <summary className="cursor-pointer px-2.5 text-soft">
            {plural(others.length, "One does", `${others.length} do`)} not suit this box
          </summary>
          <ul className="mt-1 space-y-2 px-2.5">
            {others.map(({ sequence, why }) => (
              <li key={sequence.id}>
                {sequence.name}. <span className="text-soft">{why}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

/** What it comes to, why it cannot be, or that it is being worked out. */
function Outcome({ result, chance, isFresh, trouble }: ReturnType<typeof useTried>) {
  return (
    <div aria-live="polite" aria-busy={!isFresh} className={isFresh ? "" : "text-soft"}>
      {trouble && <p className="text-geranium">{trouble}</p>}
      {!result && !trouble && <p role="status">Working it out …</p>}
      {result && !result.ok && (
        <p className="text-geranium">
          <strong className="font-semibold">It cannot be done like this.</strong> {result.reason}
        </p>
      )}
      {result?.ok && <SequenceFigures tried={result.tried} chance={chance} />}
    </div>
  );
}
