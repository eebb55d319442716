import { practiceBox } from "@/core/document/samples/practiceBox";
import { replay } from "@/core/simulator/practiceLog";
import { practiceFace } from "@/exchange/practiceBox/practiceFace";

/** What the practice box among the samples prints before anything has been done on it. */
export function sampleText(): string {
  const { blockDevices, arrays } = practiceFace(practiceBox, replay({ plan: practiceBox, seed: 1, acts: [] }, 0));
  return `${blockDevices}\n${arrays}`;
}
