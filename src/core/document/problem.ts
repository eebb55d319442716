/** What is wrong with a document that was brought in, where, and how to mend it. */
export interface Problem {
  /** A stable name for programs, in kebab-case. */
  code: string;
  message: string;
  /** RFC 6901 JSON pointer into the document; empty for the document as a whole. */
  pointer: string;
}

/** A property name or an index as one step of a JSON pointer. `pointerStep("a/b")` is "a~1b". */
export function pointerStep(name: string | number): string {
  return String(name).replaceAll("~", "~0").replaceAll("/", "~1");
}
