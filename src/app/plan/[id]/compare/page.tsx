import type { Metadata } from "next";
import { ComparePage } from "@/ui/compare/ComparePage";

export const metadata: Metadata = { title: "Compare" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <ComparePage id={id} />;
}
