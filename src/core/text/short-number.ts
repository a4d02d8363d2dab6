/** Numbers as they are shown: no more digits than needed, at most so many. */
export const shortNumber = (value: number, digits = 3): string => {
  if (!Number.isFinite(value)) return '0';
  const size = Math.abs(value);
  const places = size >= 1000 ? 0 : size >= 100 ? Math.min(1, digits) : digits;
  return String(Number(value.toFixed(places)));
};
