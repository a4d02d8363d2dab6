import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import type { ControlValue } from '../src/core/document/types';
import { catalogue } from '../src/nodes/catalogue';
import { exrOf, hdrOf, pngOf } from './files';
import { Case, Probe, type Seen } from './probe';

jest.setTimeout(400000);
let probe: Probe;
beforeAll(async () => {
  probe = await Probe.open();
});
afterAll(() => probe?.close());

const aspect = 160 / 90;
const white = [1, 1, 1, 1];
const look = (made: Case, more: { frames?: number; fps?: number } = {}): Promise<Seen> =>
  probe.ask({ scene: made.scene, node: made.node, ...more });
/** A place in heights from the middle as a share of the picture. */
const place = (x: number, y: number): [number, number] => [0.5 + x / aspect, 0.5 + y];
const near = (value: number, wanted: number, within = 0.02): void =>
  expect(Math.abs(value - wanted)).toBeLessThan(within);

/** Share of a Gaussian below so many deviations, by Simpson's rule. */
function gaussIntegral(deviations: number): number {
  const [from, steps] = [-6, 400];
  const width = (deviations - from) / steps;
  let sum = 0;
  for (let k = 0; k <= steps; k++) {
    const weight = k === 0 || k === steps ? 1 : k % 2 ? 4 : 2;
    sum += weight * Math.exp(-((from + k * width) ** 2) / 2);
  }
  return (sum * width) / 3 / Math.sqrt(2 * Math.PI);
}

