const grouped = new Intl.NumberFormat('en');

/** A number as it is read, thousands apart. */
export const num = (n: number): string => grouped.format(n);

/** So many of something: “1 write”, “2,400 writes”. */
export const many = (n: number, one: string, more = `${one}s`): string => `${num(n)} ${n === 1 ? one : more}`;
