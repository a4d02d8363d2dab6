import tokenize, { type GlslToken } from 'glsl-tokenizer/string';

/** A text whose loops cannot be given a budget; `line` counts from 1. */
export class LoopError extends Error {
  override name = 'LoopError';
  constructor(
    readonly line: number,
    readonly reason: string,
  ) {
    super(reason);
  }
}

/** Most turns all loops of one pixel may take together. */
export const mostTurns = 4096;

/** How deep statements may stand in one another: they are read by calls. */
const mostNested = 200;

const loopWords = new Set(['for', 'while', 'do']);
/** What makes a macro more than an expression: in a loop's body without braces it would change where that ends. */
const statementSigns = new Set([...loopWords, 'if', 'else', 'switch', ';', '{', '}']);
const keywords = new Set(
  'for while do if else switch case default break continue return discard int float bool void const in out inout struct true false'.split(
    ' ',
  ),
);
const closing: Readonly<Record<string, string>> = { '(': ')', '[': ']', '{': '}' };

const tokensOf = (text: string): GlslToken[] =>
  tokenize(text, { version: '300 es' }).filter(({ type }) => type !== 'whitespace' && type !== 'eof');

/** Lines that end in a backslash go on in the next (GLSL ES 3.00, 3.2): joined, with their line ends kept after them. */
export function joinLines(text: string): string {
  let owed = 0;
  let joined = '';
  for (const line of text.replace(/\r\n?/g, '\n').split('\n')) {
    if (line.endsWith('\\')) {
      joined += line.slice(0, -1);
      owed++;
    } else {
      joined += `${line}\n${'\n'.repeat(owed)}`;
      owed = 0;
    }
  }
  return joined.slice(0, -1);
}

/** A name that begins with `stem` and stands nowhere in the text. */
function freeName(stem: string, text: string): string {
  for (let k = 0; ; k++) if (!text.includes(`${stem}${k}`)) return `${stem}${k}`;
}

/** Statements of a GLSL text without comments, by their tokens. */
class Statements {
  readonly tokens: GlslToken[];
  /** Macros that hold more than an expression. */
  readonly structural = new Set<string>();

  constructor(text: string) {
    this.tokens = tokensOf(text);
    for (const token of this.tokens) if (token.type === 'preprocessor') this.readMacro(token);
  }

  fail(at: number, reason: string): never {
    const token = this.tokens[Math.min(at, this.tokens.length - 1)];
    throw new LoopError(token?.line ?? 1, reason);
  }

  private readMacro(token: GlslToken): void {
    const found = /^#\s*define\s+(\w+)(?:\([^)]*\))?([\s\S]*)$/.exec(token.data);
    if (!found) return;
    const [, name, body] = found;
    const words = tokensOf(body).map(({ data }) => data);
    if (keywords.has(name)) throw new LoopError(token.line, `${name} can't be given another meaning.`);
    if (words.some((word) => loopWords.has(word)))
      throw new LoopError(token.line, 'a #define may hold no loop. Write a function instead.');
    const depth = (open: string): number =>
      words.filter((word) => word === open).length - words.filter((word) => word === closing[open]).length;
    if (words.some((word) => statementSigns.has(word)) || depth('(') || depth('[')) this.structural.add(name);
  }

  is(at: number, data: string): boolean {
    return this.tokens[at]?.data === data && this.tokens[at].type !== 'preprocessor';
  }

  /** The token after the bracket that closes the one at `open`. */
  afterBracket(open: number): number {
    const awaited: string[] = [];
    for (let k = open; k < this.tokens.length; k++) {
      const { data, type } = this.tokens[k];
      if (type === 'preprocessor') continue;
      if (Object.hasOwn(closing, data)) awaited.push(closing[data]);
      else if (data === ')' || data === ']' || data === '}') {
        if (awaited.pop() !== data) this.fail(k, `this ${data} closes nothing.`);
        if (!awaited.length) return k + 1;
      }
    }
    return this.fail(open, `this ${this.tokens[open]?.data ?? 'bracket'} is never closed.`);
  }

  private afterHead(at: number): number {
    if (!this.is(at + 1, '(')) this.fail(at, `a ( has to follow ${this.tokens[at].data}.`);
    return this.afterBracket(at + 1);
  }

