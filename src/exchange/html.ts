const SIGNS: ReadonlyMap<string, string> = new Map([
  ["&", "&amp;"],
  ["<", "&lt;"],
  [">", "&gt;"],
  ['"', "&quot;"],
  ["'", "&#39;"],
]);

/**
 * A text as HTML that shows just it, within an element or the quotes of an attribute.
 *
 * @example asHtml("<b>") // "&lt;b&gt;"
 */
export const asHtml = (text: string): string => text.replace(/[&<>"']/g, (sign) => SIGNS.get(sign) ?? "");

/** A value as JSON within a script element: nothing of it can end the element. */
export const asScriptJson = (value: unknown): string =>
  JSON.stringify(value).replace(
    /[<>&\u2028\u2029]/g,
    (sign) => `\\u${sign.charCodeAt(0).toString(16).padStart(4, "0")}`,
  );
