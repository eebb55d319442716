import type { Metadata } from "next";
import { OpenLinkPage } from "@/ui/plans/OpenLinkPage";

export const metadata: Metadata = { title: "A plan in a link" };

export default function Page() {
  return <OpenLinkPage />;
}
