"use client";

import { Check } from "lucide-react";
import { useEffect, useId, useRef, useState, type Ref } from "react";
import { checkDrive, checkWords, type DriveCheck } from "@/core/carrying/driveCheck";
import type { Plan } from "@/core/document/plan";
import { useUnit } from "../preferences/preferences";
import { Button } from "../kit/Button";
import { FIELD } from "../kit/Field";

interface Props {
  check: DriveCheck;
  plan: Plan;
  confirmed: boolean;
  /** With the serial number where the plan did not know it. */
  onConfirm: (serial?: string) => void;
  onAgain: () => void;
  ref?: Ref<HTMLInputElement>;
}

const WHAT_FOR = { erased: "It will be erased.", pulled: "It will be pulled.", new: "It is put in." } as const;

/** Whether the drive in one's hand is the drive that the plan means. */
export function IdentityField({ check, plan, confirmed, onConfirm, onAgain, ref }: Props) {
  const [unit] = useUnit();
  const [typed, setTyped] = useState("");
  const [trouble, setTrouble] = useState<string | null>(null);
  const id = useId();
  const yes = useRef<HTMLParagraphElement>(null);
  const own = useRef(false);
  useEffect(() => {
    // The field that had the focus has gone with the press that was its answer.
    if (confirmed && own.current) yes.current?.focus();
    own.current = false;
  }, [confirmed]);
  const look = () => {
    const result = checkDrive(check, typed, plan, unit);
    setTrouble(result.ok ? null : result.message);
    own.current = result.ok;
    if (result.ok) onConfirm(result.serial);
  };
  return (
    <li className="border-b border-line py-3 last:border-0">
      <p>
        <span className="font-semibold">{checkWords(check)}</span>
        {check.make ? ` · ${check.make}` : ""} ·{" "}
        {check.serial ? `serial number ${check.serial}` : "serial number not known yet"}
      </p>
      <p className={check.why === "erased" ? "text-geranium" : "text-soft"}>{WHAT_FOR[check.why]}</p>
      {confirmed ? (
        <p ref={yes} tabIndex={-1} className="mt-1 flex flex-wrap items-center gap-2 outline-none">
          <Check size={18} aria-hidden className="text-green" /> This is the drive.
          <Button small look="quiet" onClick={onAgain}>
            Look again
          </Button>
        </p>
      ) : (
        <form
          className="mt-1 flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            look();
          }}
        >
          <div className="min-w-0 flex-1 basis-48">
            <label htmlFor={id} className="text-[0.9rem] text-soft">
              {check.serial
                ? "Last four of the serial number on its label, or what the box prints of it"
                : "The serial number on its label"}
            </label>
            <input
              id={id}
              ref={ref}
              value={typed}
              maxLength={20_000}
              autoComplete="off"
              autoCapitalize="characters"
              spellCheck={false}
              aria-invalid={trouble !== null}
              aria-describedby={trouble ? `${id}-trouble` : undefined}
              onChange={(event) => {
                setTyped(event.target.value);
                setTrouble(null);
              }}
              className={`${FIELD} h-11 text-lg tracking-wide`}
            />
          </div>
          <Button type="submit" className="h-11!">
            Is it this one?
          </Button>
          {trouble && (
            <p id={`${id}-trouble`} role="alert" className="basis-full font-semibold text-geranium">
              {trouble}
            </p>
          )}
        </form>
      )}
    </li>
  );
}
