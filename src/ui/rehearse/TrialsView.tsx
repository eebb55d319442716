"use client";

import { useEffect, useRef, useState } from "react";
import { summaryOf } from "@/core/rehearsal/summary";
import type { Owner } from "@/core/rehearsal/script";
import type { At } from "@/core/rehearsal/trials";
import { scriptOf } from "@/core/rehearsal/trials";
import type { Cell } from "@/core/rehearsal/table";
import { Button } from "../kit/Button";
import { Segmented } from "../kit/Segmented";
import type { PlaceProps } from "../shell/planPlace";
import { MendList } from "./MendList";
import { CellDialog } from "./CellDialog";
import type { Asked } from "./PlayView";
import { caseWords } from "./caseWords";
import { TrialTable } from "./TrialTable";
import { type Trial, type TriedTable, useMends, useTrial } from "./useTrials";
import { useUnit } from "../preferences/preferences";

interface Props extends PlaceProps {
  onPlay: (asked: Asked) => void;
}

const BOTH: readonly Owner[] = ["advised", "go-on"];
const ADVISED: readonly Owner[] = ["advised"];
const GOES_ON: readonly Owner[] = ["go-on"];

const OWNERS = [
  { value: "advised", label: "The owner does what is advised" },
  { value: "go-on", label: "Goes on with the plan" },
] as const;

const count = (n: number): string => n.toLocaleString("en");

/** A length of time that is waited for at the page. */
const waitWords = (seconds: number): string =>
  seconds < 90 ? `${Math.max(1, Math.round(seconds))} s` : `${Math.round(seconds / 60)} min`;

/** All mishaps of a plan tried: a table, what it comes to in a sentence, and changes of the plan that help. */
export function TrialsView({ plan, act, onPlay }: Props) {
  const singles = useTrial(plan, "singles", BOTH);
  const pairsOf = { advised: useTrial(plan, "pairs", ADVISED), "go-on": useTrial(plan, "pairs", GOES_ON) };
  const mends = useMends(plan, singles);
  const [owner, setOwner] = useState<Owner>("advised");
  const pairs = pairsOf[owner];
  const { start } = singles;
  const begun = useRef<typeof start | null>(null);
  useEffect(() => {
    // At once, and again when the plan has changed: it takes a few seconds.
    if (begun.current === start) return;
    begun.current = start;
    start();
  }, [start]);
  const [chosen, setChosen] = useState<{ cell: Cell; table: TriedTable; owner: Owner } | null>(null);
  const [unit] = useUnit();
  const play = (table: TriedTable, ats: readonly At[], by: Owner) => {
    setChosen(null);
    onPlay({
      script: scriptOf({ instants: table.instants, seed: 1 }, ats, by),
      name: caseWords(ats, table.instants, plan, unit),
    });
  };
  const shared = {
    plan,
    onChoose: (cell: Cell, table: TriedTable, by: Owner) => setChosen({ cell, table, owner: by }),
  };
  return (
    <div className="min-h-0 flex-1 desk:overflow-y-auto" tabIndex={0} role="region" aria-label="All mishaps">
      <section aria-labelledby="singles" className="mt-2">
        <div className="flex flex-wrap items-center justify-between gap-2">
          <h2 id="singles" className="font-serif text-lg">
            One mishap at a time
          </h2>
          <Segmented label="What the owner does" value={owner} options={OWNERS} onChange={setOwner} />
        </div>
        <Progress trial={singles} what="The mishaps" />
        <Summary trial={singles} owner={owner} plan={plan} what="mishap" />
        <TrialTable trial={singles} owner={owner} label="One mishap at a time" {...shared} />
      </section>
      <MendList mends={mends} plan={plan} act={act} />
      <section aria-labelledby="pairs" className="mt-6 mb-6">
        <h2 id="pairs" className="font-serif text-lg">
          Two drives in trouble
        </h2>
        {pairs.state === "ready" && <OfferPairs singles={singles} onStart={pairs.start} />}
        <Progress trial={pairs} what="The pairs" />
        <Summary trial={pairs} owner={owner} plan={plan} what="pair" />
        <TrialTable trial={pairs} owner={owner} label="Two drives in trouble" {...shared} />
      </section>
      {chosen && (
        <CellDialog
          {...chosen}
          plan={plan}
          onClose={() => setChosen(null)}
          onPlay={(ats, by) => play(chosen.table, ats, by)}
        />
      )}
    </div>
  );
}

