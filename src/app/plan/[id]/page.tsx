import type { Metadata } from "next";
import { WorkbenchPage } from "@/ui/workbench/WorkbenchPage";

export const metadata: Metadata = { title: "Plan" };

export default function PlanPage() {
  return <WorkbenchPage />;
}
