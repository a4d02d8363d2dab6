import { FormulaError, parseFormula, type Expression } from './parse';

export interface LaneFormula {
  name: string;
  expression: Expression;
}

/**
 * Reads `name = formula` lines (or parts parted by `;`); a line without a name is called `value`, further ones `value2`
 * and so on. Positions in errors count from the start of the whole text.
 */
export function parseLanes(
  text: string,
  isName: (name: string) => boolean,
  names: Iterable<string> = [],
): LaneFormula[] {
  const lanes: LaneFormula[] = [];
  let start = 0;
  for (const part of text.split(/[;\n]/)) {
    if (part.trim()) {
      const named = /^\s*([A-Za-z_][A-Za-z0-9_]*)\s*=(?!=)/.exec(part);
      const from = named ? named[0].length : 0;
      const name = named?.[1] ?? (lanes.length ? `value${lanes.length + 1}` : 'value');
      if (lanes.some((lane) => lane.name === name))
        throw new FormulaError(`Two lanes are called ${name}. Rename one.`, start);
      try {
        lanes.push({ name, expression: parseFormula(part.slice(from), isName, names) });
      } catch (error) {
        if (error instanceof FormulaError)
          throw new FormulaError(error.message, error.position + start + from);
        throw error;
      }
    }
    start += part.length + 1;
  }
  if (lanes.length === 0)
    throw new FormulaError('The formula is empty. Type a number, or for example sin(time).', 0);
  return lanes;
}
