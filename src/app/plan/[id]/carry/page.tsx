import type { Metadata } from "next";
import { CarryPage } from "@/ui/carry/CarryPage";

export const metadata: Metadata = { title: "Carry out" };

export default function Page() {
  return <CarryPage />;
}
