"use client";

import "@/core/commands/recordingCommands";
import Link from "next/link";
import { useMemo, useState } from "react";
import type { LogbookLine } from "@/core/logbook/logbookLines";
import { logbookLines } from "@/core/logbook/logbookLines";
import { fullnessOf, NEARLY_FULL, oldestRecords } from "@/core/logbook/records";
import { hoursWords, lengthWords } from "@/core/time/hoursWords";
import { oneOrMany } from "@/core/words/counted";
import { planFileName } from "@/exchange/exportPlan";
import { writeLogbookCsv } from "@/exchange/logbook/logbookCsv";
import { Button } from "../kit/Button";
import type { PlaceProps } from "../shell/planPlace";
import { EntryDialog } from "./EntryDialog";
import { LogbookCsvDialog } from "./LogbookCsvDialog";
import { NewEntryDialog } from "./NewEntryDialog";
import { OwnTimes } from "./OwnTimes";
import { TimesChart } from "./TimesChart";
import { whenWords } from "./when";
import { say } from "../kit/say";
import { exportFile } from "../kit/exportFile";

const LINK = "inline-block py-1 font-semibold text-indigo underline underline-offset-2";

/** So many entries are shown at first. */
const AT_FIRST = 60;

/** All that happened at the box, and what its times say of what is to come. */
export function LogbookView({ plan, act, planHref }: PlaceProps) {
  const lines = useMemo(() => logbookLines(plan), [plan]);
  const [open, setOpen] = useState<"new" | "csv" | LogbookLine | null>(null);
  const close = () => setOpen(null);
  const saved = (only?: ReadonlySet<string>) =>
    exportFile(
      planFileName(plan.name).replace(/\.cortijo\.json$/, ".logbook.csv"),
      "text/csv",
      writeLogbookCsv(plan, only),
    );
  return (
    <main id="main" className="min-w-0 flex-1 px-4 py-4 md:px-6 desk:overflow-y-auto" tabIndex={-1}>
      <div className="mx-auto max-w-4xl">
        <div className="flex flex-wrap items-baseline justify-between gap-x-4">
          <h1 className="font-serif text-2xl">Logbook</h1>
          <Link href={`${planHref}/carry`} className={LINK}>
            Carry out
          </Link>
        </div>
        <p className="text-soft">
          What happened at this box, in its plan and outside it. Its times tell how long the next work takes.
        </p>
        <div className="mt-3 flex flex-wrap gap-2">
          <Button look="main" onClick={() => setOpen("new")}>
            Add an entry
          </Button>
          <Button onClick={() => setOpen("csv")}>Bring in CSV</Button>
          <Button disabled={lines.length === 0} onClick={() => saved()}>
            Save as CSV
          </Button>
        </div>
        <Fullness
          plan={plan}
          onTrim={(oldest) => {
            saved(new Set(oldest));
            act({ kind: "remove-records", records: oldest }, true);
            say(`${oneOrMany(oldest.length, "One entry is", "entries are")} taken out.`);
          }}
        />
        {lines.length === 0 ? (
          <p className="mt-6 max-w-prose">
            Nothing is in the logbook yet. It fills as you carry the plan out, and when a drive fails. Add what you know
            from before, such as a check that you have timed: what is expected of the next one is then by your box’s own
            time.
          </p>
        ) : (
          <>
            <OwnTimes plan={plan} lines={lines} act={act} />
            <TimesChart lines={lines} />
            <Lines lines={lines} onOpen={setOpen} />
          </>
        )}
        {open === "new" && <NewEntryDialog plan={plan} act={act} onClose={close} />}
        {open === "csv" && <LogbookCsvDialog plan={plan} act={act} onClose={close} />}
        {open !== null && typeof open === "object" && <EntryDialog line={open} act={act} onClose={close} />}
      </div>
    </main>
  );
}

function Fullness({ plan, onTrim }: Pick<PlaceProps, "plan"> & { onTrim: (oldest: string[]) => void }) {
  const full = fullnessOf(plan);
  if (full < NEARLY_FULL) return null;
  const oldest = oldestRecords(plan);
  return (
    <div className="mt-3 border-l-4 border-ochre-text pl-3">
      <p>
        The logbook is {Math.floor(full * 100)} % full. Save its oldest entries as a file, and take them out of the
        plan.
      </p>
      <Button small className="mt-1" onClick={() => onTrim(oldest)}>
        Save and take out the oldest {oldest.length}
      </Button>
    </div>
  );
}

/** How long an entry took, held against what was expected. */
function tookWords({ hours, predicted, work, counts, leftOut }: LogbookLine): string {
  if (hours === null) return "";
  const took = `took ${lengthWords(hours).replace("about ", "")}`;
  const expected = predicted ? `, expected ${hoursWords(predicted)}` : "";
  const apart = work === null || counts ? "" : leftOut ? "; left out" : "; does not count";
  return `${took}${expected}${apart}`;
}

function Lines({ lines, onOpen }: { lines: readonly LogbookLine[]; onOpen: (line: LogbookLine) => void }) {
  const [all, setAll] = useState(false);
  const shown = all ? lines : lines.slice(0, AT_FIRST);
  return (
    <section aria-labelledby="entries" className="mt-6">
      <h2 id="entries" className="font-serif text-lg">
        {oneOrMany(lines.length, "One entry", "entries")}, the newest first
      </h2>
      <ol className="mt-1 border-t border-line">
        {shown.map((line) => (
          <li key={line.id} className="flex flex-wrap items-start gap-x-4 border-b border-line py-1.5">
            <span className="w-44 shrink-0 text-soft">{whenWords(line.start)}</span>
            <span className="min-w-0 flex-1 basis-64">
              <span className="font-semibold">{line.title}</span>
              {line.outcome === "stopped" ? " (stopped)" : ""}
              {line.text ? <span className="block [overflow-wrap:anywhere] text-soft">{line.text}</span> : null}
              {tookWords(line) ? <span className="block">{tookWords(line)}</span> : null}
              {line.shown ? <span className="block">The box showed {line.shown.seen}.</span> : null}
            </span>
            <Button
              small
              look="quiet"
              aria-label={`Correct: ${line.title}, ${whenWords(line.start)}`}
              onClick={() => onOpen(line)}
            >
              Correct
            </Button>
          </li>
        ))}
      </ol>
      {shown.length < lines.length && (
        <Button className="mt-2" onClick={() => setAll(true)}>
          Show all {lines.length}
        </Button>
      )}
    </section>
  );
}
