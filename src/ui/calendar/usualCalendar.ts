import { HANDS } from "@/core/calendar/planCalendar";
import { newId } from "@/store/newId";
import { today } from "../today";
import type { PlanCalendar } from "@/core/document/plan";

/** A calendar that begins today, where the reader is: hands at the box any day, deliveries in three days. */
export function usualCalendar(): PlanCalendar {
  return {
    id: newId(),
    start: today(),
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC",
    deliveryDays: 3,
    hands: HANDS["any-day"].windows,
    excluded: [],
  };
}
