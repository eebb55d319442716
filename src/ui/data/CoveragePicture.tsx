"use client";

import type { Coverage, Outcome } from "@/core/data/coverage";
import { THREATS } from "@/core/data/coverage";
import { outcomeWords, THREAT_NAMES } from "@/core/data/coverageWords";
import type { Plan } from "@/core/document/plan";

interface Props {
  before: Coverage;
  after: Coverage;
  plan: Plan;
  /** The box at the end of the plan. */
  end: Plan;
  planned: boolean;
  /** Whether its loss would matter: what can be had again is not alarming. */
  matters: boolean;
}

/**
 * One data set, and what becomes of it: a small picture for each mishap, before the plan and after it, with its words.
 */
export function CoveragePicture({ before, after, plan, end, planned, matters }: Props) {
  const tone = ({ kind }: Outcome) =>
    kind === "lost" || kind === "partly" || kind === "failed-drives" ? (matters ? "text-geranium" : "text-soft") : "";
  return (
    <dl className="mt-1.5 grid grid-cols-1 gap-x-4 gap-y-2 sm:grid-cols-2">
      {THREATS.map((threat) => {
        const [was, is] = [before.outcomes[threat], after.outcomes[threat]];
        const words = outcomeWords(was, plan);
        const then = outcomeWords(is, end);
        const changes = planned && words !== then;
        return (
          <div key={threat} className={`relative text-[0.93rem] leading-snug ${changes ? "pl-21" : "pl-10"}`}>
            <dt className="text-soft">
              <span className="absolute top-0.5 left-0 flex items-start gap-1">
                <OutcomeMark outcome={was} matters={matters} />
                {changes && (
                  <>
                    <svg width={10} height={22} aria-hidden="true">
                      <path d="M1 11h7M5.5 8l3 3-3 3" fill="none" stroke="var(--soft)" />
                    </svg>
                    <OutcomeMark outcome={is} matters={matters} />
                  </>
                )}
              </span>
              {THREAT_NAMES[threat]}
            </dt>
            <dd className={tone(was)}>
              {words.charAt(0).toUpperCase() + words.slice(1)}.
              {changes && <span className={tone(is) || "text-ink"}> After the plan: {then}.</span>}
            </dd>
          </div>
        );
      })}
    </dl>
  );
}

/** What is left of a block here; half of it where it is not said how much. */
function keptShare(outcome: Outcome): number {
  if (outcome.kind === "partly") return 1 - outcome.share;
  return outcome.kind === "failed-drives" || outcome.kind === "since-update" ? 0.5 : 0;
}

const CROSSED: ReadonlySet<Outcome["kind"]> = new Set(["lost", "partly", "failed-drives"]);

/**
 * A block of data: whole; lost here and drawn again from a copy beside it; crossed out. Told apart by shape as well as
 * by colour.
 */
function OutcomeMark({ outcome, matters }: { outcome: Outcome; matters: boolean }) {
  const { kind } = outcome;
  const left = keptShare(outcome);
  return (
    <svg width={30} height={22} aria-hidden="true">
      {kind === "kept" && <rect x={1} y={2} width={18} height={18} fill="var(--data)" />}
      {kind !== "kept" && (
        <>
          <rect x={1.5} y={2.5} width={17} height={17} fill="none" stroke="var(--idle-edge)" strokeDasharray="2 2" />
          {left > 0 && <rect x={1} y={2} width={18 * left} height={18} fill="var(--data)" />}
          {CROSSED.has(kind) && (
            <path d="M3 4 17 18M17 4 3 18" stroke={matters ? "var(--geranium)" : "var(--soft)"} strokeWidth={2} />
          )}
        </>
      )}
      {(kind === "from-backup" || kind === "until-next-copy") && (
        <>
          <rect
            x={21.5}
            y={7.5}
            width={8}
            height={12}
            fill="var(--copies-ground)"
            stroke="var(--data)"
            strokeDasharray={kind === "until-next-copy" ? "2 2" : undefined}
          />
          <path d="M21 13 12 11m3-2.2L12 11l2.2 2.8" fill="none" stroke="var(--data)" strokeWidth={1.5} />
        </>
      )}
    </svg>
  );
}
