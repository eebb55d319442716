"use client";

import { useId, useRef, useState } from "react";
import type { NewDrive } from "@/core/document/plan";
import { shortSize } from "@/core/drives/nameOfDrive";
import { counted } from "@/core/words/counted";
import { listOf } from "@/core/words/listOf";
import { INVENTORY_COMMAND } from "@/exchange/inventory/command";
import { textOfFile } from "@/exchange/textOfFile";
import { Button } from "../kit/Button";
import type { GivenDrives } from "./givenDrives";

/** More than this is no typing: it is shown in part, and read whole. */
const SHOWN_CHARACTERS = 20_000;
/** The largest file that is opened, in bytes. */
const MOST_FILE = 8 * 2 ** 20;

/** "2 × 4 TB, 8 TB, and 12 TB": what was read, in the order in which it was given. */
function drivesInShort(drives: readonly NewDrive[]): string {
  const sizes = new Map<string, number>();
  for (const drive of drives) {
    const size = `${shortSize(drive, "TB")}${drive.medium === "ssd" ? " flash" : ""}`;
    sizes.set(size, (sizes.get(size) ?? 0) + 1);
  }
  return listOf([...sizes].map(([size, count]) => (count > 1 ? `${count} × ${size}` : size)));
}

/** The drives, as people type them, or as the box prints them. */
export function DrivesField({
  text,
  onText,
  given,
}: {
  text: string;
  onText: (text: string) => void;
  given: GivenDrives | null;
}) {
  const id = useId();
  const about = useId();
  const file = useRef<HTMLInputElement>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const change = (next: string) => {
    setTrouble(null);
    onText(next);
  };
  const open = async (chosen: File | undefined) => {
    if (!chosen) return;
    if (chosen.size > MOST_FILE) return setTrouble(`“${chosen.name}” is far larger than a list of drives.`);
    const read = textOfFile(await chosen.arrayBuffer());
    if (read.ok) change(read.text);
    else setTrouble(read.message);
  };
  const long = text.length > SHOWN_CHARACTERS;
  const wrong = trouble ?? (given?.ok === false ? given.message : null);
  return (
    <div>
      <label htmlFor={id} className="block font-serif text-lg">
        What drives do you have?
      </label>
      <textarea
        id={id}
        aria-describedby={about}
        aria-invalid={wrong !== null}
        value={long ? `${text.slice(0, SHOWN_CHARACTERS)} …` : text}
        readOnly={long}
        onChange={(event) => change(event.target.value)}
        placeholder="4, 4, 8 and 12 TB"
        rows={2}
        spellCheck={false}
        // The page is for this question.
        autoFocus
        className="mt-1 w-full rounded border border-line-strong/70 bg-raised p-2 text-lg placeholder:text-soft"
      />
      <div id={about} className="min-h-12 text-[0.93rem] leading-snug">
        {/* While one types nothing interrupts; what is wrong is said when one stops. */}
        {wrong ? (
          <p role={trouble ? "alert" : "status"} className="text-geranium">
            {wrong}
          </p>
        ) : given?.ok ? (
          <p role="status">
            {counted(given.drives.length, "drive")}: {drivesInShort(given.drives)}
            {given.note && <span className="text-soft">, {given.note}</span>}.
          </p>
        ) : text.trim() !== "" ? (
          <p role="status" className="text-soft">
            Reading it …
          </p>
        ) : (
          <p className="text-soft">
            Sizes as on the labels; add ssd or nvme for flash. Or paste a CSV list, or what your box prints for{" "}
            <code className="rounded bg-wall px-1 text-[0.82rem] select-all">{INVENTORY_COMMAND}</code>
          </p>
        )}
      </div>
      <div className="flex gap-1.5">
        <Button small onClick={() => file.current?.click()}>
          From a file…
        </Button>
        {text !== "" && (
          <Button
            small
            look="quiet"
            onClick={() => {
              change("");
              document.getElementById(id)?.focus();
            }}
          >
            Clear
          </Button>
        )}
      </div>
      <input
        ref={file}
        type="file"
        aria-label="A file with drives"
        accept=".csv,.json,.txt,text/csv,application/json,text/plain"
        className="hidden"
        onChange={(event) => {
          void open(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
    </div>
  );
}
