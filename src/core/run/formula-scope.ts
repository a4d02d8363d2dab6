import { namesIn, FormulaError, type Expression } from '../formula/parse';
import { isTimeName, momentNames, type TimeName } from '../formula/names';
import type { FormulaValues } from '../formula/run';
import type { Shape } from '../shape/shape';
import type { Signal } from '../signal/signal';
import { spreadInto } from '../signal/spread';
import { timeNamed, type Moment } from '../time/clock';

/** What a node shows to formulas: its signal, or the count of its shape. */
export interface Named {
  signal: Signal | null;
  shape: Shape | null;
  /** Values of one of its controls, or of a part of it as `place_x`, in the unit of the interface; null: it has none such. */
  control(name: string): Float32Array | null;
}

/** The names that formulas of one scene can read, with their values at this frame. */
export class FormulaScope {
  private readonly stretched = new Map<string, Float32Array>();
  private readonly momentsOf = new Map<string, Float32Array>();
  /** Where samples stand for moments: seconds to each of them. */
  spread: Float64Array | undefined;

  constructor(
    private readonly byName: ReadonlyMap<string, string>,
    private readonly find: (id: string) => Named | null,
  ) {}

  /** Names of nodes, for suggestions. */
  known(): Iterable<string> {
    return this.byName.keys();
  }

  has(name: string): boolean {
    if ((momentNames as readonly string[]).includes(name)) return true;
    return this.byName.has(name.split('.')[0]);
  }

  /** The signal of a node by its id, null if it gives none. */
  signalOf(id: string | null): Signal | null {
    return id === null ? null : (this.find(id)?.signal ?? null);
  }

  private lookUp(name: string): { samples: Float32Array } | { count: number } | null {
    const [node, property] = name.split('.');
    const id = this.byName.get(node);
    const named = id === undefined ? null : this.find(id);
    if (!named) return null;
    const { signal, shape } = named;
    if (property === 'count') return { count: signal?.length ?? shape?.count ?? 0 };
    const lane = property === undefined ? signal?.lanes[0] : signal?.lanes.find((l) => l.name === property);
    if (!lane && property !== undefined) {
      const samples = named.control(property);
      if (samples) return { samples };
    }
    if (!signal)
      throw new FormulaError(
        `${node} gives no numbers${property === undefined ? '' : ` and has no control ${property}`}. Ask for ${node}.count or one of its controls, or name a signal node.`,
        0,
      );
    if (!lane) {
      const lanes = signal.lanes.map((l) => l.name).join(', ');
      throw new FormulaError(`${node} has no lane ${property}; it has ${lanes || 'none'}.`, 0);
    }
    return { samples: lane.samples };
  }

  /** Names in a formula that have several samples now. */
  varying(expression: Expression): string[] {
    return [...namesIn(expression)].filter((name) => {
      if (name === 'value') return false;
      if (isTimeName(name)) return this.spread !== undefined;
      if ((momentNames as readonly string[]).includes(name)) return false;
      const found = this.lookUp(name);
      return found !== null && 'samples' in found && found.samples.length > 1;
    });
  }

  /** Most samples that a formula's names bring. */
  longest(expression: Expression): number {
    let most = 1;
    for (const name of this.varying(expression)) {
      if (this.spread && isTimeName(name)) {
        most = Math.max(most, this.spread.length);
        continue;
      }
      const found = this.lookUp(name);
      if (found && 'samples' in found) most = Math.max(most, found.samples.length);
    }
    return most;
  }

  /** A name of time at each of many moments. */
  private moments(name: TimeName, moment: Moment): Float32Array {
    const { spread } = this;
    const n = spread?.length ?? 0;
    let buffer = this.momentsOf.get(name);
    if (!buffer || buffer.length !== n) this.momentsOf.set(name, (buffer = new Float32Array(n)));
    for (let i = 0; i < n; i++) buffer[i] = timeNamed(name, moment, spread![i]);
    return buffer;
  }

  /** Values for a run over n samples; longer or shorter lanes are stretched. */
  values(
    names: readonly string[],
    n: number,
    moment: Moment,
    extra: Readonly<Record<string, number | Float32Array>>,
  ): FormulaValues {
    const values: Record<string, number | Float32Array> = { ...extra, n };
    for (const name of names) {
      if (name in values || name === 'i' || name === 'u') continue;
      if (isTimeName(name)) {
        values[name] = this.spread?.length === n && n > 1 ? this.moments(name, moment) : moment[name];
        continue;
      }
      const found = this.lookUp(name);
      // The caller keeps the last good samples: a deleted node moves nothing on stage.
      if (!found)
        throw new FormulaError(`Nothing is called ${name.split('.')[0]} any more. The last values stay.`, 0);
      if ('count' in found) values[name] = found.count;
      else if (found.samples.length <= 1 || n === 1) values[name] = found.samples[0] ?? 0;
      else if (found.samples.length === n) values[name] = found.samples;
      else {
        let buffer = this.stretched.get(name);
        if (!buffer || buffer.length !== n) this.stretched.set(name, (buffer = new Float32Array(n)));
        spreadInto(buffer, found.samples, 'stretch');
        values[name] = buffer;
      }
    }
    return values;
  }
}
