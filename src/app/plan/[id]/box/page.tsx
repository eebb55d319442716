import type { Metadata } from "next";
import { BoxRulesPage } from "@/ui/box/BoxRulesPage";

export const metadata: Metadata = { title: "What can your box do?" };

export default function BoxPage() {
  return <BoxRulesPage />;
}
