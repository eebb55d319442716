"use client";

import { useState } from "react";
import { formatExactBytes } from "@/core/bytes/formatBytes";
import { parseSize } from "@/core/bytes/parseSize";
import type { Command } from "@/core/document/command";
import type { Plan, DataSet, Growth, Worth } from "@/core/document/plan";
import { FIELD, Labelled } from "../kit/Field";
import { FormDialog, textOf } from "../kit/FormDialog";

const WORTHS: { value: Worth; label: string }[] = [
  { value: "precious", label: "cannot be had again: precious" },
  { value: "useful", label: "its loss would cost work" },
  { value: "replaceable", label: "can be had again" },
];

const GROWTHS = { none: "does not grow", month: "so much each month", year: "per cent each year" } as const;
type GrowthKind = keyof typeof GROWTHS;

const kindOf = (growth: Growth | undefined): GrowthKind =>
  growth === undefined ? "none" : "bytesPerMonth" in growth ? "month" : "year";
const growthText = (growth: Growth | undefined): string =>
  growth === undefined
    ? ""
    : "bytesPerMonth" in growth
      ? formatExactBytes(growth.bytesPerMonth)
      : String(Math.round(growth.sharePerYear * 1e4) / 100);

/** The growth that was typed, or what is wrong with it. */
function growthFrom(kind: GrowthKind, text: string): Growth | undefined | string {
  if (kind === "none") return undefined;
  if (kind === "month") {
    const monthly = parseSize(text);
    return monthly.ok ? { bytesPerMonth: monthly.size.bytes } : monthly.message;
  }
  const share = Number(text.replace(",", ".").replace(/\s*%$/, ""));
  return text !== "" && share >= 0 && share <= 1000
    ? { sharePerYear: share / 100 }
    : "type per cent a year, from 0 to 1000.";
}

/** A data set: what it is, where it lies, how it grows, and whether it could be had again. */
export function DataSetDialog({
  set,
  plan,
  act,
  onClose,
}: {
  set: DataSet | null;
  plan: Plan;
  act: (command: Command, offersUndo?: boolean) => string | null;
  onClose: () => void;
}) {
  const [kind, setKind] = useState<GrowthKind>(kindOf(set?.growth));
  const volumes = plan.pools.flatMap((pool) =>
    pool.volumes.map((volume) => ({
      id: volume.id,
      label: plan.pools.length > 1 || pool.volumes.length > 1 ? `${volume.name} (${pool.name})` : volume.name,
    })),
  );
  const save = (data: FormData): string | null => {
    const name = textOf(data, "name");
    if (name === "") return "Give it a name.";
    const size = parseSize(textOf(data, "size"));
    if (!size.ok) return `Size: ${size.message}`;
    const grown = growthFrom(kind, textOf(data, "growth"));
    if (typeof grown === "string") return `Growth: ${grown}`;
    return act({
      kind: "put-data-set",
      dataSet: {
        ...(set ? { id: set.id } : {}),
        name: name.slice(0, 120),
        volume: textOf(data, "volume"),
        bytes: size.size.bytes,
        worth: textOf(data, "worth") as Worth,
        ...(grown ? { growth: grown } : {}),
      },
    });
  };
  return (
    <FormDialog
      title={set ? "Change data" : "Data that belongs together"}
      about="For instance photos, accounts, or camera footage."
      onSave={save}
      onClose={onClose}
      {...(set ? { onRemove: () => act({ kind: "remove-data-set", dataSet: set.id }, true) } : {})}
    >
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
        <input
          name="size"
          className={FIELD}
          defaultValue={set ? formatExactBytes(set.bytes) : ""}
          placeholder="3.2 TB"
        />
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
          <input
            key={kind}
            name="growth"
            className={FIELD}
            defaultValue={kind === kindOf(set?.growth) ? growthText(set?.growth) : ""}
            placeholder={kind === "month" ? "220 GB" : "10"}
          />
        </Labelled>
      )}
    </FormDialog>
  );
}
