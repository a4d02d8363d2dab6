import { describe, expect, test } from '@jest/globals';
import { Sketch } from '../demo/sketch';
import { makeShow } from '../src/core/show/create';
import type { Show } from '../src/core/show/types';
import { catalogue } from '../src/nodes/catalogue';
import { readArguments, readFrames, readSize, UsageError } from './arguments';
import { evalLines } from './eval';

function show(): Show {
  const made = makeShow(catalogue, 'Lines');
  const s = new Sketch('s1', 'Only', [400, 0]);
  s.add('oscillator', 'Wave', [0, 0], { rate: 0.5 });
  s.add('ring', 'Hoop', [0, 100]);
  s.add('fill', 'Ground', [0, 200]);
  made.scenes = [s.scene];
  return made;
}
const lines = (options: Record<string, string>): string[] => [
  ...evalLines(show(), new Map(Object.entries(options))),
];

describe('eval', () => {
  test('prints a line for each frame and sample of a signal', () => {
    const [head, ...rows] = lines({ scene: 'Only', node: 'Wave', frames: '0..30', fps: '60' });
    expect(head).toMatch(/^frame,sample,\w+$/);
    expect(rows).toHaveLength(31);
    rows.forEach((row, frame) => {
      const [f, i, value] = row.split(',').map(Number);
      expect([f, i]).toEqual([frame, 0]);
      expect(value).toBeCloseTo(Math.sin(2 * Math.PI * 0.5 * (frame / 60)), 5);
    });
  });

  test('prints the points of a shape as x, y, z', () => {
    const [head, ...rows] = lines({ scene: 'Only', node: 'Hoop', frames: '2' });
    expect(head).toBe('frame,sample,x,y,z');
    expect(rows.length).toBeGreaterThan(8);
    for (const row of rows) {
      const [frame, , x, y, z] = row.split(',').map(Number);
      expect(frame).toBe(2);
      expect(z).toBe(0);
      expect(Math.hypot(x, y)).toBeCloseTo(Math.hypot(...rows[0].split(',').slice(2, 4).map(Number)), 4);
    }
  });

  test('says what it cannot do', () => {
    expect(() => lines({ scene: 'Only', node: 'Ground' })).toThrow(/no signal and no shape/);
    expect(() => lines({ scene: 'Only', node: 'Nobody' })).toThrow(UsageError);
    expect(() => lines({ scene: 'Nowhere', node: 'Wave' })).toThrow(UsageError);
    expect(() => lines({ scene: 'Only', node: 'Wave', fps: '0' })).toThrow(/--fps/);
  });
});

describe('arguments', () => {
  test('frames and sizes are read, or refused with what was given', () => {
    expect(readFrames('7')).toEqual({ first: 7, last: 7 });
    expect(readFrames('3..9')).toEqual({ first: 3, last: 9 });
    expect(readSize('320x180')).toEqual({ width: 320, height: 180 });
    for (const bad of ['9..3', '-1', 'x', '1..']) expect(() => readFrames(bad)).toThrow(UsageError);
    for (const bad of ['320', '0x10', '320x', 'axb']) expect(() => readSize(bad)).toThrow(UsageError);
  });

  test('an option that is not known is refused', () => {
    expect(() => readArguments(['show.json', '--sceen', 'A'], ['scene'])).toThrow(/sceen/);
    const { plain, options } = readArguments(['show.json', '--scene', 'A B'], ['scene']);
    expect(plain).toEqual(['show.json']);
    expect(options.get('scene')).toBe('A B');
  });
});
