"use client";

import { useEffect, useRef, useState } from "react";
import { ofBoxes } from "@/core/chance/chanceWords";
import { monthsAfter } from "@/core/bestWay/months";
import type { Told, ToldWay } from "@/core/bestWay/told";
import type { GrowthWish } from "@/core/bestWay/wish";
import { formatBytes } from "@/core/bytes/formatBytes";
import type { Plan } from "@/core/document/plan";
import { lengthWords } from "@/core/time/hoursWords";
import { plainDayWords } from "@/core/time/dateWords";
import { capital } from "@/core/words/capital";
import { counted } from "@/core/words/counted";
import { ordinal } from "@/core/words/ordinal";
import { Button } from "../kit/Button";
import { useUnit } from "../preferences/preferences";
import { Refused } from "../rehearse/Refused";
import type { PlaceProps } from "../shell/planPlace";
import { GrowthChart } from "./GrowthChart";
import { actWords, centsWords, drivesWords, exposedWords, whenWords } from "./growthWords";
import type { Looked } from "./Waiting";
import type { Growth } from "./useGrowth";

interface Props extends PlaceProps {
  growth: Growth;
  wish: GrowthWish;
  day: string;
  /** Another way that is looked at in the place of what was found; null for that. */
  looked: Looked | null;
  onBack: () => void;
}

/** What was found: the next purchase first, then how good the way is, and the way itself, or another. */
export function Answer({ growth, plan, wish, day, act, looked, onBack }: Props) {
  const { told, progress, isStopped } = growth;
  if (!told || (!told.way && !told.ended))
    return <p className="mt-4 text-soft">{progress ? "Looking for a first way …" : ""}</p>;
  if (!told.way) return <NoWay told={told} day={day} plan={plan} />;
  const { way } = told;
  return (
    <>
      <div className="mt-4 flex flex-wrap items-start justify-between gap-x-8 gap-y-3">
        <div className="min-w-0 max-w-[46rem]">
          <NextPurchase way={way} plan={plan} day={day} />
          <p className="mt-1" aria-live="polite">
            <HowGood told={told} plan={plan} wish={wish} day={day} isStopped={isStopped} />
          </p>
          {progress && <Progress growth={growth} />}
        </div>
        <Take way={way} day={day} act={act} isOld={growth.isOld} isRunning={progress !== null} />
      </div>
      {(looked ?? way.acts.length > 0) && (
        <div className="mt-4 grid gap-x-8 gap-y-6 xl:grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)]">
          <div className="min-w-0">
            {looked && <LookedAt looked={looked} plan={plan} day={day} act={act} onBack={onBack} />}
            <Acts way={looked?.way ?? way} plan={plan} day={day} isOther={looked !== null} />
          </div>
          <GrowthChart way={looked?.way ?? way} wish={wish} day={day} />
        </div>
      )}
    </>
  );
}

/** That nothing that can be bought lasts so long, and what would mend it. */
function NoWay({ told, day, plan }: { told: Told; day: string; plan: Plan }) {
  const month = told.breaksIn ?? 0;
  return (
    <div role="alert" className="mt-4 max-w-[46rem]">
      <p className="font-serif text-lg text-geranium">
        {month === 0
          ? "Nothing that can be bought holds what is stored even now."
          : `It can be made to last until ${plainDayWords(monthsAfter(day, month))}, and no longer.`}
      </p>
      <p className="mt-1">
        {told.enoughPerYear !== null && (
          <strong>With {centsWords(told.enoughPerYear, plan)} a year at most there is a way. </strong>
        )}
        What would help: more bays, larger sizes on the price list, more money a year, another layout, less kept free,
        or less stored by then.
      </p>
    </div>
  );
}

/** What to buy next, by when, and why. */
function NextPurchase({ way, plan, day }: { way: ToldWay; plan: Plan; day: string }) {
  const [unit] = useUnit();
  const [first] = way.acts;
  if (!first)
    return <p className="font-serif text-xl">Nothing needs to be bought: the box holds all of it as it is.</p>;
  const batch = way.acts.filter(({ month }) => month === first.month);
  const bought = batch.flatMap((each) => each.bought);
  const cents = bought.reduce((sum, each) => sum + each.cents, 0);
  const last = batch.length - 1;
  return (
    <>
      <p className="font-serif text-xl">
        {bought.length > 0
          ? `Buy ${drivesWords(
              bought.map(({ bytes }) => bytes),
              unit,
            )}`
          : "Change the level"}{" "}
        {whenWords(day, first.month)}
        {bought.length > 0 && <>, for {centsWords(cents, plan)}</>}.
      </p>
      <p className="mt-0.5 text-soft">
        Only this purchase matters now.{" "}
        {first.month === 0 ? "The box is too small already" : "Until then nothing needs to be bought"}: it holds{" "}
        {formatBytes(way.filesNow, unit)} of files beside what is kept free, and then{" "}
        {formatBytes(way.files[last] ?? way.filesNow, unit)}. Ask again before you buy the next.
      </p>
    </>
  );
}

interface HowGoodProps {
  told: Told;
  plan: Plan;
  wish: GrowthWish;
  day: string;
  isStopped: boolean;
}

/** How much more than the best possible something costs at most, as a share of that; null while nothing is known. */
const gapOf = (cents: number, least: number | null): number | null =>
  least === null || least <= 0 ? null : Math.max(0, cents / least - 1);

