import { readMessage, type MidiEvent } from './message';

/** A MIDI file as it plays: its events in the order of time. */
export interface MidiFile {
  /** Seconds until the last event of any track. */
  seconds: number;
  events: { seconds: number; event: MidiEvent }[];
}

/** A file that cannot be read; the message says at which byte, and what is wrong. */
export class MidiFileError extends Error {
  override name = 'MidiFileError';
  constructor(at: number, what: string) {
    super(`At byte ${at}: ${what}`);
  }
}

const mostEvents = 200000;

/** Reads bytes one after the other and knows where it stands. */
class Reader {
  at = 0;
  constructor(
    private readonly bytes: Uint8Array,
    private end: number = bytes.length,
    start = 0,
  ) {
    this.at = start;
  }
  get done(): boolean {
    return this.at >= this.end;
  }
  byte(): number {
    if (this.done) throw new MidiFileError(this.at, 'the file ends too early. Export it again.');
    return this.bytes[this.at++];
  }
  number(bytes: number): number {
    let value = 0;
    for (let k = 0; k < bytes; k++) value = value * 256 + this.byte();
    return value;
  }
  /** A number of one to four bytes, seven bits each. */
  variable(): number {
    let value = 0;
    for (let k = 0; k < 4; k++) {
      const byte = this.byte();
      value = value * 128 + (byte & 0x7f);
      if (byte < 0x80) return value;
    }
    throw new MidiFileError(this.at, 'a length has more than four bytes.');
  }
  text(length: number): string {
    return String.fromCharCode(...Array.from({ length }, () => this.byte()));
  }
  skip(length: number): void {
    if (this.at + length > this.end)
      throw new MidiFileError(this.at, 'the file ends too early. Export it again.');
    this.at += length;
  }
  part(length: number): Reader {
    const start = this.at;
    this.skip(length);
    return new Reader(this.bytes, start + length, start);
  }
}

interface Timed {
  tick: number;
  /** A message, or the microseconds of a beat from here on. */
  what: MidiEvent | number;
}

function readTrack(track: Reader, into: Timed[]): void {
  let tick = 0;
  let running = 0;
  while (!track.done) {
    tick += track.variable();
    let status = track.byte();
    let first: number | null = null;
    if (status < 0x80) {
      if (running === 0) throw new MidiFileError(track.at - 1, 'there is no message before these data.');
      first = status;
      status = running;
    }
    if (status === 0xff) {
      const kind = track.byte();
      const length = track.variable();
      if (kind === 0x51 && length === 3) into.push({ tick, what: track.number(3) });
      else track.skip(length);
      if (kind === 0x2f) return;
    } else if (status === 0xf0 || status === 0xf7) track.skip(track.variable());
    else if (status < 0xf0) {
      running = status;
      const isShort = (status & 0xf0) === 0xc0 || (status & 0xf0) === 0xd0;
      const data = [status, first ?? track.byte()];
      if (!isShort) data.push(track.byte());
      const event = readMessage(data);
      if (event) into.push({ tick, what: event });
    } else
      throw new MidiFileError(track.at - 1, `a message 0x${status.toString(16)} has no place in a file.`);
    if (into.length > mostEvents)
      throw new MidiFileError(track.at, `it has more than ${mostEvents} events. Cut it into parts.`);
  }
}

/**
 * Reads a Standard MIDI File (RP-001) of format 0 or 1. Throws MidiFileError. Tempo changes of all tracks count; without one
 * it is 120 beats a minute.
 */
export function readMidiFile(bytes: Uint8Array): MidiFile {
  const file = new Reader(bytes);
  if (bytes.length < 14 || file.text(4) !== 'MThd')
    throw new MidiFileError(0, 'this is no MIDI file. Choose one that ends in .mid.');
  const header = file.part(file.number(4));
  const format = header.number(2);
  const tracks = header.number(2);
  const division = header.number(2);
  if (format > 1) throw new MidiFileError(8, 'it holds several songs. Export one of them.');
  if (division === 0) throw new MidiFileError(12, 'a beat has no ticks.');
  const timed: Timed[] = [];
  for (let k = 0; k < tracks && !file.done;) {
    const name = file.text(4);
    const part = file.part(file.number(4));
    if (name !== 'MTrk') continue;
    readTrack(part, timed);
    k++;
  }
  timed.sort((a, b) => a.tick - b.tick);
  // Frames a second (negative) and ticks a frame, or ticks a beat.
  const isFrames = division >= 0x8000;
  const ticksPerSecond = isFrames ? (256 - (division >> 8)) * (division & 0xff) || 1 : 0;
  let secondsPerTick = isFrames ? 1 / ticksPerSecond : 0.5 / division;
  let seconds = 0;
  let tick = 0;
  const events: MidiFile['events'] = [];
  for (const { tick: at, what } of timed) {
    seconds += (at - tick) * secondsPerTick;
    tick = at;
    if (typeof what !== 'number') events.push({ seconds, event: what });
    else if (!isFrames) secondsPerTick = what / 1e6 / division;
  }
  return { seconds, events };
}