describe('made pictures', () => {
  test.each(['value', 'gradient', 'simplex', 'cellular', 'ridged', 'random'])(
    'noise of the form %s loops exactly, and stands still at rate 0',
    async (form) => {
      const made = new Case('noise', { form, rate: 1.5, loop: 2, octaves: 2 });
      const first = await look(made, { frames: 1, fps: 8 });
      expect((await look(made, { frames: 17, fps: 8 })).apartFrom(first)).toBeLessThan(0.01);
      expect((await look(made, { frames: 8, fps: 8 })).apartFrom(first)).toBeGreaterThan(0.05);
      const still = new Case('noise', { form, rate: 0 });
      expect((await look(still, { frames: 9, fps: 8 })).apartFrom(await look(still))).toBe(0);
    },
  );

  test.each(['value', 'gradient', 'simplex', 'cellular'])('tileable %s noise meets itself', async (form) => {
    // Wide pixels: the first and the last column are neighbours across the seam.
    const seen = await look(new Case('noise', { form, tile: true, octaves: 1, period: 0.9, rate: 0 }));
    for (let k = 0; k < 9; k++) {
      const y = (k + 0.5) / 9;
      const [left, next] = [seen.at(0.001, y)[0], seen.at(1.5 / 160, y)[0]];
      near(seen.at(0.999, y)[0], left, 3 * Math.abs(left - next) + 0.03);
    }
  });

  test('a lattice has a line where a cell ends, as wide as it should be', async () => {
    const seen = await look(new Case('lattice', { cells: [3, 3], lineWidth: 0.2, ink: white }));
    expect(seen.at(...place(0, 0.1))[0]).toBeGreaterThan(0.9);
    expect(seen.at(...place(1 / 6, 1 / 6))[0]).toBe(0);
    // Two families of lines of a fifth of a cell cover 1 - 0.8 x 0.8 of the picture.
    near(seen.mean(0), 0.36, 0.03);
  });

  test('dots stand on the crossings, and half a cell aside between them', async () => {
    const controls = { form: 'dots', cells: [3, 3], part: 0.4, ink: white };
    expect((await look(new Case('lattice', controls))).at(...place(1 / 3, 0))[0]).toBeGreaterThan(0.9);
    const aside = await look(new Case('lattice', { ...controls, origin: 'half' }));
    expect(aside.at(...place(1 / 3, 0))[0]).toBe(0);
    expect(aside.at(...place(1 / 6, 1 / 6))[0]).toBeGreaterThan(0.9);
  });

  test('a lattice that travels by whole cells is the same after its loop', async () => {
    const made = new Case('lattice', { cellsALoop: [1, 2], loop: 2 });
    const first = await look(made, { fps: 8 });
    expect((await look(made, { frames: 17, fps: 8 })).apartFrom(first)).toBeLessThan(1e-3);
    expect((await look(made, { frames: 4, fps: 8 })).apartFrom(first)).toBeGreaterThan(0.3);
  });

  test('typed corner points are a shape, and too few of them are none', async () => {
    const points = [-0.3, -0.3, 0.3, -0.3, 0.3, 0.3];
    const seen = await look(new Case('flat-shape', { form: 'points', points, fill: white }));
    expect(seen.at(...place(0.2, -0.2))[3]).toBeCloseTo(1, 2);
    expect(seen.at(...place(-0.2, 0.2))[3]).toBe(0);
    near(seen.mean(3), 0.18 / aspect, 0.005);
    const none = await look(new Case('flat-shape', { form: 'points', points: [0, 0, 1, 1] }));
    expect(none.mean(3)).toBe(0);
  });

  test('a beam is bright on its line and only where it is lit', async () => {
    const line = { from: [-0.6, 0], to: [0.6, 0], core: 0.06, halo: 0 };
    const whole = await look(new Case('beam', line));
    expect(whole.at(...place(0.4, 0))[0]).toBeGreaterThan(0.9);
    expect(whole.at(...place(0, 0.2))[0]).toBe(0);
    const half = await look(new Case('beam', { ...line, lit: [0, 0.5] }));
    expect(half.at(...place(-0.4, 0))[0]).toBeGreaterThan(0.9);
    expect(half.at(...place(0.4, 0))[0]).toBe(0);
    near(half.mean(0) / whole.mean(0), 0.5, 0.06);
  });

  test('a beam tapers, shines around, and stands round its place in copies', async () => {
    const thin = await look(
      new Case('beam', { from: [-0.6, 0], to: [0.6, 0], core: 0.1, halo: 0, taper: 0.2 }),
    );
    expect(thin.at(...place(-0.5, 0.035))[0]).toBeGreaterThan(0.5);
    expect(thin.at(...place(0.5, 0.035))[0]).toBe(0);
    const halo = await look(new Case('beam', { from: [-0.6, 0], to: [0.6, 0], reach: 0.3, halo: 1 }));
    const [close, far] = [halo.at(...place(0, 0.05))[0], halo.at(...place(0, 0.2))[0]];
    expect(close).toBeGreaterThan(far);
    expect(far).toBeGreaterThan(0.01);
    const four = await look(
      new Case('beam', { from: [0.1, 0], to: [0.4, 0], copies: 4, core: 0.05, halo: 0 }),
    );
    for (const [x, y] of [
      [0.25, 0],
      [0, 0.25],
      [-0.25, 0],
      [0, -0.25],
    ])
      expect(Math.max(...four.at(...place(x, y)).slice(0, 3))).toBeGreaterThan(0.8);
    expect(four.at(...place(0.2, 0.2))[0]).toBe(0);
  });

  test('a beam runs along and is the same after its span; a later copy lags behind', async () => {
    const run = new Case('beam', {
      from: [-0.6, 0],
      to: [0.6, 0],
      lit: [0, 0.25],
      motion: 'run',
      span: 2,
      halo: 0,
      core: 0.08,
    });
    const first = await look(run, { fps: 8 });
    expect(first.at(...place(-0.5, 0))[0]).toBeGreaterThan(0.9);
    const half = await look(run, { frames: 9, fps: 8 });
    expect(half.at(...place(-0.5, 0))[0]).toBe(0);
    expect(half.at(...place(0.15, 0))[0]).toBeGreaterThan(0.9);
    expect((await look(run, { frames: 17, fps: 8 })).apartFrom(first)).toBeLessThan(0.02);
  });

  test('letters glow along their outlines', async () => {
    const seen = await look(new Case('beam', { form: 'letters', text: 'I', size: 0.6, core: 0.04, halo: 0 }));
    expect(seen.at(...place(0, 0))[0]).toBeLessThan(0.1);
    const across = Array.from({ length: 60 }, (_, k) => seen.at(...place(-0.2 + k / 150, 0))[0]);
    expect(Math.max(...across)).toBeGreaterThan(0.9);
    expect(seen.at(...place(0.6, 0))[0]).toBe(0);
  });

  test('text stands in the middle, in its colours, with its spacing', async () => {
    const text = { text: 'HHH', font: 'mono', size: 0.3, fill: [1, 0, 0, 1] };
    const seen = await look(new Case('text', text));
    const columns = (from: Seen): number[] =>
      Array.from({ length: 160 }, (_, x) => {
        let sum = 0;
        for (let y = 0; y < 90; y++) sum += from.at((x + 0.5) / 160, (y + 0.5) / 90)[0];
        return sum;
      });
    const lit = columns(seen).flatMap((sum, x) => (sum > 1 ? [x] : []));
    near((lit[0] + lit[lit.length - 1]) / 2, 79.5, 1.6);
    expect(seen.mean(1)).toBe(0);
    const wide = columns(await look(new Case('text', { ...text, spacing: 0.5 }))).flatMap((sum, x) =>
      sum > 1 ? [x] : [],
    );
    // Half an em twice, of a size of 27 pixels.
    near(wide[wide.length - 1] - wide[0] - (lit[lit.length - 1] - lit[0]), 27, 2.1);
    near((wide[0] + wide[wide.length - 1]) / 2, 79.5, 1.6);
  });

  test('lines and an outline', async () => {
    const seen = await look(
      new Case('text', {
        text: 'O\nO',
        size: 0.3,
        leading: 1.4,
        fill: [0, 0, 0, 0],
        line: [0, 1, 0, 1],
        lineWidth: 0.03,
      }),
    );
    expect(seen.mean(1)).toBeGreaterThan(0.01);
    expect(seen.mean(0)).toBe(0);
    const upper = seen.answer.pixels.slice(seen.answer.pixels.length / 2).reduce((a, b) => a + b, 0);
    const lower = seen.answer.pixels.slice(0, seen.answer.pixels.length / 2).reduce((a, b) => a + b, 0);
    near(upper / lower, 1, 0.15);
  });

  test('a shipped picture, film and the stand-in camera are there in the very first frame', async () => {
    const pane = await look(new Case('picture', { file: 'shipped:wax-pane.webp', fit: 'cover' }));
    expect(pane.mean(0)).toBeGreaterThan(pane.mean(2) + 0.1);
    const film = await look(new Case('clip'));
    expect(film.mean(0)).toBeGreaterThan(0.02);
    const camera = await look(new Case('camera-feed'));
    expect(camera.mean(0)).toBeGreaterThan(0.05);
  });

  test('a film shows the frame of its time, runs backwards, and stands where a control says', async () => {
    const at = (controls: Record<string, ControlValue>, frames: number): Promise<Seen> =>
      look(new Case('clip', controls), { frames, fps: 4 });
    const first = await at({}, 1);
    const second = await at({}, 5);
    expect(second.apartFrom(first)).toBeGreaterThan(0.2);
    expect((await at({ byHand: true, position: 0.25 }, 2)).apartFrom(second)).toBeLessThan(0.02);
    expect((await at({ speed: -1 }, 13)).apartFrom(second)).toBeLessThan(0.02);
    expect((await at({}, 17)).apartFrom(first)).toBeLessThan(0.02);
    expect((await at({ in: 1, out: 2 }, 1)).apartFrom(second)).toBeLessThan(0.02);
  });

  test('the same second of the stand-in camera always looks the same', async () => {
    const made = new Case('camera-feed', { flip: false });
    const once = await look(made, { frames: 7, fps: 4 });
    expect((await look(made, { frames: 7, fps: 4 })).apartFrom(once)).toBe(0);
    expect((await look(made, { frames: 3, fps: 4 })).apartFrom(once)).toBeGreaterThan(0.1);
  });
});

