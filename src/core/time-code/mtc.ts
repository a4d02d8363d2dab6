import { isTimeCode, secondsOf, type TimeCode } from './time-code';

/** Frames a second of the four rates of MIDI time code. */
const rates = [
  { fps: 24, drop: false },
  { fps: 25, drop: false },
  { fps: 30, drop: true },
  { fps: 30, drop: false },
] as const;

/**
 * Reads MIDI time code (MMA/AMEI RP-004, RP-008): quarter frames, of which eight make up a time, and full messages.
 */
export class MtcReader {
  private readonly pieces = new Array<number>(8).fill(0);
  /** How many pieces have come in their order. */
  private inOrder = 0;
  private lastPiece = -1;

  /** Takes the bytes of one message. Gives seconds where it completes a time; null else. */
  take(bytes: ArrayLike<number>): number | null {
    if (bytes[0] === 0xf1 && bytes.length >= 2) return this.quarter(bytes[1]);
    const isFull =
      bytes[0] === 0xf0 && bytes[1] === 0x7f && bytes[3] === 1 && bytes[4] === 1 && bytes.length >= 10;
    if (!isFull) return null;
    this.inOrder = 0;
    const code: TimeCode = {
      ...rates[(bytes[5] >> 5) & 3],
      hours: bytes[5] & 31,
      minutes: bytes[6],
      seconds: bytes[7],
      frames: bytes[8],
    };
    return isTimeCode(code) ? secondsOf(code) : null;
  }

  private quarter(data: number): number | null {
    const piece = (data >> 4) & 7;
    // A piece that was lost leaves the rest of its time unread: half of one time and half of another would be a third.
    this.inOrder = piece === 0 ? 1 : piece === this.lastPiece + 1 && this.inOrder > 0 ? this.inOrder + 1 : 0;
    this.lastPiece = piece;
    this.pieces[piece] = data & 15;
    if (piece !== 7 || this.inOrder !== 8) return null;
    const at = (k: number): number => this.pieces[k] | (this.pieces[k + 1] << 4);
    const rate = rates[(this.pieces[7] >> 1) & 3];
    const code: TimeCode = {
      ...rate,
      frames: at(0) & 31,
      seconds: at(2) & 63,
      minutes: at(4) & 63,
      hours: (this.pieces[6] | (this.pieces[7] << 4)) & 31,
    };
    // The time is that of its first piece, and eight pieces take two frames.
    return isTimeCode(code) ? secondsOf(code) + 2 / (rate.drop ? 30000 / 1001 : rate.fps) : null;
  }
}

/** The eight quarter frames of a time, for what sends some: the stand-in. */
export function quarterFrames({ hours, minutes, seconds, frames, fps, drop }: TimeCode): number[][] {
  const rate = rates.findIndex((one) => one.fps === fps && one.drop === drop);
  const values = [frames, seconds, minutes, hours | (Math.max(0, rate) << 5)];
  return values.flatMap((value, k) => [
    [0xf1, ((2 * k) << 4) | (value & 15)],
    [0xf1, ((2 * k + 1) << 4) | (value >> 4)],
  ]);
}
