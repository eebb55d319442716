import type { Metadata } from "next";
import { ReadingPage } from "@/ui/reading/ReadingPage";

export const metadata: Metadata = { title: "How is the box now?" };

export default function Page() {
  return <ReadingPage />;
}
