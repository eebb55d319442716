"use client";

import Link from "next/link";
import { useMemo, useRef, useState } from "react";
import { CAREFUL } from "@/core/sequences/parts";
import { usualCalendar } from "../calendar/usualCalendar";
import { Button } from "../kit/Button";
import { CurrencyChoice } from "../kit/CurrencyChoice";
import { useUnit } from "../preferences/preferences";
import type { PlaceProps } from "../shell/planPlace";
import { today } from "../today";
import { Answer } from "./Answer";
import { Beside } from "./Beside";
import { type TypedWish, readWish, usualWish } from "./typedWish";
import { useGrowth } from "./useGrowth";
import { WishForm } from "./WishForm";

/** Which drives to buy, when and into which place, so that the box holds what will be stored for years. */
export function GrowthView({ plan, act, planHref }: PlaceProps) {
  const [unit] = useUnit();
  const [typed, setTyped] = useState<TypedWish>(() => usualWish(plan));
  const [calendar] = useState(usualCalendar);
  const day = plan.calendar?.start ?? today();
  const read = useMemo(() => readWish(plan, typed), [plan, typed]);
  const asked = useMemo(
    () =>
      read.ok
        ? {
            document: plan,
            wish: read.wish,
            asked: { aim: read.wish.aim, perYear: read.perYear, mostActs: read.mostActs },
            setting: { family: unit, day, variants: CAREFUL, calendar: { ...calendar, start: day } },
          }
        : null,
    [plan, read, unit, day, calendar],
  );
  const growth = useGrowth(asked);
  const heading = useRef<HTMLHeadingElement>(null);
  const isFound = growth.told?.ended === true && !growth.isOld && growth.told.way !== null;
  return (
    <main className="min-w-0 flex-1 overflow-y-auto px-4 py-4 md:px-6" tabIndex={-1}>
      <h1 ref={heading} tabIndex={-1} className="font-serif text-2xl outline-none">
        The best way to grow
      </h1>
      <p className="mt-1 mb-3 max-w-[46rem] text-soft">
        Which drives to buy, when and into which place, so that the box holds what you will store, for the least.
        {plan.steps.length > 0 && " It begins where the steps of your plan end."}
      </p>
      <WishForm
        plan={plan}
        typed={typed}
        read={read}
        onType={(changes) => setTyped((old) => ({ ...old, ...changes }))}
      />
      {read.ok ? (
        <div className={growth.isOld && growth.told ? "text-soft" : ""} aria-busy={growth.progress !== null}>
          <Answer
            growth={growth}
            plan={plan}
            wish={read.wish}
            day={day}
            act={act}
            planHref={planHref}
            onDone={() => heading.current?.focus()}
          />
        </div>
      ) : (
        <p role="alert" className="mt-3 text-geranium">
          {read.message}
        </p>
      )}
      {isFound && asked && growth.told?.way && (
        <Beside asked={asked} told={growth.told} plan={plan} act={act} day={day} wish={asked.wish} />
      )}
      <Basis plan={plan} act={act} planHref={planHref} />
      {growth.trouble && (
        <p role="alert" className="mt-3 flex flex-wrap items-center gap-3 text-geranium">
          {growth.trouble}
          <Button small onClick={growth.again}>
            Try again
          </Button>
        </p>
      )}
    </main>
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
