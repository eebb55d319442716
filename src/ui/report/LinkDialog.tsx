"use client";

import { useId, useMemo, useState } from "react";
import type { Plan } from "@/core/document/plan";
import { oneOrMany } from "@/core/words/counted";
import { writePlanLink } from "@/exchange/planLink/planLink";
import { Button } from "../kit/Button";
import { Dialog } from "../kit/Dialog";

/** A link that carries the plan, to be copied. */
export function LinkDialog({ plan, onClose }: { plan: Plan; onClose: () => void }) {
  const link = useMemo(() => writePlanLink(plan, window.location.origin), [plan]);
  const [copied, setCopied] = useState<"no" | "yes" | "refused">("no");
  const field = useId();
  const records = (plan.history?.length ?? 0) + (plan.log?.length ?? 0);
  const copy = async () => {
    if (!link.ok) return;
    try {
      await navigator.clipboard.writeText(link.url);
      setCopied("yes");
    } catch {
      // Where the page may not, the text is selected for the owner's own hand.
      const input = document.getElementById(field);
      if (input instanceof HTMLTextAreaElement) input.select();
      setCopied("refused");
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="A link with this plan"
      about={
        "The link itself carries the whole plan, serials included; no server keeps it. Whoever has the link can " +
        "read it, and open it in a Cortijo at this address."
      }
      acts={
        <>
          <Button onClick={onClose}>Done</Button>
          {link.ok && (
            <Button look="main" onClick={() => void copy()}>
              Copy
            </Button>
          )}
        </>
      }
    >
      {records > 0 && (
        <p className="mb-2">
          It leaves the logbook out ({oneOrMany(records, "one entry", "entries")}): a file that is exported has it.
        </p>
      )}
      {link.ok ? (
        <>
          <label htmlFor={field} className="text-[0.9rem] text-soft">
            The link, {link.url.length.toLocaleString("en")} characters
          </label>
          <textarea
            id={field}
            readOnly
            rows={5}
            value={link.url}
            className="mt-0.5 w-full rounded border border-line-strong/70 bg-raised p-2 font-mono text-[0.8rem] break-all"
          />
          <p role="status" className="mt-1">
            {copied === "yes"
              ? "Copied."
              : copied === "refused"
                ? "The browser does not let this page use the clipboard. The link is selected: copy it with the " +
                  "keyboard."
                : ""}
          </p>
        </>
      ) : (
        <p role="alert">{link.message}</p>
      )}
    </Dialog>
  );
}
