/** Where menus and pop-overs stand in the document: in the main landmark, so that their words are found there too. */
export function overlayHome(): HTMLElement | undefined {
  return typeof document === "undefined" ? undefined : (document.querySelector("main") ?? undefined);
}
