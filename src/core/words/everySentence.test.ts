import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import ts from "typescript";

/** What owners misread, or read as two things, and what is said instead. */
const BANNED: readonly (readonly [RegExp, string])[] = [
  [/\bmay (then |also )?fail\b|\bnone may\b/i, "survives the loss of"],
  [/\bclaim/i, "use the new space"],
  [/\banew\b/i, "again; restore from a backup"],
  [/\bhead-?room\b/i, "kept free"],
  [/\b(lies?|lying|goes) idle\b|\bidle\b/i, "unused"],
  [/\bpass(ed)? (it )?over\b/i, "skipped"],
  [/\bright-?siz/i, "replacement margin"],
  [/\bspanned\b/i, "mirror onto one large drive"],
  [/\bsync(s|ed|ing)?\b/i, "update the parity"],
  [/\bhybrid [12]\b/i, "hybrid, one drive safe"],
  [/\bheed/i, "warning"],
  [/\bmust not:|\bcareful:/i, "blocked, warning"],
  [/\bmend(s|ed|ing)?\b/i, "fix, repair"],
  [/\bweigh(s|ed|ing)?\b/i, "compare"],
  [/\bto the brim\b/i, "completely full"],
  [/\bfor folders\b|\bfolders see\b/i, "space for your files"],
  [/\ba further\b|\bfurther (group|drive|cop)/i, "another"],
  [/\bsuspect\b|\bto watch\b|\bneeds care\b/i, "worn, failing"],
  [/\b(?<!X-ray )room\b|\bcapacity\b/i, "space"],
  [/\bby its rules\b/i, "your box does not offer"],
  [/\bweek-ends?\b|\bper cent\b/i, "weekend, percent"],
  [/\bredundan/i, "protection"],
  [/\bmembers?\b/i, "drive of the group"],
  [/\bcop(ied|y), while attached\b|\bold (drive|one) attached\b/i, "still in its bay"],
  [/\b(?<!color-)scheme\b/i, "layout"],
  [/\bsequences?\b/i, "ready-made steps"],
  [/\ba (8|11|18|8\d)(?!\d)/i, "an 8 TB drive"],
  [/\bprotects? \d|\bbear(s)? (a|one|two|no) /i, "survives"],
];

const list = (...args: string[]) =>
  execFileSync("git", ["ls-files", ...args], { encoding: "utf8" })
    .trim()
    .split("\n");

/** Attributes whose text nobody reads. */
const UNREAD = /^(className|d|style|key|id|role|viewBox|type|name)$/;

/** What a string, a template, or some of them put together say; nothing of anything else. */
function textOf(node: ts.Node): string {
  if (ts.isBinaryExpression(node) && node.operatorToken.kind === ts.SyntaxKind.PlusToken)
    return textOf(node.left) + textOf(node.right);
  if (!ts.isTemplateExpression(node)) return ts.isStringLiteralLike(node) ? node.text : "";
  return (
    node.head.text +
    // A size can be 8 TB, before which no "a" stands.
    node.templateSpans
      .map(({ expression, literal }) => (/size|bytes/i.test(expression.getText()) ? "8 TB" : "…") + literal.text)
      .join("")
  );
}

/** The sentences of a source file: its texts of more than a word, in strings, templates and JSX. */
function sentencesOf(file: string): [line: number, text: string][] {
  const source = ts.createSourceFile(file, readFileSync(file, "utf8"), ts.ScriptTarget.Latest, true);
  const found: [number, string][] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || (ts.isJsxAttribute(node) && UNREAD.test(node.name.getText()))) return;
    const text = ts.isJsxText(node) ? node.text : textOf(node);
    if (/[\s\u00a0]\S|^[A-Z][a-z]/.test(text.trim()) || (ts.isJsxText(node) && text.trim()))
      found.push([source.getLineAndCharacterOfPosition(node.getStart()).line + 1, text]);
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** The prose of a document: what is no code. */
const proseOf = (file: string): [number, string][] =>
  readFileSync(file, "utf8")
    .replaceAll(/```[\s\S]*?```|`[^`]*`/g, (code) => code.replaceAll(/[^\n]/g, ""))
    .split("\n")
    .map((text, i) => [i + 1, text]);

const wrongIn = (file: string, sentences: readonly [number, string][]) =>
  sentences.flatMap(([line, text]) =>
    BANNED.flatMap(([banned, instead]) => {
      const word = banned.exec(text)?.[0];
      return word ? [`${file}:${line} “${word}” in “${text.trim().slice(0, 90)}”: say ${instead}`] : [];
    }),
  );

test("no sentence of the program says a word that the glossary bans", () => {
  const files = list("src").filter((file) => /\.tsx?$/.test(file) && !/\.test\.|\/testing\/|\/generated\//.test(file));
  expect(files.flatMap((file) => wrongIn(file, sentencesOf(file)))).toEqual([]);
});

test("nor does what the format of plans says of itself", () => {
  const file = "src/core/document/schema/plan-1.json";
  const lines = readFileSync(file, "utf8").split("\n");
  const said = lines.map((line, i): [number, string] => [i + 1, /"description": "(.*)"/.exec(line)?.[1] ?? ""]);
  expect(wrongIn(file, said)).toEqual([]);
});

test("nor do the documents that owners read; those on the code, and the code itself, keep the names", () => {
  const read = ["README.md", "CHANGELOG.md", "docs/plan-format.md"];
  expect(read.flatMap((file) => wrongIn(file, proseOf(file)))).toEqual([]);
  const rest = list(
    "*.md",
    "*.ts",
    "*.tsx",
    "*.json",
    "*.txt",
    ":!*formerNames.*",
    // They tell of what was renamed.
    ":!CHANGELOG.md",
    ":!docs/plan-format.md",
    ":!*everySentence.test.ts",
    ":!*document.test.ts",
  );
  const names = /\bmay fail\b|\bright-?size|spanned.?mirror|"sync"|\bhybrid [12]\b/i;
  expect(rest.filter((file) => names.test(readFileSync(file, "utf8")))).toEqual([]);
});
