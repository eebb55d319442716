"use client";

import { CalendarDays, ClipboardCheck, Columns3, Database, Play, ScanLine, Rows3 } from "lucide-react";
import Link from "next/link";

/** The places of a plan, by the last part of their address. */
export type PlaceId =
  | ""
  | "compare"
  | "data"
  | "calendar"
  | "print"
  | "reading"
  | "rescue"
  | "rehearse"
  | "carry"
  | "logbook"
  | "chance"
  | "growth";

const PLACES = [
  { id: "", name: "Plan", icon: Columns3 },
  { id: "compare", name: "Compare", icon: Rows3 },
  { id: "data", name: "Data", icon: Database },
  { id: "calendar", name: "Calendar", icon: CalendarDays },
  { id: "rehearse", name: "Rehearse", icon: Play },
  { id: "carry", name: "Carry out", icon: ClipboardCheck },
  { id: "reading", name: "Box now", icon: ScanLine },
] as const;

/** Pages that belong to a place of the rail. */
const PART_OF: ReadonlyMap<PlaceId, PlaceId> = new Map([["logbook", "carry"]]);

/** The slim rail with the places of a plan. */
export function Rail({ plan, place }: { plan: string; place: PlaceId }) {
  return (
    <nav
      aria-label="Places"
      className="flex shrink-0 border-line print:hidden max-md:border-b md:w-[4.6rem] md:flex-col md:border-r md:pt-2"
    >
      {PLACES.map(({ id, name, icon: Icon }) => (
        <Link
          key={id}
          href={id === "" ? `/plan/${plan}` : `/plan/${plan}/${id}`}
          prefetch={false}
          aria-current={id === place ? "page" : id === PART_OF.get(place) ? true : undefined}
          className="flex flex-1 flex-col items-center gap-0.5 border-transparent py-2 text-[0.8rem] text-soft hover:bg-wall hover:text-ink [&[aria-current]]:border-indigo [&[aria-current]]:font-semibold [&[aria-current]]:text-indigo max-md:border-b-2 md:flex-none md:border-l-3"
        >
          <Icon size={19} aria-hidden />
          {name}
        </Link>
      ))}
    </nav>
  );
}