/** What came of all, in a sentence; while more comes, of what has come. */
function Summary({ trial, owner, plan, what }: { trial: Trial; owner: Owner; plan: PlaceProps["plan"]; what: string }) {
  const { table, state } = trial;
  const isDone = state === "done";
  return (
    <p role="status" className="mt-2 max-w-4xl text-lg leading-snug">
      {table && (isDone || state === "cancelled") ? summaryOf([...table.cells[owner].values()], plan, what) : ""}
    </p>
  );
}

/** How far it is, with a way to stop; what went wrong, with a way to begin again. */
function Progress({ trial, what }: { trial: Trial; what: string }) {
  const { state, table, cancel, start } = trial;
  const again = useRef<HTMLButtonElement>(null);
  const wasCancelled = state === "cancelled";
  useEffect(() => {
    // What was pressed is gone: the focus goes to what can be pressed now.
    if (wasCancelled) again.current?.focus();
  }, [wasCancelled]);
  if (state === "running")
    return (
      <div className="mt-2 flex items-center gap-3">
        <progress
          aria-label={`${what} tried`}
          className="h-2 w-56 accent-indigo"
          value={table ? table.tried : 0}
          max={table ? table.all : 1}
        />
        <span className="text-soft tabular-nums">
          {table ? `${count(table.tried)} of ${count(table.all)}` : "Making the box ready …"}
        </span>
        <Button small onClick={cancel}>
          Cancel
        </Button>
      </div>
    );
  if (wasCancelled)
    return (
      <p className="mt-2 flex flex-wrap items-center gap-2 text-soft">
        Stopped{table ? `: ${count(table.tried)} of ${count(table.all)} have been tried` : ""}.
        <Button ref={again} small onClick={start}>
          Try them all
        </Button>
      </p>
    );
  if (typeof state === "object")
    return (
      <p role="alert" className="mt-2 flex flex-wrap items-center gap-2 text-geranium">
        {state.trouble}
        <Button small onClick={start}>
          Try again
        </Button>
      </p>
    );
  return null;
}

/** How many pairs there are, and how long they take by what the single ones took. */
function OfferPairs({ singles, onStart }: { singles: Trial; onStart: () => void }) {
  const { table, state } = singles;
  if (!table || state !== "done") return <p className="text-soft">As soon as the single mishaps have been tried.</p>;
  // Pairs are tried at two instants of each step: the first and the last of the single ones have as many drives.
  const kinds = new Set(["drive-dies", "unreadable", "goes-missing"]);
  const mishaps = table.instants
    .filter(({ share }) => share === 0.1 || share === 0.9)
    .reduce((sum, { happenings }) => sum + happenings.filter(({ kind }) => kinds.has(kind)).length, 0);
  const all = (mishaps * (mishaps - 1)) / 2;
  if (all < 1) return <p className="text-soft">The plan has no step in which a second drive could get into trouble.</p>;
  const seconds = (all / table.tried) * (table.took / 1000);
  return (
    <div>
      <p className="max-w-3xl text-soft">
        One drive dies, is loose or has sectors that cannot be read, and later another one, each at two moments of every
        step: about {count(Number(all.toPrecision(2)))} pairs, which take {waitWords(seconds * 0.6)} to{" "}
        {waitWords(seconds * 2)} here.
      </p>
      <Button className="mt-1.5" onClick={onStart}>
        Try all pairs
      </Button>
    </div>
  );
}
