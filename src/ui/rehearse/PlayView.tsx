"use client";

import {
  DndContext,
  DragOverlay,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useDraggable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { FastForward, Pause, Play, RotateCcw } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import type { KeptRehearsal, Plan } from "@/core/document/plan";
import { scriptOfKept } from "@/core/rehearsal/kept";
import type { Script } from "@/core/rehearsal/script";
import { lengthWords } from "@/core/time/hoursWords";
import { Button } from "../kit/Button";
import { part } from "../kit/part";
import { Segmented } from "../kit/Segmented";
import { useUnit } from "../preferences/preferences";
import type { PlaceProps } from "../shell/planPlace";
import { AskPanel } from "./AskPanel";
import { clockWords } from "./clockWords";
import { EndPanel } from "./EndPanel";
import type { Wished } from "../mishaps/MishapDialog";
import { type MishapOffer, mishapOffers } from "../mishaps/mishapOffers";
import { breakable } from "./breakable";
import { mishapWords } from "./mishapWords";
import { bayDrop, PlayedBox } from "./PlayedBox";
import { PlayStrip, STRIP_DROP } from "./PlayStrip";
import { EMPTY_SCRIPT, type Playing, type Speed, usePlayed, wantsLessMotion } from "./usePlayed";
import { say } from "../kit/say";

const MishapDialog = part(() => import("../mishaps/MishapDialog").then((module) => module.MishapDialog), {
  needed: "this dialog",
  said: "over",
});

/** A case that is to be played: from the table, or kept with the plan. */
export interface Asked {
  script: Script;
  name: string;
}

interface Props extends PlaceProps {
  /** What is to be played first; another object each time that it is asked for. */
  asked: Asked | null;
}

const SPEEDS: readonly { value: string; label: string; speed: Speed }[] = [
  { value: "1", label: "1 h a second", speed: 1 },
  { value: "6", label: "6 h", speed: 6 },
  { value: "24", label: "1 day", speed: 24 },
];

/** The plan played on a simulated box, with what befalls it and what its owner does. */
export function PlayView({ plan, act, asked }: Props) {
  const playing = usePlayed(plan);
  const { view, load, strike } = playing;
  const [unit] = useUnit();
  const [wished, setWished] = useState<Wished | null>(null);
  const [dragged, setDragged] = useState<MishapOffer | null>(null);
  const heading = useRef<HTMLHeadingElement>(null);
  const [name, setName] = useState("What I tried");
  const [begun, setBegun] = useState<Asked | null>(null);
  if (asked && asked !== begun) {
    setBegun(asked);
    setName(asked.name);
  }
  useEffect(() => {
    if (!asked) return;
    load(asked.script);
    heading.current?.focus();
    // A case is begun once, when it is asked for.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [asked]);
  const offers = mishapOffers(breakable(view.plan, playing.played.stage.practice, unit));
  const happens = (mishap: Parameters<typeof strike>[0], at: number) => {
    playing.play(false);
    strike(mishap, at);
    say(`${mishapWords(mishap, view.plan, unit)}. ${at > view.hours ? clockWords(at) : "Now"}.`);
    setName(mishapWords(mishap, view.plan, unit).slice(0, 120));
  };
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 220, tolerance: 8 } }),
  );
  return (
    <DndContext
      id="mishaps"
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={({ active }) => setDragged(offers.find(({ id }) => id === active.id) ?? null)}
      onDragCancel={() => setDragged(null)}
      onDragEnd={({ over, delta, activatorEvent }) => {
        const offer = dragged;
        setDragged(null);
        if (!over || !offer) return;
        const drive = offer.of?.find(({ value }) => bayDrop(value) === over.id)?.value;
        if (over.id === STRIP_DROP) {
          const x = "clientX" in activatorEvent ? Number(activatorEvent.clientX) + delta.x : over.rect.left;
          const at = Math.max(0, Math.min(1, (x - over.rect.left) / over.rect.width)) * view.length || 0;
          if (offer.of) setWished({ offer: offer.id, hours: Math.max(0, at - view.hours) });
          else happens(offer.mishap(""), at);
        } else if (drive !== undefined) happens(offer.mishap(drive), view.hours);
        else setWished({ offer: offer.id });
      }}
    >
      <div className="flex min-h-0 flex-1 flex-col gap-x-6 lg:flex-row">
        <section aria-labelledby="playing" className="flex min-h-0 min-w-0 flex-1 flex-col">
          <h2 id="playing" ref={heading} tabIndex={-1} className="font-serif text-lg outline-none">
            {clockWords(view.hours)}
            <span className="ml-2 font-sans text-[0.95rem] text-soft">{doingWords(playing)}</span>
          </h2>
          <Controls playing={playing} />
          <PlayedBox playing={playing} onPick={(of) => setWished({ of })} />
          <PlayStrip view={view} plan={view.plan} onSeek={playing.seek} />
          <Mishaps offers={offers} onWish={(offer) => setWished({ offer })} />
        </section>
        <aside className="min-h-0 shrink-0 py-2 lg:w-[23rem] lg:overflow-y-auto" aria-label="What happens" tabIndex={0}>
          {view.troubles.length > 0 ? (
            <AskPanel playing={playing} />
          ) : view.isOver ? (
            <EndPanel playing={playing} plan={plan} act={act} name={name} />
          ) : (
            view.hours === 0 && <Beginning plan={plan} />
          )}
          <SaidLines view={view} />
          <Kept
            plan={plan}
            act={act}
            onPlay={(kept) => {
              load(scriptOfKept(kept));
              setName(kept.name);
              say(`${kept.name}: at its beginning.`);
              heading.current?.focus();
            }}
          />
        </aside>
      </div>
      <DragOverlay dropAnimation={null}>
        {dragged && (
          <span className="inline-block rounded border border-geranium bg-raised px-2 py-1 whitespace-nowrap text-geranium shadow-lg">
            {dragged.short}
          </span>
        )}
      </DragOverlay>
      {wished && (
        <MishapDialog
          offers={offers}
          about="In the rehearsal only: the plan stays as it is."
          wished={wished}
          clock={(hours) => clockWords(view.hours + hours)}
          onClose={() => setWished(null)}
          onMishap={(mishap, hours) => {
            setWished(null);
            happens(mishap, view.hours + hours);
            if (hours > 0) setTimeout(() => document.querySelector<HTMLElement>("[data-strip]")?.focus());
          }}
        />
      )}
    </DndContext>
  );
}

