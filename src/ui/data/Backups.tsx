"use client";

import { Pencil, Plus } from "lucide-react";
import { formatBytes } from "@/core/bytes/formatBytes";
import { bytesOn, troubleOf } from "@/core/data/backup";
import { CURRENT_DAYS } from "@/core/data/currentDays";
import type { Command } from "@/core/document/command";
import type { Backup, Plan } from "@/core/document/plan";
import { fullWords } from "@/core/data/dataWords";
import { backupDemands } from "@/core/schedule/backupsFilling";
import { plainDayWords } from "@/core/time/dateWords";
import { capital } from "@/core/words/capital";
import { plural } from "@/core/words/counted";
import { listOf } from "@/core/words/listOf";
import { Button, IconButton } from "../kit/Button";
import { useUnit } from "../preferences/preferences";
import { today } from "../today";

interface Props {
  plan: Plan;
  /** The day for which backups are judged: YYYY-MM-DD, or null where none is known. */
  day: string | null;
  act: (command: Command, offersUndo?: boolean) => string | null;
  /** Asks for one of them, or for a new one. */
  onEdit: (backup: Backup | null) => void;
}

/** Where else the data is kept, and which of it counts. */
export function Backups(props: Props) {
  const { plan, onEdit } = props;
  const backups = plan.backups ?? [];
  return (
    <section aria-labelledby="backups">
      <div className="flex items-center gap-3 border-b border-line pb-1">
        <h2 id="backups" className="flex-1 font-serif text-lg">
          Where else it is kept
        </h2>
        <Button small onClick={() => onEdit(null)}>
          <Plus size={14} aria-hidden /> Add a backup
        </Button>
      </div>
      {backups.length === 0 && (
        <p className="py-3 text-soft">
          Nowhere, as far as the plan knows. A layout helps against failed drives, not against mistakes, theft or fire.
        </p>
      )}
      <ul aria-label="Backups">
        {backups.map((backup) => (
          <BackupRow key={backup.id} backup={backup} {...props} />
        ))}
      </ul>
      {backups.length > 0 && (
        <p className="pt-2 text-[0.9rem] text-soft">
          Only backups tested within {CURRENT_DAYS} days{plan.calendar ? " before the plan" : ""} count.
        </p>
      )}
    </section>
  );
}

const TROUBLES = {
  "drive-gone": "the drive that it is on has failed or is missing, so it does not count",
  "never-verified": "never tested, so it does not count",
  "verified-long-ago": "tested too long ago, so it does not count",
  "does-not-fit": "its data does not fit, so it does not count",
};
const KINDS = { box: "another box", "usb-drive": "a USB drive", service: "a service" };

/** Until when a backup holds what it backs up, as that grows. */
function Until({ backup, plan }: { backup: Backup; plan: Plan }) {
  const demand = backupDemands(plan).find((each) => each.backup === backup);
  if (!demand || demand.fullAfter === 0) return null;
  return demand.fullAfter === null ? (
    <span className="text-soft">It has space for 50 years and more.</span>
  ) : (
    <span className="text-soft">
      As it grows, it fits until{" "}
      <span className="text-ink">{fullWords(demand.fullAfter, plan.calendar?.start ?? today())}</span>.
    </span>
  );
}

function BackupRow({ backup, plan, day, onEdit, act }: Props & { backup: Backup }) {
  const [unit] = useUnit();
  const sets = plan.dataSets ?? [];
  const trouble = troubleOf(backup, plan, day);
  const held = sets.filter((set) => backup.dataSets.includes(set.id));
  const room = backup.bytes === undefined ? "" : ` of ${formatBytes(backup.bytes, unit)}`;
  return (
    <li className="border-b border-line py-2.5">
      <div className="flex items-start gap-2">
        <p className="min-w-0 flex-1">
          <strong className="font-semibold">{backup.name}</strong>{" "}
          <span className="text-soft">
            {KINDS[backup.kind]}, {backup.place === "here" ? "in the same place as the box" : "elsewhere"}; a copy every{" "}
            {plural(backup.everyDays, "day", `${backup.everyDays} days`)},{" "}
            {backup.keepsVersions ? "older states kept" : "no older states"}.
          </span>
        </p>
        <IconButton label={`Edit ${backup.name}`} onClick={() => onEdit(backup)}>
          <Pencil size={15} aria-hidden />
        </IconButton>
      </div>
      <p>
        {held.length === 0
          ? "It holds nothing yet."
          : `Holds ${listOf(held.map((set) => set.name))}: ` +
            `${formatBytes(bytesOn(backup, sets), unit)}${room}${backup.keepsVersions && backup.versionsShare ? ", older states included" : ""}.`}{" "}
        <Until backup={backup} plan={plan} />
      </p>
      <div className="flex flex-wrap items-center gap-2">
        <p className={trouble ? "text-ochre-text" : "text-soft"}>
          {trouble ? `${capital(TROUBLES[trouble])}.` : `Last tested on ${plainDayWords(backup.lastVerified ?? "")}.`}
        </p>
        {(trouble === "never-verified" || trouble === "verified-long-ago") && (
          <Button small onClick={() => act({ kind: "put-backup", backup: { ...backup, lastVerified: today() } }, true)}>
            I tested it today
          </Button>
        )}
      </div>
    </li>
  );
}
