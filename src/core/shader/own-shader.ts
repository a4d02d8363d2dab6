import type { ControlSpec, ControlSpecs } from '../kind/controls';
import type { InputSpec, InputSpecs } from '../kind/kind';
import { joinLines, LoopError, withLoopBudget } from './loop-budget';

/** What the head of a performer's shader declares, and its program text. */
export interface OwnShader {
  inputs: InputSpecs;
  controls: ControlSpecs;
  /** The whole text, head and all, so that lines keep their numbers. */
  code: string;
  /** Whether it reads time, beat or frame. */
  moves: boolean;
  /** Name of the number that its loops count down; it has to be declared before the code. */
  budget: string;
}

/** A text that cannot be used; `line` counts from 1. */
export class OwnShaderError extends Error {
  override name = 'OwnShaderError';
  constructor(
    readonly line: number,
    readonly reason: string,
  ) {
    super(`Line ${line}: ${reason}`);
  }
}

/** Names the code may use without declaring them. */
export const givenNames = ['time', 'beat', 'frame', 'aspect', 'pixel'] as const;

/** Functions the code may call, for completion and help. */
export const givenFunctions: readonly { name: string; call: string; help: string }[] = [
  { name: 'noise3', call: 'float noise3(vec3 q)', help: 'Gradient noise, about -1..1; a cell is 1 wide.' },
  { name: 'hash33', call: 'vec3 hash33(vec3 cell)', help: 'Three random numbers 0..1 for whole numbers.' },
  { name: 'hash11', call: 'float hash11(float x)', help: 'A random number 0..1 for a whole number.' },
  { name: 'brightness', call: 'float brightness(vec3 c)', help: 'As the eye weighs it.' },
  { name: 'straight', call: 'vec4 straight(vec4 c)', help: 'Colour with its alpha divided out.' },
  { name: 'premultiplied', call: 'vec4 premultiplied(vec4 c)', help: 'Colour multiplied by its alpha.' },
  {
    name: 'outsidePlace',
    call: 'vec3 outsidePlace(vec2 q, int how)',
    help: 'Brings a place into 0..1: 0 nothing, 1 hold, 2 repeat, 3 mirror. z is 0 where nothing is.',
  },
];

const nameForm = /^[a-z][A-Za-z0-9]{0,30}$/;
const taken = new Set<string>([
  ...givenNames,
  ...givenFunctions.map(({ name }) => name),
  ...'paint place amount code good result region main'.split(' '),
  ...'sin cos tan abs min max mix step dot length floor fract mod pow exp log sqrt sign clamp texture'.split(
    ' ',
  ),
  ...'float int bool vec2 vec3 vec4 mat2 mat3 mat4 if for while do return in out inout const uniform'.split(
    ' ',
  ),
]);

type Json = Record<string, unknown>;
const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const numbersOf = (value: unknown, count: number): number[] | null =>
  Array.isArray(value) &&
  value.length === count &&
  value.every((v) => typeof v === 'number' && Number.isFinite(v))
    ? (value as number[])
    : null;

/** Where a name is written in the text, for an error that points there. */
function lineOf(text: string, name: string): number {
  const at = text.indexOf(`"${name}"`);
  return at < 0 ? 1 : text.slice(0, at).split('\n').length;
}

const labelOf = (name: string, said: unknown): string =>
  typeof said === 'string' && said
    ? said.slice(0, 40)
    : name[0].toUpperCase() + name.slice(1).replace(/([A-Z])/g, (letter) => ` ${letter.toLowerCase()}`);

function controlOf(name: string, said: Json, fail: (what: string) => never): ControlSpec {
  const base = {
    label: labelOf(name, said.label),
    help: typeof said.help === 'string' ? said.help : 'Declared by the shader.',
  };
  const unit = typeof said.unit === 'string' ? { unit: said.unit } : {};
  const range = said.range === undefined ? [0, 1] : numbersOf(said.range, 2);
  if (!range) fail('its range has to be two numbers, such as [0, 1].');
  const [low, high] = range!;
  const number = said.default === undefined ? low : said.default;
  switch (said.type) {
    case 'number':
    case 'whole':
    case 'angle':
      if (typeof number !== 'number') fail('its default has to be a number.');
      return { type: said.type, ...base, ...unit, default: number as number, range: [low, high] };
    case 'toggle':
      if (said.default !== undefined && typeof said.default !== 'boolean')
        fail('its default has to be true or false.');
      return { type: 'toggle', ...base, default: said.default === true };
    case 'colour': {
      const colour = said.default === undefined ? [1, 1, 1, 1] : numbersOf(said.default, 4);
      if (!colour) fail('its default has to be four numbers, such as [1, 0.5, 0, 1].');
      return { type: 'colour', ...base, default: colour as [number, number, number, number] };
    }
    case 'point': {
      const place = said.default === undefined ? [0, 0] : numbersOf(said.default, 2);
      if (!place) fail('its default has to be two numbers, such as [0, 0].');
      const handle = said.handle === true ? { handle: { as: 'place' as const } } : {};
      return {
        type: 'point',
        ...base,
        default: place!,
        range: said.range ? [low, high] : [-1, 1],
        ...handle,
      };
    }
    case 'choice': {
      const list = said.options;
      if (!Array.isArray(list) || list.length < 1 || list.some((option) => typeof option !== 'string'))
        fail('its options have to be a list of words, such as ["Soft", "Hard"].');
      const options = Object.fromEntries((list as string[]).map((option, k) => [`o${k}`, option]));
      const at = said.default === undefined ? 0 : (list as string[]).indexOf(String(said.default));
      if (at < 0) fail(`its default is none of its options.`);
      return { type: 'choice', ...base, options, default: `o${at}` };
    }
    default:
      return fail(
        `${said.type === undefined ? 'it has no type' : `nothing is known of the type ${JSON.stringify(said.type)}`}; use number, whole, angle, toggle, colour, point or choice.`,
      );
  }
}

