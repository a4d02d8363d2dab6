import type { Lane, Row, Signal, SignalBuffer } from './signal';

export type { Row };

const nothing = new Float32Array(1);
const oneLane: readonly Lane[] = [{ name: 'value', samples: nothing }];

/**
 * Lays a signal out with the lanes of another, `length` samples each, and pairs them up. Where nothing comes in there is
 * one lane, `value`, with one sample of 0. The list is good until the next call for the same buffer.
 */
export function rowsLike(
  signal: Signal | null,
  out: SignalBuffer,
  length = signal?.length ?? 1,
): readonly Row[] {
  const lanes = signal?.lanes.length ? signal.lanes : oneLane;
  const arrays = out.layoutLike(lanes, length);
  const { rows } = out;
  rows.length = lanes.length;
  for (let k = 0; k < lanes.length; k++) {
    const row = (rows[k] ??= { from: nothing, into: nothing });
    row.from = lanes[k].samples;
    row.into = arrays[k];
  }
  return rows;
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
