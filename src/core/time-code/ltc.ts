import { isTimeCode, secondsOf, type TimeCode } from './time-code';

/** The last 16 bits of each frame. */
const syncWord = 0b0011111111111101;
const bitsOfFrame = 80;

/** What a frame says, as its bits stand: numbers in binary-coded decimals, from their lowest bit on. */
function codeOf(bits: Uint8Array, fps: number): TimeCode {
  const number = (first: number, count: number): number => {
    let value = 0;
    for (let k = 0; k < count; k++) value |= bits[first + k] << k;
    return value;
  };
  return {
    frames: number(0, 4) + 10 * number(8, 2),
    drop: bits[10] === 1,
    seconds: number(16, 4) + 10 * number(24, 3),
    minutes: number(32, 4) + 10 * number(40, 3),
    hours: number(48, 4) + 10 * number(56, 2),
    fps,
  };
}

/**
 * Reads linear time code (SMPTE ST 12-1) out of sound: 80 bits a frame in biphase mark, where a bit that is 1 changes its level in the
 * middle. It finds its speed by itself, and after a dropout goes on with the next whole frame. It reads forwards only.
 */
export class LtcReader {
  private high = false;
  /** Samples since the last change of level. */
  private since = 0;
  /** Samples of one bit, as last measured; 0: not known. */
  private bitSamples = 0;
  private halfSeen = false;
  private readonly bits: number[] = [];
  private peak = 0;

  constructor(private readonly rate: number) {}

  /** Takes samples as they come. Gives the seconds at their end where a frame ended in them; null else. */
  push(samples: ArrayLike<number>): number | null {
    let read: number | null = null;
    for (let k = 0; k < samples.length; k++) {
      this.since++;
      if (read !== null) read += 1 / this.rate;
      const value = samples[k];
      this.peak = Math.max(Math.abs(value), this.peak * 0.9995);
      // A third of the loudest: noise and the slopes of a dull line change no level.
      const least = Math.max(0.005, this.peak / 3);
      if (this.high ? value < -least : value > least) {
        this.high = !this.high;
        const frame = this.changed(this.since);
        this.since = 0;
        if (frame !== null) read = frame;
      } else if (this.bitSamples > 0 && this.since > 4 * this.bitSamples) this.lose();
    }
    return read;
  }

  private lose(): void {
    this.bits.length = 0;
    this.bitSamples = 0;
    this.halfSeen = false;
  }

  private changed(samples: number): number | null {
    const fastest = this.rate / (30 * bitsOfFrame);
    if (this.bitSamples === 0) {
      // A level that stands longer than three quarters of the quickest bit is a whole bit.
      if (samples > fastest * 0.75 && samples < fastest * 2) this.bitSamples = samples;
      return null;
    }
    const share = samples / this.bitSamples;
    if (share < 0.25 || share > 1.6) {
      this.lose();
      return null;
    }
    if (share > 0.75) {
      if (this.halfSeen) {
        this.lose();
        return null;
      }
      this.bitSamples += (samples - this.bitSamples) * 0.1;
      return this.bit(0);
    }
    this.halfSeen = !this.halfSeen;
    return this.halfSeen ? null : this.bit(1);
  }

  private bit(value: number): number | null {
    const { bits } = this;
    bits.push(value);
    if (bits.length > bitsOfFrame) bits.shift();
    if (bits.length < bitsOfFrame) return null;
    let word = 0;
    for (let k = 64; k < bitsOfFrame; k++) word = (word << 1) | bits[k];
    if (word !== syncWord) return null;
    const perSecond = this.rate / (this.bitSamples * bitsOfFrame);
    const fps = [24, 25, 30].reduce((a, b) => (Math.abs(b - perSecond) < Math.abs(a - perSecond) ? b : a));
    const code = codeOf(Uint8Array.from(bits), fps);
    bits.length = 0;
    // A frame is read at its end.
    return isTimeCode(code) ? secondsOf(code) + 1 / (code.drop ? 30000 / 1001 : fps) : null;
  }
}

/** The bits of one frame. */
function frameBits({ hours, minutes, seconds, frames, drop }: TimeCode): number[] {
  const bits = new Array<number>(bitsOfFrame).fill(0);
  const put = (first: number, count: number, value: number): void => {
    for (let k = 0; k < count; k++) bits[first + k] = (value >> k) & 1;
  };
  const both = (first: number, value: number, tens: number): void => {
    put(first, 4, value % 10);
    put(first + 8, tens, Math.floor(value / 10));
  };
  both(0, frames, 2);
  bits[10] = drop ? 1 : 0;
  both(16, seconds, 3);
  both(32, minutes, 3);
  both(48, hours, 2);
  for (let k = 0; k < 16; k++) bits[64 + k] = (syncWord >> (15 - k)) & 1;
  return bits;
}

/** Sound of time code from a time on, one channel: what a stand-in plays and tests read. */
export function makeLtc(first: TimeCode, frameCount: number, rate: number): Float32Array {
  const perSecond = first.drop ? 30000 / 1001 : first.fps;
  const out = new Float32Array(Math.ceil((frameCount * rate) / perSecond));
  let level = 1;
  let at = 0;
  let time = 0;
  const fill = (seconds: number): void => {
    time += seconds;
    const end = Math.min(out.length, Math.round(time * rate));
    out.fill(level * 0.6, at, end);
    at = end;
  };
  const half = 1 / perSecond / bitsOfFrame / 2;
  for (let k = 0; k < frameCount; k++) {
    for (const bit of frameBits(codeLater(first, k))) {
      level = -level;
      fill(half);
      if (bit) level = -level;
      fill(half);
    }
  }
  return out;
}

/** The time code so many frames later, without drop frames. */
function codeLater(code: TimeCode, frames: number): TimeCode {
  const { fps } = code;
  const all = ((code.hours * 60 + code.minutes) * 60 + code.seconds) * fps + code.frames + frames;
  const whole = Math.floor(all / fps);
  return {
    ...code,
    frames: all % fps,
    seconds: whole % 60,
    minutes: Math.floor(whole / 60) % 60,
    hours: Math.floor(whole / 3600) % 24,
  };
}
