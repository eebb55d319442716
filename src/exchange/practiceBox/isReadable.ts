import type { Plan } from "@/core/document/plan";
import { standingOf } from "@/core/reading/standing";
import { replay } from "@/core/simulator/practiceLog";
import { readBoxText } from "../boxText/readBoxText";
import { practiceFace } from "./practiceFace";

/**
 * Whether what a practice box prints, set up as a plan has its box, is read back as just that: arrays of the kernel's
 * driver are. Of pools without arrays the texts do not tell all, and what is made up of them is no reading.
 *
 * @param at when, as an instant
 * @example isReadable(plan, "2026-11-26T10:00Z") // false for drives with file systems of their own under one volume
 */
export function isReadable(plan: Plan, at: string): boolean {
  const now = { ...plan, steps: [] };
  try {
    const { blockDevices, arrays } = practiceFace(now, replay({ plan: now, seed: 1, acts: [] }, 0));
    const read = readBoxText(`${blockDevices}\n${arrays}`);
    if (!read.ok) return false;
    const { differences, recognised } = standingOf(read.printed, now, "TB", at);
    return differences.length === 0 && recognised.questions.length === 0;
  } catch (error) {
    // A group that holds nothing prints nothing.
    if (error instanceof RangeError) return false;
    throw error;
  }
}
