import { onsetRanges } from './onsets';
import type { SoundState } from './listener';
import { binCount } from './spectrum';

/** Powers from 10^-12 to 10^2 stand as steps of their logarithm; 0 is none at all. */
const least = -12;
const decades = 14;
const steps = 65534;

const headBytes = 4 * 6;
const onsetBytes = 8 * onsetRanges.length;
/** Bytes of what is heard at a moment, as it is sent to other machines. */
export const heardBytes = headBytes + onsetBytes + 2 * binCount;

/** What is heard at a moment, with its number: those that were sent count up from 1. */
export interface Heard {
  number: number;
  state: SoundState;
}

/** Packs what is heard for other machines, little-endian; powers are kept to 0.05 %. */
export function packHeard({ number, state }: Heard): Uint8Array {
  const bytes = new Uint8Array(heardBytes);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, number, true);
  [state.rate, state.level, state.peak, state.bpm ?? NaN, state.confidence].forEach((value, k) =>
    view.setFloat32(4 + 4 * k, value, true),
  );
  onsetRanges.forEach((range, k) => {
    view.setUint32(headBytes + 8 * k, state.onsets[range].count, true);
    view.setFloat32(headBytes + 8 * k + 4, state.onsets[range].strength, true);
  });
  for (let k = 0; k < binCount; k++) {
    const share = (Math.log10(state.power[k]) - least) / decades;
    const step = share < 0 ? 0 : Math.min(steps, Math.round(share * steps)) + 1;
    view.setUint16(headBytes + onsetBytes + 2 * k, step, true);
  }
  return bytes;
}

/** The number of what `packHeard` has packed; null: it is nothing of the kind. */
export function numberOfHeard(bytes: Uint8Array): number | null {
  if (bytes.byteLength !== heardBytes) return null;
  return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength).getUint32(0, true);
}

/** Reads what `packHeard` has packed; null: it is nothing of the kind. */
export function readHeard(bytes: Uint8Array): Heard | null {
  const number = numberOfHeard(bytes);
  if (number === null) return null;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const [rate, level, peak, bpm, confidence] = [0, 1, 2, 3, 4].map((k) => view.getFloat32(4 + 4 * k, true));
  const onsets = Object.fromEntries(
    onsetRanges.map((range, k) => [
      range,
      {
        count: view.getUint32(headBytes + 8 * k, true),
        strength: view.getFloat32(headBytes + 8 * k + 4, true),
      },
    ]),
  ) as SoundState['onsets'];
  const power = new Float32Array(binCount);
  for (let k = 0; k < binCount; k++) {
    const step = view.getUint16(headBytes + onsetBytes + 2 * k, true);
    power[k] = step === 0 ? 0 : Math.pow(10, least + ((step - 1) / steps) * decades);
  }
  if (![rate, level, peak, confidence].every(Number.isFinite) || rate <= 0) return null;
  return {
    number,
    state: { rate, level, peak, bpm: Number.isNaN(bpm) ? null : bpm, confidence, onsets, power },
  };
}

/** Numbers after which the share of what was lost is told. */
const toldEvery = 300;
/** Numbers by which something may come late: what is older comes from a sender that has begun anew. */
const mostLate = 30;

/** Counts what did not arrive of what was sent by numbers. */
export class LostCount {
  private first = 0;
  private last = 0;
  private came = 0;

  /** Takes a number; gives whether it is newer than all before. */
  take(number: number): boolean {
    // A sender that has begun anew, or a link that was away: neither has lost anything.
    if (this.last === 0 || number > this.last + toldEvery || number < this.last - mostLate) {
      this.first = number - 1;
      this.came = 0;
    } else if (number <= this.last) return false;
    this.last = number;
    this.came++;
    return true;
  }

  /** Share that was lost since it was told last, 0..1; null: too little was sent since then. */
  share(): number | null {
    const sent = this.last - this.first;
    if (sent < toldEvery) return null;
    const lost = 1 - this.came / sent;
    this.first = this.last;
    this.came = 0;
    return lost;
  }
}
