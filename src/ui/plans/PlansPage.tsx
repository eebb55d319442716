"use client";

import { useRouter } from "next/navigation";
import { useEffect, useRef, useState, type ReactNode } from "react";
import { keepDemoOnFirstVisit } from "@/store/firstVisit";
import { openDatabase } from "../openDatabase";
import { UNKEPT_PLAN } from "../unkeptPlan";
import { firstVisit, markVisited } from "./visited";
import { part } from "../kit/part";

const PlanList = part(() => import("./PlanList").then((module) => module.PlanList));

/**
 * Where Cortijo begins: the first visit goes on to the demo plan, later ones show the list of plans.
 *
 * @param first what a first visit sees meanwhile
 */
export function PlansPage({ first }: { first: ReactNode }) {
  const router = useRouter();
  const [listed, setListed] = useState(false);
  // Whoever has pressed a link of the first look meanwhile is on the way there, and stays on it.
  const leaves = useRef(false);
  useEffect(() => {
    const begin = async () => {
      const demo = await keepDemoOnFirstVisit(openDatabase());
      if (demo && leaves.current) return;
      if (demo) firstVisit.shows = first;
      if (demo) router.replace(`/plan/${demo}`);
      else {
        markVisited();
        setListed(true);
      }
    };
    // Where the browser keeps nothing, the demo plan opens all the same and says so.
    begin().catch(() => router.replace(`/plan/${UNKEPT_PLAN}`));
  }, [router, first]);
  if (listed) return <PlanList />;
  return (
    <>
      <div className="first-look" onClick={(event) => (leaves.current ||= event.defaultPrevented)}>
        {first}
      </div>
      <main className="later-look p-6 text-soft" role="status">
        Opening your plans …
      </main>
    </>
  );
}
