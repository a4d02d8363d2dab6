import { describe, expect, test } from '@jest/globals';
import { Bench, rounded } from '../../../test/signal-bench';
import { silence, type SoundState } from '../../core/audio/listener';
import { windowSize } from '../../core/audio/spectrum';
import { readMessage } from '../../core/midi/message';
import { afterEvent, quietMidi, type MidiState } from '../../core/midi/state';
import type { InputEvent, InputState, PointerState } from '../../core/inputs/inputs';
import { catalogue } from '../catalogue';

const set = (bench: Bench, change: Partial<InputState>): Bench => {
  bench.live = { ...bench.live, ...change };
  return bench;
};
/** A sound with a sine of so many decibels at a frequency. */
function tone(hertz: number, decibels: number): SoundState {
  const power = new Float32Array(windowSize / 2);
  power[Math.round((hertz * windowSize) / 48000)] = 10 ** (decibels / 10);
  const level = 10 ** (decibels / 20) / Math.SQRT2;
  return { ...silence, power, level, peak: level * Math.SQRT2 };
}
const midi = (...messages: number[][]): MidiState =>
  messages.reduce((state, bytes) => afterEvent(state, readMessage(bytes)!), quietMidi);

describe('Audio Level', () => {
  test('0 at the floor, 1 at full scale, between by decibels; gain lifts', () => {
    const at = (decibels: number, controls = {}): number =>
      set(new Bench().add('audio-level', { rise: 0, fall: 0, floor: -48, ...controls }), {
        sound: tone(440, decibels),
      }).play(2)[0][0];
    expect(rounded([at(0), at(-24), at(-48), at(-90)])).toEqual([1, 0.5, 0, 0]);
    expect(at(-24, { gain: 12 })).toBeCloseTo(0.75, 4);
    expect(at(-20, { scale: 'plain' })).toBeCloseTo(0.1, 4);
    expect(at(-20, { scale: 'plain', measure: 'peak' })).toBeCloseTo(0.1, 4);
  });
  test.each([30, 60, 144])('rises and falls in its times at %d frames a second', (rate) => {
    const bench = new Bench(rate).add('audio-level', { rise: 0.5, fall: 1 });
    bench.play();
    set(bench, { sound: tone(440, 0) });
    expect(bench.play(rate / 2)[0][0]).toBeCloseTo(0.95, 2);
    const top = bench.play(1)[0][0];
    set(bench, { sound: silence });
    expect(bench.play(rate)[0][0] / top).toBeCloseTo(0.05, 2);
  });
});

describe('Audio Bands', () => {
  test('a tone lights its band, lowest first; as many as something else has', () => {
    const bands = (hertz: number): number[] =>
      set(new Bench().add('audio-bands', { bands: 8, tilt: 0, rise: 0 }), { sound: tone(hertz, -6) }).play(
        2,
      )[0];
    const top = (row: number[]): number => row.indexOf(Math.max(...row));
    expect([60, 700, 9000].map((hertz) => top(bands(hertz)))).toEqual([0, 4, 7]);
    expect(Math.max(...bands(700))).toBeCloseTo((54 - 6) / 54, 1);
    const like = new Bench().add('values', { list: [1, 2, 3] }).add('audio-bands', {}, 'like');
    expect(like.play()[0]).toHaveLength(3);
    expect(new Bench().add('audio-bands', { bands: 256 }).play()[0]).toHaveLength(256);
  });
  test('lifts treble by its tilt', () => {
    const level = (tilt: number): number =>
      Math.max(
        ...set(new Bench().add('audio-bands', { bands: 1, low: 7900, high: 8100, tilt, rise: 0 }), {
          sound: tone(8000, -30),
        }).play(2)[0],
      );
    expect((level(3) - level(0)) * 54).toBeCloseTo(9, 1);
  });
});

