/** How a node is called in formulas: `Slow Drift` is `slow_drift`. */
export function formulaName(nodeName: string): string {
  const word = nodeName
    .trim()
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_+|_+$/g, '');
  return /^[a-z]/.test(word) ? word : `n_${word}`;
}

/** Names every formula may use: time and the place among the samples. */
export const momentNames = ['time', 'beat', 'bar', 'frame', 'i', 'n', 'u'] as const;

/** The text with every use of one node's name replaced, `drift.x` and `drift` alike. */
export function renameInFormula(text: string, from: string, to: string): string {
  if (from === to) return text;
  return text.replace(new RegExp(`(?<![A-Za-z0-9_.])${from}(?=\\.[A-Za-z_]|(?![A-Za-z0-9_(]))`, 'g'), to);
}
