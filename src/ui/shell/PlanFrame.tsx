"use client";

import { useEffect, useState, type ReactNode } from "react";
import { Button } from "../kit/Button";
import { TerracePatterns } from "../kit/Swatch";
import { NOT_LOADED } from "../kit/notLoaded";
import { useUnit } from "../preferences/preferences";
import type { OpenedPlan } from "./OpenPlan";
import { Rail, type PlaceId } from "./Rail";
import { TopBar } from "./TopBar";
import { useKeys } from "./useKeys";
import { part } from "../kit/part";

const LinkDialog = part(() => import("../report/LinkDialog").then((module) => module.LinkDialog), {
  needed: "this",
  said: "over",
});
const KeysDialog = part(() => import("./KeysDialog").then((module) => module.KeysDialog), {
  needed: "this",
  said: "over",
});

interface Props {
  opened: OpenedPlan;
  place: PlaceId;
  /** What Escape clears. */
  onEscape?: () => void;
  children: ReactNode;
}

/**
 * What every place of a plan stands in: the bar above it, the rail beside it, undo and redo, and trouble with keeping.
 */
export function PlanFrame({ opened, place, onEscape, children }: Props) {
  const { id, session, state, onExport } = opened;
  const { history } = state;
  const [keys, setKeys] = useState(false);
  const [linking, setLinking] = useState(false);
  const [unit] = useUnit();
  useKeys({
    onUndo: () => session.undo(),
    onRedo: () => session.redo(),
    onHelp: () => setKeys(true),
    onEscape: () => onEscape?.(),
  });
  useEffect(() => {
    document.title = `${history.plan.name} · Cortijo`;
  }, [history.plan.name]);
  return (
    <>
      <TerracePatterns />
      <div className="flex min-h-dvh flex-col lg:h-[calc(100dvh-var(--notice))] lg:min-h-0 lg:overflow-hidden print:block print:h-auto print:overflow-visible">
        <TopBar
          name={history.plan.name}
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
                (done) => session.say(done),
                () => session.say(NOT_LOADED),
              )
          }
          onLink={() => setLinking(true)}
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
                {state.gone === "deleted" ? "Bring it back" : "Save it anew"}
              </Button>
            )}
          </div>
        )}
        <div className="flex min-h-0 flex-1 flex-col md:flex-row print:block">
          <Rail plan={id} place={place} />
          {children}
        </div>
      </div>
      {linking && <LinkDialog plan={history.plan} onClose={() => setLinking(false)} />}
      {keys && <KeysDialog onClose={() => setKeys(false)} />}
    </>
  );
}
