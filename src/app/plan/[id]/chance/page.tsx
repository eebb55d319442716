import type { Metadata } from "next";
import { ChancePage } from "@/ui/chance/ChancePage";

export const metadata: Metadata = { title: "Chance of loss" };

export default function Page() {
  return <ChancePage />;
}
