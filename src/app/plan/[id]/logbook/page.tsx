import type { Metadata } from "next";
import { LogbookPage } from "@/ui/carry/LogbookPage";

export const metadata: Metadata = { title: "Logbook" };

export default function Page() {
  return <LogbookPage />;
}
