import type { Metadata } from "next";
import { CalendarPage } from "@/ui/calendar/CalendarPage";

export const metadata: Metadata = { title: "Calendar" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <CalendarPage id={id} />;
}