describe('changed pictures', () => {
  const ground = { colour: [0.2, 0.4, 0.6, 1] };

  test('a LUT grades by its table, and Amount mixes', async () => {
    const made = (amount: number): Case =>
      new Case('lut', { file: 'shipped:late-amber.cube', amount }).with('picture', 'fill', ground);
    const [off, half, on] = await Promise.all([0, 0.5, 1].map((amount) => made(amount))).then(
      async (cases) => [await look(cases[0]), await look(cases[1]), await look(cases[2])],
    );
    near(off.at(0.5, 0.5)[0], 0.2, 1e-3);
    // Warmer: more red than came in, and much less blue.
    expect(on.at(0.5, 0.5)[0]).toBeGreaterThan(0.21);
    expect(on.at(0.5, 0.5)[2]).toBeLessThan(0.4);
    near(half.at(0.5, 0.5)[0], (off.at(0.5, 0.5)[0] + on.at(0.5, 0.5)[0]) / 2, 1e-3);
  });

  test('edges are as wide as they say, on both sides of the edge', async () => {
    const made = new Case('edges', { lineWidth: 8, from: 'alpha', ink: white }).with(
      'picture',
      'flat-shape',
      {
        form: 'box',
        size: [0.5, 4],
        fill: white,
      },
    );
    const seen = await look(made);
    const row = Array.from({ length: 160 }, (_, x) => seen.at((x + 0.5) / 160, 0.5)[0] > 0.5);
    expect(row.filter(Boolean).length).toBeGreaterThanOrEqual(14);
    expect(row.filter(Boolean).length).toBeLessThanOrEqual(18);
    expect(row[80]).toBe(false);
  });

  test('corner pin leaves the picture alone at home, and pulls a corner to its place', async () => {
    const home = await look(new Case('corner-pin').with('picture', 'coordinate-map'));
    near(home.at(0.25, 0.75)[0], 0.25, 0.01);
    near(home.at(0.25, 0.75)[1], 0.75, 0.01);
    const half = {
      lowerLeft: [0, 0],
      lowerRight: [-0.5 * aspect, 0],
      upperRight: [-0.5 * aspect, 0],
      upperLeft: [0, 0],
    };
    const seen = await look(new Case('corner-pin', half).with('picture', 'coordinate-map'));
    near(seen.at(0.25, 0.5)[0], 0.5, 0.02);
    expect(seen.at(0.75, 0.5)[3]).toBe(0);
  });

  test('key out by brightness, by colour and by alpha', async () => {
    const dark = await look(new Case('key-out', { level: 0.6, softness: 0 }).with('picture', 'fill', ground));
    expect(dark.at(0.5, 0.5)[3]).toBe(0);
    const light = await look(
      new Case('key-out', { level: 0.2, softness: 0 }).with('picture', 'fill', ground),
    );
    expect(light.at(0.5, 0.5)[3]).toBe(1);
    const colour = { by: 'colour', key: [0.2, 0.4, 0.6, 1], level: 0.1, softness: 0.02 };
    expect((await look(new Case('key-out', colour).with('picture', 'fill', ground))).at(0.5, 0.5)[3]).toBe(0);
    const other = { colour: [0.6, 0.4, 0.2, 1] };
    expect((await look(new Case('key-out', colour).with('picture', 'fill', other))).at(0.5, 0.5)[3]).toBe(1);
    const thin = { colour: [1, 1, 1, 0.4] };
    expect(
      (
        await look(
          new Case('key-out', { by: 'alpha', level: 0.3, softness: 0 }).with('picture', 'fill', thin),
        )
      ).at(0.5, 0.5)[3],
    ).toBe(1);
  });

  test('remapped by a map of its own coordinates, a picture stays', async () => {
    const seen = await look(
      new Case('remap-image').with('picture', 'coordinate-map').with('map', 'coordinate-map'),
    );
    near(seen.at(0.3, 0.8)[0], 0.3, 0.01);
    const turned = new Case('remap-image', { across: 'green', up: 'red' });
    const swapped = await look(turned.with('picture', 'coordinate-map').with('map', 'coordinate-map'));
    near(swapped.at(0.3, 0.8)[0], 0.8, 0.01);
  });

  test('resize gives other pixels, averaged or taken crisp', async () => {
    const lattice = { cells: [15, 15], lineWidth: 0.5, ink: white, ground: [0, 0, 0, 1] };
    const whole = await look(new Case('lattice', lattice));
    const smooth = await look(new Case('resize', { share: 0.1 }).with('picture', 'lattice', lattice));
    expect([smooth.answer.width, smooth.answer.height]).toEqual([16, 9]);
    near(smooth.mean(0), whole.mean(0), 0.01);
    expect(smooth.share(0, 0.98)).toBe(0);
    const crisp = await look(
      new Case('resize', { share: 0.1, reading: 'crisp' }).with('picture', 'lattice', lattice),
    );
    expect(crisp.share(0, 0.98)).toBeGreaterThan(0.3);
    const pixels = await look(
      new Case('resize', { by: 'pixels', width: 7, height: 3 }).with('picture', 'fill', ground),
    );
    expect([pixels.answer.width, pixels.answer.height]).toEqual([7, 3]);
  });

  test('LED dots show the picture in single lights', async () => {
    const made = new Case('led-dots', { lights: 9, size: 0.5, softness: 0, gain: 1, ground: [0, 0, 0, 1] });
    const seen = await look(made.with('picture', 'fill', { colour: white }));
    expect(seen.at(...place(0.5 / 9, 0.5 / 9))[0]).toBeGreaterThan(0.95);
    expect(seen.at(...place(0, 0))[0]).toBe(0);
    // A disc of half a cell covers π / 16 of it.
    near(seen.mean(0), Math.PI / 16, 0.03);
  });

  test('scan lines darken every period, and stand still if asked', async () => {
    const made = new Case('scanlines', { period: 10, strength: 0.8, statics: 0, flicker: 0 }).with(
      'picture',
      'fill',
      { colour: white },
    );
    const seen = await look(made);
    near(seen.mean(0), 0.6, 0.02);
    expect((await look(made, { frames: 20 })).apartFrom(seen)).toBe(0);
  });

  test('glow shines beyond the edge, keeps what is below its threshold dark, and adds nothing at 0', async () => {
    const dot = { size: [0.2, 0.2], fill: white };
    const seen = await look(
      new Case('glow', { reach: 0.4, threshold: 0 }).with('picture', 'flat-shape', dot),
    );
    const [close, far] = [seen.at(...place(0.15, 0))[0], seen.at(...place(0.35, 0))[0]];
    expect(close).toBeGreaterThan(far);
    expect(far).toBeGreaterThan(0.002);
    const dim = { size: [0.2, 0.2], fill: [0.3, 0.3, 0.3, 1] };
    const none = await look(new Case('glow', { threshold: 0.5, knee: 0 }).with('picture', 'flat-shape', dim));
    expect(none.at(...place(0.15, 0))[0]).toBe(0);
    const off = await look(new Case('glow', { amount: 0 }).with('picture', 'flat-shape', dot));
    expect(off.at(...place(0.15, 0))[0]).toBe(0);
  });

  test.each([0.07, 0.15, 0.3])('a blur of radius %f keeps brightness and is a Gaussian', async (radius) => {
    const bar = { form: 'box', size: [4, 4], place: [2, 0], fill: white };
    const seen = await look(new Case('blur', { radius }).with('picture', 'flat-shape', bar));
    // The integral of a Gaussian from the edge in the middle to the centre of a pixel: one deviation is half the radius.
    for (let column = 50; column < 110; column += 3) {
      const deviations = (column + 0.5 - 80) / (45 * radius);
      near(seen.at((column + 0.5) / 160, 0.5)[0], gaussIntegral(deviations), 0.02);
    }
  });

  test('a radius map blurs where it is light and nowhere else', async () => {
    const stripes = { count: [8, 8], ink: white, ground: [0, 0, 0, 1] };
    const half = { form: 'box', size: [4, 4], place: [2, 0], fill: white };
    const made = new Case('blur', { radius: 0.1 })
      .with('picture', 'stripes', stripes)
      .with('radiusMap', 'flat-shape', half);
    const sharp = await look(new Case('blur', { radius: 0 }).with('picture', 'stripes', stripes));
    const seen = await look(made);
    for (const x of [0.1, 0.2, 0.3]) near(seen.at(x, 0.5)[0], sharp.at(x, 0.5)[0], 0.01);
    for (const x of [0.7, 0.8, 0.9]) near(seen.at(x, 0.5)[0], 0.5, 0.1);
  });

  test('a frame store shows what was, and cuts through time by a picture', async () => {
    const made = new Case('frame-store', { back: 10, kept: 'full', frames: 30 }).with('picture', 'fill', {
      colour: white,
    });
    const [fill] = Object.values(made.scene.nodes).filter((node) => node.kind === 'fill');
    made.sketch.formula(fill.id, 'colour.r', 'time');
    const seen = await look(made, { frames: 31 });
    near(seen.at(0.5, 0.5)[0], 20 / 60, 0.02);
    const sliced = new Case('frame-store', { back: 0, depth: 20, kept: 'full', frames: 30 }).with(
      'picture',
      'fill',
      { colour: white },
    );
    sliced.with('slices', 'gradient', {
      length: aspect,
      colours: [
        { at: 0, colour: [0, 0, 0, 1] as never },
        { at: 1, colour: [1, 1, 1, 1] as never },
      ] as never,
    });
    const [other] = Object.values(sliced.scene.nodes).filter((node) => node.kind === 'fill');
    sliced.sketch.formula(other.id, 'colour.r', 'time');
    const cut = await look(sliced, { frames: 31 });
    near(cut.at(0.02, 0.5)[0], 30 / 60, 0.02);
    near(cut.at(0.98, 0.5)[0], 10 / 60, 0.02);
  });

  test('levels of one channel leave the others', async () => {
    const seen = await look(
      new Case('levels', { invert: true, channels: 'green' }).with('picture', 'fill', ground),
    );
    const [r, g, b] = seen.at(0.5, 0.5);
    near(r, 0.2, 1e-3);
    near(g, 0.6, 1e-3);
    near(b, 0.6, 1e-3);
  });

  test('repeats have an end where they are limited', async () => {
    const made = (limited: boolean): Case =>
      new Case('transform', { scale: 0.1, outside: 'repeat', limited, repeats: [1, 0] }).with(
        'picture',
        'fill',
        { colour: white },
      );
    near((await look(made(false))).mean(3), 1, 1e-3);
    near((await look(made(true))).mean(3), 0.03, 0.005);
  });

  test.each([
    ['multiply', [0.1, 0.2, 0.3]],
    ['screen', [0.6, 0.7, 0.8]],
    ['lighten', [0.5, 0.5, 0.6]],
    ['darken', [0.2, 0.4, 0.5]],
    ['difference', [0.3, 0.1, 0.1]],
    ['average', [0.35, 0.45, 0.55]],
  ] as const)('%s of opaque and of half see-through colours', async (mode, wanted) => {
    const made = (alpha: number): Case =>
      new Case('blend', { mode })
        .with('picture', 'fill', ground)
        .with('over', 'fill', { colour: [0.5, 0.5, 0.5, alpha] });
    const full = (await look(made(1))).at(0.5, 0.5);
    const half = (await look(made(0.5))).at(0.5, 0.5);
    wanted.forEach((v, k) => {
      near(full[k], v, 2e-3);
      near(half[k], (v + ground.colour[k]) / 2, 2e-3);
    });
    near(half[3], 1, 1e-3);
  });
});

