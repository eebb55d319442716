"use client";

import { useId, useState, type FormEvent } from "react";
import { formatExactBytes } from "@/core/bytes/formatBytes";
import { parseSize } from "@/core/bytes/parseSize";
import type { Command } from "@/core/commands/command";
import type { DataSet, Growth, Worth } from "@/core/data/dataSet";
import type { Plan } from "@/core/document/plan";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";
import { FIELD, Labelled } from "../kit/Field";

const WORTHS: { value: Worth; label: string }[] = [
  { value: "precious", label: "cannot be had again: precious" },
  { value: "useful", label: "its loss would cost work" },
  { value: "replaceable", label: "can be had again" },
];

const GROWTHS = { none: "does not grow", month: "so much each month", year: "per cent each year" } as const;
type GrowthKind = keyof typeof GROWTHS;

const kindOf = (growth: Growth | undefined): GrowthKind => (growth === undefined ? "none" : "bytesPerMonth" in growth ? "month" : "year");
const textOf = (growth: Growth | undefined): string => (growth === undefined ? "" : "bytesPerMonth" in growth ? formatExactBytes(growth.bytesPerMonth) : String(Math.round(growth.sharePerYear * 1e4) / 100));

/** A data set: what it is, where it lies, how it grows, and whether it could be had again. */
export function DataSetDialog({ set, plan, act, onClose }: { set: DataSet | null; plan: Plan; act: (command: Command, offersUndo?: boolean) => string | null; onClose: () => void }) {
  const form = useId();
  const [kind, setKind] = useState<GrowthKind>(kindOf(set?.growth));
  const [trouble, setTrouble] = useState<string | null>(null);
  const volumes = plan.pools.flatMap((pool) => pool.volumes.map((volume) => ({ id: volume.id, label: plan.pools.length > 1 || pool.volumes.length > 1 ? `${volume.name} (${pool.name})` : volume.name })));
  const onSubmit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const data = new FormData(event.currentTarget);
    const text = (name: string) => String(data.get(name) ?? "").trim();
    if (text("name") === "") return setTrouble("Give it a name.");
    const size = parseSize(text("size"));
    if (!size.ok) return setTrouble(`Size: ${size.message}`);
    let growth: Growth | undefined;
    if (kind === "month") {
      const monthly = parseSize(text("growth"));
      if (!monthly.ok) return setTrouble(`Growth: ${monthly.message}`);
      growth = { bytesPerMonth: monthly.size.bytes };
    } else if (kind === "year") {
      const share = Number(text("growth").replace(",", ".").replace(/\s*%$/, ""));
      if (!(share >= 0 && share <= 1000) || text("growth") === "") return setTrouble("Growth: type per cent a year, from 0 to 1000.");
      growth = { sharePerYear: share / 100 };
    }
    const refused = act({ kind: "put-data-set", dataSet: { ...(set ? { id: set.id } : {}), name: text("name").slice(0, 120), volume: text("volume"), bytes: size.size.bytes, worth: text("worth") as Worth, ...(growth ? { growth } : {}) } });
    if (refused) setTrouble(refused);
    else onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={set ? "Change data" : "Data that belongs together"}
      about="For instance photos, accounts, or camera footage."
      acts={
        <>
          {set && (
            <Button
              className="mr-auto text-geranium!"
              onClick={() => {
                act({ kind: "remove-data-set", dataSet: set.id }, true);
                onClose();
              }}
            >
              Remove
            </Button>
          )}
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" form={form}>
            Save
          </Button>
        </>
      }
    >
      <form id={form} onSubmit={onSubmit} className="grid gap-3 sm:grid-cols-2" noValidate>
        <Labelled label="Name">
          <input name="name" className={FIELD} defaultValue={set?.name ?? ""} maxLength={120} />
        </Labelled>
        <Labelled label="On which volume">
          <select name="volume" className={FIELD} defaultValue={set?.volume ?? volumes[0]?.id}>
            {volumes.map((volume) => (
              <option key={volume.id} value={volume.id}>
                {volume.label}
              </option>
            ))}
          </select>
        </Labelled>
        <Labelled label="Size today">
          <input name="size" className={FIELD} defaultValue={set ? formatExactBytes(set.bytes) : ""} placeholder="3.2 TB" />
        </Labelled>
        <Labelled label="If it were lost">
          <select name="worth" className={FIELD} defaultValue={set?.worth ?? "useful"}>
            {WORTHS.map((worth) => (
              <option key={worth.value} value={worth.value}>
                {worth.label}
              </option>
            ))}
          </select>
        </Labelled>
        <Labelled label="It grows">
          <select className={FIELD} value={kind} onChange={(event) => setKind(event.target.value as GrowthKind)}>
            {Object.entries(GROWTHS).map(([value, label]) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </select>
        </Labelled>
        {kind !== "none" && (
          <Labelled label={kind === "month" ? "By how much each month" : "Per cent each year"}>
            <input key={kind} name="growth" className={FIELD} defaultValue={kind === kindOf(set?.growth) ? textOf(set?.growth) : ""} placeholder={kind === "month" ? "220 GB" : "10"} />
          </Labelled>
        )}
        {trouble && (
          <p role="alert" className="text-geranium sm:col-span-2">
            {trouble}
          </p>
        )}
      </form>
    </Dialog>
  );
}
