import { HANDS, type PlanCalendar } from "@/core/calendar/planCalendar";
import { today } from "../today";

/** Sixteen random bytes as text; browsers give them on any page, a UUID only on secure ones. */
const newId = () => Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, "0")).join("");

/** A calendar that begins today, where the reader is: hands at the box any day, deliveries in three days. */
export function usualCalendar(): PlanCalendar {
  return { id: newId(), start: today(), timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC", deliveryDays: 3, hands: HANDS["any-day"].windows, excluded: [] };
}
