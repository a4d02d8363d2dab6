import { describe, expect, test } from '@jest/globals';
import { randomAt } from '../random';
import { MidiFileError, readMidiFile } from './file';
import { readMessage, writeMessage, type MidiEvent } from './message';
import { MidiPlayer } from './player';
import { afterEvent, ClockTempo, quietMidi } from './state';

describe('messages', () => {
  test.each([
    [[0x90, 60, 100], { type: 'note', channel: 1, note: 60, velocity: 100, on: true }],
    [[0x9f, 60, 0], { type: 'note', channel: 16, note: 60, velocity: 0, on: false }],
    [[0x81, 60, 64], { type: 'note', channel: 2, note: 60, velocity: 0, on: false }],
    [[0xb0, 74, 127], { type: 'control', channel: 1, control: 74, value: 127 }],
    [[0xe0, 0, 64], { type: 'bend', channel: 1, value: 0 }],
    [[0xe0, 127, 127], { type: 'bend', channel: 1, value: 1 }],
    [[0xe0, 0, 0], { type: 'bend', channel: 1, value: -1 }],
    [[0xf8], { type: 'clock' }],
    [[0xfa], { type: 'start' }],
    [[0xfc], { type: 'stop' }],
    [[0xc0, 5], null],
    [[0x90, 60], null],
    [[0x90, 200, 1], null],
    [[60, 60, 60], null],
    [[], null],
  ])('%j', (bytes, event) => expect(readMessage(bytes)).toEqual(event));
  test('written and read again they are the same', () => {
    const events: MidiEvent[] = [
      { type: 'note', channel: 3, note: 36, velocity: 99, on: true },
      { type: 'control', channel: 16, control: 7, value: 3 },
      { type: 'bend', channel: 1, value: -1 },
      { type: 'bend', channel: 1, value: 1 },
      { type: 'clock' },
      { type: 'start' },
      { type: 'stop' },
    ];
    for (const event of events) expect(readMessage(writeMessage(event))).toEqual(event);
  });
  test('any bytes are read or passed over', () => {
    for (let seed = 0; seed < 2000; seed++) {
      const bytes = Array.from({ length: seed % 5 }, (_, k) => Math.floor(randomAt(k, seed) * 256));
      expect(() => readMessage(bytes)).not.toThrow();
    }
  });
});

describe('state', () => {
  test('is known by channel and by any', () => {
    let state = quietMidi;
    for (const bytes of [
      [0x92, 40, 127],
      [0xb1, 7, 127],
      [0xe0, 0, 0],
    ])
      state = afterEvent(state, readMessage(bytes)!);
    expect(state.notes['3/40']).toEqual({ down: true, velocity: 1, presses: 1 });
    expect([state.controls['2/7'], state.controls['0/7'], state.bends['0']]).toEqual([1, 1, -1]);
    state = afterEvent(state, readMessage([0x82, 40, 0])!);
    expect(state.notes['0/40']).toEqual({ down: false, velocity: 1, presses: 1 });
  });
  test('clock: 24 ticks a beat, and again after a pause', () => {
    const tempo = new ClockTempo();
    let bpm: number | null = null;
    for (let k = 0; k < 100; k++) bpm = tempo.tick((k * 60) / 128 / 24);
    expect(bpm).toBeCloseTo(128);
    expect(tempo.tick(100)).toBeNull();
  });
});

const word = (value: number, bytes: number): number[] =>
  Array.from({ length: bytes }, (_, k) => (value >> (8 * (bytes - 1 - k))) & 0xff);
const chunk = (name: string, data: number[]): number[] => [
  ...[...name].map((c) => c.charCodeAt(0)),
  ...word(data.length, 4),
  ...data,
];
const fileOf = (tracks: number[][], format = 1, division = 96): Uint8Array =>
  Uint8Array.from([
    ...chunk('MThd', [...word(format, 2), ...word(tracks.length, 2), ...word(division, 2)]),
    ...tracks.flatMap((track) => chunk('MTrk', track)),
  ]);
const end = [0, 0xff, 0x2f, 0];

describe('files', () => {
  // 60 beats a minute from beat 1 on: a beat lasts half a second before, a second after.
  const tempoTrack = [96, 0xff, 0x51, 3, ...word(1000000, 3), ...end];
  const notes = [0, 0x90, 60, 100, 0x60, 60, 0, 0x81, 0x40, 0x91, 62, 1, ...end];
  test('events come at their seconds, by tempo changes of all tracks and running status', () => {
    const { events, seconds } = readMidiFile(fileOf([tempoTrack, notes]));
    expect(events.map(({ seconds: s, event }) => [s, event.type === 'note' && event.on])).toEqual([
      [0, true],
      [0.5, false],
      [2.5, true],
    ]);
    expect(seconds).toBe(2.5);
  });
  test('in frames a second', () => {
    const { events } = readMidiFile(fileOf([[50, 0xb0, 1, 2, ...end]], 0, 0xe728));
    expect(events[0].seconds).toBeCloseTo(50 / 25 / 40);
  });
  test.each([
    [Uint8Array.from([1, 2, 3]), /no MIDI file/],
    [fileOf([notes], 2), /several songs/],
    [fileOf([notes], 1, 0), /no ticks/],
    [fileOf([notes]).subarray(0, 30), /ends too early/],
    [fileOf([[0, 60, 60]]), /no message before/],
    [fileOf([[0, 0xf4]]), /no place in a file/],
    [fileOf([[0xff, 0xff, 0xff, 0xff, 0xff]]), /more than four bytes/],
  ])('what cannot be read says where', (bytes, words) => {
    expect(() => readMidiFile(bytes)).toThrow(words);
    expect(() => readMidiFile(bytes)).toThrow(MidiFileError);
  });
  test('damaged files are read or refused, never worse', () => {
    const whole = fileOf([tempoTrack, notes]);
    for (let seed = 0; seed < 1500; seed++) {
      const bytes = whole.slice(0, 1 + Math.floor(randomAt(1, seed) * whole.length));
      for (let k = 0; k < 3; k++)
        bytes[Math.floor(randomAt(2 + k, seed) * bytes.length)] = Math.floor(randomAt(9 + k, seed) * 256);
      try {
        expect(Number.isFinite(readMidiFile(bytes).seconds)).toBe(true);
      } catch (error) {
        expect(error).toBeInstanceOf(MidiFileError);
      }
    }
  });
  test('a player is where its time is, round and round, and after a jump back', () => {
    const player = new MidiPlayer(readMidiFile(fileOf([tempoTrack, notes])), 4);
    expect(player.at(0).notes['1/60']).toMatchObject({ down: true, presses: 1 });
    expect(player.at(1).notes['1/60'].down).toBe(false);
    expect(player.at(2.5).notes['2/62'].presses).toBe(1);
    expect(player.at(4.1).notes['1/60']).toMatchObject({ down: true, presses: 2 });
    expect(player.at(0.2).notes).toEqual({
      '1/60': { down: true, velocity: 100 / 127, presses: 1 },
      '0/60': { down: true, velocity: 100 / 127, presses: 1 },
    });
    const once = new MidiPlayer(readMidiFile(fileOf([notes])), 0);
    expect(once.at(100).notes['1/60'].presses).toBe(1);
  });
});
