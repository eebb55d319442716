/** A field's text, without blanks at its ends. */
export const textOf = (data: FormData, name: string): string => String(data.get(name) ?? "").trim();
