import type { Metadata } from "next";
import { DataPage } from "@/ui/data/DataPage";

export const metadata: Metadata = { title: "Data" };

export default function Page() {
  return <DataPage />;
}
