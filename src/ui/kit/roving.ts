const STOPS = "button:not(:disabled), a[href]";

/** Which way a list goes: its rows are reached by the arrows along it, what is in a row by the others. */
export type Along = "down" | "across";

const ARROWS: Record<Along, { row: readonly [string, string]; within: readonly [string, string] }> = {
  down: { row: ["ArrowUp", "ArrowDown"], within: ["ArrowLeft", "ArrowRight"] },
  across: { row: ["ArrowLeft", "ArrowRight"], within: ["ArrowUp", "ArrowDown"] },
};

/** What can be pressed in a row, which can be that itself. */
const stopsIn = (row: Element): HTMLElement[] =>
  row instanceof HTMLElement && row.matches(STOPS) ? [row] : [...row.querySelectorAll<HTMLElement>(STOPS)];

/** The rows of a list that have something to be pressed. */
const rowsOf = (list: Element): Element[] => [...list.children].filter((row) => stopsIn(row).length > 0);

/** Where an arrow leads to from a stop; null where it leads nowhere. */
function target(list: Element, from: HTMLElement, key: string, along: Along): HTMLElement | null {
  const rows = rowsOf(list);
  const at = rows.findIndex((row) => row.contains(from));
  const row = rows[at];
  if (!row) return null;
  const stops = stopsIn(row);
  const inRow = stops.indexOf(from);
  const { row: rowKeys, within } = ARROWS[along];
  if (within.includes(key)) return stops[inRow + (key === within[0] ? -1 : 1)] ?? null;
  const next =
    key === "Home"
      ? rows[0]
      : key === "End"
        ? rows.at(-1)
        : rowKeys.includes(key)
          ? rows[at + (key === rowKeys[0] ? -1 : 1)]
          : undefined;
  if (!next) return null;
  // From a menu to the next menu, from a drive to the next drive.
  const there = stopsIn(next);
  return there[Math.min(inRow, there.length - 1)] ?? null;
}

/**
 * Makes a list one stop of the Tab key, within which arrows lead on. What is chosen, or was last on it, is the stop.
 *
 * @param list whose children are its rows
 * @returns ends it
 */
export function rove(list: HTMLElement, along: Along): () => void {
  let last: HTMLElement | null = null;
  let row = 0;
  const settle = () => {
    const rows = rowsOf(list);
    const kept = last && list.contains(last) ? last : null;
    const nearest = last ? rows[Math.min(row, rows.length - 1)] : undefined;
    const fallback = nearest ? stopsIn(nearest)[0] : undefined;
    const stop = kept ?? fallback ?? list.querySelector<HTMLElement>("[aria-current]") ?? stopsIn(list)[0] ?? null;
    for (const each of stopsIn(list)) each.tabIndex = each === stop ? 0 : -1;
  };
  const onFocus = ({ target: on }: FocusEvent) => {
    if (!(on instanceof HTMLElement) || !on.matches(STOPS)) return;
    last = on;
    row = rowsOf(list).findIndex((each) => each.contains(on));
    settle();
  };
  const onKey = (event: KeyboardEvent) => {
    const from = event.target;
    // While something is carried, arrows carry it.
    if (!(from instanceof HTMLElement) || event.defaultPrevented || document.querySelector("[data-carried]")) return;
    const to = target(list, from, event.key, along);
    if (!to) return;
    event.preventDefault();
    to.focus();
  };
  const observer = new MutationObserver(settle);
  observer.observe(list, { childList: true, subtree: true });
  list.addEventListener("focusin", onFocus);
  list.addEventListener("keydown", onKey);
  list.dataset.along = along;
  settle();
  return () => {
    observer.disconnect();
    list.removeEventListener("focusin", onFocus);
    list.removeEventListener("keydown", onKey);
  };
}
