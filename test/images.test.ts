import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { Sketch } from '../demo/sketch';
import type { ControlValue } from '../src/core/document/types';
import { Desk, smallShow } from './desk';

jest.setTimeout(400000);
let desk: Desk;
const aspect = 320 / 180;
const grey = [
  { at: 0, colour: [0, 0, 0, 1] as [number, number, number, number] },
  { at: 1, colour: [1, 1, 1, 1] as [number, number, number, number] },
];
const still = { amount: 0, shape: 'sine' as const };

/** Kind, controls, what is wired in, and red, green and blue expected in the middle of the picture. */
const cases: [string, Record<string, ControlValue>, 'map' | 'fill' | null, [number, number, number]][] = [
  ['coordinate-map', {}, null, [0.5, 0.5, 0]],
  ['coordinate-map', { range: 'centred' }, null, [0, 0, 0]],
  ['mosaic', { blocks: [3, 3], origin: 'half' }, 'map', [0.5, 0.5, 0]],
  ['mosaic', { by: 'size', size: [48, 36], origin: 'corner' }, 'map', [0.525, 0.5, 0]],
  ['mirror', { place: [0.25, 0], side: 'left' }, 'map', [0.5, 0.5, 0]],
  ['mirror', { place: [0.25, 0], side: 'right' }, 'map', [0.5 + 0.5 / aspect, 0.5, 0]],
  [
    'mirror',
    { form: 'rosette', place: [0, -0.25], turn: 0, wedges: 4 },
    'map',
    [0.5 + 0.25 / aspect, 0.25, 0],
  ],
  ['polar-wrap', { way: 'unroll' }, 'map', [0.5, 0.25, 0]],
  ['channel-shift', { distance: 108 }, 'map', [0.5 + 0.1 / aspect, 0.5, 0]],
  ['channel-swap', { red: 'blue', green: 'one', blue: 'red' }, 'fill', [0.6, 1, 0.2]],
  ['hue-saturation', { saturation: 0 }, 'fill', [0.372, 0.372, 0.372]],
  ['hue-saturation', { lightness: -0.5 }, 'fill', [0.1, 0.2, 0.3]],
  ['gradient-map', { colours: grey, channel: 'green' }, 'fill', [0.4, 0.4, 0.4]],
  ['tone', { exposure: 1, curve: 'cut' }, 'fill', [0.4, 0.8, 1]],
  ['grain', { strength: 0 }, 'fill', [0.2, 0.4, 0.6]],
  ['stripes', { count: [1, 1] }, null, [0, 0, 0]],
  ['stripes', { count: [1, 1], travel: [0.5, 0] }, null, [0.94, 0.65, 0.23]],
];

beforeAll(async () => {
  const show = smallShow('Images');
  const s = new Sketch('s1', 'Only', [400, 0]);
  const map = s.add('coordinate-map', 'Map', [0, 0]);
  const fill = s.add('fill', 'Ground', [0, 120], { colour: [0.2, 0.4, 0.6, 1] });
  cases.forEach(([kind, controls, source], k) => {
    const place: [number, number] = [200 + 170 * (k % 6), 130 * Math.floor(k / 6)];
    const node = s.add(kind, `Case ${k}`, place, controls, { precision: '32' });
    if (source) s.wire(source === 'map' ? map : fill, node, 'picture');
  });
  // Noise that moves keeps the scene alive, so that what is chosen is drawn as on stage.
  const noise = s.add('noise', 'Air', [0, 300]);
  s.swing(noise, 'offset', still);
  s.wire(noise, s.out, 'picture');
  show.scenes = [s.scene];
  desk = await Desk.open();
  await desk.openShow(show);
  // Places are told by the pixel, so the picture has to have all of them.
  await desk.select('Work size', 'Full');
});
afterAll(() => desk?.close());

test.each(cases.map((c, k) => [k, ...c] as const))(
  'case %i: %s %j of %s',
  async (k, _kind, _controls, _source, expected) => {
    await desk.choose(`Case ${k}`);
    const near = (pixel: readonly number[]): boolean =>
      expected.every((value, c) => Math.abs(pixel[c] - value) < 0.012);
    const pixel = await desk.until(`about ${expected.join(' ')}`, () => desk.benchPixel(), near);
    expect(pixel[3]).toBe(1);
  },
);
