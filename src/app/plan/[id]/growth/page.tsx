import type { Metadata } from "next";
import { GrowthPage } from "@/ui/growth/GrowthPage";

export const metadata: Metadata = { title: "The best way to grow" };

export default function Page() {
  return <GrowthPage />;
}