/**
 * Where a JSON text breaks off: the first place up to which it is no beginning of JSON any more. Messages of parsers do
 * not always tell.
 */
function breakOf(json: string): number {
  const isBeginning = (length: number): boolean => {
    try {
      JSON.parse(json.slice(0, length));
      return true;
    } catch (error) {
      return /end of|unterminated|no number after|exponent part/i.test((error as Error).message);
    }
  };
  let [low, high] = [0, json.length];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (isBeginning(middle)) low = middle;
    else high = middle - 1;
  }
  return low;
}

interface Head {
  said: Json;
  /** First character after the comment. */
  end: number;
}

function readHead(text: string): Head {
  const open = /^\s*\/\*/.exec(text);
  if (!open)
    throw new OwnShaderError(
      1,
      'the text has to begin with a comment /* … */ that holds its inputs as JSON; {} if it has none.',
    );
  const close = text.indexOf('*/');
  if (close < 0) throw new OwnShaderError(1, 'the comment at the top has no end */.');
  const json = text.slice(open[0].length, close);
  try {
    const said: unknown = JSON.parse(json);
    if (!isObject(said)) throw new OwnShaderError(1, 'the comment at the top has to hold an object { … }.');
    return { said, end: close + 2 };
  } catch (error) {
    if (error instanceof OwnShaderError) throw error;
    const before = text.slice(0, open[0].length + breakOf(json));
    throw new OwnShaderError(
      before.split('\n').length,
      'the JSON of the comment breaks off here. Look for a comma or a quote.',
    );
  }
}

/** Comments as blanks of the same length and lines, so that places stay. */
const withoutComments = (code: string): string =>
  code.replace(/\/\*[\s\S]*?\*\/|\/\/[^\n]*/g, (comment) => comment.replace(/[^\n]/g, ' '));

/**
 * Reads a performer's shader: a comment with JSON that declares `pictures` and `controls`, and a function
 * `vec4 paint(vec2 place)`. Names are used as they are; the text that comes out speaks the language of node kinds.
 * Throws OwnShaderError.
 */
export function readOwnShader(text: string): OwnShader {
  const { said, end } = readHead(text);
  for (const key of Object.keys(said))
    if (key !== 'pictures' && key !== 'controls')
      throw new OwnShaderError(
        lineOf(text, key),
        `the head may hold "pictures" and "controls", not "${key}".`,
      );
  const used = new Set<string>();
  const checkName = (name: string): void => {
    if (!nameForm.test(name))
      throw new OwnShaderError(
        lineOf(text, name),
        `${name} is no name: use letters and digits, a small letter first.`,
      );
    if (taken.has(name) || used.has(name))
      throw new OwnShaderError(lineOf(text, name), `the name ${name} is taken. Use another.`);
    used.add(name);
  };
  const inputs: Record<string, InputSpec> = {};
  for (const [name, what] of Object.entries(isObject(said.pictures) ? said.pictures : {})) {
    checkName(name);
    const about = isObject(what) ? what : {};
    inputs[name] = {
      label: labelOf(name, typeof what === 'string' ? what : about.label),
      help: typeof about.help === 'string' ? about.help : 'Declared by the shader.',
      carries: 'image',
      reads: 'many',
    };
  }
  const controls: Record<string, ControlSpec> = {};
  for (const [name, what] of Object.entries(isObject(said.controls) ? said.controls : {})) {
    checkName(name);
    const fail = (reason: string): never => {
      throw new OwnShaderError(lineOf(text, name), `${name}: ${reason}`);
    };
    controls[name] = controlOf(
      name,
      isObject(what) ? what : fail('it has to be an object { "type": … }.'),
      fail,
    );
  }
  const head = text.slice(0, end).replace(/[^\n]/g, ' ');
  const plain = withoutComments(joinLines(text.slice(end)));
  const at = (line: number): number => line + head.split('\n').length - 1;
  const forbidden = /#\s*(version|extension|include)|\bgl_Frag\w*|\buniform\b/.exec(plain);
  if (forbidden)
    throw new OwnShaderError(
      at(plain.slice(0, forbidden.index).split('\n').length),
      `${forbidden[0]} has no place here: inputs are declared in the comment at the top, and paint gives the colour.`,
    );
  if (!/\bvec4\s+paint\s*\(\s*(?:in\s+)?vec2\s+\w+\s*\)/.test(plain))
    throw new OwnShaderError(
      at(1),
      'a function vec4 paint(vec2 place) is missing: it gives the colour of each place.',
    );
  let looped: ReturnType<typeof withLoopBudget>;
  try {
    looped = withLoopBudget(plain);
  } catch (error) {
    if (error instanceof LoopError) throw new OwnShaderError(at(error.line), error.reason);
    throw error;
  }
  const moves = /\b(time|beat|frame)\b/.test(plain);
  const code = looped.code.replace(
    /(\.\s*)?\b([A-Za-z_]\w*)\b(\s*\()?(\s*\.\s*size\b)?/g,
    (whole, dot, name, call, size) => {
      if (dot) return whole as string;
      if (Object.hasOwn(inputs, name)) return call ? `@${name}(` : size ? `@${name}.size` : (whole as string);
      if (Object.hasOwn(controls, name)) return `$${name}${call ?? ''}${size ?? ''}`;
      if (name === 'time' || name === 'beat' || name === 'frame') return `$${name}${call ?? ''}${size ?? ''}`;
      return whole as string;
    },
  );
  return { inputs, controls, code: head + code, moves, budget: looped.budget };
}
