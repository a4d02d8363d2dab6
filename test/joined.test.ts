import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { Sketch } from '../demo/sketch';
import { randomAt } from '../src/core/random';
import type { ControlValue, Scene } from '../src/core/document/types';
import { Probe } from './probe';

jest.setTimeout(400000);
let probe: Probe;
beforeAll(async () => {
  probe = await Probe.open();
});
afterAll(() => probe?.close());

/**
 * Kinds that random patches are made of, with the ports that pictures enter and controls that differ from patch to
 * patch. All stay in range: 8 bits hold nothing beyond, and a step in between would cut what a joined one does not.
 */
const changing: readonly [
  string,
  readonly string[],
  (r: (k: number) => number) => Record<string, ControlValue>,
][] = [
  [
    'levels',
    ['picture'],
    (r) => ({ contrast: 0.5 + 0.5 * r(0), gamma: 0.6 + r(1), amount: 0.3 + 0.7 * r(2) }),
  ],
  ['hue-saturation', ['picture'], (r) => ({ saturation: r(0), lightness: 0.6 * r(1) - 0.3 })],
  ['gradient-map', ['picture'], (r) => ({ amount: r(0) })],
  ['channel-swap', ['picture'], () => ({ red: 'green', blue: 'red' })],
  ['tone', ['picture'], (r) => ({ exposure: r(0) * 0.6 - 0.6 })],
  [
    'blend',
    ['picture', 'over'],
    (r) => ({ mode: ['over', 'screen', 'multiply', 'average'][Math.floor(r(0) * 4)], amount: r(1) }),
  ],
  ['masked-mix', ['picture', 'light', 'mask'], () => ({})],
];
/** Kinds that read at another place: joined, what they read is worked out there, and not mixed from pixels. */
const moving: typeof changing = [
  ['mirror', ['picture'], (r) => ({ turn: r(0) * 180, place: [r(1) * 0.4 - 0.2, 0] })],
  ['transform', ['picture'], (r) => ({ scale: 0.6 + r(0), turn: r(1) * 90, outside: 'mirror' })],
];
const made: readonly [string, (r: (k: number) => number) => Record<string, ControlValue>][] = [
  ['noise', (r) => ({ octaves: 1, period: 0.5 + r(0), rate: 0.2, channels: 'three' })],
  ['gradient', (r) => ({ turn: r(0) * 360, length: 1 + r(1) })],
  ['flat-shape', (r) => ({ size: [0.4 + r(0), 0.4 + r(1)], softness: 0.3 })],
];

/** A patch of `steps` pictures that change others; those that move them only if asked for. */
function randomPatch(
  seed: number,
  steps: number,
  moved = false,
): { scene: Scene; last: string; all: string[] } {
  const s = new Sketch('s1', 'Random', [3000, 0]);
  const kinds = moved ? [...changing, ...moving] : changing;
  let draws = 0;
  const random = (): number => randomAt(draws++, seed);
  const all = made.map(([kind, controls], k) => {
    const base = draws;
    draws += 4;
    return s.add(
      kind,
      `Made ${k}`,
      [0, 150 * k],
      controls((j) => randomAt(base + j, seed)),
    );
  });
  for (let k = 0; k < steps; k++) {
    const [kind, ports, controls] = kinds[Math.floor(random() * kinds.length)];
    const base = draws;
    draws += 4;
    const node = s.add(
      kind,
      `Step ${k}`,
      [200 + 180 * k, 0],
      controls((j) => randomAt(base + j, seed)),
    );
    // The first port takes the newest picture, so that long chains arise; the others any.
    ports.forEach((port, j) =>
      s.wire(j === 0 ? all[all.length - 1] : all[Math.floor(random() * all.length)], node, port),
    );
    all.push(node);
  }
  const last = all[all.length - 1];
  s.wire(last, s.out, 'picture');
  return { scene: s.scene, last, all };
}

const bounds = { '8': 6 / 255, '16': 0.004, '32': 0.0005 } as const;
const seeds = [1, 2, 3, 4, 5, 6];

describe('joined and one pass a node agree', () => {
  test.each(seeds.flatMap((seed) => (['8', '16', '32'] as const).map((bits) => [seed, bits] as const)))(
    'random patch %i at %s bits',
    async (seed, bits) => {
      const { scene, last } = randomPatch(seed, 9);
      const request = { scene, node: last, frames: 3, bits };
      const joined = await probe.ask(request);
      const apart = await probe.ask({ ...request, apart: true });
      expect(joined.answer.faults).toEqual({});
      expect(joined.mean(3)).toBeGreaterThan(0);
      expect(joined.apartFrom(apart)).toBeLessThan(bounds[bits]);
    },
  );

  test.each(seeds)(
    'random patch %i with pictures that are moved, but for what lies between pixels',
    async (seed) => {
      const { scene, last } = randomPatch(seed, 9, true);
      const request = { scene, node: last, frames: 3, bits: '32' as const, width: 320, height: 180 };
      const joined = await probe.ask(request);
      const apart = await probe.ask({ ...request, apart: true });
      const far = joined.answer.pixels.filter((v, k) => Math.abs(v - apart.answer.pixels[k]) > 6 / 255);
      expect(far.length / joined.answer.pixels.length).toBeLessThan(0.005);
    },
  );
});

