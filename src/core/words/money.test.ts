import { moneyWords } from "./money";

test.each([
  [1189.5, "EUR", "€1,190"],
  [19.9, "EUR", "€19.90"],
  [189, "EUR", "€189"],
  [19.9, "JPY", "¥20"],
  [189.5, undefined, "189.50"],
  [1189, undefined, "1,189"],
  [238, "CHF", "CHF 238"],
])("%d in %s is %s", (amount, currency, words) =>
  expect(moneyWords(amount, currency).replace("\u00a0", " ")).toBe(words),
);
