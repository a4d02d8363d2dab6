import { formulaConstants } from './functions';

/** Names of the time. */
const timeNames = ['time', 'beat', 'bar', 'frame'] as const;
export type TimeName = (typeof timeNames)[number];
export const isTimeName = (name: string): name is TimeName => (timeNames as readonly string[]).includes(name);

/** Names every formula may use: time and the place among the samples. */
export const momentNames = [...timeNames, 'i', 'n', 'u'] as const;

/** Words that mean something in every formula, so that no node can be called so there. */
const reserved = new Set<string>([
  ...momentNames,
  ...Object.keys(formulaConstants),
  ...'value in true false null this'.split(' '),
]);

/** How a node is called in formulas: `Slow Drift` is `slow_drift`, and `Time`, which is taken, `n_time`. */
export function formulaName(nodeName: string): string {
  const word = nodeName
    .trim()
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_+|_+$/g, '');
  return /^[a-z]/.test(word) && !reserved.has(word) ? word : `n_${word}`;
}

/** The words of a formula that may be names: not those behind a point, which are lanes. */
export const formulaWords = (text: string): string[] =>
  text.match(/(?<![A-Za-z0-9_.])[A-Za-z_][A-Za-z0-9_]*/g) ?? [];

/** The text with the names of nodes replaced, `drift.x` and `drift` alike: all at once, so that none is replaced twice. */
export const renameInFormula = (text: string, names: ReadonlyMap<string, string>): string =>
  names.size === 0
    ? text
    : text.replace(
        /(?<![A-Za-z0-9_.])[A-Za-z_][A-Za-z0-9_]*(?=\.[A-Za-z_]|(?![A-Za-z0-9_(]))/g,
        (word) => names.get(word) ?? word,
      );

/** Whether a formula asks which of many samples it is worked out for. */
export const asksForSample = (text: string): boolean => /(?<![\w.])[inu](?![\w.])/.test(text);

/** Whether a formula asks for the time. */
export const asksForTime = (text: string): boolean => /(?<![\w.])(?:time|beat|bar|frame)(?![\w.])/.test(text);
