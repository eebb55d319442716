"use client";

import { Printer } from "lucide-react";
import Link from "next/link";
import { useMemo, type ReactNode } from "react";
import { THREATS } from "@/core/data/coverage";
import { THREAT_NAMES } from "@/core/data/coverageWords";
import type { Plan } from "@/core/document/plan";
import { walkPlan } from "@/core/walk/walkPlan";
import { planReport, type BoxReport } from "@/exchange/planReport/planReport";
import { useDates } from "../calendar/useDates";
import { Button } from "../kit/Button";
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
export function PlanDocument({ plan, planHref }: { plan: Plan; planHref: string }) {
  const [unit] = useUnit();
  const walked = useMemo(() => walkPlan(plan, unit, undefined, today()), [plan, unit]);
  const dates = useDates(walked);
  const report = useMemo(() => planReport(walked, dates.schedule, dates.demands, dates.start), [walked, dates]);
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
          <Link href={planHref} className="flex-1 text-indigo underline underline-offset-4">
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
        <Section title="Steps">
          {report.steps.length === 0 && <p>No step is planned.</p>}
          <ol className="space-y-2.5">
            {report.steps.map((step) => (
              <li key={step.number} className="grid break-inside-avoid grid-cols-[1.6rem_minmax(0,1fr)] gap-x-1">
                <span className="text-right">
                  <span aria-hidden="true" className="mr-1 inline-block size-3 border border-ink" />
                </span>
                <div>
                  <p>
                    {step.number}. <strong className="font-semibold">{step.when}</strong> {step.does}
                  </p>
                  <p className="text-[0.93rem] text-soft">
                    {step.state === "done"
                      ? `${step.takes}. Afterwards ${step.after}.`
                      : step.state === "passed-over"
                        ? "Passed over."
                        : "Cannot be carried out as planned."}
                  </p>
                  {step.notes.map((note) => (
                    <p
                      key={note.text}
                      className={`text-[0.93rem] ${note.severity === "block" ? "text-geranium" : "text-ochre-text"}`}
                    >
                      {note.text}
                    </p>
                  ))}
                </div>
              </li>
            ))}
          </ol>
        </Section>
        <Section title="What is erased">
          {report.erased.length === 0 ? (
            <p>Nothing that you have.</p>
          ) : (
            <ul className="text-geranium">
              {report.erased.map((name) => (
                <li key={name}>{name}</li>
              ))}
            </ul>
          )}
        </Section>
        <Section title="To buy">
          {report.shopping.length === 0 ? (
            <p>Nothing.</p>
          ) : (
            <table className="w-full">
              <thead>
                <tr className="border-b border-line-strong text-left text-soft">
                  <th scope="col" className="font-normal">
                    What
                  </th>
                  <th scope="col" className="font-normal">
                    Order
                  </th>
                  <th scope="col" className="text-right font-normal">
                    Price
                  </th>
                </tr>
              </thead>
              <tbody>
                {report.shopping.map((each, i) => (
                  <tr key={i} className="border-b border-line">
                    <td>{each.what}</td>
                    <td>{each.order}</td>
                    <td className="text-right">{each.price}</td>
                  </tr>
                ))}
                <tr>
                  <td colSpan={2}>In all</td>
                  <td className="text-right font-semibold">{report.total}</td>
                </tr>
              </tbody>
            </table>
          )}
          {report.freed.length > 0 && (
            <p className="mt-2">
              Drives that become free:{" "}
              {new Intl.ListFormat("en").format(
                report.freed.map((name, i) => (i === 0 ? name : name.replace(/^T/, "t"))),
              )}
              .
            </p>
          )}
        </Section>
        {report.data.length > 0 && (
          <Section title="Data, and what may happen to it">
            <table className="w-full text-[0.9rem]">
              <thead>
                <tr className="border-b border-line-strong text-left text-soft">
                  <th scope="col" className="font-normal">
                    Data
                  </th>
                  {THREATS.map((threat) => (
                    <th key={threat} scope="col" className="pl-2 font-normal">
                      {THREAT_NAMES[threat]}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {report.data.map((set) => (
                  <tr key={set.name} className="break-inside-avoid border-b border-line align-top">
                    <td className="py-1">
                      <strong className="font-semibold">{set.name}</strong>
                      <br />
                      {set.size}, {set.growth}; {set.worth}
                    </td>
                    {THREATS.map((threat) => {
                      const { before, after } = set.outcomes[threat];
                      return (
                        <td key={threat} className="py-1 pl-2">
                          {before}
                          {after !== before && <span className="block text-soft">after the plan: {after}</span>}
                        </td>
                      );
                    })}
                  </tr>
                ))}
              </tbody>
            </table>
            <ul className="mt-2">
              {[...report.backups, ...report.full].map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
          </Section>
        )}
        <Section title="What this rests on">
          <ul className="list-disc pl-5">
            {report.assumptions.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </Section>
      </div>
    </main>
  );
}

function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mt-6">
      <h2 className="mb-1.5 break-after-avoid border-b border-line font-serif text-xl">{title}</h2>
      {children}
    </section>
  );
}

function BoxLines({ box }: { box: BoxReport }) {
  return (
    <>
      {box.pools.map((pool) => (
        <p key={pool.name} className="mt-1 text-[0.93rem]">
          <strong className="font-semibold">{pool.name}</strong> {pool.layouts}: {pool.drives}; {pool.mayFail}.
          {pool.volumes.length > 0 ? ` ${pool.volumes.join("; ")}.` : ""}
        </p>
      ))}
    </>
  );
}
