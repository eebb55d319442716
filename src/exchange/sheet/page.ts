import { asHtml } from "../html";
import { SHEET_STYLE } from "./sheetStyle";

/** Nothing may be loaded from anywhere, nor sent. */
const POLICY =
  "default-src 'none'; style-src 'unsafe-inline'; script-src 'unsafe-inline'; base-uri 'none'; form-action 'none'";

/**
 * A page of its own: it asks for nothing from any network, and its policy forbids it.
 *
 * @param title as text
 * @param body as HTML
 * @param script as JavaScript; none where there is none
 */
export const selfContainedPage = (title: string, body: string, script = ""): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="${POLICY}">
<title>${asHtml(title)}</title>
<style>${SHEET_STYLE}</style>
</head>
<body>
<main>
${body}
</main>
${script ? `<script>${script}</script>\n` : ""}</body>
</html>
`;
