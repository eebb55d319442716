/**
 * Spreadsheets take a cell that begins so for a formula: also after spaces and line feeds, which some of them drop, and
 * with the wide signs of East Asian keyboards.
 */
const FORMULA = /^'*[\s\u00a0\u3000]*[=+\-@＝＋－＠]|^'*[\t\r\n]/;

/**
 * A text as a cell of a spreadsheet, disarmed with an apostrophe where it would be taken for a formula.
 *
 * @example guardCell("=1+1") // "'=1+1"
 */
export const guardCell = (text: string): string => (FORMULA.test(text) ? `'${text}` : text);

/**
 * What stood in a cell before it was disarmed.
 *
 * @example unguardCell("'=1+1") // "=1+1"
 */
export const unguardCell = (text: string): string =>
  text.startsWith("'") && FORMULA.test(text.slice(1)) ? text.slice(1) : text;
