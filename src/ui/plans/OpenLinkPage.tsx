"use client";

import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { shortSize } from "@/core/drives/nameOfDrive";
import { counted, oneOrMany } from "@/core/words/counted";
import type { PlanFileResult } from "@/exchange/importPlan";
import { readPlanLink } from "@/exchange/planLink/planLink";
import { keepPlan } from "@/store/keepPlan";
import { Button } from "../kit/Button";
import { openDatabase } from "../openDatabase";
import { useUnit } from "../preferences/preferences";
import { ToYourPlans } from "./ToYourPlans";

/** The plan that a link carries: what it is, before it is kept. */
export function OpenLinkPage() {
  const router = useRouter();
  const [unit] = useUnit();
  const [result, setResult] = useState<PlanFileResult | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    const read = () => setResult(readPlanLink(window.location.hash));
    // The address is known in the browser only.
    const first = requestAnimationFrame(read);
    window.addEventListener("hashchange", read);
    return () => {
      cancelAnimationFrame(first);
      window.removeEventListener("hashchange", read);
    };
  }, []);
  const keep = async () => {
    if (!result?.ok) return;
    try {
      router.replace(`/plan/${await keepPlan(openDatabase(), result.plan)}`);
    } catch {
      setTrouble(
        "The browser's storage is full or blocked. Free some space or leave the private window, then open the " +
          "link again.",
      );
    }
  };
  return (
    <main className="mx-auto max-w-xl px-6 py-20">
      {result === null && <p role="status">Reading the link …</p>}
      {result?.ok === false && (
        <>
          <h1 className="font-serif text-3xl">{result.title}</h1>
          <div role="alert" className="mt-4 space-y-1">
            {result.problems.slice(0, 10).map((problem) => (
              <p key={`${problem.pointer} ${problem.message}`}>{problem.message}</p>
            ))}
          </div>
          <p className="mt-4 text-soft">Nothing was changed.</p>
        </>
      )}
      {result?.ok && (
        <>
          <h1 className="font-serif text-3xl">{result.plan.name || "A plan"}</h1>
          <p className="mt-3">
            A box with {counted(result.plan.box.bays, "bay")},{" "}
            {oneOrMany(result.plan.drives.length, "a drive", "drives")}
            {result.plan.drives.length > 0
              ? ` (${result.plan.drives
                  .slice(0, 8)
                  .map((drive) => shortSize(drive, unit))
                  .join(", ")}${result.plan.drives.length > 8 ? " …" : ""})`
              : ""}{" "}
            and {oneOrMany(result.plan.steps.length, "one step", "steps")}. It came with the link; nothing has been kept
            yet.
          </p>
          {trouble && (
            <p role="alert" className="mt-3 text-geranium">
              {trouble}
            </p>
          )}
          <Button look="main" className="mt-5" onClick={() => void keep()}>
            Keep this plan and open it
          </Button>
        </>
      )}
      <ToYourPlans />
    </main>
  );
}
