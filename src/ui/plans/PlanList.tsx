"use client";

import { liveQuery } from "dexie";
import { Ellipsis } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import dynamic from "next/dynamic";
import { lazy, useEffect, useState } from "react";
import { emptyPlan } from "@/core/document/emptyPlan";
import type { Plan } from "@/core/document/plan";
import { samples } from "@/core/document/samples/samples";
import { storageTotal } from "@/core/prediction/storageTotal";
import { predict } from "@/core/prediction/predict";
import { counted } from "@/core/words/counted";
import type { KeptPlan } from "@/store/database";
import { keepPlan } from "@/store/keepPlan";
import { withFreshCalendar } from "@/store/withFreshCalendar";
import { deletePlan, forgetOldDeletions, listPlans, renamePlan, restorePlan } from "@/store/planRepository";
import { Button, IconButton } from "../kit/Button";
import { MenuButton } from "../kit/MenuButton";
import { NameField } from "../kit/NameField";
import { Size } from "../kit/Size";
import { openDatabase } from "../openDatabase";
import { usePlanFile } from "./usePlanFile";

const Notices = dynamic(() => import("../kit/Notices").then((module) => module.Notices));
const PlanMenuItems = lazy(() => import("./PlanMenuItems").then((module) => ({ default: module.PlanMenuItems })));

type Lists = { plans: KeptPlan[]; deleted: KeptPlan[] };

/** The list of plans. */
export function PlanList() {
  const router = useRouter();
  const [lists, setLists] = useState<Lists | null>(null);
  const [gone, setGone] = useState<{ id: string; name: string } | null>(null);
  const file = usePlanFile();

  useEffect(() => {
    void forgetOldDeletions(openDatabase());
    const watching = liveQuery(() => listPlans(openDatabase())).subscribe({ next: setLists });
    return () => watching.unsubscribe();
  }, []);

  const open = async (plan: Plan) => router.push(`/plan/${await keepPlan(openDatabase(), withFreshCalendar(plan))}`);
  const remove = async (plan: KeptPlan) => {
    await deletePlan(openDatabase(), plan.id);
    setGone({ id: plan.id, name: plan.name });
  };
  if (!lists) {
    return (
      <main className="p-6 text-soft" role="status">
        Opening your plans …
      </main>
    );
  }
  return (
    <main className="mx-auto max-w-4xl px-5 py-10">
      <header className="flex flex-wrap items-end gap-3">
        <div className="mr-auto">
          <p className="font-serif text-xl text-indigo">Cortijo</p>
          <h1 className="font-serif text-3xl">Your plans</h1>
        </div>
        <Button onClick={file.choose}>Import a plan…</Button>
        <Button look="main" onClick={() => void open(emptyPlan("New plan"))}>
          New plan
        </Button>
      </header>
      <p className="mt-2 text-soft">
        Plans are kept in this browser only. Export a plan to keep it elsewhere or to move it to another browser.
      </p>
      {lists.plans.length === 0 ? (
        <p className="mt-10 border-t border-line pt-6">
          You have no plans. Begin with an empty box, or look at one of the samples below.
        </p>
      ) : (
        <ul className="mt-8 border-t border-line" aria-label="Plans">
          {lists.plans.map((plan) => (
            <PlanRow key={plan.id} plan={plan} onDelete={() => void remove(plan)} />
          ))}
        </ul>
      )}
      <Samples onOpen={(plan) => void open(plan)} />
      {lists.deleted.length > 0 && (
        <details className="mt-10">
          <summary className="cursor-pointer text-soft">Deleted in the last 30 days ({lists.deleted.length})</summary>
          <ul className="mt-2" aria-label="Deleted plans">
            {lists.deleted.map((plan) => (
              <li key={plan.id} className="flex items-center gap-3 border-t border-line py-2">
                <span className="flex-1 truncate">{plan.name}</span>
                <Button small onClick={() => void restorePlan(openDatabase(), plan.id)}>
                  Bring back
                </Button>
              </li>
            ))}
          </ul>
        </details>
      )}
      {file.element}
      {gone && (
        <Notices
          notice={{ id: gone.id, kind: "info", text: `Deleted “${gone.name}”.` }}
          act={{ label: "Undo", onAct: () => void restorePlan(openDatabase(), gone.id).then(() => setGone(null)) }}
          onClose={() => setGone(null)}
        />
      )}
    </main>
  );
}

function PlanRow({ plan, onDelete }: { plan: KeptPlan; onDelete: () => void }) {
  const { document } = plan;
  const usable = storageTotal(document, predict(document).pools);
  const changed = new Date(plan.changedAt).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });
  return (
    <li className="flex items-center gap-3 border-b border-line py-3">
      <div className="min-w-0 flex-1">
        <div className="flex items-baseline gap-2">
          <NameField
            label={`Name of ${plan.name}`}
            value={plan.name}
            onChange={(name) => void renamePlan(openDatabase(), plan.id, name)}
            className="-ml-1.5 w-full max-w-md text-lg font-semibold"
          />
        </div>
        <p className="text-[0.93rem] text-soft">
          {counted(document.box.bays, "bay")}, {counted(document.drives.length, "drive")}, <Size bytes={usable} />{" "}
          usable. Changed {changed}
        </p>
      </div>
      <Link
        href={`/plan/${plan.id}`}
        aria-label={`Open ${plan.name}`}
        className="inline-flex h-9 items-center rounded border border-line-strong/60 bg-raised px-4 hover:border-ink"
      >
        Open
      </Link>
      <MenuButton
        align="end"
        trigger={
          <IconButton label={`More about ${plan.name}`}>
            <Ellipsis size={18} aria-hidden />
          </IconButton>
        }
      >
        <PlanMenuItems plan={plan} onDelete={onDelete} />
      </MenuButton>
    </li>
  );
}

function Samples({ onOpen }: { onOpen: (plan: Plan) => void }) {
  return (
    <section className="mt-10" aria-labelledby="samples-heading">
      <h2 id="samples-heading" className="font-serif text-xl">
        Samples to look at
      </h2>
      <ul className="mt-3 grid gap-x-8 gap-y-4 sm:grid-cols-2 lg:grid-cols-4">
        {samples.map((sample) => (
          <li key={sample.id} className="border-t-2 border-parity pt-2" style={{ borderColor: "var(--parity)" }}>
            <p className="font-semibold">{sample.title}</p>
            <p className="min-h-11 text-[0.93rem] text-soft">{sample.about}</p>
            <Button small onClick={() => onOpen(sample.plan)} aria-label={`Open the sample: ${sample.title}`}>
              Open a copy
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
