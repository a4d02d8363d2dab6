/** A command that was called wrongly: said without a trace, with exit code 2. */
export class UsageError extends Error {
  override name = 'UsageError';
}

/** Options as they were given, each with all its values. */
export class Options {
  private readonly values = new Map<string, string[]>();

  add(name: string, value: string): void {
    this.values.set(name, [...this.all(name), value]);
  }

  /** Every value, in order: options that say what is wanted can be given several times. */
  all(name: string): string[] {
    return this.values.get(name) ?? [];
  }

  /** The last value, as it stands for all before it. */
  get(name: string): string | undefined {
    return this.values.get(name)?.at(-1);
  }

  static of(values: Readonly<Record<string, string | readonly string[]>>): Options {
    const options = new Options();
    for (const [name, given] of Object.entries(values))
      for (const value of typeof given === 'string' ? [given] : given) options.add(name, value);
    return options;
  }
}

/** Splits `file --name value …` into plain words and options. Throws UsageError for unknown or empty options. */
export function readArguments(
  words: readonly string[],
  known: readonly string[],
  /** Options that take no value: they stand or they don't. */
  flags: readonly string[] = [],
): { plain: string[]; options: Options } {
  const plain: string[] = [];
  const options = new Options();
  for (let k = 0; k < words.length; k++) {
    const word = words[k];
    if (!word.startsWith('--')) {
      plain.push(word);
      continue;
    }
    const [name, inline] = word.slice(2).split('=', 2);
    if (flags.includes(name)) {
      options.add(name, inline ?? 'yes');
      continue;
    }
    if (!known.includes(name))
      throw new UsageError(
        `There is no option --${name}. Known: ${[...known, ...flags].map((n) => `--${n}`).join(', ')}.`,
      );
    const value = inline ?? words[++k];
    if (value === undefined) throw new UsageError(`--${name} needs a value.`);
    options.add(name, value);
  }
  return { plain, options };
}

const mostFrame = 1e6;

/** Reads frames and ranges (both ends included), such as `0,30,60` or `0..119`; gives them in order, each once. */
export function readFrames(text: string): number[] {
  const frames = new Set<number>();
  for (const part of text.split(',')) {
    const match = /^(\d+)(?:\.\.(\d+))?$/.exec(part.trim());
    const first = Number(match?.[1]);
    const last = Number(match?.[2] ?? match?.[1]);
    if (!match || last < first || last > mostFrame)
      throw new UsageError(
        `--frames takes frames up to ${mostFrame} and ranges A..B with A not above B, for example 0,30,60..119; not ${text}.`,
      );
    for (let frame = first; frame <= last; frame++) frames.add(frame);
  }
  return [...frames].sort((a, b) => a - b);
}

/** Reads frames a second, as a show may have them. */
export function readFps(text: string): number {
  const fps = Number(text);
  if (!(fps >= 1 && fps <= 240)) throw new UsageError(`--fps takes a number from 1 to 240, not ${text}.`);
  return fps;
}

/** Reads a place `x,y,z` in scene units. */
export function readPlaces(text: string): number[] {
  const numbers = text.split(',').map((part) => (part.trim() ? Number(part) : Number.NaN));
  if (numbers.length !== 3 || !numbers.every(Number.isFinite))
    throw new UsageError(`--at takes x,y,z, for example 0,0.5,-0.1; not ${text}.`);
  return numbers;
}

/** Reads `WxH` in pixels. */
export function readSize(text: string, most = 8192): { width: number; height: number } {
  const match = /^(\d+)x(\d+)$/.exec(text);
  const width = Number(match?.[1]);
  const height = Number(match?.[2]);
  if (!match || width < 1 || height < 1 || width > most || height > most) {
    throw new UsageError(
      `--size takes WIDTHxHEIGHT from 1x1 to ${most}x${most}, for example 1280x720; not ${text}.`,
    );
  }
  return { width, height };
}
