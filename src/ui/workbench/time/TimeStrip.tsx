"use client";

import { Plus } from "lucide-react";
import { useMemo, useState, type CSSProperties } from "react";
import { exposedWords } from "@/core/walk/exposedWords";
import { dayOf, planSummary } from "@/core/walk/planSummary";
import { capital } from "@/core/words/capital";
import { dayOfMomentIn } from "@/core/time/dateWords";
import { fullWords, reachesWords } from "@/core/data/dataWords";
import type { Dates } from "../../calendar/useDates";
import { Button } from "../../kit/Button";
import { MenuButton } from "../../kit/MenuButton";
import { useStripHeight } from "../../preferences/preferences";
import { Verdict } from "../readout/Verdict";
import { useWorkbench } from "../useWorkbench";
import { Staircase } from "./Staircase";
import { StripEdge } from "./StripEdge";
import { StepList } from "./StepList";
import { part } from "../../kit/part";
import { Unloaded } from "../../kit/Unloaded";

const AddStepItems = part(() => import("./AddStepItems").then((module) => module.AddStepItems), {
  needed: "this menu",
  meanwhile: "whatever is around",
});
const SummaryDialog = part(() => import("./SummaryDialog").then((module) => module.SummaryDialog), {
  said: "over",
});

/** When each volume with data sets is full, as the plan is and without it. */
function whenFull({ demands, start }: Dates): string[] {
  return demands.flatMap(({ volume, fullWithPlan, fullWithoutPlan }) =>
    fullWithoutPlan === null
      ? []
      : [
          `${volume.name || "The volume"} ` +
            `${reachesWords(volume, fullWithPlan, start)}${fullWithPlan === fullWithoutPlan ? "" : `, without the plan ${fullWords(fullWithoutPlan, start)}`}.`,
        ],
  );
}

/** The chosen moment in a few words: on a phone, where the box and the read-out are out of sight. */
function MomentInShort() {
  const { walk, at } = useWorkbench();
  const walked = walk.moments[at]?.walked;
  return (
    <div className="border-y border-line py-1.5 md:hidden">
      {walked ? (
        <p className="text-soft">
          After step {at} of {walk.moments.length - 1}, {walked.done ? `day ${dayOf(walked.to)}` : "not carried out"}
        </p>
      ) : (
        <p className="text-soft">Now</p>
      )}
      <Verdict />
      {walked?.exposure.map((each) => (
        <p key={each.pool} className={each.redundancy <= 0 ? "font-semibold text-geranium" : "text-ochre-text"}>
          {capital(exposedWords(each, walked.cost.hours.expected))}.
        </p>
      ))}
    </div>
  );
}

/** Time: the steps, and the staircase of capacity over their days. */
export function TimeStrip() {
  const { walk, dates, askSequence } = useWorkbench();
  const summary = useMemo(
    () => [...whenFull(dates), ...planSummary(walk, dayOfMomentIn(dates.schedule))].join(" "),
    [walk, dates],
  );
  const [telling, setTelling] = useState(false);
  const [height] = useStripHeight();
  return (
    <section
      aria-label="Time"
      style={{ "--strip": `${height}px` } as CSSProperties}
      className={
        "relative grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)] gap-x-3 border-t border-line px-3 py-2 " +
        "text-[0.93rem] md:h-[min(var(--strip),45dvh)] md:min-h-48 md:grid-cols-[21rem_minmax(0,1fr)]"
      }
    >
      <StripEdge />
      <div className="flex min-h-0 flex-col max-md:max-h-72">
        <div className="flex items-center gap-1.5 pb-1">
          <h2 id="steps-heading" className="flex-1 font-serif text-lg">
            Growing
          </h2>
          <Button small onClick={() => setTelling(true)}>
            In words
          </Button>
          <Button small onClick={() => askSequence()}>
            Ready-made
          </Button>
          <MenuButton
            align="end"
            trigger={
              <Button small aria-label="Add a step">
                <Plus size={14} aria-hidden /> Step
              </Button>
            }
          >
            <AddStepItems />
          </MenuButton>
        </div>
        <StepList />
      </div>
      <div className="flex min-h-0 min-w-0 flex-col max-md:min-h-64">
        {dates.again && <Unloaded what="the dates of this plan" onAgain={dates.again} />}
        <MomentInShort />
        <p className="pb-1 text-soft md:truncate" title={summary}>
          {summary}
        </p>
        <div className="min-h-28 flex-1">
          <Staircase />
        </div>
      </div>
      {telling && <SummaryDialog onClose={() => setTelling(false)} />}
    </section>
  );
}
