"use client";

import Link from "next/link";
import { useEffect, useRef, useState } from "react";
import type { Plan } from "@/core/document/plan";
import type { Stored } from "@/core/rehearsal/losses";
import { backupName, ageWords } from "@/core/rehearsal/summary";
import { planOfWayOut } from "@/core/rehearsal/wayOut";
import { lengthWords } from "@/core/time/hoursWords";
import { counted, oneOrMany } from "@/core/words/counted";
import { keepPlan } from "@/store/keepPlan";
import { Button } from "../kit/Button";
import { NameField } from "../kit/NameField";
import { openDatabase } from "../openDatabase";
import type { PlaceProps } from "../shell/planPlace";
import { Refused } from "./Refused";
import type { Playing } from "./usePlayed";

interface Props extends Pick<PlaceProps, "act"> {
  playing: Playing;
  plan: Plan;
  /** What it may be called where it is kept. */
  name: string;
}

/** A share of what is stored, as it was read back. */
const shareWords = (share: number): string =>
  share >= 0.999
    ? "all of it"
    : share < 0.001
      ? "less than 0.1 % of it"
      : `about ${(share * 100).toPrecision(2)} % of it`;

/** The end of a rehearsal: what became of the data, read back block by block, and what to do with what was played. */
export function EndPanel({ playing, plan, act, name }: Props) {
  const { view, played } = playing;
  const { outcome } = view;
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    const timer = setTimeout(() => heading.current?.focus());
    return () => clearTimeout(timer);
  }, []);
  const stored = played.stage.play.stored;
  const isErased = (on: Stored["on"]) => "drive" in on && played.stage.practice.box.erased.has(on.drive);
  const longer = outcome.degradedHours - played.usual.degradedHours;
  const first = {
    whole: "Nothing is lost",
    restored: "Lost on the box, and back from backups",
    lost: "Some of it is lost for good",
  }[outcome.became];
  return (
    <section
      aria-labelledby="end"
      className={`border-l-4 pl-3 ${outcome.became === "whole" ? "border-green" : "border-geranium"}`}
    >
      <h2 id="end" ref={heading} tabIndex={-1} className="font-serif text-xl outline-none">
        {first}
      </h2>
      <ul className="mt-1 space-y-1" aria-label="What became of your data">
        {stored.map(({ id, name: called, on }) => {
          const loss = outcome.losses.find(({ of }) => of === id);
          return (
            <li key={id}>
              <span className="font-semibold">{called || "A volume"}</span>:{" "}
              {isErased(on)
                ? "its drive is erased by the plan itself."
                : !loss
                  ? "all of it is there, as it was written."
                  : loss.from === null
                    ? `${shareWords(loss.share)} could not be read any more, and no backup has it: lost.`
                    : `${shareWords(loss.share)} could not be read any more. It comes back from ` +
                      `${backupName(plan, loss.from)}, ${ageWords(loss.ageHours ?? 0)}.`}
            </li>
          );
        })}
        {stored.length === 0 && <li>The plan does not say that anything is stored.</li>}
      </ul>
      <p className="mt-2 text-soft">
        {outcome.became !== "whole"
          ? ""
          : longer > 0.05
            ? `For ${lengthWords(longer)} more than in the plan a drive was missing or not filled yet. `
            : "Protection was never less than the plan has it. "}
        All of it took {lengthWords(outcome.hours)}; with nothing going wrong, {lengthWords(played.usual.hours)}.
        {outcome.passedOver.length > 0 && ` ${counted(outcome.passedOver.length, "step")} of the plan came to nothing.`}
      </p>
      <Keep act={act} playing={playing} name={name} />
      <WayOut act={act} playing={playing} plan={plan} name={name} />
    </section>
  );
}

/** Keeps a rehearsal with the plan, under a name; says why where it cannot. */
function Keep({ act, playing, name }: Pick<Props, "act" | "playing" | "name">) {
  const [called, setCalled] = useState(name);
  const [refused, setRefused] = useState<string | null>(null);
  const keep = () => setRefused(act({ kind: "keep-rehearsal", rehearsal: playing.played.kept(called) }, true));
  return (
    <div className="mt-3">
      <div className="flex flex-wrap items-center gap-1.5">
        <NameField label="Name of this rehearsal" value={called} onChange={setCalled} className="flex-1 border-line" />
        <Button look="main" onClick={keep}>
          Keep it with the plan
        </Button>
      </div>
      <Refused why={refused} />
    </div>
  );
}

/** What was done since the first mishap, put into the plan, or made a plan of its own. */
function WayOut({ act, playing, plan, name }: Props) {
  const [state, setState] = useState<{ id: string } | "failed" | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const made = planOfWayOut(playing.played.stage, `${plan.name}: ${name}`.slice(0, 120));
  if (!made) return null;
  const { drives, pools, steps } = made;
  return (
    <div className="mt-3">
      <p className="text-soft">
        The way out, {oneOrMany(steps.length, "one step", "steps")} from the box as it was just after the mishap:
      </p>
      <div className="mt-1 flex flex-wrap gap-1.5">
        <Button onClick={() => setRefused(act({ kind: "take-way-out", as: { drives, pools, steps } }, true))}>
          Put it into this plan
        </Button>
        <Button
          onClick={() =>
            void keepPlan(openDatabase(), made).then(
              (id) => setState({ id }),
              () => setState("failed"),
            )
          }
        >
          Make a plan of it
        </Button>
      </div>
      <Refused why={refused} />
      <p role="status" className={state === "failed" ? "text-geranium" : "text-soft"}>
        {state === "failed"
          ? "The browser could not keep it: its storage is full or blocked."
          : state
            ? `It is among your plans: “${made.name}”.`
            : ""}
      </p>
      {state !== null && state !== "failed" && (
        <Link
          href={`/plan/${state.id}`}
          className="inline-block py-1 font-semibold text-indigo underline underline-offset-2"
        >
          Open it
        </Link>
      )}
    </div>
  );
}
