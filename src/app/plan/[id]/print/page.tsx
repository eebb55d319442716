import type { Metadata } from "next";
import { PrintPage } from "@/ui/report/PrintPage";

export const metadata: Metadata = { title: "Print" };

export default function Page() {
  return <PrintPage />;
}
