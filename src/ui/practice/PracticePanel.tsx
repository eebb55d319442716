"use client";

import Link from "next/link";
import { useEffect, useId, useRef, useState } from "react";
import type { Plan } from "@/core/document/plan";
import type { PoolTruth } from "@/core/simulator/truth";
import { lengthWords } from "@/core/time/hoursWords";
import { keepPractice, removePractice } from "@/store/practiceBoxes";
import { isThere, usePractice, type PracticeBox } from "./usePractice";
import { useBoxNow } from "../boxClock";
import { whenWords } from "../carry/when";
import { Button } from "../kit/Button";
import { part } from "../kit/part";
import { Unloaded } from "../kit/Unloaded";
import { openDatabase } from "../openDatabase";
import { useUnit } from "../preferences/preferences";
import { usePlanId } from "../shell/usePlanId";
import { mishapOffers } from "../mishaps/mishapOffers";
import { breakable } from "./breakable";
import { BoxFront } from "./BoxFront";
import { asked, NOTHING_KEPT } from "./OfferPractice";
import { TruthLines } from "./TruthLines";
import type { PracticeView } from "./openPractice";
import { say } from "../kit/say";

const MishapDialog = part(() => import("../mishaps/MishapDialog").then((module) => module.MishapDialog), {
  needed: "this dialog",
  said: "over",
});

interface Props {
  plan: Plan;
  /** Takes what the box prints; nothing where the place reads no box. */
  onRead?: (text: string) => void;
}

/** The practice box of a plan, where it has one: its clock, what it does, what can be done to it. */
export function PracticePanel(props: Props) {
  const practice = usePractice();
  const id = usePlanId();
  if (practice === "none" || practice === "loading") return null;
  if (practice === "broken")
    return (
      <aside aria-label="Practice box" className="mt-3 border-l-4 border-ochre-text pl-3">
        <p>The practice box could not be put together again. The plan is as it was.</p>
        <SetUpAgain plan={props.plan} id={id} label="Set it up again, as the plan has the box now" />
      </aside>
    );
  if (!isThere(practice)) return <Unloaded what="the practice box" onAgain={practice.again} />;
  return <Panel {...props} practice={practice} />;
}

const perCent = (share: number) => `${Math.floor(share * 100)} %`;

function Panel({ plan, onRead, practice }: Props & { practice: PracticeBox }) {
  const [unit] = useUnit();
  const now = useBoxNow();
  const view = practice.open.view(now, unit);
  const [breaking, setBreaking] = useState(false);
  const heading = useRef<HTMLHeadingElement>(null);
  const id = useId();
  const planId = usePlanId();
  const [truth, setTruth] = useState<PoolTruth[] | null>(null);
  const [mishaps, setMishaps] = useState(0);
  useEffect(() => {
    if (asked.plan !== planId) return;
    asked.plan = null;
    heading.current?.focus();
  }, [planId]);
  useEffect(() => {
    if (mishaps === 0) return;
    // After the dialog has given the focus back to what opened it.
    const timer = setTimeout(() => heading.current?.focus());
    return () => clearTimeout(timer);
  }, [mishaps]);
  return (
    <section aria-labelledby={id} className="mt-3 border-y border-line-strong bg-wall px-3 py-3 print:hidden">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h2 id={id} ref={heading} tabIndex={-1} className="font-serif text-lg outline-none">
          Practice box
        </h2>
        <p className="text-soft">
          {view.said.length > 0
            ? "Simulated: nothing can be lost on it."
            : "Simulated: nothing can be lost on it. Carry steps out on it, put its clock ahead, read it, break it."}
        </p>
      </div>
      <p className="mt-1">
        By its clock it is <span className="font-semibold tabular-nums">{whenWords(view.now)}</span>.{" "}
        {view.work.length === 0 ? "It has nothing to do." : null}
      </p>
      <Work view={view} />
      <Clock practice={practice} view={view} onEnded={() => heading.current?.focus()} />
      <div className="mt-1.5 flex flex-wrap items-center gap-1.5">
        {onRead && practice.open.isReadable && (
          <Button
            small
            look="main"
            onClick={() => {
              const face = practice.open.face(now);
              onRead(`${face.blockDevices}\n${face.arrays}`);
            }}
          >
            Read the practice box
          </Button>
        )}
        <Button small onClick={() => setBreaking(true)}>
          Let something go wrong…
        </Button>
        <Button small onClick={() => setTruth(practice.open.truth(now))}>
          Read all data back and compare it
        </Button>
        {!onRead && (
          <Link
            href={`/plan/${planId}/reading`}
            className="inline-block px-1 py-0.5 font-semibold text-indigo underline underline-offset-2"
          >
            How is the box now?
          </Link>
        )}
      </div>
      {onRead && !practice.open.isReadable && (
        <p className="mt-1 text-soft">
          What this box would print of its pools is not known exactly, so it cannot be read here. It can be carried out,
          broken and rescued.
        </p>
      )}
      {practice.unkept && (
        <p role="alert" className="mt-1 text-geranium">
          The browser could not keep what was done on the practice box: its storage is full or blocked. It is on this
          page only.
        </p>
      )}
      <TruthLines pools={truth} plan={plan} now={view.now} />
      <Said view={view} />
      <BoxFront view={view} practice={practice} />
      <Again plan={plan} />
      {breaking && (
        <MishapDialog
          offers={mishapOffers(breakable(view, plan))}
          about="On the practice box only, at this moment of its clock. The plan knows nothing of it until the box is read."
          onClose={() => setBreaking(false)}
          onMishap={(mishap) => {
            practice.befall(mishap);
            setBreaking(false);
            setMishaps(mishaps + 1);
            say(practice.open.view(now, unit).said[0]?.words ?? "");
          }}
        />
      )}
    </section>
  );
}

