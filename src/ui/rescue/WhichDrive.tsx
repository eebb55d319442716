"use client";

import { useState } from "react";
import type { Command } from "@/core/document/command";
import type { Plan } from "@/core/document/plan";
import { nameOfDrive } from "@/core/drives/nameOfDrive";
import { type Clue, type Found, whichDrive } from "@/core/rescue/whichDrive";
import { capital } from "@/core/words/capital";
import { Button } from "../kit/Button";
import { useUnit } from "../preferences/preferences";

/** The most of a printed list that is read, in characters. */
const MOST_PRINTED = 200_000;

/** What can be said of the drive that is found. */
const STATES = [
  { state: "failed", words: "It has failed" },
  { state: "missing", words: "It is not in the box" },
] as const;

/** The box says that something is wrong: which drive it is, by what the owner can see. */
export function WhichDrive({
  plan,
  pool,
  act,
}: {
  plan: Plan;
  pool: string;
  act: (command: Command, offersUndo?: boolean) => string | null;
}) {
  const [unit] = useUnit();
  const [serial, setSerial] = useState("");
  const [printed, setPrinted] = useState("");
  const [bay, setBay] = useState("");
  const [found, setFound] = useState<Found | null>(null);
  const look = (clue: Clue) => setFound(whichDrive(plan, pool, clue));
  const field = "mt-0.5 block rounded border border-line-strong/60 bg-raised px-2";
  return (
    <section aria-labelledby="which">
      <h2 id="which" className="font-serif text-lg">
        The box says that something is wrong, and you do not know which drive it is?
      </h2>
      <p className="text-soft">Use whatever you can see. Pull nothing yet.</p>
      <div className="mt-2 grid gap-3 sm:grid-cols-2">
        <form
          onSubmit={(event) => {
            event.preventDefault();
            look({ serial });
          }}
        >
          <label className="block">
            It names a serial, or the end of one
            <input
              value={serial}
              onChange={(event) => setSerial(event.target.value)}
              maxLength={80}
              className={`${field} h-9 w-full`}
            />
          </label>
          <Button small type="submit" className="mt-1" disabled={serial.trim() === ""}>
            Find it by its serial
          </Button>
        </form>
        <form
          onSubmit={(event) => {
            event.preventDefault();
            look({ bay: Number(bay) });
          }}
        >
          <label className="block">
            A light is red or out, or it names a bay
            <select value={bay} onChange={(event) => setBay(event.target.value)} className={`${field} h-9`}>
              <option value="">Which bay?</option>
              {Array.from({ length: plan.box.bays }, (_, i) => (
                <option key={i} value={i + 1}>
                  Bay {i + 1}
                </option>
              ))}
            </select>
          </label>
          <Button small type="submit" className="mt-1" disabled={bay === ""}>
            Find it by its bay
          </Button>
        </form>
        <form
          className="sm:col-span-2"
          onSubmit={(event) => {
            event.preventDefault();
            look({ printed });
          }}
        >
          <label className="block">
            It prints a list of its drives, with serials: paste it here
            <textarea
              value={printed}
              onChange={(event) => setPrinted(event.target.value.slice(0, MOST_PRINTED))}
              rows={3}
              className={`${field} w-full py-1 font-mono text-[0.87rem]`}
            />
          </label>
          <Button small type="submit" className="mt-1" disabled={printed.trim() === ""}>
            Find what is missing from it
          </Button>
        </form>
      </div>
      <div role="status" className="mt-3">
        {found && <p className="font-semibold">{found.says}</p>}
      </div>
      <ul>
        {found?.drives.map((drive) => (
          <li key={drive.id} className="mt-1 flex flex-wrap items-center gap-2 border-t border-line py-2">
            <span className="min-w-0 flex-1 basis-60">{capital(nameOfDrive(drive, unit))}</span>
            {STATES.map(({ state, words }) => (
              <Button
                key={state}
                small
                onClick={() =>
                  act({ kind: "set-drive-state", drives: [drive.id], state, since: new Date().toISOString() }, true)
                }
              >
                {words}
              </Button>
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}
