"use client";

import { useId, useState } from "react";
import type { Mishap } from "@/core/simulator/mishaps";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import { Choice, TextField } from "../kit/Field";
import type { MishapOffer } from "./mishapOffers";

/** What is known already of a mishap that is to happen. */
export interface Wished {
  /** Which of what is offered. */
  offer?: string;
  /** What it befalls. */
  of?: string;
  /** In how many hours. */
  hours?: number;
}

interface Props {
  offers: readonly MishapOffer[];
  /** On what it happens, and what it does not touch, in a sentence. */
  about: string;
  wished?: Wished;
  /** What the clock shows so many hours on; nothing where it can only happen now. */
  clock?: (hours: number) => string;
  onMishap: (mishap: Mishap, hours: number) => void;
  onClose: () => void;
}

const MOST_HOURS = 100_000;

/** Hours as they are typed; null for what is none. */
function hoursTyped(text: string): number | null {
  const hours = Number(text.trim().replace(",", "."));
  return text.trim() !== "" && hours >= 0 && hours <= MOST_HOURS ? hours : null;
}

/** What is to go wrong on a simulated box, where, and when. */
export function MishapDialog({ offers, about, wished = {}, clock, onMishap, onClose }: Props) {
  const form = useId();
  const [chosen, setChosen] = useState(wished.offer);
  const [of, setOf] = useState(wished.of ?? "");
  const [later, setLater] = useState(wished.hours ? wished.hours.toFixed(1) : "0");
  const offer = offers.find(({ id }) => id === chosen) ?? offers[0];
  if (!offer) return null;
  const which = offer.of?.some(({ value }) => value === of) ? of : (offer.of?.[0]?.value ?? "");
  const hours = hoursTyped(later);
  return (
    <Dialog
      open
      onClose={onClose}
      title="Let something go wrong"
      about={about}
      acts={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" form={form}>
            Let it happen
          </Button>
        </>
      }
    >
      <form
        id={form}
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (hours !== null) onMishap(offer.mishap(which), hours);
        }}
      >
        <Choice
          label="What goes wrong"
          value={offer.id}
          options={offers.map(({ id, label }) => ({ value: id, label }))}
          onPick={setChosen}
        />
        <p className="text-soft">{offer.means}</p>
        {offer.of && <Choice label="Where" value={which} options={offer.of} onPick={setOf} />}
        {clock && (
          <>
            <TextField
              label="In how many hours (0: now)"
              inputMode="decimal"
              value={later}
              aria-invalid={hours === null}
              onChange={(event) => setLater(event.target.value)}
            />
            {hours === null ? (
              <p role="alert" className="text-geranium">
                Type a number of hours, from 0 to {MOST_HOURS.toLocaleString("en")}.
              </p>
            ) : (
              <p className="text-soft">
                That is {hours === 0 ? "now, " : ""}
                {clock(hours)} by the box’s clock.
              </p>
            )}
          </>
        )}
      </form>
    </Dialog>
  );
}
