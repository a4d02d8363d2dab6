import type { Signal, SignalBuffer } from './signal';

/** What comes in of one lane, and where its result goes. */
export interface Row {
  from: Float32Array;
  into: Float32Array;
}

const nothing = new Float32Array(1);

/**
 * Lays a signal out with the lanes of another, `length` samples each, and pairs them up. Where nothing comes in there is
 * one lane, `value`, with one sample of 0.
 */
export function rowsLike(signal: Signal | null, out: SignalBuffer, length = signal?.length ?? 1): Row[] {
  const lanes = signal?.lanes.length ? signal.lanes : null;
  const names = lanes?.map((lane) => lane.name) ?? ['value'];
  return out.layout(names, length).map((into, k) => ({ from: lanes?.[k].samples ?? nothing, into }));
}

/** Remembers which triggers are high, to tell when one rises over a half. */
export class Triggers {
  private readonly high: boolean[] = [];

  /** True once for each time the `k`-th trigger comes over a half; one that starts there has risen. */
  rose(k: number, value: number): boolean {
    const before = this.high[k] ?? false;
    this.high[k] = value > 0.5;
    return this.high[k] && !before;
  }

  /** True if any sample of the first lane rose. All are looked at. */
  anyRose(signal: Signal | null): boolean {
    const samples = signal?.lanes[0]?.samples ?? nothing;
    let any = false;
    for (let k = 0; k < samples.length; k++) any = this.rose(k, samples[k]) || any;
    return any;
  }
}
