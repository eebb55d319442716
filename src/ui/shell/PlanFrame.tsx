"use client";

import Link from "next/link";
import { useEffect, useState, type ReactNode } from "react";
import { Button } from "../kit/Button";
import { TerracePatterns } from "../kit/Swatch";
import { NOT_LOADED } from "../kit/notLoaded";
import { useUnit } from "../preferences/preferences";
import type { OpenedPlan } from "./OpenPlan";
import { useFocusOnResults } from "./useFocusOnResults";
import { Rail, type PlaceId } from "./Rail";
import { TopBar } from "./TopBar";
import { useKeys } from "./useKeys";
import { part } from "../kit/part";

const LinkDialog = part(() => import("../report/LinkDialog").then((module) => module.LinkDialog), {
  said: "over",
});
const GlossaryDialog = part(() => import("./GlossaryDialog").then((module) => module.GlossaryDialog), {
  said: "over",
});
const KeysDialog = part(() => import("./KeysDialog").then((module) => module.KeysDialog), {
  said: "over",
});

interface Props {
  opened: OpenedPlan;
  place: PlaceId;
  /** What Escape clears. */
  onEscape?: () => void;
  /** What the key G does: makes a group of what is selected. */
  onGroup?: () => void;
  children: ReactNode;
}

/**
 * What every place of a plan stands in: the bar above it, the rail beside it, undo and redo, and trouble with keeping.
 */
export function PlanFrame({ opened, place, onEscape, onGroup, children }: Props) {
  const { id, session, state, onExport } = opened;
  const { history } = state;
  const [keys, setKeys] = useState(false);
  const [linking, setLinking] = useState(false);
  const [words, setWords] = useState(false);
  const [unit] = useUnit();
  useKeys({
    onUndo: () => session.undo(),
    onRedo: () => session.redo(),
    onHelp: () => setKeys(true),
    onEscape: () => onEscape?.(),
    onGroup: () => onGroup?.(),
  });
  useEffect(() => {
    document.title = `${history.plan.name} · Cortijo`;
  }, [history.plan.name]);
  useFocusOnResults(state);
  return (
    <>
      {/* To what a page is about, past all that is the same on each. */}
      <nav aria-label="Skip">
        <a href="#main" className="skip">
          Skip to the page
        </a>
      </nav>
      <TerracePatterns />
      <div
        className={
          "flex min-h-dvh flex-col desk:h-[calc(100dvh-var(--notice))] desk:min-h-0 desk:overflow-hidden " +
          "print:block print:h-auto print:overflow-visible"
        }
      >
        {state.example && (
          <aside aria-label="About this plan" className="border-b border-line bg-wall px-4 py-1.5 print:hidden">
            This is an example: try anything on it.{" "}
            <Link href="/new" className="-my-0.5 inline-block py-0.5 font-semibold text-indigo underline">
              Plan your own box
            </Link>
          </aside>
        )}
        <TopBar
          name={history.plan.name}
          titles={place === "" || place === "compare"}
          onRename={(name) => session.do({ kind: "rename-plan", name })}
          undoes={history.entries[history.position - 1]?.description ?? null}
          redoes={history.entries[history.position]?.description ?? null}
          onUndo={() => session.undo()}
          onRedo={() => session.redo()}
          keeping={state.keeping}
          onExport={onExport}
          onImport={opened.onImport}
          onDuplicate={opened.onDuplicate}
          printHref={`/plan/${id}/print`}
          onMarkdown={() =>
            void import("../report/copyMarkdown")
              .then(({ copyMarkdown }) => copyMarkdown(history.plan, unit))
              .then(
                (done) => session.say(done, "info"),
                () => session.say(NOT_LOADED),
              )
          }
          onLink={() => setLinking(true)}
          onWords={() => setWords(true)}
          onKeys={() => setKeys(true)}
        />
        {state.trouble && (
          <div
            role="alert"
            className="flex flex-wrap items-center gap-3 border-b border-geranium bg-geranium-ground px-4 py-2"
          >
            <span className="flex-1">{state.trouble}</span>
            <Button small onClick={onExport}>
              Export the plan
            </Button>
            {state.gone && (
              <Button small look="main" onClick={() => void session.bringBack()}>
                {state.gone === "deleted" ? "Bring it back" : "Save it again"}
              </Button>
            )}
          </div>
        )}
        <div className="flex min-h-0 flex-1 flex-col md:flex-row print:block">
          <Rail plan={id} place={place} />
          {place !== "print" && <p className="hidden text-soft print:block">{history.plan.name}</p>}
          {children}
        </div>
      </div>
      {linking && <LinkDialog plan={history.plan} onClose={() => setLinking(false)} />}
      {words && <GlossaryDialog onClose={() => setWords(false)} />}
      {keys && <KeysDialog onClose={() => setKeys(false)} />}
    </>
  );
}
