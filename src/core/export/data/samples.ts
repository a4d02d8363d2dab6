import type { Signal } from '../../signal/signal';
import type { Tempo } from '../../time/clock';

/** The samples of a signal over frames. */
export interface SignalFrames {
  /** Frames a second. */
  rate: number;
  /** Number of the first frame. */
  first: number;
  frames: readonly Signal[];
}

const figure = (value: number): string => String(Number(value.toPrecision(7)));

/** A copy of a signal as it stands: buffers are written again every frame. */
export const copyOf = ({ lanes, length }: Signal): Signal => ({
  length,
  lanes: lanes.map(({ name, samples }) => ({ name, samples: samples.slice() })),
});

const namesOf = (frames: readonly Signal[]): string[] => [
  ...new Set(frames.flatMap(({ lanes }) => lanes.map(({ name }) => name))),
];

const quoted = (name: string): string => (/[",\n]/.test(name) ? `"${name.replaceAll('"', '""')}"` : name);

/** A row for each sample of each frame: frame, seconds, number of the sample, and its value in every lane (RFC 4180). */
export function signalCsv({ rate, first, frames }: SignalFrames): string {
  const names = namesOf(frames);
  const lines = [['frame', 'seconds', 'sample', ...names.map(quoted)].join(',')];
  frames.forEach(({ lanes, length }, k) => {
    const byName = names.map((name) => lanes.find((lane) => lane.name === name)?.samples);
    for (let i = 0; i < length; i++) {
      const values = byName.map((samples) => (samples ? figure(samples[i]) : ''));
      lines.push([first + k, figure((first + k) / rate), i, ...values].join(','));
    }
  });
  return `${lines.join('\n')}\n`;
}

/** The same as one object: `{ framesPerSecond, frames: [{ frame, lanes: { x: [...] } }] }`. */
export const signalJson = ({ rate, first, frames }: SignalFrames): string =>
  `${JSON.stringify({
    framesPerSecond: rate,
    frames: frames.map(({ lanes }, k) => ({
      frame: first + k,
      lanes: Object.fromEntries(
        lanes.map(({ name, samples }) => [name, [...samples].map((v) => Number(figure(v)))]),
      ),
    })),
  })}\n`;

const mostChannels = 8;
const floatFormat = 3;

/** The first sample of each lane as a channel of sound, 32-bit floats (RIFF WAVE). A value of 1 is full scale. */
export function signalWav({ rate, frames }: SignalFrames): Uint8Array<ArrayBuffer> {
  const names = namesOf(frames).slice(0, mostChannels);
  const channels = Math.max(1, names.length);
  const bytes = 4 * channels * frames.length;
  const out = new Uint8Array(44 + bytes);
  const view = new DataView(out.buffer);
  const text = (at: number, word: string): void => {
    for (let k = 0; k < word.length; k++) out[at + k] = word.charCodeAt(k);
  };
  text(0, 'RIFF');
  view.setUint32(4, 36 + bytes, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, floatFormat, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * channels * 4, true);
  view.setUint16(32, channels * 4, true);
  view.setUint16(34, 32, true);
  text(36, 'data');
  view.setUint32(40, bytes, true);
  frames.forEach(({ lanes }, k) =>
    names.forEach((name, c) => {
      const value = lanes.find((lane) => lane.name === name)?.samples[0] ?? 0;
      view.setFloat32(44 + 4 * (k * channels + c), value, true);
    }),
  );
  return out;
}

const ticksPerBeat = 480;
/** Note of the first lane: middle C. */
const firstNote = 60;
/** A value above it is a note that sounds. */
const sounds = 0.5;

const variable = (value: number): number[] => {
  const bytes = [value & 127];
  for (let rest = value >> 7; rest > 0; rest >>= 7) bytes.unshift((rest & 127) | 128);
  return bytes;
};
const big = (value: number, bytes: number): number[] =>
  Array.from({ length: bytes }, (_, k) => (value >> (8 * (bytes - 1 - k))) & 255);
const chunk = (name: string, body: readonly number[]): number[] => [
  ...[...name].map((c) => c.charCodeAt(0)),
  ...big(body.length, 4),
  ...body,
];

/**
 * Hits and gates as notes (Standard MIDI File, one track): each lane and sample is a note from middle C up, which sounds while it is above
 * 0.5, as hard as it is high when it begins.
 */
export function signalMidi(
  { rate, frames }: SignalFrames,
  { bpm, beatsPerBar }: Tempo,
): Uint8Array<ArrayBuffer> {
  const events: { tick: number; bytes: number[] }[] = [];
  const held = new Set<number>();
  const tickAt = (frame: number): number => Math.round((frame / rate) * (bpm / 60) * ticksPerBeat);
  frames.forEach(({ lanes, length }, frame) => {
    lanes.forEach(({ samples }, lane) => {
      for (let i = 0; i < length; i++) {
        const note = firstNote + lane * length + i;
        if (note > 127) continue;
        const isOn = samples[i] > sounds;
        if (isOn === held.has(note)) continue;
        const hard = Math.min(127, Math.max(1, Math.round(samples[i] * 127)));
        events.push({ tick: tickAt(frame), bytes: isOn ? [0x90, note, hard] : [0x80, note, 0] });
        if (isOn) held.add(note);
        else held.delete(note);
      }
    });
  });
  for (const note of held) events.push({ tick: tickAt(frames.length), bytes: [0x80, note, 0] });
  const tempo = [0, 0xff, 0x51, 3, ...big(Math.round(60e6 / bpm), 3)];
  const time = [0, 0xff, 0x58, 4, Math.max(1, Math.round(beatsPerBar)), 2, 24, 8];
  let before = 0;
  const track = events.flatMap(({ tick, bytes }) => {
    const wait = variable(tick - before);
    before = tick;
    return [...wait, ...bytes];
  });
  return Uint8Array.from([
    ...chunk('MThd', [0, 0, 0, 1, ...big(ticksPerBeat, 2)]),
    ...chunk('MTrk', [...tempo, ...time, ...track, 0, 0xff, 0x2f, 0]),
  ]);
}
