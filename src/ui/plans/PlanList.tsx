"use client";

import { liveQuery, type Subscription } from "dexie";
import { Ellipsis } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import type { Plan } from "@/core/document/plan";
import { samples, type Sample } from "@/core/document/samples/samples";
import { storageTotal } from "@/core/prediction/storageTotal";
import { predict } from "@/core/prediction/predict";
import { counted } from "@/core/words/counted";
import { keepPlan } from "@/store/keepPlan";
import { keepPractice } from "@/store/practiceBoxes";
import { withFreshCalendar } from "@/store/withFreshCalendar";
import { checks } from "@/store/checking";
import {
  deletePlan,
  forgetOldDeletions,
  listPlans,
  renamePlan,
  restorePlan,
  type ListedPlan,
} from "@/store/planRepository";
import { Button, IconButton } from "../kit/Button";
import { MenuButton } from "../kit/MenuButton";
import { NameField } from "../kit/NameField";
import { Size } from "../kit/Size";
import { plansFileName, writePlans } from "@/exchange/exportAll";
import { Unloaded } from "../kit/Unloaded";
import { LackingPools } from "../rescue/LackingPools";
import { openDatabase } from "../openDatabase";
import { today } from "../today";
import { usePlanFile } from "./usePlanFile";
import { part } from "../kit/part";
import { exportFile } from "../kit/exportFile";

const Notices = part(() => import("../kit/Notices").then((module) => module.Notices), { said: "over" });
const PlanMenuItems = part(() => import("./PlanMenuItems").then((module) => module.PlanMenuItems), {
  needed: "this menu",
  meanwhile: "whatever is around",
});

type Lists = { plans: ListedPlan[]; deleted: ListedPlan[] };

/** The list of plans. */
export function PlanList() {
  const router = useRouter();
  const [lists, setLists] = useState<Lists | null>(null);
  const [trouble, setTrouble] = useState<unknown>(null);
  const [attempt, setAttempt] = useState(0);
  const [gone, setGone] = useState<{ id: string; name: string } | null>(null);
  const file = usePlanFile();

  useEffect(() => {
    let watching: Subscription | null = null;
    let gone = false;
    const watch = async () => {
      await checks();
      await forgetOldDeletions(openDatabase());
      if (!gone) watching = liveQuery(() => listPlans(openDatabase())).subscribe({ next: setLists, error: setTrouble });
    };
    watch().catch(setTrouble);
    return () => {
      gone = true;
      watching?.unsubscribe();
    };
  }, [attempt]);

  const openSample = async ({ plan, isPractice }: Sample) => {
    const id = await keepPlan(openDatabase(), withFreshCalendar(plan), { example: true });
    if (isPractice) await keepPractice(openDatabase(), id, plan);
    // What can be done on a practice box stands where steps are carried out.
    router.push(isPractice ? `/plan/${id}/carry` : `/plan/${id}`);
  };
  const remove = async (plan: ListedPlan) => {
    await deletePlan(openDatabase(), plan.id);
    setGone({ id: plan.id, name: plan.name });
  };
  if (!lists && trouble) {
    return (
      <main className="mx-auto max-w-xl px-6 py-24">
        <h1 className="font-serif text-3xl">Your plans could not be listed</h1>
        <Unloaded
          what="the list"
          onAgain={() => {
            setTrouble(null);
            setAttempt(attempt + 1);
          }}
        />
      </main>
    );
  }
  if (!lists) {
    return (
      <main className="p-6 text-soft" role="status">
        Opening your plans …
      </main>
    );
  }
  const sound = lists.plans.flatMap(({ plan }) => plan ?? []);
  return (
    <main className="mx-auto max-w-4xl px-5 py-10">
      <header className="flex flex-wrap items-end gap-3">
        <div className="mr-auto">
          <p className="font-serif text-xl text-indigo">Cortijo</p>
          <h1 className="font-serif text-3xl">Your plans</h1>
        </div>
        <Button onClick={file.choose}>Import a plan…</Button>
        <Button disabled={sound.length === 0} onClick={() => exportAll(sound)}>
          Export all plans
        </Button>
        <Link
          href="/new"
          className="inline-flex h-9 items-center rounded bg-indigo px-3 text-on-indigo hover:bg-indigo-strong"
        >
          New plan
        </Link>
      </header>
      <p className="mt-2 text-soft">
        Plans are kept in this browser only. Export a plan to keep it elsewhere or to move it to another browser.
      </p>
      {lists.plans.length === 0 ? (
        <p className="mt-10 border-t border-line pt-6">
          You have no plans. Say what drives you have under “New plan”, or look at one of the samples below.
        </p>
      ) : (
        <ul className="mt-8 border-t border-line" aria-label="Plans">
          {lists.plans.map((plan) => (
            <PlanRow key={plan.id} plan={plan} onDelete={() => void remove(plan)} />
          ))}
        </ul>
      )}
      <Samples onOpen={(sample) => void openSample(sample)} />
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
          onClose={() => setGone((now) => (now === gone ? null : now))}
        />
      )}
    </main>
  );
}

