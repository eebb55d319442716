import { saveFile } from "@/exchange/saveFile";
import { say } from "./say";

/**
 * Hands a text to the browser as a file to keep, and says so: what the browser shows of it is not heard.
 *
 * @param name with its ending
 * @param type the media type
 */
export function exportFile(name: string, type: string, text: string): void {
  saveFile(name, type, text);
  say(`Saved as a file: ${name}.`);
}
