import type { Dice } from "../../src/core/testing/likelyPlan";

/** What breaks readers: names that objects know, numbers at their ends, characters that mean something. */
const TOKENS = [
  ...[
    "__proto__",
    "constructor",
    "toString",
    "null",
    "true",
    "{}",
    "[]",
    '""',
    "{",
    "}",
    "[",
    "]",
    ",",
    ":",
    '"',
    "\\",
    "\n",
  ],
  ...[
    "-1",
    "0",
    "1e308",
    "1e-308",
    "-0",
    "9007199254740993",
    "NaN",
    "Infinity",
    "0.1",
    "1".repeat(400),
    "\u0000",
    "\uFEFF",
  ],
  ...[
    "\\u0000",
    "\ud800",
    "＝",
    "🙂",
    "<script>",
    "../../",
    ";",
    "\t",
    "'=",
    "2100-12-31",
    "9999-99-99",
    "=".repeat(300),
  ],
];

function spoiltOnce(text: string, other: string, dice: Dice): string {
  const at = dice.below(text.length + 1);
  const length = dice.one([1, 1, 3, 20, 200]);
  const numbers = [...text.matchAll(/-?\d+(\.\d+)?/g)];
  switch (dice.below(6)) {
    case 0:
      return text.slice(0, at) + dice.one(TOKENS) + text.slice(at);
    case 1:
      return text.slice(0, at) + text.slice(at + length);
    case 2:
      return text.slice(0, at) + text.slice(at, at + length).repeat(2) + text.slice(at + length);
    case 3:
      return text.slice(0, at) + other.slice(dice.below(other.length + 1)).slice(0, 300) + text.slice(at);
    case 4:
      return text.slice(0, at) + String.fromCharCode(dice.below(0x250)) + text.slice(at + 1);
    default: {
      if (numbers.length === 0) return text;
      const number = dice.one(numbers);
      return text.slice(0, number.index) + dice.one(TOKENS) + text.slice(number.index + number[0].length);
    }
  }
}

/**
 * A text spoilt in one to four places: something put in, cut out, doubled, overwritten, taken from another text, or a
 * number replaced.
 */
export function spoilt(texts: readonly string[], dice: Dice): string {
  let text = dice.one(texts);
  for (let times = 1 + dice.below(4); times > 0; times -= 1) text = spoiltOnce(text, dice.one(texts), dice);
  return text;
}
