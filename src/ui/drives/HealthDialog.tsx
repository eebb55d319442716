"use client";

import { useState } from "react";
import type { Command } from "@/core/commands/command";
import type { Drive, Health } from "@/core/drives/drive";
import { nameOfDriveFirst } from "@/core/drives/nameOfDrive";
import { matchReports, takeReports, type MatchedReports } from "@/exchange/smart/matchReports";
import { MOST_SMART_CHARACTERS, readSmart, SMART_COMMAND } from "@/exchange/smart/readSmart";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import { useUnit } from "../preferences/preferences";
import { TextSource } from "./TextSource";

interface Props {
  drives: readonly Drive[];
  onClose: () => void;
  onTake: (command: Command) => string | null;
}

const STATES = { good: ["Good", "text-green"], watch: ["To watch", "text-ochre-text"], failing: ["Failing", "text-geranium"] } as const;

function healthWords({ reallocatedSectors, pendingSectors, powerOnHours, temperature }: Health): string {
  const words = [
    reallocatedSectors === undefined ? "" : `${reallocatedSectors} reallocated`,
    pendingSectors === undefined ? "" : `${pendingSectors} pending sectors`,
    powerOnHours === undefined ? "" : `${powerOnHours.toLocaleString("en")} h in use`,
    temperature === undefined ? "" : `${temperature} °C`,
  ];
  return words.filter(Boolean).join(", ");
}

/** Takes over what drives report of their health, matched by serial. */
export function HealthDialog({ drives, onClose, onTake }: Props) {
  const [unit] = useUnit();
  const [text, setText] = useState("");
  const [trouble, setTrouble] = useState<string | null>(null);
  const [found, setFound] = useState<(MatchedReports & { skipped: string[] }) | null>(null);
  const [addUnknown, setAddUnknown] = useState(false);
  const read = (source: string) => {
    const result = readSmart(source);
    if (!result.ok) return setTrouble(result.message);
    setTrouble(null);
    setFound({ ...matchReports(drives, result.reports), skipped: result.skipped });
  };
  const take = () => {
    if (!found) return;
    const refused = onTake(takeReports(found, addUnknown));
    if (refused) setTrouble(refused);
    else onClose();
  };
  const nothing = found !== null && found.matched.length === 0 && !(addUnknown && found.unknown.length > 0);
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="SMART data of the drives"
      about={found ? "Matched to the drives of the plan by their serial numbers." : "Run this on the box for each drive and bring the output here, one after the other or as files."}
      acts={
        found ? (
          <>
            <Button onClick={() => setFound(null)}>Back</Button>
            <Button look="main" disabled={nothing} onClick={take}>
              Take over
            </Button>
          </>
        ) : (
          <>
            <Button onClick={onClose}>Cancel</Button>
            <Button look="main" disabled={text.trim() === ""} onClick={() => read(text)}>
              Read
            </Button>
          </>
        )
      }
    >
      {found ? (
        <>
          <ul className="divide-y divide-line" aria-label="Reports">
            {found.matched.map(({ report, drive }) => (
              <li key={drive.id} className="grid grid-cols-[6rem_1fr] gap-x-3 py-2">
                <span className={`font-semibold ${STATES[report.health.state][1]}`}>{STATES[report.health.state][0]}</span>
                <span>
                  {nameOfDriveFirst(drive, unit)}
                  <span className="block text-[0.9rem] text-soft">{healthWords(report.health)}</span>
                </span>
              </li>
            ))}
          </ul>
          {found.matched.length === 0 && <p>None of the serial numbers is in the plan.</p>}
          {found.unknown.length > 0 && (
            <label className="mt-3 flex items-start gap-2">
              <input type="checkbox" checked={addUnknown} onChange={(event) => setAddUnknown(event.target.checked)} className="mt-1 accent-indigo" />
              Also put {found.unknown.length === 1 ? "the drive" : `the ${found.unknown.length} drives`} that the plan does not know on the shelf: {found.unknown.map((report) => `${report.model || "drive"} (${report.serial})`).join(", ")}
            </label>
          )}
          {found.skipped.length > 0 && <p className="mt-3 text-soft">Passed over, without a serial number: {found.skipped.join(", ")}.</p>}
        </>
      ) : (
        <TextSource
          example={SMART_COMMAND}
          label="Output of the command"
          placeholder={'{ "smartctl": { … } }'}
          accept=".json,.txt,application/json,text/plain"
          value={text}
          onChange={(next) => {
            setText(next);
            setTrouble(null);
          }}
          onFiles={read}
          most={MOST_SMART_CHARACTERS}
          onTrouble={setTrouble}
        />
      )}
      {trouble && (
        <p role="alert" className="mt-3 text-geranium">
          {trouble}
        </p>
      )}
    </Dialog>
  );
}
