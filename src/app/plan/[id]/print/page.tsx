import type { Metadata } from "next";
import { PrintPage } from "@/ui/report/PrintPage";

export const metadata: Metadata = { title: "Print" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <PrintPage id={id} />;
}
