import { describe, expect, test } from '@jest/globals';
import type { Binding, BindSource, Move } from '../document/types';
import type { InputEvent } from '../inputs/inputs';
import { BindingReader, sourceName, sourceOf } from './bindings';
import { MovePlayer, MoveRecorder, movesWithout, overdubbed } from './moves';
import { Takeover } from './takeover';

const control = (value: number, number = 21, channel = 1): InputEvent => ({
  type: 'midi',
  event: { type: 'control', channel, control: number, value },
});
const binding = (source: BindSource, way: Binding['way'] = 'absolute'): Binding => ({
  id: 'b1',
  source,
  target: { type: 'desk', control: 'c1', from: 0 },
  way,
  pickup: true,
  feedback: true,
});

describe('soft takeover', () => {
  test('moves nothing until the fader has come to where the control stands', () => {
    const takeover = new Takeover();
    expect([0.1, 0.3, 0.45].map((share) => takeover.takes('a', share, 0.5))).toEqual([false, false, false]);
    expect(takeover.takes('a', 0.6, 0.5)).toBe(true);
    expect(takeover.takes('a', 0.9, 0.6)).toBe(true);
  });

  test('lets go when somebody else has moved the control', () => {
    const takeover = new Takeover();
    takeover.takes('a', 0.5, 0.5);
    expect(takeover.takes('a', 0.7, 0.5)).toBe(true);
    expect(takeover.takes('a', 0.75, 0.2)).toBe(false);
    expect(takeover.takes('a', 0.1, 0.2)).toBe(true);
  });

  test('holds each of two surfaces by itself', () => {
    const takeover = new Takeover();
    takeover.takes('a', 0.5, 0.5);
    expect(takeover.takes('b', 0.9, 0.5)).toBe(false);
    expect(takeover.takes('a', 0.6, 0.5)).toBe(true);
  });
});

describe('a binding', () => {
  test('reads what its source says and nothing else', () => {
    const reader = new BindingReader();
    const one = binding({ type: 'control', channel: 1, control: 21, fine: false });
    expect(reader.read(one, control(127))).toMatchObject({ share: 1 });
    expect(reader.read(one, control(127, 22))).toBeNull();
    expect(reader.read(one, control(127, 21, 2))).toBeNull();
    expect(reader.read(one, { type: 'pointer' })).toBeNull();
  });

  test('reads endless dials as steps to both sides', () => {
    const reader = new BindingReader();
    const dial = binding({ type: 'control', channel: 1, control: 21, fine: false }, 'relative');
    expect(reader.read(dial, control(1))).toEqual({ by: 1 / 127 });
    expect(reader.read(dial, control(127))).toEqual({ by: -1 / 127 });
  });

  test('reads 14 bits in two halves', () => {
    const reader = new BindingReader();
    const fine = binding({ type: 'control', channel: 1, control: 7, fine: true });
    expect(reader.read(fine, control(5, 39))).toBeNull();
    expect(reader.read(fine, control(64, 7))?.share).toBeCloseTo(64 / 127);
    expect(reader.read(fine, control(1, 39))?.share).toBeCloseTo(((64 << 7) | 1) / 16383, 9);
  });

  test('reads presses and their ends, of notes, keys and buttons', () => {
    const reader = new BindingReader();
    const note = binding({ type: 'note', channel: 2, note: 36 });
    const hit = (on: boolean): InputEvent => ({
      type: 'midi',
      event: { type: 'note', channel: 2, note: 36, velocity: on ? 127 : 0, on },
    });
    expect([reader.read(note, hit(true)), reader.read(note, hit(false))]).toEqual([
      { share: 1, down: true },
      { share: 0, down: false },
    ]);
    const key = binding({ type: 'key', code: 'KeyG' });
    expect(reader.read(key, { type: 'key', code: 'KeyG', down: false })).toEqual({ share: 0, down: false });
    const stick = binding({ type: 'stick', pad: 1, stick: 1 });
    expect(reader.read(stick, { type: 'pad', pad: 1, stick: 1, value: 0 })).toEqual({ share: 0.5 });
    const osc = binding({ type: 'osc', address: '/fader', arg: 1 });
    expect(reader.read(osc, { type: 'osc', address: '/fader', args: [0, 0.25] })).toMatchObject({
      share: 0.25,
    });
    expect(reader.read(osc, { type: 'osc', address: '/fader', args: [0] })).toBeNull();
  });

  test('is learned from a press and not from its end, and says its source in words', () => {
    expect(sourceOf({ type: 'key', code: 'KeyG', down: false })).toBeNull();
    expect(sourceOf({ type: 'pad', pad: 1, stick: 0, value: 0.1 })).toBeNull();
    const learned = sourceOf(control(3))!;
    expect(sourceName(learned)).toBe('Control 21, channel 1');
    expect(sourceName({ type: 'key', code: 'KeyG' })).toBe('Key G');
    expect(sourceOf({ type: 'pointer' })).toBeNull();
  });
});

describe('recorded moves', () => {
  const desk = (at: number, value: number, id = 'c1'): Move => ({
    type: 'desk',
    at,
    control: id,
    value: [value],
  });
  const take = (at: number, scene: string): Move => ({ type: 'take', at, scene, seconds: 0 });

  test('are thinned to the last of each control in a frame', () => {
    const recorder = new MoveRecorder();
    for (const move of [desk(1, 1), desk(1, 2), desk(1, 3, 'c2'), desk(1.1, 4)]) recorder.note(move);
    expect(recorder.take()).toEqual([desk(1, 2), desk(1, 3, 'c2'), desk(1.1, 4)]);
    expect(recorder.count).toBe(0);
  });

  test('play again frame for frame as they were, at any frame rate that has their frames', () => {
    const moves = Array.from({ length: 200 }, (_, k) => desk(k / 60, k));
    for (const fps of [60, 120]) {
      const player = new MovePlayer();
      const seen: number[] = [];
      let value = -1;
      for (let frame = 0; frame < 3 * fps; frame++) {
        for (const move of player.at(moves, frame / fps))
          if (move.type === 'desk') value = (move.value as number[])[0];
        if (frame % (fps / 60) === 0) seen.push(value);
      }
      expect(seen).toEqual(Array.from({ length: 180 }, (_, k) => k));
    }
  });

  test('stand as they did after a jump, whichever way', () => {
    const moves = [desk(1, 1), take(2, 'a'), desk(3, 3), take(4, 'b'), desk(5, 5)];
    const player = new MovePlayer();
    expect(player.at(moves, 4.5)).toEqual([desk(3, 3), take(4, 'b')]);
    expect(player.at(moves, 5.2)).toEqual([desk(5, 5)]);
    expect(player.at(moves, 2.5)).toEqual([desk(1, 1), take(2, 'a')]);
  });

  test('are overdubbed track by track: from its first touch to the end of the round', () => {
    const before = [desk(1, 1), desk(2, 2), desk(2, 9, 'c2'), desk(6, 6)];
    const after = overdubbed(before, [desk(1.5, 7), desk(2.5, 8)], 4);
    expect(after).toEqual([desk(1, 1), desk(1.5, 7), desk(2, 9, 'c2'), desk(2.5, 8), desk(6, 6)]);
  });

  test('are cleared by control', () => {
    const moves = [desk(1, 1), desk(2, 9, 'c2')];
    expect(movesWithout(moves, 'desk c1')).toEqual([desk(2, 9, 'c2')]);
    expect(movesWithout(moves, null)).toEqual([]);
  });
});
