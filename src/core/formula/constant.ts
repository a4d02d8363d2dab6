import { parseFormula } from './parse';
import { FormulaRunner } from './run';

/**
 * The number that a typed text means: `0,5`, `1/3`, `2*pi`, and `value` for what the field holds, as in `value/2`; a unit
 * behind a plain number is passed over. Null if it means none.
 */
export function numberOf(text: string, value: number): number | null {
  const plain = /^\s*([-+]?(?:\d+[.,]?\d*|[.,]\d+)(?:e[-+]?\d+)?)\s*(?:[a-z%°]+)?\s*$/i.exec(text);
  if (plain) return Number(plain[1].replace(',', '.'));
  try {
    const expression = parseFormula(text.replace(/(\d),(\d)/g, '$1.$2'), (name) => name === 'value', [
      'value',
    ]);
    const into = new Float32Array(1);
    new FormulaRunner(expression, () => false).run(into, { value });
    return Number.isFinite(into[0]) ? Number(into[0].toPrecision(7)) : null;
  } catch {
    return null;
  }
}
