"use client";

import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import { freeBays } from "@/core/nextDrive/placements";
import { Segmented } from "../kit/Segmented";
import { Scatter } from "./Scatter";
import type { Compared } from "./useComparison";
import type { CompareState } from "./viewState";
import { part } from "../kit/part";

const NextDrivePanel = part(() => import("../nextDrive/NextDrivePanel").then((module) => module.NextDrivePanel));

/** Beside the pictures: two figures at once, or the next drive. */
export function ComparePanel({
  plan,
  act,
  state,
  change,
  compared: { choices, fitting },
  lit,
  onPoint,
}: {
  plan: Plan;
  act: (command: Command, offersUndo?: boolean) => string | null;
  state: CompareState;
  change: (part: Partial<CompareState>) => void;
  compared: Compared;
  lit: string | null;
  onPoint: (id: string) => void;
}) {
  return (
    <aside
      aria-label="Scatter and next drive"
      tabIndex={0}
      className="min-h-0 border-line p-4 max-lg:border-t desk:overflow-y-auto lg:border-l"
    >
      <Segmented
        label="Beside the pictures"
        value={state.panel}
        onChange={(panel) => change({ panel })}
        options={[
          { value: "scatter", label: "Two figures at once" },
          { value: "next drive", label: "The next drive" },
        ]}
      />
      <div className="pt-3">
        {state.panel === "scatter" ? (
          choices.length > 0 ? (
            <Scatter
              currency={plan.currency}
              choices={choices}
              fitting={fitting}
              lit={lit}
              axes={state.axes}
              onAxes={(axes) => change({ axes })}
              onPoint={onPoint}
            />
          ) : (
            <p className="text-soft">Nothing to draw yet.</p>
          )
        ) : (
          <NextDrivePanel plan={plan} act={act} free={freeBays(plan)} />
        )}
      </div>
    </aside>
  );
}
