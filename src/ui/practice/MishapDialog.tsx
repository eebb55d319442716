"use client";

import { useId, useState } from "react";
import { rulesOfBox } from "@/core/box/rulesOfBox";
import type { Plan } from "@/core/document/plan";
import type { Mishap } from "@/core/simulator/mishaps";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import { Choice } from "../kit/Field";
import type { PracticeView, SeenDrive } from "./openPractice";

interface Props {
  view: PracticeView;
  plan: Plan;
  onMishap: (mishap: Mishap) => void;
  onClose: () => void;
}

/** A mishap that can be chosen, with what it can befall. */
interface Offer {
  kind: Mishap["kind"];
  label: string;
  /** What it means, in a sentence. */
  means: string;
  of?: readonly { value: string; label: string }[];
  mishap: (of: string) => Mishap;
}

const few = 3;
const many = 40;

const nameOf = ({ size, serial, bay }: SeenDrive): string =>
  `${size}, ${serial}, ${bay === null ? "on the shelf" : `in bay ${bay}`}`;
const asOptions = (drives: readonly SeenDrive[]) => drives.map((drive) => ({ value: drive.id, label: nameOf(drive) }));

/** What can go wrong on the box as it is. */
function offersOf({ drives, volumes }: PracticeView, plan: Plan): Offer[] {
  const inBays = asOptions(drives.filter(({ bay, state }) => bay !== null && state === "works"));
  const away = asOptions(drives.filter(({ state }) => state === "missing"));
  const spare = asOptions(drives.filter(({ bay, state }) => bay === null && state === "works"));
  const bytesOf = (id: string) => plan.drives.find((drive) => drive.id === id)?.bytes ?? 0;
  const pools = plan.pools.map(({ id, name }) => ({ value: id, label: name }));
  const all: Offer[] = [
    {
      kind: "drive-dies",
      label: "A drive dies",
      means: "It answers nothing more, and the box throws it out.",
      of: inBays,
      mishap: (drive) => ({ kind: "drive-dies", drive }),
    },
    {
      kind: "unreadable",
      label: "A drive gets sectors that cannot be read",
      means: `At ${few} places. Nothing is said of it until they are read.`,
      of: inBays,
      mishap: (drive) => ({ kind: "unreadable", drive, blocks: few }),
    },
    {
      kind: "unreadable",
      label: "A drive gets very many of them",
      means: `At ${many} places. Nothing is said of it until they are read.`,
      of: inBays,
      mishap: (drive) => ({ kind: "unreadable", drive, blocks: many }),
    },
    {
      kind: "goes-missing",
      label: "A cable comes loose",
      means: "The box does not see the drive any more. It can come back.",
      of: inBays,
      mishap: (drive) => ({ kind: "goes-missing", drive }),
    },
    {
      kind: "comes-back",
      label: "A drive that was away comes back",
      means: "Within a quarter of an hour it is taken in as it was; later it is filled from the others.",
      of: away,
      mishap: (drive) => ({ kind: "comes-back", drive }),
    },
    {
      kind: "power-cut",
      label: "The power is cut",
      means: "It comes back at once. What is under way goes on where it was, as far as it can.",
      mishap: () => ({ kind: "power-cut" }),
    },
    {
      kind: "short",
      label: "A new drive is 1 % smaller than it should be",
      means: "It shows when the drive is to be used. What is less than that, this box is too coarse to tell.",
      of: spare,
      mishap: (drive) => ({ kind: "short", drive, bytes: Math.round(bytesOf(drive) / 100) }),
    },
    {
      kind: "slow",
      label: "A drive is four times as slow",
      means: "What is begun from now on with that drive takes longer.",
      of: inBays,
      mishap: (drive) => ({ kind: "slow", drive, times: 4 }),
    },
    {
      kind: "grow-forgotten",
      label: "The next step that makes a volume larger is forgotten",
      means: "It is ticked off and not done.",
      mishap: () => ({ kind: "grow-forgotten" }),
    },
    ...(rulesOfBox(plan).parityWrites === "by-schedule"
      ? [
          {
            kind: "parity-updated" as const,
            label: "The parity is updated by its schedule",
            means: "After a loss, it would record the loss.",
            of: pools,
            mishap: (pool: string): Mishap => ({ kind: "parity-updated", pool }),
          },
        ]
      : []),
    {
      kind: "deletion",
      label: "Somebody deletes everything on a volume",
      means: "No layout helps against it; a backup does.",
      of: volumes.map(({ id, name }) => ({ value: id, label: name })),
      mishap: (volume) => ({ kind: "deletion", volume }),
    },
    {
      kind: "fire",
      label: "Fire, or theft of the box",
      means: "All that is in the place is gone, backups that are kept there too.",
      mishap: () => ({ kind: "fire" }),
    },
  ];
  return all.filter(({ of }) => !of || of.length > 0);
}

/** What is to go wrong on the practice box, and where. */
export function MishapDialog({ view, plan, onMishap, onClose }: Props) {
  const offers = offersOf(view, plan);
  const [chosen, setChosen] = useState(0);
  const [of, setOf] = useState<string | null>(null);
  const form = useId();
  const offer = offers[chosen] ?? offers[0];
  if (!offer) return null;
  const which = offer.of?.some(({ value }) => value === of) ? of : (offer.of?.[0]?.value ?? "");
  return (
    <Dialog
      open
      onClose={onClose}
      title="Let something go wrong"
      about="On the practice box only, at this moment of its clock. The plan knows nothing of it until the box is read."
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
          onMishap(offer.mishap(which ?? ""));
        }}
      >
        <Choice
          label="What goes wrong"
          value={String(chosen)}
          options={offers.map(({ label }, i) => ({ value: String(i), label }))}
          onPick={(value) => setChosen(Number(value))}
        />
        <p className="text-soft">{offer.means}</p>
        {offer.of && <Choice label="Where" value={which ?? ""} options={offer.of} onPick={(value) => setOf(value)} />}
      </form>
    </Dialog>
  );
}
