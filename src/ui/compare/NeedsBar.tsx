"use client";

import { useId, useState, type ReactNode } from "react";
import { parseSize } from "@/core/bytes/parseSize";
import { formatBytes } from "@/core/bytes/formatBytes";
import type { Needs } from "@/core/compare/needs";
import { plural } from "@/core/words/counted";
import { Button } from "../kit/Button";
import { useUnit } from "../preferences/preferences";

const SELECT = "h-7 rounded border border-line-strong/60 bg-raised px-1";

/** What is needed, said in a sentence with controls in it. */
export function NeedsBar({ needs, most, onChange }: { needs: Needs; most: number; onChange: (needs: Needs) => void }) {
  const set = (change: Partial<Needs>) =>
    onChange(
      Object.fromEntries(Object.entries({ ...needs, ...change }).filter(([, value]) => value !== undefined)) as Needs,
    );
  const asked = Object.keys(needs).length;
  return (
    <div role="group" aria-label="What you need" className="flex flex-wrap items-center gap-x-4 gap-y-1.5 leading-8">
      <Choice
        before="survives the loss of"
        label="How many failed drives it must survive"
        value={needs.tolerance === undefined ? "" : String(needs.tolerance)}
        onChange={(value) => set({ tolerance: value === "" ? undefined : Number(value) })}
        options={[
          ["", "no matter how many"],
          ["1", "any one"],
          ["2", "any two"],
          ["3", "any three"],
        ]}
        after={plural(needs.tolerance ?? 0, "drive")}
      />
      <SizeNeed value={needs.usableBytes} onChange={(usableBytes) => set({ usableBytes })} />
      <Choice
        before="no more than"
        label="Bays at most"
        value={needs.bays === undefined ? "" : String(needs.bays)}
        onChange={(value) => set({ bays: value === "" ? undefined : Number(value) })}
        options={[
          ["", "all"],
          ...Array.from({ length: most }, (_, i): [string, string] => [String(i + 1), String(i + 1)]),
        ]}
        after="bays"
      />
      <Choice
        before="must grow"
        label="How it must grow"
        value={needs.grows ?? ""}
        onChange={(value) => set({ grows: value === "" ? undefined : (value as Needs["grows"]) })}
        options={[
          ["", "in any way"],
          ["by-drive", "by one drive at a time"],
          ["by-group", "by drives or groups"],
        ]}
        after=""
      />
      <Choice
        before="no drive unused above"
        label="Unused of a drive at most"
        value={needs.idleShare === undefined ? "" : String(needs.idleShare)}
        onChange={(value) => set({ idleShare: value === "" ? undefined : Number(value) })}
        options={[
          ["", "any share"],
          ["0.01", "1 %"],
          ["0.1", "10 %"],
          ["0.25", "25 %"],
          ["0.5", "50 %"],
        ]}
        after=""
      />
      <Choice
        before="rebuilt within"
        label="Rebuilt within"
        value={needs.rebuildHours === undefined ? "" : String(needs.rebuildHours)}
        onChange={(value) => set({ rebuildHours: value === "" ? undefined : Number(value) })}
        options={[
          ["", "any time"],
          ["12", "12 h"],
          ["24", "24 h"],
          ["48", "48 h"],
        ]}
        after=""
      />
      <Choice
        before="loses data in a year:"
        label="How many of like boxes may lose something in a year"
        value={needs.lossAYear === undefined ? "" : String(needs.lossAYear)}
        onChange={(value) => set({ lossAYear: value === "" ? undefined : Number(value) })}
        options={[
          ["", "any number"],
          ["0.01", "≤ 1 in 100"],
          ["0.001", "≤ 1 in 1,000"],
          ["0.0001", "≤ 1 in 10,000"],
          ["0.00001", "≤ 1 in 100,000"],
        ]}
        after=""
      />
      {asked > 0 && (
        <Button small look="quiet" onClick={() => onChange({})}>
          Clear
        </Button>
      )}
    </div>
  );
}

function Choice({
  before,
  after,
  label,
  value,
  options,
  onChange,
}: {
  before: ReactNode;
  after: ReactNode;
  label: string;
  value: string;
  options: [string, string][];
  onChange: (value: string) => void;
}) {
  return (
    <span className="sm:whitespace-nowrap">
      {before}{" "}
      <select
        aria-label={label}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        className={`${SELECT} ${value === "" ? "text-soft" : "border-indigo font-semibold"}`}
      >
        {options.map(([option, words]) => (
          <option key={option} value={option}>
            {words}
          </option>
        ))}
      </select>{" "}
      {after}
    </span>
  );
}

function SizeNeed({ value, onChange }: { value: number | undefined; onChange: (value: number | undefined) => void }) {
  const [unit] = useUnit();
  const [text, setText] = useState<string | null>(null);
  const trouble = useId();
  const shown = text ?? (value === undefined ? "" : formatBytes(value, unit).replace(/\.0+(?=\D)/, ""));
  const parsed = shown.trim() === "" ? null : parseSize(/[a-z]/i.test(shown) ? shown : `${shown} ${unit}`);
  const take = (next: string) => {
    setText(next);
    if (next.trim() === "") return onChange(undefined);
    const size = parseSize(/[a-z]/i.test(next) ? next : `${next} ${unit}`);
    if (size.ok) onChange(size.size.bytes);
  };
  return (
    <span className="sm:whitespace-nowrap">
      at least{" "}
      <input
        aria-label="Usable space at least"
        aria-invalid={parsed !== null && !parsed.ok}
        aria-describedby={parsed && !parsed.ok ? trouble : undefined}
        placeholder={`any ${unit}`}
        value={shown}
        onChange={(event) => take(event.target.value)}
        onBlur={() => setText(parsed && !parsed.ok ? shown : null)}
        className={
          "h-7 w-24 rounded border bg-raised px-1.5 placeholder:text-soft " +
          (value === undefined ? "border-line-strong/60" : "border-indigo font-semibold")
        }
      />
      {parsed && !parsed.ok && (
        <span id={trouble} role="alert" className="ml-2 whitespace-normal text-geranium">
          {parsed.message}
        </span>
      )}
    </span>
  );
}
