"use client";

import "@/core/commands/growthCommands";
import Link from "next/link";
import { useMemo, useRef, useState } from "react";
import { withoutSteps } from "@/core/bestWay/withoutSteps";
import type { Command } from "@/core/document/command";
import type { Reached } from "@/core/bestWay/byLayout";
import type { LayoutId, Plan } from "@/core/document/plan";
import { CAREFUL } from "@/core/sequences/parts";
import type { GrowthAsked } from "@/workers/startGrowth";
import { usualCalendar } from "../calendar/usualCalendar";
import { Button } from "../kit/Button";
import { Choice } from "../kit/Field";
import { CurrencyChoice } from "../kit/CurrencyChoice";
import { PrintButton } from "../kit/PrintButton";
import { useUnit } from "../preferences/preferences";
import type { PlaceProps } from "../shell/planPlace";
import { today } from "../today";
import { Answer } from "./Answer";
import { Beside } from "./Beside";
import type { Looked } from "./Waiting";
import { type TypedWish, readWish, usualWish } from "./typedWish";
import { type Growth, useGrowth } from "./useGrowth";
import { WishForm } from "./WishForm";

const FROM = [
  { value: "after", label: "from where they end" },
  { value: "now", label: "from the box as it is now, in their place" },
];

/** What is asked of a plan as it was typed; null where something is wrong with that. */
function useAsked(document: Plan, typed: TypedWish, day: string) {
  const [unit] = useUnit();
  const [calendar] = useState(usualCalendar);
  const read = useMemo(() => readWish(document, typed), [document, typed]);
  const asked = useMemo(
    () =>
      read.ok
        ? {
            document,
            wish: read.wish,
            asked: { aim: read.wish.aim, perYear: read.perYear, mostActs: read.mostActs },
            setting: { family: unit, day, variants: CAREFUL, calendar: { ...calendar, start: day } },
          }
        : null,
    [document, read, unit, day, calendar],
  );
  return { read, asked };
}

/** Which drives to buy, when and into which place, so that the box holds what will be stored for years. */
export function GrowthView({ plan, act, planHref }: PlaceProps) {
  const [typed, setTyped] = useState<TypedWish>(() => usualWish(plan));
  const [from, setFrom] = useState<string>("after");
  const isInstead = from === "now" && plan.steps.length > 0;
  const document = useMemo(() => (isInstead ? withoutSteps(plan) : plan), [plan, isInstead]);
  const day = plan.calendar?.start ?? today();
  const { read, asked } = useAsked(document, typed, day);
  const growth = useGrowth(asked);
  const heading = useRef<HTMLHeadingElement>(null);
  const take: PlaceProps["act"] = (command, offersUndo) => {
    const kept = new Set([...document.steps, ...document.drives].map(({ id }) => id));
    const goes = [...plan.steps, ...plan.drives].map(({ id }) => id).filter((id) => !kept.has(id));
    const whole: Command =
      command.kind === "insert-sequence" && isInstead ? { ...command, kind: "plan-instead", goes } : command;
    const why = act(whole, offersUndo);
    if (why === null) heading.current?.focus();
    return why;
  };
  return (
    <main id="main" className="min-w-0 flex-1 overflow-y-auto px-4 py-4 md:px-6" tabIndex={-1}>
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h1 ref={heading} tabIndex={-1} className="font-serif text-2xl outline-none">
          The best way to grow
        </h1>
        <PrintButton />
      </div>
      <p className="mt-1 mb-3 max-w-[46rem] text-soft">
        Which drives to buy, when and into which place, so that the box holds what you will store, for the least.
      </p>
      {plan.steps.length > 0 && (
        <div className="mb-3 max-w-96">
          <Choice label="Your plan has steps. It grows" value={from} options={FROM} onPick={setFrom} />
        </div>
      )}
      <WishForm
        plan={document}
        typed={typed}
        read={read}
        onType={(changes) => setTyped((old) => ({ ...old, ...changes }))}
      />
      {asked && (
        <Found
          asked={asked}
          growth={growth}
          act={take}
          planHref={planHref}
          onLayout={(layout, reached) => {
            setTyped((old) => ({ ...old, layout: reached === "stays" ? "as-it-is" : layout }));
            heading.current?.focus();
          }}
        />
      )}
      {growth.trouble && (
        <p role="alert" className="mt-3 flex flex-wrap items-center gap-3 text-geranium">
          {growth.trouble}
          <Button small onClick={growth.again}>
            Try again
          </Button>
        </p>
      )}
      <Basis plan={plan} act={act} planHref={planHref} />
    </main>
  );
}

interface FoundProps extends Pick<PlaceProps, "act" | "planHref"> {
  asked: GrowthAsked;
  growth: Growth;
  onLayout: (layout: LayoutId, reached: Reached) => void;
}

/** What was found, and what stands beside it once the search has ended. */
function Found({ asked, growth, act, planHref, onLayout }: FoundProps) {
  const { document: plan, wish, setting } = asked;
  const { told, isOld, progress } = growth;
  const isEnded = told?.ended === true && !isOld && told.way !== null;
  const [looked, setLooked] = useState<(Looked & { asked: GrowthAsked }) | null>(null);
  // A way that was looked at belongs to what was asked then.
  const shown = looked?.asked === asked && isEnded ? looked : null;
  return (
    <>
      <div className={isOld && told ? "text-soft" : ""} aria-busy={progress !== null}>
        <Answer
          growth={growth}
          plan={plan}
          wish={wish}
          day={setting.day}
          act={act}
          planHref={planHref}
          looked={shown}
          onBack={() => setLooked(null)}
        />
      </div>
      {isEnded && (
        <Beside
          asked={asked}
          told={told}
          plan={plan}
          act={act}
          day={setting.day}
          wish={wish}
          look={(other) => setLooked({ ...other, asked })}
          onLayout={onLayout}
        />
      )}
    </>
  );
}

/** What the figures stand on, and what they leave out. */
function Basis({ plan, act, planHref }: PlaceProps) {
  const listed = plan.prices !== undefined && plan.prices.length > 0;
  return (
    <div className="mt-6 max-w-[46rem] text-soft">
      <p>
        Prices are those of {listed ? "your price list" : "invented examples: type your own at the next drive"}, and are
        taken to fall as you say. Left out are what drives are sold for, failures on the way, and drives that lie on the
        shelf.{" "}
        <Link className="inline-block min-h-[24px] underline" href={planHref}>
          Back to the plan
        </Link>
      </p>
      {plan.currency === undefined && (
        <div className="mt-2">
          <CurrencyChoice currency={plan.currency} act={act} />
        </div>
      )}
    </div>
  );
}
