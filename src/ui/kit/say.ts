/** How long what is said waits for more of the same act, in milliseconds: it is then heard as one. */
const TOGETHER_MS = 150;

/**
 * Whose words they are: those of what was pressed go before those by which the plan's history tells an act, and these
 * before what goes with an act, such as that nothing is selected any more.
 */
type Weight = 0 | 1 | 2;

let waiting: { text: string; weight: Weight }[] = [];
let timer: ReturnType<typeof setTimeout> | undefined;

/** The place from which screen readers read aloud: by itself on the page, so that it outlasts what was pressed. */
function voice(): HTMLElement {
  const found = document.getElementById("said");
  if (found) return found;
  const made = document.createElement("p");
  made.id = "said";
  made.className = "sr-only";
  made.setAttribute("role", "status");
  // A dialog hides all else from screen readers, but not what is marked so.
  made.setAttribute("aria-live", "polite");
  document.body.append(made);
  return made;
}

function speak(): void {
  const heaviest = Math.max(...waiting.map(({ weight }) => weight));
  const said = waiting.flatMap((each) => (each.weight === heaviest ? [each.text] : []));
  // Of what goes with acts, only how it is at last.
  const text = heaviest === 0 ? (said.at(-1) ?? "") : said.join(" ");
  waiting = [];
  const place = voice();
  // The same words once more are heard only where they come anew.
  place.textContent = "";
  setTimeout(() => (place.textContent = text), 20);
}

/**
 * Says what an act has done, in its own words, to who does not see it.
 *
 * @param text whole sentences
 * @param weight of what the same act says in several places, only the heaviest is heard
 * @example say("2 drives selected, 8.00 TB.")
 */
export function say(text: string, weight: Weight = 2): void {
  if (waiting.some((each) => each.text === text)) return;
  waiting.push({ text, weight });
  clearTimeout(timer);
  timer = setTimeout(speak, TOGETHER_MS);
}