describe('Audio Onset', () => {
  const heard = (count: number, strength = 0.5): Partial<InputState> => ({
    sound: { ...silence, onsets: { ...silence.onsets, low: { count, strength } } },
  });
  test('fires once for each start, not for what was before; counts and tells the strength', () => {
    const bench = set(new Bench().add('audio-onset', { range: 'low', rest: 0 }), heard(7));
    expect(bench.play()).toEqual([[0], [0], [0]]);
    expect(set(bench, heard(8)).play()).toEqual([[1], [0.5], [1]]);
    expect(bench.play()).toEqual([[0], [0.5], [1]]);
    // Three starts between two frames are one hit.
    expect(set(bench, heard(11)).play()[2]).toEqual([2]);
  });
  test('weak ones and those in the rest do not fire; another source begins again', () => {
    const bench = set(new Bench().add('audio-onset', { range: 'low', rest: 0.1, least: 0.4 }), heard(0));
    bench.play();
    expect(set(bench, heard(1, 0.3)).play()[0]).toEqual([0]);
    expect(set(bench, heard(2, 0.5)).play()[0]).toEqual([1]);
    expect(set(bench, heard(3, 0.5)).play()[0]).toEqual([0]);
    bench.play(10);
    expect(set(bench, heard(0)).play()[0]).toEqual([0]);
    expect(set(bench, heard(1)).play()[0]).toEqual([1]);
  });
});

describe('MIDI', () => {
  test('control changes by channel and number, several at once, and a value before they move', () => {
    const state = midi([0xb0, 21, 127], [0xb4, 22, 0]);
    const read = (controls: object): number[] =>
      rounded(set(new Bench().add('midi', controls as never), { midi: state }).play()[0]);
    expect(read({ number: 21 })).toEqual([1]);
    expect(read({ number: 21, channel: 2, start: 0.3 })).toEqual([0.3]);
    expect(read({ number: 21, count: 3, start: 0.5 })).toEqual([1, 0, 0.5]);
    expect(read({ takes: 'bend' })).toEqual([0]);
  });
  test('notes: velocity while held, toggled and counted', () => {
    const read = (gives: string): number[] => {
      const bench = new Bench().add('midi', { takes: 'note', number: 40, gives });
      const seen = bench.play()[0];
      set(bench, { midi: midi([0x90, 40, 64]) });
      seen.push(...bench.play()[0]);
      set(bench, { midi: midi([0x90, 40, 64], [0x80, 40, 0]) });
      seen.push(...bench.play()[0]);
      set(bench, { midi: midi([0x90, 40, 64], [0x80, 40, 0], [0x90, 40, 127], [0x80, 40, 0]) });
      seen.push(...bench.play()[0], ...bench.play()[0]);
      return rounded(seen);
    };
    // The last hit was shorter than a frame and counts for one.
    expect(read('velocity')).toEqual([0, 0.5039, 0, 1, 0]);
    expect(read('held')).toEqual([0, 1, 0, 1, 0]);
    expect(read('toggle')).toEqual([0, 1, 1, 0, 0]);
    expect(read('count')).toEqual([0, 1, 1, 2, 2]);
  });
});

describe('OSC', () => {
  const osc = { '/hive/1/glow': { args: [0.25, 3], count: 1 }, '/hive/2/glow': { args: [0.5], count: 4 } };
  const read = (controls: object): number[][] =>
    set(new Bench().add('osc', controls as never), { osc }).play();
  test('numbers of an address as lanes, of a pattern as samples', () => {
    expect(read({ address: '/hive/1/glow', names: 'glow size' })).toEqual([[0.25], [3]]);
    expect(read({ address: '/hive/*/glow', start: 9 })).toEqual([
      [0.25, 0.5],
      [3, 9],
    ]);
    expect(read({ address: '/none', start: 0.7 })).toEqual([[expect.closeTo(0.7, 5)]]);
  });
  test('a hit for a frame with each message', () => {
    const bench = set(new Bench().add('osc', { address: '/hive/2/glow', gives: 'hit' }), { osc });
    expect(bench.play()).toEqual([[0]]);
    set(bench, { osc: { '/hive/2/glow': { args: [], count: 5 } } });
    expect([bench.play(), bench.play()]).toEqual([[[1]], [[0]]]);
  });
});