describe('Amount', () => {
  const changing = [...catalogue.values()].filter(
    (kind) => kind.output === 'image' && !kind.isSceneOut && kind.inputs.picture?.carries === 'image',
  );
  // Resize only gives other pixels: between two sizes there is nothing to mix.
  test('is had by every kind that changes a picture', () =>
    expect(changing.filter((kind) => !('amount' in kind.controls)).map(({ id }) => id)).toEqual(['resize']));

  test.each(changing.map(({ id }) => id).filter((id) => id !== 'resize'))(
    'of 0 leaves the picture as it came in: %s',
    async (id) => {
      const kind = catalogue.get(id)!;
      const made = new Case(id, { amount: 0 });
      for (const [port, input] of Object.entries(kind.inputs))
        if (input.carries === 'image') made.with(port, port === 'picture' ? 'gradient' : 'noise');
      const plain = new Case('gradient');
      expect((await look(made, { frames: 2 })).apartFrom(await look(plain, { frames: 2 }))).toBeLessThan(
        1e-5,
      );
    },
  );
});

describe('a shader of one’s own', () => {
  const code = (head: string, body: string): string => `/*\n${head}\n*/\n${body}`;
  const own = (text: string): Case => new Case('shader', { code: text, good: text });

  test('draws what it says, with its inputs and controls', async () => {
    const text = code(
      '{ "pictures": { "under": "Under" }, "controls": { "share": { "type": "number", "default": 0.25 }, "way": { "type": "choice", "options": ["across", "up"], "default": "up" } } }',
      'float pick(vec2 q) { return way == 1 ? q.y : q.x; }\nvec4 paint(vec2 place) {\n  return vec4(pick(place), share, under(place).b, 1.0);\n}',
    );
    const made = own(text);
    const fill = made.sketch.add('fill', 'Under', [0, 0], { colour: [0, 0, 0.75, 1] });
    made.sketch.wire(fill, made.node, 'under');
    const [r, g, b] = (await look(made)).at(0.3, 0.8);
    near(r, 0.8, 0.01);
    near(g, 0.25, 1e-3);
    near(b, 0.75, 1e-3);
  });

  test('a fault names its line, and the last good code goes on', async () => {
    const good = code('{}', 'vec4 paint(vec2 place) { return vec4(1.0, 0.0, 0.0, 1.0); }');
    const made = own(good);
    const bad = code('{}', 'vec4 paint(vec2 place) {\n  float x = nothing;\n  return vec4(x);\n}');
    const seen = await probe.ask({
      scene: made.scene,
      node: made.node,
      frames: 6,
      later: [{ frame: 3, node: made.node, control: 'code', value: bad }],
    });
    expect(seen.answer.faults[made.node]).toMatch(/^Line 5: 'nothing'/);
    expect(seen.at(0.5, 0.5)[0]).toBe(1);
  });

  test('a loop that would not end does', async () => {
    const text = code(
      '{}',
      'vec4 paint(vec2 place) {\n  float v = 0.0;\n  while (v < 2.0) v += 1e-9;\n  return vec4(0.0, 1.0, 0.0, 1.0);\n}',
    );
    expect((await look(own(text))).at(0.5, 0.5)[1]).toBe(1);
  });
});

