import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { Sketch } from '../demo/sketch';
import { makeShow } from '../src/core/show/create';
import type { Show } from '../src/core/document/types';
import { catalogue } from '../src/nodes/catalogue';
import { Options, readArguments, readFrames, readSize, UsageError } from './arguments';
import { loopLines } from './loops';
import { pack } from './pack';
import { unpackShow } from '../src/core/show/archive';
import { evalLines } from './eval';

function show(): Show {
  const made = makeShow(catalogue, 'Lines');
  const s = new Sketch('s1', 'Only', [400, 0]);
  s.add('oscillator', 'Wave', [0, 0], { rate: 0.5 });
  s.add('ring', 'Hoop', [0, 100]);
  s.add('fill', 'Ground', [0, 200]);
  s.add('audio-level', 'Loudness', [0, 300]);
  const hoops = s.add('instances', 'Hoops', [200, 100], { count: 3, layout: 'line' });
  s.wire(s.add('body', 'Rim', [100, 100]), hoops, 'body');
  made.scenes = [s.scene];
  return made;
}
const lines = (options: Record<string, string | string[]>): string[] => [
  ...evalLines(show(), Options.of(options)),
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

  test('several nodes and chosen frames come in one table, each with its name', () => {
    const [head, ...rows] = lines({ scene: 'Only', node: ['Wave', 'Loudness'], frames: '0,30' });
    expect(head).toMatch(/^scene,node,frame,sample,/);
    expect(new Set(rows.map((row) => row.split(',').slice(0, 3).join()))).toEqual(
      new Set(['Only,Wave,0', 'Only,Loudness,0', 'Only,Wave,30', 'Only,Loudness,30'].map((k) => k)),
    );
  });

  test('nodes that hear sound hear the loop that is built in', () => {
    const levels = lines({ scene: 'Only', node: 'Loudness', frames: '0..90' })
      .slice(1)
      .map((row) => Number(row.split(',')[2]));
    expect(Math.max(...levels)).toBeGreaterThan(0.05);
    const remarks: string[] = [];
    const silent = show();
    silent.inputs.sound.from = 'device';
    Array.from(evalLines(silent, Options.of({ scene: 'Only', node: 'Loudness' }), (r) => remarks.push(r)));
    expect(remarks[0]).toMatch(/hear silence/);
  });

  test('prints where copies stand, how they are turned and sized', () => {
    const [head, ...rows] = lines({ scene: 'Only', node: 'Hoops' });
    expect(head).toBe('frame,sample,x,y,z,turn_x,turn_y,turn_z,size_x,size_y,size_z');
    expect(rows).toHaveLength(3);
    const [first, middle, last] = rows.map((row) => row.split(',').map(Number));
    expect(middle[2]).toBeCloseTo((first[2] + last[2]) / 2, 5);
    expect(last[2]).toBeGreaterThan(first[2]);
  });

  test('says what it cannot do', () => {
    expect(() => lines({ scene: 'Only', node: 'Ground' })).toThrow(/no signal, no shape/);
    expect(() => lines({ scene: 'Only', node: 'Nobody' })).toThrow(UsageError);
    expect(() => lines({ scene: 'Nowhere', node: 'Wave' })).toThrow(UsageError);
    expect(() => lines({ scene: 'Only', node: 'Wave', fps: '0' })).toThrow(/--fps/);
  });
});

describe('arguments', () => {
  test('frames and sizes are read, or refused with what was given', () => {
    expect(readFrames('7')).toEqual([7]);
    expect(readFrames('3..5')).toEqual([3, 4, 5]);
    expect(readFrames('60, 0,30..32,31')).toEqual([0, 30, 31, 32, 60]);
    expect(readSize('320x180')).toEqual({ width: 320, height: 180 });
    for (const bad of ['9..3', '-1', 'x', '1..', '1,,2', '0..9999999'])
      expect(() => readFrames(bad)).toThrow(UsageError);
    for (const bad of ['320', '0x10', '320x', 'axb']) expect(() => readSize(bad)).toThrow(UsageError);
  });

  test('an option that is not known is refused', () => {
    expect(() => readArguments(['show.json', '--sceen', 'A'], ['scene'])).toThrow(/sceen/);
    const { plain, options } = readArguments(['show.json', '--scene', 'A B'], ['scene']);
    expect(plain).toEqual(['show.json']);
    expect(options.get('scene')).toBe('A B');
  });
});

describe('loops', () => {
  test('says how long, after how long all is back, and what does not fit with the nearest that does', () => {
    const made = show();
    made.scenes[0].loop = { length: 3, unit: 'seconds', lock: false };
    const [head, fault, ...rest] = loopLines(made, Options.of({ scene: 'Only' }));
    expect(head).toBe('Only: loop of 3 seconds (3 s); all together after 2 s');
    expect(fault).toMatch(/^ {2}Wave, rate: 0.5 \(hertz\) makes 1.5 cycles; 0.666667 fits$/);
    expect(rest).toEqual([]);
  });
});

describe('pack', () => {
  test('takes the files a show uses from a folder, by name or id', () => {
    const folder = mkdtempSync(path.join(os.tmpdir(), 'pyrvel-pack-'));
    const made = show();
    made.files = {
      f1: { name: 'pane.png', type: 'image/png', bytes: 1 },
      f2: { name: 'hum.wav', type: 'audio/wav', bytes: 1 },
    };
    made.inputs.sound = { ...made.inputs.sound, from: 'file', file: 'f2' };
    expect(() => pack(made, folder)).toThrow(/no hum.wav \(or f2\)/);
    writeFileSync(path.join(folder, 'f2.wav'), 'hum');
    const { text, files } = unpackShow(pack(made, folder));
    expect([...files.keys()]).toEqual(['f2']);
    expect(text).toContain('"bytes": 3');
    rmSync(folder, { recursive: true });
  });
});
