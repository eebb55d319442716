const PLACES = new Intl.PluralRules("en", { type: "ordinal" });

const ENDINGS = new Map<Intl.LDMLPluralRule, string>([
  ["one", "st"],
  ["two", "nd"],
  ["few", "rd"],
]);

/**
 * A place in an order.
 *
 * @example ordinal(2) // "2nd"
 */
export const ordinal = (place: number): string => `${place}${ENDINGS.get(PLACES.select(place)) ?? "th"}`;
