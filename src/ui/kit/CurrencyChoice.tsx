"use client";

import "@/core/commands/priceCommands";
import { useMemo } from "react";
import type { Command } from "@/core/document/command";
import { Choice } from "./Field";

/** Whether a code is that of a currency which the browser can name. */
const names = new Intl.DisplayNames("en", { type: "currency", fallback: "none" });

/** In which currency the plan's amounts are: asked where amounts are, until it is said. */
export function CurrencyChoice({
  currency,
  act,
}: {
  currency: string | undefined;
  act: (command: Command) => string | null;
}) {
  const options = useMemo(() => {
    const codes = new Set([...(currency ? [currency] : []), ...Intl.supportedValuesOf("currency")]);
    return [...codes].sort().map((code) => ({ value: code, label: `${code}, ${names.of(code) ?? code}` }));
  }, [currency]);
  return (
    <div className="max-w-64">
      <Choice
        label="In which currency?"
        value={currency ?? ""}
        options={[{ value: "", label: "not said" }, ...options]}
        onPick={(code) => act({ kind: "set-currency", currency: code === "" ? null : code })}
      />
    </div>
  );
}
