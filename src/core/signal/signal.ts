/** One named row of numbers. */
export interface Lane {
  name: string;
  samples: Float32Array;
}

/** Named lanes of `length` samples each: numbers over copies or over time. */
export interface Signal {
  readonly lanes: readonly Lane[];
  readonly length: number;
}

/** What comes in of one lane, and where its result goes. */
export interface Row {
  from: Float32Array;
  into: Float32Array;
}

/**
 * A signal that is written again every frame into the same memory. Buffers only grow, so a steady patch allocates
 * nothing.
 */
export class SignalBuffer implements Signal {
  lanes: Lane[] = [];
  length = 0;
  /** Room for pairs of what comes in and goes out; see rowsLike. */
  readonly rows: Row[] = [];
  private arrays: Float32Array[] = [];
  private stores: Float32Array[] = [];

  /** Sets lane names and sample count; gives the lanes' arrays, holding whatever was there before. */
  layout(names: readonly string[], length: number): readonly Float32Array[] {
    if (this.length === length && this.lanes.length === names.length) {
      for (let k = 0; k < names.length; k++) this.lanes[k].name = names[k];
      return this.arrays;
    }
    this.lanes = names.map((name, k) => {
      if (!this.stores[k] || this.stores[k].length < length) {
        const grown = new Float32Array(Math.max(length, 1));
        if (this.stores[k]) grown.set(this.stores[k]);
        this.stores[k] = grown;
      }
      return { name, samples: this.stores[k].subarray(0, length) };
    });
    this.length = length;
    this.arrays = this.lanes.map((lane) => lane.samples);
    return this.arrays;
  }

  /** The same with the lane names of another signal. */
  layoutLike(lanes: readonly Lane[], length: number): readonly Float32Array[] {
    if (this.length !== length || this.lanes.length !== lanes.length)
      return this.layout(
        lanes.map((lane) => lane.name),
        length,
      );
    for (let k = 0; k < lanes.length; k++) this.lanes[k].name = lanes[k].name;
    return this.arrays;
  }

  /** Takes over names, count and values of another signal. */
  copy(from: Signal): void {
    const into = this.layoutLike(from.lanes, from.length);
    for (let k = 0; k < into.length; k++) into[k].set(from.lanes[k].samples);
  }
}

/** The lane of that name, else the one at `index`, else the first; null if there is none. */
export function laneOf(signal: Signal, name: string | undefined, index = 0): Lane | null {
  if (name !== undefined) {
    for (const lane of signal.lanes) if (lane.name === name) return lane;
  }
  return signal.lanes[index] ?? signal.lanes[0] ?? null;
}