/** What the box does, in words. */
function doingWords({ view }: Playing): string {
  if (view.isOver) return "It is over.";
  if (view.work.length === 0 && view.waitsUntil !== null)
    return `Nothing is done before ${clockWords(view.waitsUntil)}: a drive or a copy is waited for.`;
  if (view.work.length === 0) return view.hours === 0 ? "Nothing has begun yet." : "The box does nothing now.";
  return view.work
    .map(({ label, share, hoursLeft, stands }) =>
      stands
        ? `${label}: stands still, the pool cannot be read`
        : `${label}: ${Math.floor(share * 100)} %, ${lengthWords(hoursLeft)} to go`,
    )
    .join("; ");
}

function Controls({ playing }: { playing: Playing }) {
  const { view, isPlaying, play, speed, setSpeed, next, takeBack, canTakeBack, load } = playing;
  const first = useRef<HTMLButtonElement>(null);
  const isStill = view.isOver || view.troubles.length > 0;
  return (
    <div className="mt-1 flex flex-wrap items-center gap-1.5" role="group" aria-label="Play">
      <Button ref={first} small look="main" disabled={isStill} onClick={() => play(!isPlaying)}>
        {isPlaying ? <Pause size={15} aria-hidden /> : <Play size={15} aria-hidden />}
        {isPlaying ? "Pause" : wantsLessMotion() ? "Play, state by state" : "Play"}
      </Button>
      <Button small disabled={isStill} onClick={next}>
        <FastForward size={15} aria-hidden />
        To what comes next
      </Button>
      <Segmented
        label="Speed"
        value={String(speed)}
        options={SPEEDS}
        onChange={(value) => setSpeed(SPEEDS.find((each) => each.value === value)?.speed ?? 6)}
      />
      <Button
        small
        disabled={!canTakeBack}
        onClick={() => {
          takeBack();
          say("The last mishap is taken back.");
          first.current?.focus();
        }}
      >
        Take the mishap back
      </Button>
      <Button
        small
        look="quiet"
        onClick={() => {
          load(EMPTY_SCRIPT);
          say("At the beginning again, with nothing going wrong.");
          first.current?.focus();
        }}
      >
        <RotateCcw size={15} aria-hidden />
        Begin again
      </Button>
    </div>
  );
}

