import type { Metadata } from "next";
import { RescuePage } from "@/ui/rescue/RescuePage";

export const metadata: Metadata = { title: "What to do now" };

export default function Page() {
  return <RescuePage />;
}
