import { describe, expect, test } from '@jest/globals';
import { Sketch } from '../../../demo/sketch';
import { catalogue } from '../../nodes/catalogue';
import { makeShow } from '../show/create';
import type { ReturnSettings, Show } from '../document/types';
import { standingFindings } from './standing';

function show(draw: (s: Sketch) => void, change: (show: Show) => void = () => undefined): Show {
  const s = new Sketch('s1', 'Haze', [400, 0]);
  draw(s);
  const made = { ...makeShow(catalogue, 'Night'), scenes: [s.scene] };
  change(made);
  return made;
}
const of = (made: Show, isThere = true) => standingFindings(made, made.scenes, catalogue, () => isThere);
const plain = (s: Sketch): string => {
  const fill = s.add('fill', 'Light', [0, 0]);
  s.wire(fill, s.out, 'picture');
  return fill;
};
const levelled = (s: Sketch): string => {
  const levels = s.add('levels', 'Levels', [200, 0]);
  s.wire(s.add('fill', 'Light', [0, 0]), levels, 'picture');
  s.wire(levels, s.out, 'picture');
  return levels;
};
const feedback = (settings: Partial<ReturnSettings>) => (s: Sketch) => {
  const fill = s.add('fill', 'Light', [0, 0]);
  const mix = s.add('blend', 'Mix', [200, 0]);
  s.wire(fill, mix, 'over');
  s.back(s.wire(mix, mix, 'picture'), settings);
  s.wire(mix, s.out, 'picture');
};

describe('without drawing anything', () => {
  test('nothing is found in a plain scene', () => expect(of(show(plain))).toEqual([]));
  test('a file that is used and not there must not go on stage', () => {
    const made = show(plain, (s) => {
      s.files['own-1'] = { name: 'crest.png', type: 'image/png', bytes: 3 };
      s.inputs.sound.file = 'own-1';
    });
    expect(of(made, false)).toMatchObject([{ level: 'error', where: 'files.own-1' }]);
    expect(of(made, true)).toEqual([]);
  });
  test('rates that do not fit the loop are a note that a press mends', () => {
    const made = show((s) => {
      s.wire(s.add('oscillator', 'Sway', [-200, 0], { rate: 0.37 }), levelled(s), 'brightness');
      s.scene.loop = { ...s.scene.loop, length: 4, unit: 'seconds', lock: false };
    });
    const [finding, ...rest] = of(made);
    expect(rest).toEqual([]);
    expect(finding).toMatchObject({ level: 'note', mend: { do: 'lock-loop', scene: 's1' } });
    expect(finding.what).toContain('A rate on Sway does not fit');
    made.scenes[0].loop.lock = true;
    expect(of(made)).toEqual([]);
  });
  test('feedback that only ever adds up', () => {
    expect(of(show(feedback({ keep: 1, guard: 'off' })))).toMatchObject([
      { level: 'note', mend: { do: 'guard' } },
    ]);
    expect(of(show(feedback({ keep: 1 })))).toEqual([]);
    expect(of(show(feedback({ keep: 0.9, guard: 'off' })))).toEqual([]);
  });
  test('trails that never fade in 8 bits', () => {
    expect(of(show(feedback({ keep: 0.99, precision: '8' })))[0].what).toMatch(/never fade/);
    expect(of(show(feedback({ keep: 0.99, precision: '16' })))).toEqual([]);
    expect(of(show(feedback({ keep: 0.9, precision: '8' })))).toEqual([]);
  });
  test('sums without ends, and what nobody sees, are notes', () => {
    const made = show((s) => {
      const levels = levelled(s);
      const speed = s.add('values', 'Speed', [-400, 0]);
      const sum = s.add('accumulate', 'Way', [-200, 0]);
      s.wire(speed, sum, 'in');
      s.formula(levels, 'brightness', 'way');
      s.add('noise', 'Spare', [0, 300]);
    });
    const found = of(made);
    expect(found.map(({ level }) => level)).toEqual(['note', 'note']);
    expect(found[0].what).toMatch(/^Way: nothing ends/);
    expect(found[1].what).toMatch(/^Nobody sees Spare:/);
    made.scenes[0].nodes[found[0].at!.node!].controls.ends = 'wrap';
    expect(of(made)).toHaveLength(1);
  });
  test('a scene without Scene Out stays black', () => {
    const made = show(plain);
    const [scene] = made.scenes;
    for (const node of Object.values(scene.nodes)) if (node.kind === 'scene-out') delete scene.nodes[node.id];
    expect(of(made)).toMatchObject([{ level: 'error' }]);
  });
});
