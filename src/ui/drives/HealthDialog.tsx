"use client";

import { lengthWords } from "@/core/time/hoursWords";
import { useState } from "react";
import type { Command } from "@/core/document/command";
import { worseBy, withEarlier } from "@/core/drives/wear";
import { nameOfDriveFirst } from "@/core/drives/nameOfDrive";
import { matchReports, takeReports, type MatchedReports } from "@/exchange/smart/matchReports";
import { MOST_SMART_CHARACTERS, readSmart, SMART_COMMAND } from "@/exchange/smart/readSmart";
import { useUnit } from "../preferences/preferences";
import { Tick } from "../kit/Field";
import { ReadDialog } from "./ReadDialog";
import type { Drive, Health } from "@/core/document/plan";
import { plural } from "@/core/words/counted";

interface Props {
  drives: readonly Drive[];
  onClose: () => void;
  onTake: (command: Command) => string | null;
}

const STATES = {
  good: ["Good", "text-green"],
  watch: ["Worn", "text-ochre-text"],
  failing: ["Failing", "text-geranium"],
} as const;

function healthWords({
  reallocatedSectors,
  pendingSectors,
  powerOnHours,
  temperature,
  selfTestMinutes,
}: Health): string {
  const words = [
    reallocatedSectors === undefined ? "" : `${reallocatedSectors} reallocated`,
    pendingSectors === undefined ? "" : `${pendingSectors} pending sectors`,
    powerOnHours === undefined ? "" : `${powerOnHours.toLocaleString("en")} h in use`,
    temperature === undefined ? "" : `${temperature} °C`,
    selfTestMinutes === undefined ? "" : `self-test ${lengthWords(selfTestMinutes / 60)}`,
  ];
  return words.filter(Boolean).join(", ");
}

/** By how many bad sectors a drive has become worse since the reading before; empty where it has not. */
function trendWords(before: Health, now: Health): string {
  const worse = worseBy(withEarlier(before, now));
  return worse > 0 ? `; ${worse} more bad sectors than at the reading before` : "";
}

type Found = MatchedReports & { skipped: string[] };

/** Takes over what drives report of their health, matched by serial. */
export function HealthDialog({ drives, onClose, onTake }: Props) {
  const [addUnknown, setAddUnknown] = useState(false);
  const [matches, setMatches] = useState({ matched: 0, unknown: 0 });
  const [failed, setFailed] = useState<ReadonlySet<string>>(new Set());
  return (
    <ReadDialog<Found>
      title="SMART data of the drives"
      aboutSource="Run this on the box for each drive and bring the output here, one after the other or as files."
      aboutFound="Matched to the drives of the plan by their serial numbers."
      source={{
        example: SMART_COMMAND,
        label: "Output of the command",
        placeholder: '{ "smartctl": { … } }',
        most: MOST_SMART_CHARACTERS,
      }}
      printed="health"
      read={(text) => {
        const result = readSmart(text);
        if (!result.ok) return result;
        const found = { ...matchReports(drives, result.reports), skipped: result.skipped };
        setMatches({ matched: found.matched.length, unknown: found.unknown.length });
        return { ok: true, found };
      }}
      takeLabel="Take over"
      canTake={matches.matched > 0 || (addUnknown && matches.unknown > 0)}
      onTake={(found) => {
        const refused = onTake(takeReports(found, addUnknown));
        const since = new Date().toISOString();
        return [...failed].reduce(
          (trouble, drive) => trouble ?? onTake({ kind: "set-drive-state", drives: [drive], state: "failed", since }),
          refused,
        );
      }}
      onClose={onClose}
    >
      {(found) => (
        <Reports
          found={found}
          addUnknown={addUnknown}
          onAddUnknown={setAddUnknown}
          failed={failed}
          onFailed={(drive, on) => {
            const next = new Set(failed);
            if (on) next.add(drive);
            else next.delete(drive);
            setFailed(next);
          }}
        />
      )}
    </ReadDialog>
  );
}

function Reports({
  found,
  addUnknown,
  onAddUnknown,
  failed,
  onFailed,
}: {
  found: Found;
  addUnknown: boolean;
  onAddUnknown: (add: boolean) => void;
  /** Drives of which the owner says that they work no more. */
  failed: ReadonlySet<string>;
  onFailed: (drive: string, on: boolean) => void;
}) {
  const [unit] = useUnit();
  return (
    <>
      <ul className="divide-y divide-line" aria-label="Reports">
        {found.matched.map(({ report, drive }) => (
          <li key={drive.id} className="grid grid-cols-[6rem_1fr] gap-x-3 py-2">
            <span className={`font-semibold ${STATES[report.health.state][1]}`}>{STATES[report.health.state][0]}</span>
            <span>
              {nameOfDriveFirst(drive, unit)}
              <span className="block text-[0.9rem] text-soft">
                {healthWords(report.health)}
                {trendWords(drive.health, report.health)}
              </span>
              {report.health.state === "failing" && !drive.state && (
                <Tick onTick={(on) => onFailed(drive.id, on)} checked={failed.has(drive.id)}>
                  It fails its own health check. Does it work no more? Then it has failed.
                </Tick>
              )}
            </span>
          </li>
        ))}
      </ul>
      {found.matched.length === 0 && <p>None of the serial numbers is in the plan.</p>}
      {found.unknown.length > 0 && (
        <label className="mt-3 flex items-start gap-2">
          <input
            type="checkbox"
            checked={addUnknown}
            onChange={(event) => onAddUnknown(event.target.checked)}
            className="mt-1 accent-indigo"
          />
          Also put the {plural(found.unknown.length, "drive", `${found.unknown.length} drives`)} that the plan does not
          know on the shelf: {found.unknown.map((report) => `${report.model || "drive"} (${report.serial})`).join(", ")}
        </label>
      )}
      {found.skipped.length > 0 && (
        <p className="mt-3 text-soft">Skipped, without a serial number: {found.skipped.join(", ")}.</p>
      )}
    </>
  );
}
