/** A number with as many digits as a 32-bit float has. */
export const figure = (value: number): string => String(Number(value.toPrecision(7)));

/** A field of CSV (RFC 4180). */
export const quoted = (text: string): string =>
  /[",\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text;
