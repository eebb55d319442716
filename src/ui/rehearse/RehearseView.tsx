"use client";

import "@/core/commands/rehearsalCommands";
import { useState } from "react";
import { part } from "../kit/part";
import { Segmented } from "../kit/Segmented";
import type { PlaceProps } from "../shell/planPlace";
import type { Asked } from "./PlayView";

const PlayView = part(() => import("./PlayView").then((module) => module.PlayView), { needed: "the box to play on" });
const TrialsView = part(() => import("./TrialsView").then((module) => module.TrialsView), { needed: "the table" });

const WAYS = [
  { value: "play", label: "Play it" },
  { value: "all", label: "Try all mishaps" },
] as const;

/** The plan rehearsed on a simulated box: played, or with every mishap tried. */
export function RehearseView(props: PlaceProps) {
  const [way, setWay] = useState<"play" | "all">("play");
  const [seen, setSeen] = useState(false);
  const [asked, setAsked] = useState<Asked | null>(null);
  return (
    <main id="main" className="flex min-w-0 flex-1 flex-col px-4 py-3 md:px-6 desk:min-h-0" tabIndex={-1}>
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h1 className="font-serif text-2xl">Rehearse</h1>
        <Segmented
          label="Ways to rehearse"
          value={way}
          options={WAYS}
          onChange={(next) => {
            setWay(next);
            // What has been tried stays, whoever looks at it again.
            if (next === "all") setSeen(true);
          }}
        />
      </div>
      {props.plan.pools.length === 0 ? (
        <p className="mt-4 text-soft">
          There is no pool in this plan yet: make one of your drives, and come back to see what may befall it.
        </p>
      ) : (
        <>
          <div hidden={way !== "play"} className={way === "play" ? "flex min-h-0 flex-1 flex-col" : undefined}>
            <PlayView {...props} asked={asked} />
          </div>
          {seen && (
            <div hidden={way !== "all"} className={way === "all" ? "flex min-h-0 flex-1 flex-col" : undefined}>
              <TrialsView
                {...props}
                onPlay={(next) => {
                  setAsked(next);
                  setWay("play");
                }}
              />
            </div>
          )}
        </>
      )}
    </main>
  );
}