function exportAll(plans: readonly Plan[]): void {
  exportFile(plansFileName(today()), "application/json", writePlans(plans));
}

/** What a plan is, in a line; or why it cannot be opened. */
function PlanFacts({ plan: { id, plan, damage, changedAt } }: { plan: ListedPlan }) {
  const changed = new Date(changedAt).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });
  if (!plan)
    return (
      <p className="text-[0.93rem] text-geranium">
        {damage?.kind === "newer"
          ? "Made by a newer Cortijo than this one, which cannot open it. Update Cortijo, or export it as it was kept."
          : "What was kept of this plan is damaged, so that it cannot be opened. Export it as it was kept, or " +
            "delete it."}
      </p>
    );
  const { pools } = predict(plan);
  return (
    <>
      <LackingPools pools={pools} planHref={`/plan/${id}`} />
      <p className="text-[0.93rem] text-soft">
        {counted(plan.box.bays, "bay")}, {counted(plan.drives.length, "drive")},{" "}
        <Size bytes={storageTotal(plan, pools)} /> usable. Changed {changed}
      </p>
    </>
  );
}

function PlanRow({ plan, onDelete }: { plan: ListedPlan; onDelete: () => void }) {
  return (
    <li className="flex items-center gap-3 border-b border-line py-3">
      <div className="min-w-0 flex-1">
        <div className="flex items-baseline gap-2">
          {plan.plan ? (
            <NameField
              label={`Name of ${plan.name}`}
              value={plan.name}
              onChange={(name) => void renamePlan(openDatabase(), plan.id, name)}
              className="-ml-1.5 w-full max-w-md text-lg font-semibold"
            />
          ) : (
            <span className="text-lg font-semibold">{plan.name}</span>
          )}
        </div>
        <PlanFacts plan={plan} />
      </div>
      {plan.plan && (
        <Link
          href={`/plan/${plan.id}`}
          aria-label={`Open ${plan.name}`}
          className="inline-flex h-9 items-center rounded border border-line-strong/60 bg-raised px-4 hover:border-ink"
        >
          Open
        </Link>
      )}
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

function Samples({ onOpen }: { onOpen: (sample: Sample) => void }) {
  return (
    <section className="mt-10" aria-labelledby="samples-heading">
      <h2 id="samples-heading" className="font-serif text-xl">
        Samples to look at
      </h2>
      <ul className="mt-3 grid gap-x-8 gap-y-4 sm:grid-cols-2 lg:grid-cols-3">
        {samples.map((sample) => (
          <li key={sample.id} className="border-t-2 border-parity pt-2" style={{ borderColor: "var(--parity)" }}>
            <p className="font-semibold">{sample.title}</p>
            <p className="min-h-11 text-[0.93rem] text-soft">{sample.about}</p>
            <Button small onClick={() => onOpen(sample)} aria-label={`Open a copy of the sample: ${sample.title}`}>
              Open a copy
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
