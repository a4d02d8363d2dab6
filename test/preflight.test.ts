import { beforeAll, describe, expect, jest, test } from '@jest/globals';
import { Options } from '../bin/arguments';
import { preflight } from '../bin/preflight';
import { Sketch } from '../demo/sketch';
import type { Show } from '../src/core/document/types';
import { smallShow } from './desk';

jest.setTimeout(400000);

/** Scenes of a second each: one that stands still, one that flashes eight times, one that drifts without end. */
function nightShow(): Show {
  const show = smallShow('Doors');
  show.canvas.fps = 30;
  const scene = (name: string, formula: string | null) => {
    const s = new Sketch(`s${name}`, name, [400, 0]);
    const light = s.add('fill', 'Light', [0, 0], { colour: [0.5, 0.5, 0.5, 1] });
    const levels = s.add('levels', 'Levels', [200, 0]);
    s.wire(light, levels, 'picture');
    s.wire(levels, s.out, 'picture');
    if (formula) s.formula(levels, 'brightness', formula);
    s.scene.loop = { ...s.scene.loop, length: 1, unit: 'seconds' };
    return s.scene;
  };
  show.scenes = [
    scene('Calm', null),
    scene('Strobe', 'fract(time * 6) < 0.5 ? 0.45 : -0.45'),
    scene('Dawn', 'time * 0.2'),
  ];
  return show;
}

describe('the check before doors', () => {
  const said: string[] = [];
  let fails: boolean;
  beforeAll(async () => {
    fails = await preflight(nightShow(), new Map(), Options.of({}), (line) => said.push(line));
  });
  const of = (name: string): string[] => said.filter((line) => line.includes(name));

  test('finds nothing in a scene that stands still', () =>
    expect(of('Calm')).toEqual(['fine: scenes[0] Calm']));
  test('finds flashes, and fails by them', () => {
    expect(of('Strobe')).toHaveLength(1);
    expect(of('Strobe')[0]).toMatch(
      /^error: scenes\[1\] Strobe: More than three flashes in a second: 1[12] /,
    );
    expect(fails).toBe(true);
  });
  test('finds a loop that does not close', () => {
    expect(of('Dawn')).toHaveLength(1);
    expect(of('Dawn')[0]).toMatch(
      /^warning: scenes\[2\] Dawn: The loop of 1 s does not close: .* 51 at most/,
    );
  });
  test('of one scene alone, and without what fails, it passes', async () => {
    const alone: string[] = [];
    const options = Options.of({ scene: 'Calm' });
    expect(await preflight(nightShow(), new Map(), options, (line) => alone.push(line))).toBe(false);
    expect(alone).toEqual(['fine: scenes[0] Calm']);
  });
  test('a file that the show names and nobody brought fails', async () => {
    const show = nightShow();
    show.scenes = [show.scenes[0]];
    show.files['own-1'] = { name: 'crest.png', type: 'image/png', bytes: 10 };
    show.inputs.sound.file = 'own-1';
    const lines: string[] = [];
    expect(await preflight(show, new Map(), Options.of({}), (line) => lines.push(line))).toBe(true);
    expect(lines[0]).toMatch(/^error: files\.own-1: crest\.png is missing/);
  });
});
