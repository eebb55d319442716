"use client";

import { useId, useState } from "react";
import type { Mishap } from "@/core/simulator/mishaps";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import { Choice, TextField } from "../kit/Field";
import { clockWords } from "./clockWords";
import type { MishapOffer } from "./mishapOffers";

/** What is known already of a mishap that is to happen. */
export interface Wished {
  kind?: Mishap["kind"];
  /** The drive that it befalls. */
  of?: string;
  /** At which hour; now where nothing is said. */
  at?: number;
}

interface Props {
  offers: readonly MishapOffer[];
  wished: Wished;
  now: number;
  onStrike: (mishap: Mishap, at: number) => void;
  onClose: () => void;
}

/** What is to go wrong in a rehearsal, where, and when. */
export function StrikeDialog({ offers, wished, now, onStrike, onClose }: Props) {
  const form = useId();
  const [kind, setKind] = useState(wished.kind ?? "drive-dies");
  const [of, setOf] = useState(wished.of ?? "");
  const [later, setLater] = useState(Math.max(0, (wished.at ?? now) - now).toFixed(1));
  const offer = offers.find((each) => each.kind === kind) ?? offers[0];
  if (!offer) return null;
  const which = offer.of?.some(({ value }) => value === of) ? of : (offer.of?.[0]?.value ?? "");
  const hours = Math.max(0, Math.min(100_000, Number(later.replace(",", ".")) || 0));
  return (
    <Dialog
      open
      onClose={onClose}
      title="Let something go wrong"
      about="In the rehearsal only: the plan stays as it is."
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
          onStrike(offer.mishap(which), now + hours);
        }}
      >
        <Choice
          label="What goes wrong"
          value={offer.kind}
          options={offers.map(({ kind: value, label }) => ({ value, label }))}
          onPick={(value) => setKind(offers.find((each) => each.kind === value)?.kind ?? kind)}
        />
        <p className="text-soft">{offer.means}</p>
        {offer.of && <Choice label="Where" value={which} options={offer.of} onPick={setOf} />}
        <TextField
          label="In how many hours (0: now)"
          inputMode="decimal"
          value={later}
          onChange={(event) => setLater(event.target.value)}
        />
        <p className="text-soft">
          That is {hours === 0 ? "now, " : ""}
          {clockWords(now + hours)} by the box’s clock.
        </p>
      </form>
    </Dialog>
  );
}
