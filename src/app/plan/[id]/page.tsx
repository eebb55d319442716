import type { Metadata } from "next";
import { WorkbenchPage } from "@/ui/workbench/WorkbenchPage";

export const metadata: Metadata = { title: "Plan" };

export default async function PlanPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <WorkbenchPage id={id} />;
}
