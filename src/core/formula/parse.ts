import jsep from 'jsep';
import { formulaConstants, formulaFunctions } from './functions';

const binaryOperators = ['+', '-', '*', '/', '%', '^', '<', '<=', '>', '>=', '==', '!=', '&&', '||'] as const;
export type BinaryOperator = (typeof binaryOperators)[number];

/** A checked formula: every name known, every call with the right number of arguments. */
export type Expression =
  | { type: 'constant'; value: number }
  | { type: 'name'; name: string }
  | { type: 'negate' | 'not'; of: Expression }
  | { type: 'binary'; operator: BinaryOperator; left: Expression; right: Expression }
  | { type: 'choose'; test: Expression; yes: Expression; no: Expression }
  | { type: 'call'; name: string; args: Expression[] };

/** Says what is wrong with a formula and where, counted in characters from 0. */
export class FormulaError extends Error {
  override name = 'FormulaError';
  constructor(
    message: string,
    readonly position: number,
  ) {
    super(message);
  }
}

/** How deep a formula may be nested: everything that reads one goes down by calls. */
const mostDepth = 400;

const tooDeep = (): FormulaError =>
  new FormulaError('The formula is nested too deeply. Split it: give a part of it to a Formula node.', 0);

const caret = 94;
jsep.removeBinaryOp('^');
for (const operator of ['|', '&', '===', '!==', '<<', '>>', '>>>']) jsep.removeBinaryOp(operator);
jsep.removeUnaryOp('~');
// Power binds tighter than a sign before it and groups to the right, as in mathematics: -2^2 is -4, 2^3^2 is 2^9. The
// operator table of jsep can say neither, so the power is read together with the token before it.
interface Reader {
  code: number;
  index: number;
  gobbleSpaces(): void;
  gobbleToken(): jsep.Expression | false;
  gobbleNumericLiteral(): jsep.Expression;
  throwError(message: string): never;
}

// A hook is called with the reader as `this`; numbers are the one token after which jsep asks no hook by itself.
jsep.hooks.add('gobble-token', function (this: unknown, env) {
  const state = this as Reader;
  if ((state.code >= 48 && state.code <= 57) || state.code === 46) env.node = state.gobbleNumericLiteral();
});
jsep.hooks.add('after-token', function (this: unknown, env) {
  const state = this as Reader;
  if (!env.node) return;
  state.gobbleSpaces();
  if (state.code !== caret) return;
  state.index++;
  state.gobbleSpaces();
  const right = state.gobbleToken();
  if (!right) state.throwError('Expected a number or name after ^');
  env.node = { type: 'BinaryExpression', operator: '^', left: env.node, right };
});

function suggestion(name: string, names: Iterable<string>): string {
  const lower = name.toLowerCase();
  for (const other of names) {
    if (other.toLowerCase() === lower || (lower.length > 1 && other.toLowerCase().startsWith(lower)))
      return ` Do you mean ${other}?`;
  }
  return '';
}

/**
 * Reads a formula. `isName` says which names it may use (`in.x`, `drift.value`, `time`); throws FormulaError with a place
 * in the text otherwise. Nothing of the text is ever executed as code.
 */
