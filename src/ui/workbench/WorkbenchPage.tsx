"use client";

import dynamic from "next/dynamic";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { duplicatePlan } from "@/store/planRepository";
import { downloadPlan } from "@/exchange/exportPlan";
import { openDatabase } from "../openDatabase";
import { usePlanFile } from "../plans/usePlanFile";
import { usePlanSession } from "./usePlanSession";
import { Workbench } from "./Workbench";

const Notices = dynamic(() => import("../kit/Notices").then((module) => module.Notices));

/** Opens a plan and shows the workbench, or why it cannot. */
export function WorkbenchPage({ id }: { id: string }) {
  const [session, state] = usePlanSession(id);
  const file = usePlanFile();
  const router = useRouter();
  if (state.status === "loading") {
    return (
      <main className="p-6 text-soft" role="status">
        Opening the plan …
      </main>
    );
  }
  if (state.status === "missing") {
    return (
      <main className="mx-auto max-w-xl px-6 py-24">
        <h1 className="font-serif text-3xl">This plan is not in this browser</h1>
        <p className="mt-4 text-soft">It was deleted, or it was made in another browser. Plans stay where they were made; export one there and import the file here.</p>
        <Link href="/" className="mt-6 inline-block text-indigo underline underline-offset-4">
          Go to your plans
        </Link>
      </main>
    );
  }
  const duplicate = async () => {
    const copy = await duplicatePlan(openDatabase(), id);
    if (copy) router.push(`/plan/${copy}`);
  };
  const { notice } = state;
  return (
    <>
      <Workbench session={session} state={state} onExport={() => downloadPlan(state.history.plan)} onImport={file.choose} onDuplicate={() => void duplicate()} />
      {file.element}
      {notice && <Notices notice={notice} act={notice.offersUndo ? { label: "Undo", onAct: () => session.undo() } : null} onClose={() => session.dismiss()} />}
    </>
  );
}