describe('files', () => {
  const ask = (kind: string, file: Buffer, controls: Record<string, ControlValue> = {}): Promise<Seen> => {
    const made = new Case(kind, { file: 'f1', fit: 'stretch', reading: 'crisp', ...controls });
    return probe.ask({ scene: made.scene, node: made.node, files: { f1: file.toString('base64') } });
  };

  test.each([
    ['PNG', () => pngOf([[255, 0, 0], [0, 0, 255]]), 1], // prettier-ignore
    ['HDR', () => hdrOf([[128, 0, 0, 131], [0, 0, 128, 131]]), 4], // prettier-ignore
    ['EXR', () => exrOf([[4, 0, 0], [0, 0, 4]]), 4], // prettier-ignore
  ] as const)('%s stands upright, and keeps light above 1', async (_form, file, light) => {
    const seen = await ask('picture', file());
    expect(seen.answer.faults).toEqual({});
    near(seen.at(0.5, 0.9)[0], light, 0.02 * light);
    near(seen.at(0.5, 0.9)[2], 0, 0.01);
    near(seen.at(0.5, 0.1)[2], light, 0.02 * light);
  });

  test.each([
    ['lut', Buffer.from('LUT_3D_SIZE 2\n0 0 0\n'), /holds 1 colours, and a table of 2 x 2 x 2 needs 8/],
    ['clip', Buffer.from([0x1a, 0x45, 0xdf, 0xa3, 0x80]), /damaged|no moving pictures|no frames/],
    ['picture', exrOf([[1, 1, 1]]).subarray(0, 90), /damaged/],
    ['picture', hdrOf([]), /no pixels|damaged/],
  ])('a broken file for %s says what is wrong', async (kind, file, words) => {
    const made = new Case(kind, { file: 'f1' });
    if (kind === 'lut') made.with('picture', 'fill');
    const seen = await probe.ask({
      scene: made.scene,
      node: made.node,
      files: { f1: file.toString('base64') },
    });
    expect(seen.answer.faults[made.node]).toMatch(words);
  });
});

