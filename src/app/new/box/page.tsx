import type { Metadata } from "next";
import { NewFromBoxPage } from "@/ui/reading/NewFromBoxPage";

export const metadata: Metadata = { title: "Read your box" };

export default function Page() {
  return <NewFromBoxPage />;
}
