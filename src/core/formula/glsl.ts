import { formulaFunctions } from './functions';
import type { Expression } from './parse';

/** A formula as a GLSL float expression. `name` gives what stands for each name in the shader. */
export function formulaToGlsl(e: Expression, name: (name: string) => string): string {
  const write = (part: Expression): string => formulaToGlsl(part, name);
  const truth = (test: string): string => `(${test} ? 1.0 : 0.0)`;
  switch (e.type) {
    case 'constant': {
      const digits = Number.isInteger(e.value) ? `${e.value}.0` : String(e.value);
      return e.value < 0 ? `(${digits})` : digits;
    }
    case 'name':
      return name(e.name);
    case 'negate':
      return `(-${write(e.of)})`;
    case 'not':
      return truth(`${write(e.of)} == 0.0`);
    case 'choose':
      return `(${write(e.test)} != 0.0 ? ${write(e.yes)} : ${write(e.no)})`;
    case 'call': {
      const args = e.args.map(write);
      return formulaFunctions[e.name].glsl?.(args) ?? `${e.name}(${args.join(', ')})`;
    }
    case 'binary': {
      const left = write(e.left);
      const right = write(e.right);
      switch (e.operator) {
        case '%':
          return `mod(${left}, ${right})`;
        case '^':
          // A small whole power is multiplied out: pow is undefined below 0 and a square there is common.
          return e.right.type === 'constant' && e.right.value === 2
            ? `(${left} * ${left})`
            : `pow(max(0.0, ${left}), ${right})`;
        case '&&':
        case '||':
          return truth(`${left} != 0.0 ${e.operator} ${right} != 0.0`);
        case '<':
        case '<=':
        case '>':
        case '>=':
        case '==':
        case '!=':
          return truth(`${left} ${e.operator} ${right}`);
        default:
          return `(${left} ${e.operator} ${right})`;
      }
    }
  }
}
