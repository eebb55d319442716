"use client";

import { Printer } from "lucide-react";
import Link from "next/link";
import { useMemo } from "react";
import type { Plan } from "@/core/document/plan";
import { walkPlan } from "@/core/walk/walkPlan";
import { planReport } from "@/exchange/planReport/planReport";
import { useDates } from "../calendar/useDates";
import { Button } from "../kit/Button";
import { BoxLines } from "./BoxLines";
import { BuyingSection } from "./BuyingSection";
import { DataSection } from "./DataSection";
import { ErasedSection } from "./ErasedSection";
import { Section } from "./Section";
import { AllSteps, StepsSection } from "./StepsSection";
import { useChances } from "../chance/useChances";
import { useUnit } from "../preferences/preferences";
import { SmallTerraces } from "../compare/SmallTerraces";
import { today } from "../today";
import { Stairs } from "../workbench/time/Stairs";
import { stripGeometry } from "../workbench/time/stripGeometry";
import { poolsAt } from "@/core/walk/poolsAt";

/** In CSS pixels: as wide as fits between the margins of A4. */
const PICTURE = { width: 280, height: 150 };
const STRIP = { width: 590, height: 170 };

/**
 * The box before and after, the staircase, the steps with their dates, what is erased, what is to be bought, and what
 * all of it rests on.
 */
export function ReportPage({ plan, planHref }: { plan: Plan; planHref: string }) {
  const [unit] = useUnit();
  const walked = useMemo(() => walkPlan(plan, unit, undefined, today()), [plan, unit]);
  const dates = useDates(walked);
  const end = walked.moments.length - 1;
  const { told, isOld, trouble } = useChances(plan, end > 0 ? `0,${end}` : "0");
  const chances = isOld ? null : (told?.ranged ?? null);
  const report = useMemo(
    () => planReport(walked, dates.schedule, dates.demands, dates.start, chances),
    [walked, dates, chances],
  );
  const geometry = useMemo(() => stripGeometry(walked, STRIP, dates), [walked, dates]);
  const [first, last] = [walked.moments[0], walked.moments.at(-1)];
  if (!first || !last) return null;
  return (
    <main
      className="min-w-0 flex-1 overflow-y-auto px-4 py-4 md:px-6 print:overflow-visible print:p-0 print:text-[0.93rem]"
      tabIndex={-1}
    >
      <div className="mx-auto max-w-[46rem]">
        <div className="mb-4 flex flex-wrap items-center gap-3 print:hidden">
          <Link href={planHref} className="inline-block py-0.5 flex-1 text-indigo underline underline-offset-4">
            Back to the box
          </Link>
          <Button look="main" onClick={() => window.print()}>
            <Printer size={16} aria-hidden /> Print, or keep as PDF
          </Button>
        </div>
        <h1 className="font-serif text-3xl">{report.name}</h1>
        <p className="text-soft">{report.box}</p>
        <p className="mt-3 font-serif text-lg leading-snug">{report.summary.join(" ")}</p>
        <Section title="The box before and after">
          <div className="grid grid-cols-2 gap-4 max-sm:grid-cols-1">
            {(
              [
                ["Before", report.before, first],
                ["After", report.after, last],
              ] as const
            ).map(([when, box, moment]) => (
              <figure key={when} className="break-inside-avoid">
                <figcaption className="text-soft">
                  {when}: {box.usable} usable
                </figcaption>
                <SmallTerraces plan={moment.state.plan} pools={poolsAt(moment, unit)} {...PICTURE} />
                <BoxLines box={box} />
              </figure>
            ))}
          </div>
        </Section>
        {plan.steps.length > 0 && (
          <Section title="The staircase">
            <div className="relative overflow-hidden" style={{ height: STRIP.height }}>
              <Stairs geometry={geometry} walk={walked} />
            </div>
          </Section>
        )}
        <StepsSection report={report} />
        <ErasedSection report={report} />
        <BuyingSection report={report} />
        <DataSection report={report} />
        <Section title="Chance of loss">
          {report.chances.length === 0 && <p className="text-soft">{trouble ?? "Working out the chances …"}</p>}
          <ul className="list-disc pl-5">
            {report.chances.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </Section>
        <Section title="What this rests on">
          <ul className="list-disc pl-5">
            {report.assumptions.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </Section>
        <AllSteps report={report} />
      </div>
    </main>
  );
}
