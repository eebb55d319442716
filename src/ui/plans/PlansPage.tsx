"use client";

import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { keepDemoOnFirstVisit } from "@/store/firstVisit";
import { openDatabase } from "../openDatabase";
import { UNKEPT_PLAN } from "../unkeptPlan";
import { part } from "../kit/part";

const PlanList = part(() => import("./PlanList").then((module) => module.PlanList));

/** Where Cortijo begins: the first visit goes on to the demo plan, later ones show the list of plans. */
export function PlansPage() {
  const router = useRouter();
  const [listed, setListed] = useState(false);
  useEffect(() => {
    const begin = async () => {
      const demo = await keepDemoOnFirstVisit(openDatabase());
      if (demo) router.replace(`/plan/${demo}`);
      else setListed(true);
    };
    // Where the browser keeps nothing, the demo plan opens all the same and says so.
    begin().catch(() => router.replace(`/plan/${UNKEPT_PLAN}`));
  }, [router]);
  if (listed) return <PlanList />;
  return (
    <main className="p-6 text-soft" role="status">
      Opening your plans …
    </main>
  );
}
