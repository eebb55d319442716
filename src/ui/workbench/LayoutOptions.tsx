"use client";

import { formatBytes, formatChange } from "@/core/bytes/formatBytes";
import type { Bytes } from "@/core/bytes/bytes";
import { layoutChoices, type LayoutChoice } from "@/core/prediction/layoutChoices";
import { splitChoices, type SplitChoice } from "@/core/prediction/splitChoices";
import { correctedHours, type OwnFactors } from "@/core/logbook/ownTimes";
import type { Hours } from "@/core/time/hours";
import { hoursWords } from "@/core/time/hoursWords";
import { checkChosen } from "@/core/drives/checks/chosen";
import { ChosenFindings } from "./ChosenFindings";
import { MenuChoice, MenuChoices, MenuHeading, MenuItem } from "../kit/Menu";
import { besideShort } from "@/core/layouts/inText";
import { useUnit } from "../preferences/preferences";
import type { Drive, LayoutId, BoxRules } from "@/core/document/plan";

interface Props {
  drives: readonly Drive[];
  rules: BoxRules;
  /** How the box differs from the usual rates, where groups are made. */
  own?: OwnFactors;
  /** Drives that would join with a layout, where it is planned as a step. */
  joining?: (layout: LayoutId) => readonly Drive[];
  /** The present layout and what it holds, where there is one. */
  present: { layout: LayoutId; usableBytes: Bytes } | null;
  onChoose: (layout: LayoutId) => void;
  /** Where one of the drives holds data: asks how it can be kept first. */
  onKeep?: () => void;
  /** Explains them on these drives. */
  onExplain: () => void;
  /** Where several equal groups can be made of the drives too. */
  onSplit?: (choice: SplitChoice) => void;
}

const COLUMNS = "grid grid-cols-[1rem_7.5rem_5.5rem_1fr] items-baseline gap-x-2";

const toleranceWords = (tolerance: number) =>
  tolerance === 0 ? "loses data if one fails" : `survives any ${tolerance === 1 ? "one" : tolerance}`;

const fillWords = (fill: Hours | null, own: OwnFactors) =>
  fill ? `; first fill ${hoursWords(correctedHours(fill, "first-fill", own))}` : "";

/** The layouts as menu entries, each with what it would hold on these drives, or why it is not possible. */
export function LayoutOptions({
  drives,
  rules,
  own = {},
  joining,
  present,
  onChoose,
  onKeep,
  onExplain,
  onSplit,
}: Props) {
  const [unit] = useUnit();
  const splits = onSplit ? splitChoices(drives, rules) : [];
  const choices = layoutChoices(drives, rules, joining);
  const offered = choices.filter((choice) => choice.offered);
  const others = choices.filter((choice) => !choice.offered);
  const found = present ? [] : checkChosen(drives, [], rules, unit);
  return (
    <MenuChoices value={present?.layout ?? ""} onValueChange={(value) => onChoose(value as LayoutId)}>
      {found.length > 0 && (
        <div role="group" aria-label="About these drives" className="px-2 py-1">
          <ChosenFindings findings={found} />
        </div>
      )}
      {onKeep && <MenuItem onSelect={onKeep}>Keep what is on it first: mirror it…</MenuItem>}
      <MenuHeading>Offered by your box</MenuHeading>
      {offered.map((choice) => (
        <Option key={choice.layout.id} choice={choice} present={present} own={own} />
      ))}
      {splits.length > 0 && <MenuHeading>In several equal groups</MenuHeading>}
      {splits.map((split) => (
        <MenuItem key={`${split.layout}-${split.groups.length}`} onSelect={() => onSplit?.(split)} className={COLUMNS}>
          <span />
          <span className="font-semibold">{split.name === "mirrored pairs" ? "Mirrored pairs" : split.name}</span>
          <span className="text-right">{formatBytes(split.usableBytes, unit)}</span>
          <span className="text-[0.87rem]">
            {split.groups.length} × {split.groups[0]?.length} drives, {toleranceWords(split.tolerance)}
            {fillWords(split.firstFill, own)}
          </span>
        </MenuItem>
      ))}
      <MenuItem onSelect={onExplain} className="text-indigo">
        What are these layouts?
      </MenuItem>
      {others.length > 0 && <MenuHeading>Not offered by your box</MenuHeading>}
      {others.map((choice) => (
        <Option key={choice.layout.id} choice={choice} present={present} own={own} />
      ))}
    </MenuChoices>
  );
}

function Option({ choice, present, own }: { choice: LayoutChoice; present: Props["present"]; own: OwnFactors }) {
  const [unit] = useUnit();
  const { layout, outcome } = choice;
  const isPresent = present?.layout === layout.id;
  const change =
    outcome.possible && present && !isPresent ? formatChange(outcome.usableBytes - present.usableBytes, unit) : null;
  // A layout that is not possible can still be reached and read, but not chosen.
  const blocked = outcome.possible ? {} : { "aria-disabled": true, onSelect: (event: Event) => event.preventDefault() };
  return (
    <MenuChoice
      value={outcome.possible ? layout.id : `no-${layout.id}`}
      {...blocked}
      className={`${COLUMNS} ${outcome.possible ? "" : "opacity-75"}`}
    >
      <span aria-hidden="true">{isPresent ? "✓" : ""}</span>
      <span>
        <span className="font-semibold">{layout.shortName}</span>
        {besideShort(layout) && <span className="block text-[0.82rem] leading-tight">{besideShort(layout)}</span>}
      </span>
      {outcome.possible ? (
        <>
          <span className="text-right">{formatBytes(outcome.usableBytes, unit)}</span>
          <span className="text-[0.87rem]">
            {toleranceWords(outcome.tolerance)}
            {/* Only a group that is made is filled for the first time. */}
            {present ? "" : fillWords(outcome.firstFill, own)}
            {change ? `, ${change}` : ""}
          </span>
        </>
      ) : (
        <span className="col-span-2 text-[0.87rem]">{outcome.reason}</span>
      )}
    </MenuChoice>
  );
}