  /** First token of the body of the loop whose word is at `at`. */
  bodyOf(at: number): number {
    const body = this.is(at, 'do') ? at + 1 : this.afterHead(at);
    if (body >= this.tokens.length) this.fail(at, 'this loop has no body.');
    return body;
  }

  /** The token after the statement that begins at `at`. */
  after(at: number, depth = 0): number {
    if (depth > mostNested) this.fail(at, 'statements stand too deep in one another.');
    const token = this.tokens[at];
    if (!token) this.fail(at, 'a statement is missing here.');
    if (token.type === 'preprocessor' || this.structural.has(token.data))
      this.fail(
        at,
        'the body of a loop needs braces { } where a # line or a #define of statements is in it.',
      );
    switch (token.data) {
      case '{':
        return this.afterBracket(at);
      case 'for':
      case 'while':
      case 'switch':
        return this.after(this.afterHead(at), depth + 1);
      case 'if': {
        const end = this.after(this.afterHead(at), depth + 1);
        return this.is(end, 'else') ? this.after(end + 1, depth + 1) : end;
      }
      case 'do': {
        const end = this.after(at + 1, depth + 1);
        if (!this.is(end, 'while')) this.fail(at, 'this do has no while.');
        return this.afterHead(end) + 1;
      }
    }
    for (let k = at; k < this.tokens.length; k++) {
      const { data, type } = this.tokens[k];
      if (type === 'preprocessor' || this.structural.has(data)) return this.after(k, depth + 1);
      if (data === ';') return k + 1;
      if (data === '}') this.fail(k, 'a ; is missing before this }.');
      if (Object.hasOwn(closing, data)) k = this.afterBracket(k) - 1;
    }
    return this.fail(at, 'this statement has no ;.');
  }
}

/** Whether a loop's head lets it go on forever: `while (true)`, `for (;;)`. */
function isEndless(text: Statements, at: number): boolean {
  const head = text.tokens.slice(at + 2, text.bodyOf(at) - 1).map(({ data }) => data);
  const test = text.is(at, 'for') ? head.slice(head.indexOf(';') + 1, head.lastIndexOf(';')) : head;
  return test.length === 0 || (test.length === 1 && /^(true|1|1\.0)$/.test(test[0]));
}

/**
 * Gives every loop a share in one budget, so that one that would run forever ends and the GPU stays free. `code` is GLSL
 * without comments and continued lines; lines keep their numbers. `budget` is the name of the number that counts down, one
 * that the text does not hold, to be declared as `int` before it. Throws LoopError where a loop can never end, or where its
 * body can't be told.
 */
export function withLoopBudget(code: string): { code: string; budget: string } {
  const text = new Statements(code);
  const { tokens } = text;
  const budget = freeName('turnsLeft', code);
  const check = `if (${budget}-- <= 0) break;`;
  const insertions: { at: number; put: string }[] = [];
  /** The `while` that ends a do, which is no loop of its own. */
  const tails = new Set<number>();
  tokens.forEach(({ data, type }, at) => {
    if (type === 'preprocessor' || !loopWords.has(data) || tails.has(at)) return;
    const body = text.bodyOf(at);
    const hasBraces = text.is(body, '{');
    const end = hasBraces && data !== 'do' ? body : text.after(body);
    if (data === 'do') {
      if (!text.is(end, 'while')) text.fail(at, 'this do has no while.');
      tails.add(end);
    } else if (isEndless(text, at)) {
      const last = hasBraces ? text.afterBracket(body) : end;
      const leaves = tokens.slice(body, last).some((token) => /^(break|return|discard)$/.test(token.data));
      if (!leaves) text.fail(at, 'this loop never ends. Give it an end, or a break.');
    }
    if (hasBraces) insertions.push({ at: tokens[body].position + 1, put: ` ${check}` });
    else {
      const last = tokens[end - 1];
      insertions.push({ at: tokens[body].position, put: `{ ${check} ` });
      insertions.push({ at: last.position + last.data.length, put: ' }' });
    }
  });
  insertions.sort((a, b) => b.at - a.at);
  const given = insertions.reduce((all, { at, put }) => all.slice(0, at) + put + all.slice(at), code);
  return { code: given, budget };
}
