/**
 * Reads the text of a request's body and gives up as soon as it is longer than allowed, whatever its headers say.
 *
 * @param most in bytes
 * @returns the text, or null for a body that is too long
 */
export async function readBody(request: Request, most: number): Promise<string | null> {
  if (Number(request.headers.get("content-length") ?? 0) > most) return null;
  if (!request.body) return "";
  const decoder = new TextDecoder();
  const reader = request.body.getReader();
  let text = "";
  let length = 0;
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    length += part.value.byteLength;
    if (length > most) {
      await reader.cancel();
      return null;
    }
    text += decoder.decode(part.value, { stream: true });
  }
  return text + decoder.decode();
}