test('a picture is the same wherever its numbers are kept', async () => {
  for (const seed of seeds.slice(0, 3)) {
    const { scene, last } = randomPatch(seed, 9, true);
    const request = { scene, node: last, frames: 3, bits: '32' as const };
    const usual = await probe.ask(request);
    for (const cornerRoom of [0, 4])
      expect((await probe.ask({ ...request, cornerRoom })).apartFrom(usual)).toBeLessThan(0.0005);
  }
});

test('what is looked at changes nothing', async () => {
  for (const seed of seeds.slice(0, 3)) {
    const { scene, last, all } = randomPatch(seed, 9);
    const alone = await probe.ask({ scene, node: last, frames: 4 });
    const watched = await probe.ask({ scene, node: last, frames: 4, watched: all });
    expect(watched.apartFrom(alone)).toBe(0);
  }
});

test('500 edits of a patch of 100 pictures compile nothing and make no targets', async () => {
  const { scene, all } = randomPatch(7, 97);
  const turned = all.filter(
    (id) => scene.nodes[id].kind === 'hue-saturation' || scene.nodes[id].kind === 'levels',
  );
  const edits = turned.slice(0, 10).map((node) => ({
    node,
    control: scene.nodes[node].kind === 'levels' ? 'brightness' : 'lightness',
    from: -0.2,
    to: 0.2,
  }));
  const last = all[all.length - 1];
  const seen = await probe.ask({ scene, node: last, frames: 61, width: 32, height: 18, edits });
  expect(Object.keys(scene.nodes)).toHaveLength(101);
  expect(edits).toHaveLength(10);
  const { compiles, targets, shaders, textures } = seen.answer;
  expect({ compiles, targets, shaders, textures }).toEqual({
    compiles: 0,
    targets: 0,
    shaders: 0,
    textures: 0,
  });
});

test('10,000 frames keep targets, textures and programs as they are', async () => {
  const s = new Sketch('s1', 'Long', [900, 0]);
  const shape = s.add('flat-shape', 'Shape', [0, 150], { softness: 0.2 });
  const lay = s.add('blend', 'Lay', [200, 0], { amount: 0.5 });
  s.wire(shape, lay, 'over');
  const loop = s.wire(lay, lay, 'picture');
  s.back(loop, { keep: 0.9, size: [8, 8] });
  s.wire(lay, s.out, 'picture');
  s.swing(shape, 'place.x', { amount: 0.8, rate: 0.7 });
  const seen = await probe.ask({ scene: s.scene, node: s.out, frames: 10000, width: 16, height: 9 });
  const { compiles, targets, shaders, textures } = seen.answer;
  expect({ compiles, targets, shaders, textures }).toEqual({
    compiles: 0,
    targets: 0,
    shaders: 0,
    textures: 0,
  });
  expect(seen.mean(0)).toBeGreaterThan(0.02);
});

describe('a picture of which only parts are looked at', () => {
  const s = new Sketch('s1', 'Parts', [400, 0]);
  const map = s.add('coordinate-map', 'Map', [0, 0], {}, { precision: '32' });
  const soft = s.add('blur', 'Soft', [200, 0], { radius: 0 }, { precision: '32' });
  s.wire(map, soft, 'picture');
  s.wire(map, s.out, 'picture');
  // A size of its own: its target has never held another picture.
  const ask = { scene: s.scene, node: map, width: 152, height: 88, frames: 3 };
  const taken = [
    { x: 0.5, y: 0.5, width: 0.25, height: 0.25 },
    { x: 0, y: 0, width: 0.125, height: 0.125 },
  ];

  test('is drawn there and nowhere else', async () => {
    const seen = await probe.ask({ ...ask, taken, takenToEnd: true });
    for (const [x, y] of [
      [0.6, 0.6],
      [0.74, 0.51],
      [0.05, 0.05],
    ]) {
      expect(seen.at(x, y)[0]).toBeCloseTo(x, 1);
      expect(seen.at(x, y)[1]).toBeCloseTo(y, 1);
    }
    for (const [x, y] of [
      [0.4, 0.6],
      [0.6, 0.4],
      [0.9, 0.9],
      [0.2, 0.05],
    ])
      expect(seen.at(x, y)).toEqual([0, 0, 0, 0]);
  });

  test('is whole again as soon as all of it is looked at, though it stood still', async () => {
    const seen = await probe.ask({ ...ask, taken });
    for (const [x, y] of [
      [0.4, 0.6],
      [0.9, 0.9],
      [0.2, 0.05],
    ]) {
      expect(seen.at(x, y)[0]).toBeCloseTo(x, 1);
      expect(seen.at(x, y)[1]).toBeCloseTo(y, 1);
    }
  });
});
