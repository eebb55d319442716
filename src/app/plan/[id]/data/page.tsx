import type { Metadata } from "next";
import { DataPage } from "@/ui/data/DataPage";

export const metadata: Metadata = { title: "Data" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <DataPage id={id} />;
}
