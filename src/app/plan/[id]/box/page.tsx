import type { Metadata } from "next";
import { BoxRulesPage } from "@/ui/box/BoxRulesPage";

export const metadata: Metadata = { title: "What can your box do?" };

export default async function BoxPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <BoxRulesPage id={id} />;
}
