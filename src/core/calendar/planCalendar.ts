import type { HandsWindow } from "../document/plan";

/** When hands are at the box, ready-made. */
export const HANDS = {
  "any-day": { name: "any day, 8:00 to 22:00", windows: [{ days: [1, 2, 3, 4, 5, 6, 7], from: "08:00", to: "22:00" }] },
  evenings: {
    name: "evenings, 18:00 to 22:00",
    windows: [{ days: [1, 2, 3, 4, 5, 6, 7], from: "18:00", to: "22:00" }],
  },
  "week-ends": { name: "weekends, 9:00 to 20:00", windows: [{ days: [6, 7], from: "09:00", to: "20:00" }] },
  "evenings-and-week-ends": {
    name: "evenings and weekends",
    windows: [
      { days: [1, 2, 3, 4, 5], from: "18:00", to: "22:00" },
      { days: [6, 7], from: "09:00", to: "20:00" },
    ],
  },
  "working-hours": {
    name: "working hours, 9:00 to 17:00",
    windows: [{ days: [1, 2, 3, 4, 5], from: "09:00", to: "17:00" }],
  },
} satisfies Record<string, { name: string; windows: HandsWindow[] }>;

export type HandsId = keyof typeof HANDS;

/** At the screen: every day while one is awake. */
export const AWAKE: readonly HandsWindow[] = [{ days: [1, 2, 3, 4, 5, 6, 7], from: "07:00", to: "23:00" }];

/** The ready-made hours that a calendar has, or null for hours of the owner's own. */
export function handsIdOf(windows: readonly HandsWindow[]): HandsId | null {
  const text = JSON.stringify(windows);
  return (Object.keys(HANDS) as HandsId[]).find((id) => JSON.stringify(HANDS[id].windows) === text) ?? null;
}
