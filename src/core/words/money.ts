/**
 * A price for each TB, to three digits: more would say that it is known better than it is.
 *
 * @example pricePerTBWords(15.867, "EUR") // "€15.90"
 */
export const pricePerTBWords = (price: number, currency: string | undefined): string =>
  moneyWords(Number(price.toPrecision(3)), currency);

/**
 * An amount of money, in the owner's currency where that is said: whole where it is large, since prices of drives are.
 *
 * @param currency by its three letters (ISO 4217)
 * @example moneyWords(1189.5, "EUR") // "€1,190"
 * @example moneyWords(19.9, "EUR") // "€19.90"
 * @example moneyWords(189, undefined) // "189"
 */
export function moneyWords(amount: number, currency: string | undefined): string {
  const fraction = amount < 1000 && !Number.isInteger(amount);
  const digits = currency ? {} : { minimumFractionDigits: fraction ? 2 : 0, maximumFractionDigits: fraction ? 2 : 0 };
  return new Intl.NumberFormat("en", {
    ...(currency ? { style: "currency" as const, currency } : digits),
    ...(currency && !fraction ? { maximumFractionDigits: 0, minimumFractionDigits: 0 } : {}),
  }).format(amount);
}