describe('what cannot be read', () => {
  test.each([
    ['picture', 'shipped:nothing.png', /does not come with this app/],
    ['picture', 'shipped:first-frost.cube', /is a CUBE file and no picture/],
    ['clip', 'shipped:comb-crest.svg', /MP4 or WebM/],
    ['lut', 'shipped:wax-pane.webp', /is a WEBP file and no look/],
  ])('%s with %s says so, and the rest goes on', async (kind, file, words) => {
    const made = new Case(kind, { file });
    const other = made.sketch.add('fill', 'Rest', [0, 0], { colour: [0.5, 0.5, 0.5, 1] });
    const both = made.sketch.add('blend', 'Both', [600, 0]);
    made.sketch.wire(other, both, 'picture');
    made.sketch.wire(made.node, both, 'over');
    const seen = await probe.ask({ scene: made.scene, node: both, watched: [made.node] });
    near(seen.at(0.5, 0.5)[0], 0.5, 2e-3);
    const direct = await look(made);
    expect(direct.answer.faults[made.node]).toMatch(words);
  });
});

describe('pixels as numbers', () => {
  /** A picture that is read, and the numbers written down as the pixels of another: one row for each lane. */
  async function read(
    source: [string, Record<string, ControlValue>],
    controls: Record<string, ControlValue>,
    frames = 3,
  ) {
    const made = new Case('data-image', {});
    const { sketch } = made;
    const picture = sketch.add(source[0], 'Source', [0, 0], source[1], { precision: '32' });
    const reader = sketch.add('pixel-reader', 'Reader', [200, 0], controls);
    sketch.wire(picture, reader, 'picture');
    sketch.wire(reader, made.node, 'in');
    return look(made, { frames });
  }

  test('a row over a map of places gives rising numbers, a frame later', async () => {
    const controls = { area: 'row', columns: 8, height: 0.5, gives: 'colour' };
    const seen = await read(['coordinate-map', {}], controls);
    expect(seen.answer.faults).toEqual({});
    expect(seen.answer.width).toBe(8);
    for (let k = 0; k < 8; k++) near(seen.at((k + 0.5) / 8, 0.5)[0], (k + 0.5) / 8, 0.01);
    // In the first frame nothing was read yet: one sample of 0.
    expect((await read(['coordinate-map', {}], controls, 1)).answer.width).toBe(1);
  });

  test('the mean around a place evens out what the pixel does not', async () => {
    const stripes: [string, Record<string, ControlValue>] = [
      'stripes',
      { count: [40, 40], ink: [1, 1, 1, 1], ground: [0, 0, 0, 1] },
    ];
    const mean = await read(stripes, { area: 'grid', columns: 2, rows: 1, takes: 'mean' });
    near(mean.at(0.25, 0.5)[0], 0.5, 0.08);
    near(mean.at(0.75, 0.5)[0], 0.5, 0.08);
  });
});
