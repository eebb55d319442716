"use client";

import { useRouter } from "next/navigation";
import { useRef, useState, type ReactNode } from "react";
import type { Problem } from "@/core/document/problem";
import { counted } from "@/core/words/counted";
import { keepPlan } from "@/store/keepPlan";
import { keepPlans } from "@/store/planRepository";
import { NOT_LOADED } from "../kit/notLoaded";
import { openDatabase } from "../openDatabase";
import { part } from "../kit/part";

// What is only needed once a file is chosen is loaded then.
const ProblemsDialog = part(() => import("../kit/Problems").then((module) => module.ProblemsDialog), {
  said: "over",
});

/**
 * Importing a plan: opens the file chooser, reads the file, keeps the plan and opens it. `element` belongs on the page.
 */
export function usePlanFile(): { choose: () => void; take: (file: File) => Promise<void>; element: ReactNode } {
  const router = useRouter();
  const input = useRef<HTMLInputElement>(null);
  const [trouble, setTrouble] = useState<{ title: string; about?: string; problems: Problem[] } | null>(null);
  const take = async (file: File) => {
    const reader = await import("@/exchange/importPlan").catch(() => null);
    if (!reader)
      return setTrouble({
        title: "The file could not be read yet",
        problems: [{ code: "not-loaded", message: NOT_LOADED, pointer: "" }],
      });
    const result = await reader.readPlanFile(file);
    if (!result.ok) return setTrouble(result);
    const { plan, others, refused } = result;
    try {
      if (others.length === 0) router.push(`/plan/${await keepPlan(openDatabase(), plan)}`);
      else {
        await keepPlans(openDatabase(), [plan, ...others]);
        router.push("/");
      }
      if (refused.length > 0)
        setTrouble({
          title: `${counted(others.length + 1, "plan")} brought back, ${refused.length} not`,
          about: "Those that could be read are in the list of plans.",
          problems: refused,
        });
    } catch {
      setTrouble({
        title: "The plan could not be kept",
        problems: [
          {
            code: "not-kept",
            message:
              "The browser's storage is full or blocked. Free some space or leave the private window, then " +
              "import the file again.",
            pointer: "",
          },
        ],
      });
    }
  };
  const element = (
    <>
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        aria-label="Plan file"
        hidden
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          event.target.value = "";
          if (file) void take(file);
        }}
      />
      {trouble && <ProblemsDialog {...trouble} onClose={() => setTrouble(null)} />}
    </>
  );
  return { choose: () => input.current?.click(), take, element };
}