export function parseFormula(
  text: string,
  isName: (name: string) => boolean,
  names: Iterable<string> = [],
): Expression {
  if (!text.trim())
    throw new FormulaError('The formula is empty. Type a number, or for example sin(time).', 0);
  const placeOf = (word: string): number => {
    const found = new RegExp(
      `(?<![A-Za-z0-9_.])${word.replace(/[.^$*+?()[\]{}|\\]/g, '\\$&')}(?![A-Za-z0-9_])`,
    ).exec(text);
    return found ? found.index : 0;
  };

  let depth = 0;
  const check = (node: jsep.Expression): Expression => {
    if (depth >= mostDepth) throw tooDeep();
    depth++;
    const checked = checkOne(node);
    depth--;
    return checked;
  };

  const checkOne = (node: jsep.Expression): Expression => {
    switch (node.type) {
      case 'Literal': {
        const value = (node as jsep.Literal).value;
        if (typeof value === 'boolean') return { type: 'constant', value: value ? 1 : 0 };
        if (typeof value !== 'number')
          throw new FormulaError('A formula knows numbers only, no text.', placeOf(String(value)));
        return { type: 'constant', value };
      }
      case 'Identifier': {
        const name = (node as jsep.Identifier).name;
        if (Object.hasOwn(formulaConstants, name)) return { type: 'constant', value: formulaConstants[name] };
        if (isName(name)) return { type: 'name', name };
        if (Object.hasOwn(formulaFunctions, name))
          throw new FormulaError(`${name} needs brackets: ${name}(…).`, placeOf(name));
        throw new FormulaError(
          `Nothing is called ${name}.${suggestion(name, [...names, ...Object.keys(formulaFunctions)])}`,
          placeOf(name),
        );
      }
      case 'MemberExpression': {
        const member = node as jsep.MemberExpression;
        const object = member.object as jsep.Identifier;
        const property = member.property as jsep.Identifier;
        if (member.computed || object.type !== 'Identifier' || property.type !== 'Identifier') {
          throw new FormulaError('Write a lane as node.lane, for example drift.x.', 0);
        }
        const name = `${object.name}.${property.name}`;
        if (isName(name)) return { type: 'name', name };
        throw new FormulaError(`Nothing is called ${name}.${suggestion(name, names)}`, placeOf(name));
      }
      case 'UnaryExpression': {
        const unary = node as jsep.UnaryExpression;
        const of = check(unary.argument);
        if (unary.operator === '+') return of;
        if (unary.operator === '-') return { type: 'negate', of };
        if (unary.operator === '!') return { type: 'not', of };
        throw new FormulaError(`${unary.operator} is not known here.`, placeOf(unary.operator));
      }
      case 'BinaryExpression': {
        const binary = node as jsep.BinaryExpression;
        const operator = binary.operator as BinaryOperator;
        if (!binaryOperators.includes(operator)) {
          throw new FormulaError(
            `${binary.operator} is not known here.`,
            Math.max(0, text.indexOf(binary.operator)),
          );
        }
        return { type: 'binary', operator, left: check(binary.left), right: check(binary.right) };
      }
      case 'ConditionalExpression': {
        const choice = node as jsep.ConditionalExpression;
        return {
          type: 'choose',
          test: check(choice.test),
          yes: check(choice.consequent),
          no: check(choice.alternate),
        };
      }
      case 'CallExpression': {
        const call = node as jsep.CallExpression;
        const name = call.callee.type === 'Identifier' ? (call.callee as jsep.Identifier).name : '';
        if (!Object.hasOwn(formulaFunctions, name)) {
          throw new FormulaError(
            `There is no function ${name || 'of that form'}.${suggestion(name, Object.keys(formulaFunctions))}`,
            placeOf(name),
          );
        }
        const [fewest, most] = formulaFunctions[name].arity;
        if (call.arguments.length < fewest || call.arguments.length > most) {
          const wanted = fewest === most ? `${fewest}` : `${fewest} to ${most}`;
          throw new FormulaError(
            `${name} takes ${wanted} ${most === 1 ? 'value' : 'values'}, not ${call.arguments.length}.`,
            placeOf(name),
          );
        }
        return { type: 'call', name, args: call.arguments.map(check) };
      }
      case 'Compound':
        throw new FormulaError('An operator is missing between two parts.', 0);
      default:
        throw new FormulaError('This is not a formula Pyrvel can read.', 0);
    }
  };

  let tree: jsep.Expression;
  try {
    tree = jsep(text);
  } catch (error) {
    // The reader goes down by calls as well, and says so in the words of the platform.
    if (error instanceof RangeError) throw tooDeep();
    const fault = error as { description?: string; message: string; index?: number };
    throw new FormulaError(fault.description ?? fault.message, Math.min(fault.index ?? 0, text.length));
  }
  return check(tree);
}

/** All names a formula reads. */
export function namesIn(expression: Expression, into: Set<string> = new Set()): Set<string> {
  switch (expression.type) {
    case 'constant':
      break;
    case 'name':
      into.add(expression.name);
      break;
    case 'negate':
    case 'not':
      namesIn(expression.of, into);
      break;
    case 'binary':
      namesIn(expression.left, into);
      namesIn(expression.right, into);
      break;
    case 'choose':
      namesIn(expression.test, into);
      namesIn(expression.yes, into);
      namesIn(expression.no, into);
      break;
    case 'call':
      for (const arg of expression.args) namesIn(arg, into);
  }
  return into;
}