describe('Gamepad and Pointer', () => {
  test('sticks with a dead zone, buttons, and no pad', () => {
    const pads = [{ sticks: [0.05, -1, 0.54, 0], buttons: [0, 1] }];
    const read = (controls: object): number[][] =>
      set(new Bench().add('gamepad', controls as never), { pads })
        .play()
        .map(rounded);
    expect(read({})).toEqual([[0], [-1], [0.5], [0]]);
    expect(read({ takes: 'button', button: 1 })).toEqual([[1]]);
    expect(read({ takes: 'buttons' })[0]).toHaveLength(17);
    expect(read({ pad: 2 })).toEqual([[0], [0], [0], [0]]);
  });
  test('several pointers: each keeps its place when it is lifted', () => {
    const finger = (x: number, y: number): PointerState => ({
      x,
      y,
      down: true,
      presses: 1,
      wheel: 0,
      inside: true,
    });
    const bench = set(new Bench().add('pointer', { pointers: 3 }), {
      pointers: [finger(0.1, 0.2), finger(-0.5, 0)],
    });
    expect(bench.play().map(rounded).slice(0, 3)).toEqual([
      [0.1, -0.5, 0],
      [0.2, 0, 0],
      [1, 1, 0],
    ]);
    set(bench, { pointers: [finger(0.3, 0.2)] });
    expect(bench.play().map(rounded).slice(0, 3)).toEqual([
      [0.3, -0.5, 0],
      [0.2, 0, 0],
      [1, 0, 0],
    ]);
  });
});

describe('learning', () => {
  const by = (event: InputEvent) =>
    [...catalogue.values()].flatMap((kind) => {
      const learned = kind.output === 'signal' ? kind.learn?.(event) : null;
      return learned ? [[kind.id, learned.controls, learned.lane]] : [];
    });
  test.each([
    [{ type: 'key', code: 'KeyQ', down: true }, 'keys', { key: 'KeyQ' }, undefined],
    [{ type: 'pointer' }, 'pointer', {}, undefined],
    [
      { type: 'midi', event: { type: 'control', channel: 3, control: 21, value: 5 } },
      'midi',
      { takes: 'control', channel: 3, number: 21 },
      undefined,
    ],
    [
      { type: 'midi', event: { type: 'note', channel: 1, note: 40, velocity: 9, on: true } },
      'midi',
      { takes: 'note', channel: 1, number: 40 },
      undefined,
    ],
    [{ type: 'osc', address: '/a/b', args: [1] }, 'osc', { address: '/a/b' }, undefined],
    [
      { type: 'pad', pad: 1, button: 3, value: 1 },
      'gamepad',
      { pad: 1, takes: 'button', button: 3 },
      undefined,
    ],
    [{ type: 'pad', pad: 2, stick: 1, value: 1 }, 'gamepad', { pad: 2, takes: 'sticks' }, 'y'],
  ] as [InputEvent, string, object, string | undefined][])('%j', (event, kind, controls, lane) =>
    expect(by(event)).toEqual([[kind, controls, lane]]),
  );
  test('a note that is let go and the clock teach nothing', () => {
    expect(by({ type: 'midi', event: { type: 'clock' } })).toEqual([]);
    expect(
      by({ type: 'midi', event: { type: 'note', channel: 1, note: 4, velocity: 0, on: false } }),
    ).toEqual([]);
  });
  test('what is learned are controls that the kind has, with values that fit', () => {
    for (const [id, controls] of by({ type: 'pad', pad: 2, stick: 1, value: 1 }) as [string, object][])
      for (const name of Object.keys(controls)) expect(catalogue.get(id)!.controls).toHaveProperty(name);
  });
});
