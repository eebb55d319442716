/** What of a paste is the list of devices, and what is other text. */
export interface Split {
  /** The lists of devices, each a JSON text. */
  lists: string[];
  /** Everything else: the kernel's text of arrays, prompts and commands. */
  rest: string;
}

const BEGINS = /\{\s*"blockdevices"\s*:/g;

/** Where the object that begins at `from` ends, in characters; -1 where the text ends before it. */
function endOfObject(text: string, from: number): number {
  let depth = 0;
  let inString = false;
  for (let i = from; i < text.length; i += 1) {
    const sign = text.charCodeAt(i);
    if (inString) {
      if (sign === 92) i += 1;
      else if (sign === 34) inString = false;
    } else if (sign === 34) inString = true;
    else if (sign === 123) depth += 1;
    else if (sign === 125) {
      depth -= 1;
      if (depth === 0) return i + 1;
    }
  }
  return -1;
}

/**
 * Where a list ends that begins at `from`, in a text in which the next one begins at `before`; -1 for one that is cut
 * off. It is not gone through where its own end is the last thing in braces.
 */
function endOfList(text: string, from: number, before: number): number {
  const last = text.lastIndexOf("}", before - 1);
  if (last > from && /\]\s{0,100}$/.test(text.slice(Math.max(from, last - 101), last))) return last + 1;
  return endOfObject(text, from);
}

/** Whether a text that should be a list ends before its end. */
export const isCutOff = (list: string): boolean => endOfObject(list, 0) < 0;

/**
 * Parts what was pasted or dropped: one text may hold both kinds, in any order, with prompts and commands between.
 *
 * @example splitPaste('$ lsblk\n{"blockdevices": []}\nmd0 : active …').lists // ['{"blockdevices": []}']
 */
export function splitPaste(text: string): Split {
  const begins = [...text.matchAll(BEGINS)].map(({ index }) => index);
  const lists: string[] = [];
  let rest = "";
  let at = 0;
  for (const [i, from] of begins.entries()) {
    // One that stands within another is no list of its own.
    if (from < at) continue;
    const end = endOfList(text, from, begins[i + 1] ?? text.length);
    rest += `${text.slice(at, from)}\n`;
    at = end < 0 ? text.length : end;
    lists.push(text.slice(from, at));
  }
  return { lists, rest: rest + text.slice(at) };
}