function Work({ view }: { view: PracticeView }) {
  return (
    <ul>
      {view.work.map(({ label, share, hoursLeft, stands }) => (
        <li key={label} className="mt-1">
          <span className="font-semibold">{label}</span>: {perCent(share)} done,{" "}
          {stands
            ? "and it stands still: its pool cannot be read, or other work comes first"
            : `${lengthWords(hoursLeft)} to go`}
          .
          <span aria-hidden className="mt-1 block h-1.5 max-w-md bg-line">
            <span className="block h-full bg-indigo" style={{ width: `${share * 100}%` }} />
          </span>
        </li>
      ))}
    </ul>
  );
}

/** How fast the clock runs while it is run fast: an hour of the box in a second, in steps. */
const STEP_MS = 250;

/** The box's clock: put ahead by an hour, a day, until what it does has ended, or run fast until something happens. */
function Clock({
  practice,
  view,
  onEnded,
}: {
  practice: PracticeBox;
  view: PracticeView;
  /** Told when what it did is made to end: what was pressed for it goes with it. */
  onEnded: () => void;
}) {
  const [fast, setFast] = useState(false);
  const goesOn = view.work.filter(({ stands }) => !stands);
  const left = goesOn.length > 0 ? Math.min(...goesOn.map(({ hoursLeft }) => hoursLeft)) : null;
  const said = view.said.length;
  const [saidAtStart, setSaidAtStart] = useState(said);
  // Something has happened: it stops, so that one can look.
  const happened = said !== saidAtStart;
  if (fast && happened) setFast(false);
  const last = happened ? view.said[0]?.words : undefined;
  useEffect(() => {
    if (last !== undefined) say(last);
  }, [said, last]);
  useEffect(() => {
    if (!fast) return;
    const clock = setInterval(() => practice.letPass(Math.min(STEP_MS / 1000, left ?? Infinity)), STEP_MS);
    return () => clearInterval(clock);
  }, [fast, practice, left]);
  const pass = (hours: number, words: string) => {
    practice.letPass(hours);
    say(words);
  };
  return (
    <div role="group" aria-label="The box's clock" className="mt-2 flex flex-wrap gap-1.5">
      <Button small onClick={() => pass(1, "An hour has passed on the practice box.")}>
        An hour on
      </Button>
      <Button small onClick={() => pass(24, "A day has passed on the practice box.")}>
        A day on
      </Button>
      {left !== null && (
        <Button
          small
          onClick={() => {
            pass(left, `${lengthWords(left)} on: it has ended.`);
            onEnded();
          }}
        >
          Until it has ended
        </Button>
      )}
      <Button
        small
        aria-pressed={fast}
        onClick={() => {
          setSaidAtStart(said);
          setFast(!fast);
        }}
      >
        {fast ? "Stop the clock" : "Run it fast: 1 h a second"}
      </Button>
    </div>
  );
}

/** What the box has said of itself, the last first. */
function Said({ view }: { view: PracticeView }) {
  const [all, setAll] = useState(false);
  const heading = useRef<HTMLHeadingElement>(null);
  if (view.said.length === 0) return null;
  const shown = all ? view.said : view.said.slice(0, 3);
  return (
    <div className="mt-3">
      <h3 ref={heading} tabIndex={-1} className="font-semibold outline-none">
        What it has said
      </h3>
      <ol>
        {shown.map(({ at, words }, i) => (
          <li key={view.said.length - i} className="text-[0.95rem]">
            <span className="text-soft tabular-nums">{whenWords(at)}</span> {words}
          </li>
        ))}
      </ol>
      {view.said.length > shown.length && (
        <Button
          small
          look="quiet"
          onClick={() => {
            setAll(true);
            heading.current?.focus();
          }}
        >
          All {view.said.length}
        </Button>
      )}
    </div>
  );
}

/** Sets the practice box up as the plan has its box now; says where the browser does not keep it. */
function SetUpAgain({ plan, id, label, onDone }: { plan: Plan; id: string; label: string; onDone?: () => void }) {
  const [trouble, setTrouble] = useState(false);
  return (
    <>
      <Button
        small
        onClick={() =>
          void keepPractice(openDatabase(), id, plan).then(
            () => {
              setTrouble(false);
              onDone?.();
            },
            () => setTrouble(true),
          )
        }
      >
        {label}
      </Button>
      {trouble && (
        <p role="alert" className="basis-full text-geranium">
          {NOTHING_KEPT}
        </p>
      )}
    </>
  );
}

/** To begin again, or to put the practice box away. */
function Again({ plan }: { plan: Plan }) {
  const id = usePlanId();
  return (
    <details className="mt-2">
      <summary className="cursor-pointer py-1 font-semibold">Begin again, or put it away</summary>
      <p className="mt-1">
        Set up again, it is as the plan has the box now, whole and full of data, with its clock at this moment. The plan
        and its records stay as they are.
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <SetUpAgain
          plan={plan}
          id={id}
          label="Set it up again"
          onDone={() => say("The practice box has been set up again.")}
        />
        <Button
          small
          onClick={() => {
            document.querySelector("main")?.focus();
            void removePractice(openDatabase(), id).catch(() => undefined);
          }}
        >
          Put the practice box away
        </Button>
      </div>
    </details>
  );
}
