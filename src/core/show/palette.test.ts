import { expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { makeShow } from './create';
import { addNode, setControl } from './edit';
import { paletteOf } from './palette';

test('the palette of a show has its colours once each, most used first', () => {
  const show = makeShow(catalogue, 'Palette');
  const [scene] = show.scenes;
  const fills = [0, 1, 2].map(() => addNode(scene, catalogue, 'fill', [0, 0]));
  const gradient = addNode(scene, catalogue, 'gradient', [0, 0]);
  setControl(scene, fills[0], 'colour', [0, 0, 1, 1]);
  setControl(scene, fills[1], 'colour', [1, 0, 0, 0.5]);
  setControl(scene, fills[2], 'colour', [1, 0, 0, 1]);
  setControl(scene, gradient, 'colours', [
    { at: 0, colour: [1, 0, 0, 1] },
    { at: 1, colour: [0, 1, 0, 1] },
  ]);
  const palette = paletteOf(show, catalogue);
  expect(palette[0]).toEqual([1, 0, 0, 1]);
  expect(palette).toEqual(
    expect.arrayContaining([
      [0, 0, 1, 1],
      [0, 1, 0, 1],
    ]),
  );
  expect(new Set(palette.map(String)).size).toBe(palette.length);
  expect(paletteOf(show, catalogue, 2)).toHaveLength(2);
});
