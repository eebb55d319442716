/** An unguessable id: sixteen random bytes as text. Browsers give them on any page, a UUID only on secure ones. */
export function newId(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, "0")).join("");
}