/** What it comes to in all, and what is proved of it. */
function HowGood({ told, plan, wish, day, isStopped }: HowGoodProps) {
  const { way, least, proved, ended } = told;
  if (!way || way.acts.length === 0) return null;
  const until = plainDayWords(monthsAfter(day, wish.months));
  const gap = gapOf(way.cents, least);
  const aim = { money: "costs less", hours: "leaves your data exposed less long", acts: "takes fewer acts" }[wish.aim];
  const worth = proved
    ? `No way ${aim}, by these prices.`
    : !ended && !isStopped
      ? ""
      : gap !== null && gap > 0.0005
        ? `It costs at most ${Math.ceil(gap * 100)} % more than the best possible.`
        : "It is good; that none is better is not proved for this kind of pool.";
  return (
    <>
      It costs <strong>{centsWords(way.cents, plan)}</strong> in all until {until}. {worth}{" "}
      <span className="text-soft">
        {way.exposedHours > 0
          ? `For ${lengthWords(way.exposedHours)} of its work the loss of any drive would lose data; of boxes that go this way ${ofBoxes(way.chance)} lose something on it.`
          : `Its work leaves nothing exposed; of boxes that go this way ${ofBoxes(way.chance)} lose something on it.`}
      </span>
    </>
  );
}

/** How far the proof is, with a way to end it. */
function Progress({ growth: { told, progress, stop } }: { growth: Growth }) {
  const gap = gapOf(told?.way?.cents ?? 0, progress?.least ?? null);
  return (
    <p className="mt-1 flex flex-wrap items-center gap-3">
      <span className="text-soft">
        Looking for a better one …{" "}
        {gap === null ? "" : `so far it costs at most ${Math.ceil(gap * 100)} % more than the best possible`}
      </span>
      <Button small onClick={stop}>
        Stop, and keep this one
      </Button>
    </p>
  );
}

interface TakeProps extends Pick<PlaceProps, "act"> {
  way: ToldWay;
  day: string;
  isOld: boolean;
  isRunning: boolean;
  /** Whether it stands beside the best. */
  isOther?: boolean;
}

/** One press makes it the plan. */
function Take({ way, day, act, isOld, isRunning, isOther = false }: TakeProps) {
  const [refused, setRefused] = useState<string | null>(null);
  const short =
    way.shortIn === null
      ? null
      : `Step by step it would hold too little from ${plainDayWords(monthsAfter(day, way.shortIn))} on.`;
  const reason = way.blocks[0] ?? short;
  if (way.command.steps.length === 0) return null;
  return (
    <div className="shrink-0">
      <Button
        look={isOther ? "plain" : "main"}
        disabled={isOld || isRunning || reason !== null}
        onClick={() => setRefused(act(way.command, true))}
      >
        {isOther ? "Make this one the plan" : "Make it the plan"}
      </Button>
      <p className="mt-1 text-soft">{counted(way.command.steps.length, "step")}, on their days</p>
      <Refused why={refused ?? reason} />
    </div>
  );
}

interface LookedAtProps extends Pick<PlaceProps, "act"> {
  looked: Looked;
  plan: Plan;
  day: string;
  onBack: () => void;
}

/** Which other way is looked at, with a way back to the best. */
function LookedAt({ looked: { name, way }, plan, day, act, onBack }: LookedAtProps) {
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus(), [way]);
  return (
    <div className="mb-3 border-l-4 border-line-strong pl-3">
      <h2 ref={heading} tabIndex={-1} className="font-serif text-lg outline-none">
        Looked at: {name}
      </h2>
      <p>
        {centsWords(way.cents, plan)} in all, {exposedWords(way.exposedHours)};{" "}
        {`of boxes that go this way ${ofBoxes(way.chance)} lose something on it.`}
      </p>
      <div className="mt-1 flex flex-wrap items-start gap-3">
        <Button
          onClick={() => {
            onBack();
            document.getElementById("the-way")?.focus();
          }}
        >
          Back to the best way
        </Button>
        <Take way={way} day={day} act={act} isOld={false} isRunning={false} isOther />
      </div>
    </div>
  );
}

/** The way act by act, with what each costs and what the box holds then. */
function Acts({ way, plan, day, isOther }: { way: ToldWay; plan: Plan; day: string; isOther: boolean }) {
  const [unit] = useUnit();
  return (
    <section aria-labelledby="the-way">
      <h2 id="the-way" tabIndex={-1} className="border-b border-line pb-1 font-serif text-lg outline-none">
        {isOther ? "That way" : "The way"}
      </h2>
      <ol>
        {way.acts.map((each, i) => (
          <li
            key={`${each.month} ${each.group} ${each.bought.map(({ drive }) => drive).join()} ${each.gone.join()}`}
            className="grid grid-cols-[7.5rem_minmax(0,1fr)] gap-x-3 border-b border-line py-1.5 last:border-0"
          >
            <span className={way.acts[i - 1]?.month === each.month ? "invisible" : "font-semibold"}>
              {capital(whenWords(day, each.month).replace(/^by /, ""))}
            </span>
            <span className="min-w-0">
              {capital(actWords(each, plan, way, day, unit))}
              {each.bought.length > 0 &&
                `, ${centsWords(
                  each.bought.reduce((sum, { cents }) => sum + cents, 0),
                  plan,
                )}`}
              . <span className="text-soft">Holds {formatBytes(way.files[i] ?? 0, unit)} then.</span>
            </span>
          </li>
        ))}
      </ol>
      <p className="mt-1 text-soft">
        Of the years from {plainDayWords(day)} on:{" "}
        {way.byYear
          .flatMap((cents, year) => (cents > 0 ? [`${centsWords(cents, plan)} in the ${ordinal(year + 1)}`] : []))
          .join(", ")}
        .
      </p>
    </section>
  );
}
