"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useDeferredValue, useId, useMemo, useState } from "react";
import type { Choice as LayoutChoice } from "@/core/compare/compare";
import { MOST_BAYS } from "@/core/document/limits";
import { rulesOf } from "@/core/rules/ruleSets";
import { keepPlan } from "@/store/keepPlan";
import { FIELD } from "../kit/Field";
import { TerracePatterns } from "../kit/Swatch";
import { openDatabase } from "../openDatabase";
import { useUnit } from "../preferences/preferences";
import { BoxKinds } from "./BoxKinds";
import { DrivesField } from "./DrivesField";
import { heldByKind, likelyBays, planOf, proposalsFor, type Said } from "./proposals";
import { ProposalList } from "./ProposalList";
import { useDraft } from "./useDraft";
import { useGivenDrives } from "./useGivenDrives";

const NOT_KEPT =
  "The plan could not be kept: the browser's storage is full or blocked. Free some space or leave the private " +
  "window, then try again. What you typed is still here.";

/** Where one begins with a box of one's own: drives, bays and kind of box, and at once what they would hold. */
export function QuickStartPage() {
  const router = useRouter();
  const [unit] = useUnit();
  const [{ text, bays: typedBays, set }, change, forget] = useDraft();
  const [trouble, setTrouble] = useState<string | null>(null);
  const given = useGivenDrives(text);
  const drives = given?.ok ? given.drives : null;
  const bays = typedBays ?? likelyBays(drives?.length ?? 0, rulesOf({ set }).mostDrives);
  // What is typed is shown at once; what would come of it follows.
  const said = useDeferredValue(useMemo<Said | null>(() => drives && { drives, bays, set }, [drives, bays, set]));
  const held = useMemo(() => (said ? heldByKind(said) : null), [said]);
  const proposals = useMemo(() => said && proposalsFor(said, unit), [said, unit]);
  const begin = async (choice: LayoutChoice | null, place: "" | "/compare") => {
    const made = planOf(said ?? { drives: [], bays, set }, choice);
    if (!made.ok) return setTrouble(made.reason);
    try {
      const id = await keepPlan(openDatabase(), made.plan);
      forget();
      router.push(`/plan/${id}${place}`);
    } catch {
      setTrouble(NOT_KEPT);
    }
  };
  return (
    <main className="mx-auto max-w-7xl px-5 py-6">
      <TerracePatterns />
      <header className="flex flex-wrap items-baseline gap-x-4">
        <Link href="/" className="font-serif text-xl text-indigo" title="All plans">
          Cortijo
        </Link>
        <h1 className="font-serif text-2xl">Plan your own box</h1>
        <p className="text-soft">
          Nothing is bought or erased. Everything can be changed later. Or{" "}
          <Link href="/new/box" className="inline-block py-0.5 font-semibold text-indigo underline underline-offset-2">
            read a Linux box
          </Link>
          , which tells its drives and pools itself.
        </p>
      </header>
      <div className="mt-4 grid gap-x-8 gap-y-6 lg:grid-cols-[25rem_minmax(0,1fr)] lg:grid-rows-[auto_1fr]">
        <div className="space-y-4">
          <DrivesField text={text} onText={(next) => change({ text: next })} given={given} />
          <Bays bays={bays} onBays={(next) => change({ bays: next })} />
        </div>
        <div className="min-w-0 lg:col-start-2 lg:row-span-2 lg:row-start-1">
          {trouble && (
            <p role="alert" className="mb-3 text-geranium">
              {trouble}
            </p>
          )}
          <ProposalList said={said} proposals={proposals} onBegin={(choice, place) => void begin(choice, place)} />
        </div>
        <BoxKinds set={set} held={held} onSet={(next) => change({ set: next })} />
      </div>
    </main>
  );
}

/** How many bays the box has: guessed from the drives until it is said. */
function Bays({ bays, onBays }: { bays: number; onBays: (bays: number | null) => void }) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block font-serif text-lg">
        How many bays has your box?
      </label>
      <input
        id={id}
        type="number"
        inputMode="numeric"
        min={1}
        max={MOST_BAYS}
        value={bays}
        onChange={(event) => {
          const next = event.target.valueAsNumber;
          onBays(Number.isInteger(next) ? Math.min(MOST_BAYS, Math.max(1, next)) : null);
        }}
        className={`${FIELD} max-w-24`}
      />
    </div>
  );
}
