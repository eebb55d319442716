"use client";

import { inSentence } from "@/core/words/inSentence";
import { Copy } from "lucide-react";
import { MEASURES, type MeasureId } from "@/core/compare/measures";
import { counted } from "@/core/words/counted";
import { NETWORKS } from "@/core/speeds/speed";
import { oneOrMany } from "@/core/words/counted";
import { Button } from "../kit/Button";
import { MenuButton } from "../kit/MenuButton";
import type { Compared } from "./useComparison";
import type { CompareState } from "./viewState";
import { part } from "../kit/part";

const CopyMenuItems = part(() => import("./CopyMenuItems").then((module) => module.CopyMenuItems), {
  needed: "this menu",
  meanwhile: "whatever is around",
});

/** How many ways fit, "3 of 12 ways fit". */
function countWords({ comparison, choices, fitting }: Compared, asked: boolean): string | null {
  if (!comparison) return null;
  if (asked) return `${fitting.size} of ${choices.length} ways fit`;
  return counted(choices.length, "way");
}

/** Above the choices: how many fit, in which order they stand, and what can be done with all of them. */
export function CompareBar({
  state,
  change,
  compared,
  currency,
  onFaceToFace,
}: {
  state: CompareState;
  change: (part: Partial<CompareState>) => void;
  compared: Compared;
  /** The plan's, for prices. */
  currency: string | undefined;
  /** Null while there are no two to hold against each other. */
  onFaceToFace: (() => void) | null;
}) {
  const { choices, beaten, inside, outside, unfit } = compared;
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 pt-3 text-[0.93rem]">
      <p role="status" className="font-semibold">
        {countWords(compared, Object.keys(state.needs).length > 0)}
      </p>
      <label className="flex min-h-[24px] items-center gap-1.5">
        <span className="text-soft">Best first by</span>
        <select
          value={state.sort}
          onChange={(event) => change({ sort: event.target.value as MeasureId })}
          className="h-7 rounded border border-line-strong/60 bg-raised px-1"
        >
          {MEASURES.map((each) => (
            <option key={each.id} value={each.id}>
              {inSentence(each.name)}
            </option>
          ))}
        </select>
      </label>
      <label className="flex min-h-[24px] items-center gap-1.5">
        <span className="text-soft">Network</span>
        <select
          value={state.network}
          onChange={(event) => change({ network: event.target.value })}
          className="h-7 rounded border border-line-strong/60 bg-raised px-1"
        >
          {NETWORKS.map(({ name }) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </label>
      {beaten.size > 0 && (
        <label className="flex min-h-[24px] items-center gap-1.5">
          <input
            type="checkbox"
            checked={state.hideBeaten}
            onChange={(event) => change({ hideBeaten: event.target.checked })}
            className="accent-indigo"
          />
          Hide the {oneOrMany(beaten.size, "one that is", "that are")} beaten
        </label>
      )}
      <span className="ml-auto flex gap-1.5">
        {onFaceToFace && (
          <Button small look="main" onClick={onFaceToFace}>
            Face to face
          </Button>
        )}
        <MenuButton
          align="end"
          trigger={
            <Button small disabled={choices.length === 0}>
              <Copy size={14} aria-hidden /> Copy
            </Button>
          }
        >
          <CopyMenuItems
            currency={currency}
            rows={[...inside, ...outside].map((choice) => ({
              choice,
              misfit: (unfit.get(choice.id) ?? []).map((misfit) => misfit.reason).join(", "),
            }))}
          />
        </MenuButton>
      </span>
    </div>
  );
}
