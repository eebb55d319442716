/** What of a paste is the list of devices, and what is other text. */
export interface Split {
  /** The lists of devices, each a JSON text. */
  lists: string[];
  /** Whether the last of them ends before its end. */
  isCut: boolean;
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
 * Parts what was pasted or dropped: one text may hold both kinds, in any order, with prompts and commands between.
 *
 * @example splitPaste('$ lsblk\n{"blockdevices": []}\nmd0 : active …').lists // ['{"blockdevices": []}']
 */
export function splitPaste(text: string): Split {
  const lists: string[] = [];
  let rest = "";
  let at = 0;
  BEGINS.lastIndex = 0;
  for (let found = BEGINS.exec(text); found; found = BEGINS.exec(text)) {
    const end = endOfObject(text, found.index);
    rest += `${text.slice(at, found.index)}\n`;
    if (end < 0) return { lists: [...lists, text.slice(found.index)], isCut: true, rest };
    lists.push(text.slice(found.index, end));
    at = end;
    BEGINS.lastIndex = end;
  }
  return { lists, isCut: false, rest: rest + text.slice(at) };
}
