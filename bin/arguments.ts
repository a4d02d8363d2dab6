/** A command that was called wrongly: said without a trace, with exit code 2. */
export class UsageError extends Error {
  override name = 'UsageError';
}

/** Splits `file --name value …` into plain words and options. Throws UsageError for unknown or empty options. */
export function readArguments(
  words: readonly string[],
  known: readonly string[],
): { plain: string[]; options: Map<string, string> } {
  const plain: string[] = [];
  const options = new Map<string, string>();
  for (let k = 0; k < words.length; k++) {
    const word = words[k];
    if (!word.startsWith('--')) {
      plain.push(word);
      continue;
    }
    const [name, inline] = word.slice(2).split('=', 2);
    if (!known.includes(name))
      throw new UsageError(`There is no option --${name}. Known: ${known.map((n) => `--${n}`).join(', ')}.`);
    const value = inline ?? words[++k];
    if (value === undefined) throw new UsageError(`--${name} needs a value.`);
    options.set(name, value);
  }
  return { plain, options };
}

/** Reads `A..B` (both included) or a single frame. */
export function readFrames(text: string): { first: number; last: number } {
  const match = /^(\d+)(?:\.\.(\d+))?$/.exec(text);
  const first = Number(match?.[1]);
  const last = Number(match?.[2] ?? match?.[1]);
  if (!match || last < first)
    throw new UsageError(`--frames takes A..B with A not above B, for example 0..119; not ${text}.`);
  return { first, last };
}

/** Reads `WxH` in pixels. */
export function readSize(text: string): { width: number; height: number } {
  const match = /^(\d+)x(\d+)$/.exec(text);
  const width = Number(match?.[1]);
  const height = Number(match?.[2]);
  if (!match || width < 1 || height < 1 || width > 8192 || height > 8192) {
    throw new UsageError(
      `--size takes WIDTHxHEIGHT from 1x1 to 8192x8192, for example 1280x720; not ${text}.`,
    );
  }
  return { width, height };
}
