const grouped = new Intl.NumberFormat('en');

/** A number as it is read, thousands apart. */
export const num = (n: number): string => grouped.format(n);

/** So many of something: “1 write”, “2,400 writes”. */
export const many = (n: number, one: string, more = `${one}s`): string => `${num(n)} ${n === 1 ? one : more}`;

const currencies = new Map<string, readonly [whole: Intl.NumberFormat, large: Intl.NumberFormat, minor: number]>();

/** Minor units of a currency (ISO 4217) as they are read; large sums without them. */
export function money(value: number, currency: string): string {
  let known = currencies.get(currency);
  if (!known) {
    const whole = new Intl.NumberFormat('en', { style: 'currency', currency });
    const large = new Intl.NumberFormat('en', { style: 'currency', currency, maximumFractionDigits: 0 });
    known = [whole, large, 10 ** (whole.resolvedOptions().maximumFractionDigits ?? 2)];
    currencies.set(currency, known);
  }
  const [whole, large, minor] = known;
  return (Math.abs(value) >= 1000 * minor ? large : whole).format(value / minor);
}
