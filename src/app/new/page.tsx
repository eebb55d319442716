import type { Metadata } from "next";
import { QuickStartPage } from "@/ui/quickStart/QuickStartPage";

export const metadata: Metadata = { title: "Plan your own box" };

export default function Page() {
  return <QuickStartPage />;
}