/** What can go wrong, each to be dragged onto a drive or onto time, or pressed. */
function Mishaps({ offers, onWish }: { offers: readonly MishapOffer[]; onWish: (offer: string) => void }) {
  return (
    <div className="mb-2 flex flex-wrap items-center gap-1.5" role="group" aria-label="Let something go wrong">
      <span className="text-soft">Let something go wrong:</span>
      {offers.map((offer) => (
        <Chip key={offer.id} offer={offer} onWish={() => onWish(offer.id)} />
      ))}
    </div>
  );
}

function Chip({ offer, onWish }: { offer: MishapOffer; onWish: () => void }) {
  const { setNodeRef, listeners } = useDraggable({ id: offer.id });
  return (
    <span ref={setNodeRef} {...listeners} className="touch-none">
      <Button small title={`${offer.label}. Drag it onto a drive or onto time, or press it.`} onClick={onWish}>
        {offer.short}
      </Button>
    </span>
  );
}

function Beginning({ plan }: { plan: Plan }) {
  return (
    <p className="text-soft">
      {plan.steps.length > 0
        ? "This is the box before the first step, simulated block by block with what is stored. Play the plan, and let something go wrong on the way: nothing can be lost here."
        : "This is the box as it is, simulated block by block with what is stored. Let something go wrong: nothing can be lost here."}
    </p>
  );
}

/** What the box has said, the last first. */
function SaidLines({ view }: { view: Playing["view"] }) {
  if (view.said.length === 0) return null;
  return (
    <section aria-labelledby="said" className="mt-4">
      <h3 id="said" className="font-semibold">
        What the box has said
      </h3>
      <ol className="mt-1 space-y-0.5">
        {view.said.slice(0, 40).map(({ hours, words }, i) => (
          <li key={view.said.length - i} className="text-[0.95rem]">
            <span className="text-soft tabular-nums">{clockWords(hours)}</span> {words}
          </li>
        ))}
      </ol>
    </section>
  );
}

/** Rehearsals that are kept with the plan. */
function Kept({ plan, act, onPlay }: Pick<PlaceProps, "plan" | "act"> & { onPlay: (kept: KeptRehearsal) => void }) {
  const heading = useRef<HTMLHeadingElement>(null);
  const kept = plan.rehearsals ?? [];
  if (kept.length === 0) return null;
  return (
    <section aria-labelledby="kept" className="mt-4">
      <h3 id="kept" ref={heading} tabIndex={-1} className="font-semibold outline-none">
        Kept with the plan
      </h3>
      <ul className="mt-1">
        {kept.map((rehearsal) => (
          <li key={rehearsal.id} className="flex flex-wrap items-center gap-1.5 border-b border-line py-1">
            <span className="min-w-0 flex-1">{rehearsal.name}</span>
            <Button small aria-label={`Play ${rehearsal.name}`} onClick={() => onPlay(rehearsal)}>
              Play
            </Button>
            <Button
              small
              look="quiet"
              aria-label={`Remove ${rehearsal.name}`}
              onClick={() => {
                act({ kind: "remove-rehearsal", rehearsal: rehearsal.id }, true);
                heading.current?.focus();
              }}
            >
              Remove
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
