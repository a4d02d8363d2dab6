import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { Sketch } from '../demo/sketch';
import type { ControlValue } from '../src/core/document/types';
import { Probe, type Pixel, type Seen } from './probe';

jest.setTimeout(180000);
let probe: Probe;
beforeAll(async () => {
  probe = await Probe.open();
});
afterAll(() => probe?.close());

type Controls = Record<string, ControlValue>;
const aspect = 160 / 90;
const near = (value: number, wanted: number, within = 0.02): void =>
  expect(Math.abs(value - wanted)).toBeLessThan(within);

/** Fields before a camera that looks straight on, one scene unit high, in plain colours. */
class Sculpture {
  readonly s = new Sketch('s1', 'Sculpture', [900, 0]);
  readonly shot: string;
  readonly camera: string;

  constructor(shot: Controls = {}, camera: Controls = {}) {
    this.shot = this.s.add(
      'field-shot',
      'Shot',
      [600, 0],
      { surface: 'colour', tone: 'none', quality: 1, shadows: false, contact: 0, ...shot },
      { precision: '32' },
    );
    this.camera = this.s.add('camera', 'Camera', [300, 300], {
      orbit: 0,
      height: 0,
      distance: 3,
      projection: 'straight',
      ...camera,
    });
    this.s.wire(this.camera, this.shot, 'props');
    this.s.wire(this.shot, this.s.out, 'picture');
  }

  field(kind: string, controls: Controls = {}, ...inputs: string[]): string {
    const id = this.s.add(kind, `${kind} ${Object.keys(this.s.scene.nodes).length}`, [0, 0], controls);
    for (const input of inputs) this.s.wire(input, id, kind === 'field-blend' ? 'fields' : 'field');
    return id;
  }

  show(...fields: string[]): this {
    for (const field of fields) this.s.wire(field, this.shot, 'fields');
    return this;
  }

  look(more: { frames?: number; fps?: number } = {}): Promise<Seen> {
    return probe.ask({ scene: this.s.scene, node: this.shot, ...more });
  }
}

const at = (seen: Seen, x: number, y: number): Pixel => seen.at(0.5 + x / aspect, 0.5 + y);
const white = [1, 1, 1, 1];
/** Share of the picture that is covered, in square units of the scene. */
const area = (seen: Seen): number => seen.mean(3) * aspect;

describe('solids', () => {
  test.each([
    ['field-ball', { radius: 0.3 }, Math.PI * 0.09],
    ['field-box', { size: [0.6, 0.4, 0.2] }, 0.24],
    ['field-torus', { radius: 0.3, tube: 0.1 }, 0.8 * 0.2 - (0.2 * 0.2 - Math.PI * 0.01)],
    ['field-tube', { radius: 0.1, height: 0.6, ends: 'flat' }, 0.12],
    ['field-tube', { radius: 0.1, height: 0.6, ends: 'round' }, 0.08 + Math.PI * 0.01],
    ['field-prism', { sides: 6, radius: 0.3, height: 0.2 }, 6 * 0.3 * 0.3 * Math.tan(Math.PI / 6)],
    ['field-plane', { normal: [0, 1, 0], offset: -0.25 }, 0.25 * aspect],
  ] as const)('%s has the outline it should', async (kind, controls, wanted) => {
    const s = new Sculpture();
    near(area(await s.show(s.field(kind, controls as never)).look()), wanted, 0.015);
  });

  test('in perspective a ball stands where a body would', async () => {
    const s = new Sculpture({}, { projection: 'perspective', distance: 2, view: 40 });
    const ball = s.field('field-ball', { radius: 0.05, colour: white });
    const seen = await s.show(s.field('field-place', { move: [0.3, -0.2, 0] }, ball)).look();
    const scale = 1 / (2 * 2 * Math.tan((20 * Math.PI) / 180));
    expect(at(seen, 0.3 * scale, -0.2 * scale)[3]).toBe(1);
    expect(at(seen, 0.3 * scale + 0.06, -0.2 * scale)[3]).toBe(0);
  });
});

describe('changed', () => {
  test('placed, rounded, hollowed, repeated, mirrored', async () => {
    const one = async (make: (s: Sculpture) => string): Promise<Seen> => {
      const s = new Sculpture();
      return s.show(make(s)).look();
    };
    const box = (s: Sculpture): string => s.field('field-box', { size: [0.4, 0.2, 0.2] });
    near(area(await one((s) => s.field('field-place', { turn: [0, 0, 90], scale: 2 }, box(s)))), 0.32, 0.015);
    const turned = await one((s) => s.field('field-place', { turn: [0, 0, 90] }, box(s)));
    expect(at(turned, 0, 0.18)[3]).toBe(1);
    expect(at(turned, 0.15, 0)[3]).toBe(0);
    const rounded = await one((s) => s.field('field-round', { radius: 0.1 }, box(s)));
    near(area(rounded), 0.08 + 2 * 0.1 * 0.6 + Math.PI * 0.01, 0.015);
    const repeated = await one((s) =>
      s.field(
        'field-repeat',
        { spacing: [0.5, 0, 0], counts: [1, 0, 0] },
        s.field('field-ball', { radius: 0.1 }),
      ),
    );
    near(area(repeated), 3 * Math.PI * 0.01, 0.01);
    expect(at(repeated, 0.5, 0)[3]).toBe(1);
    const mirrored = await one((s) =>
      s.field(
        'field-mirror',
        {},
        s.field('field-place', { move: [0.4, 0, 0] }, s.field('field-ball', { radius: 0.1 })),
      ),
    );
    expect(at(mirrored, -0.4, 0)[3]).toBe(1);
    expect(at(mirrored, 0.4, 0)[3]).toBe(1);
    // A hollow ball that is cut open shows its wall: a plane takes the front half away.
    const shell = await one((s) => {
      const ball = s.field('field-shell', { thickness: 0.1 }, s.field('field-ball', { radius: 0.3 }));
      const front = s.field('field-box', { size: [2, 2, 2] });
      const placed = s.field('field-place', { move: [0, 0, 1] }, front);
      return s.field('field-blend', { how: 'cut', soft: 0 }, ball, placed);
    });
    near(area(shell), Math.PI * 0.35 ** 2, 0.015);
  });

  test('twisted and bent fields keep their surface', async () => {
    const s = new Sculpture();
    const bar = s.field('field-box', { size: [0.1, 0.8, 0.3] });
    const seen = await s.show(s.field('field-twist', { turn: 112.5 }, bar)).look();
    // The ends are turned by 45 degrees: as wide as 0.1 and 0.3 seen from their corner.
    expect(at(seen, 0.13, 0.39)[3]).toBeGreaterThan(0.5);
    expect(at(seen, 0.08, 0)[3]).toBe(0);
    const b = new Sculpture();
    const stick = b.field('field-box', { size: [0.8, 0.1, 0.1] });
    const bent = await b.show(b.field('field-bend', { turn: 90 }, stick)).look();
    expect(at(bent, 0, 0)[3]).toBe(1);
    expect(at(bent, 0.38, 0)[3]).toBe(0);
  });

  test('ripples follow an image, and noise moves with time', async () => {
    const s = new Sculpture();
    const fill = s.s.add('fill', 'White', [0, 0], { colour: white });
    const ripple = s.field(
      'field-ripple',
      { by: 'image', strength: 0.1 },
      s.field('field-ball', { radius: 0.2 }),
    );
    s.s.wire(fill, ripple, 'image');
    near(area(await s.show(ripple).look()), Math.PI * 0.09, 0.015);
    const n = new Sculpture();
    n.show(n.field('field-ripple', { strength: 0.1, speed: 1 }, n.field('field-ball')));
    expect((await n.look({ frames: 10, fps: 10 })).apartFrom(await n.look())).toBeGreaterThan(0.5);
  });
});

describe('joined', () => {
  const k = 0.3;
  const smooth = (a: number, b: number): number => {
    const h = Math.min(1, Math.max(0, 0.5 + (0.5 * (b - a)) / k));
    return b + (a - b) * h - k * h * (1 - h);
  };

  test('smooth union follows its formula along a line', async () => {
    const s = new Sculpture();
    const balls = [-0.25, 0.25].map((x) =>
      s.field('field-place', { move: [x, 0, 0] }, s.field('field-ball', { radius: 0.2 })),
    );
    const seen = await s.show(s.field('field-blend', { soft: k }, ...balls)).look();
    for (let x = -0.5; x <= 0.5; x += 0.1) {
      // The height of the surface above x, where its distance is 0.
      let y = 0;
      while (y < 0.5 && smooth(Math.hypot(x + 0.25, y) - 0.2, Math.hypot(x - 0.25, y) - 0.2) < 0) y += 0.001;
      let covered = 0;
      for (let row = 0; row < 45; row++) covered += at(seen, x, (row + 0.5) / 90)[3];
      near(covered / 90, y, 0.012);
    }
  });

  test('cut away and in common', async () => {
    const make = async (how: string): Promise<Seen> => {
      const s = new Sculpture();
      const [one, two] = [-0.1, 0.1].map((x) =>
        s.field('field-place', { move: [x, 0, 0] }, s.field('field-box', { size: [0.4, 0.4, 0.4] })),
      );
      return s.show(s.field('field-blend', { how, soft: 0 }, one, two)).look();
    };
    near(area(await make('cut')), 0.08, 0.012);
    near(area(await make('common')), 0.08, 0.012);
    near(area(await make('union')), 0.24, 0.012);
  });

  test('colours melt where fields do', async () => {
    const s = new Sculpture();
    const [red, green] = [
      [-0.2, [1, 0, 0, 1]],
      [0.2, [0, 1, 0, 1]],
    ].map(([x, colour]) =>
      s.field(
        'field-place',
        { move: [x as number, 0, 0] },
        s.field('field-ball', { radius: 0.25, colour: colour as never }),
      ),
    );
    const seen = await s.show(s.field('field-blend', { soft: 0.3 }, red, green)).look();
    near(at(seen, 0.003, 0)[0], 0.5, 0.06);
    near(at(seen, -0.4, 0)[0], 1, 0.02);
    near(at(seen, 0.4, 0)[1], 1, 0.02);
  });

  test('copies stand wherever numbers say, and colours stay', async () => {
    const s = new Sculpture();
    const copies = s.field(
      'field-copies',
      { soft: 0 },
      s.field('field-ball', { radius: 0.1, colour: white }),
    );
    const list = s.s.add('values', 'Across', [0, 0], { list: [-0.5, 0, 0.5] });
    const wire = s.s.wire(list, copies, 'place.x');
    delete s.s.scene.wires[wire].fit;
    const seen = await s.show(copies).look();
    near(area(seen), 3 * Math.PI * 0.01, 0.01);
    for (const x of [-0.5, 0, 0.5]) expect(at(seen, x, 0).slice(0, 3)).toEqual([1, 1, 1]);
  });
});

describe('light and background', () => {
  test('the shadow of a ball falls away from the light', async () => {
    const make = (shadow: number): Promise<Seen> => {
      const s = new Sculpture({ surface: 'lit', shadows: true }, { height: 90, viewHeight: 1.6 });
      const floor = s.field('field-plane', { offset: 0, colour: white, shine: 0 });
      const ball = s.field('field-ball', { radius: 0.15, colour: [1, 0, 0, 1] });
      s.show(floor, s.field('field-place', { move: [0, 0.25, 0] }, ball));
      s.s.wire(s.s.add('light', 'Light', [0, 0], { place: [-1, 1, 0], shadow, soft: 0 }), s.shot, 'props');
      return s.look();
    };
    const [without, seen] = [await make(0), await make(1)];
    expect(at(without, 0.3 / 1.6, 0)[1]).toBeGreaterThan(0.4);
    expect(at(seen, 0.3 / 1.6, 0)[1]).toBeLessThan(0.1);
    near(at(seen, -0.5 / 1.6, 0)[1], at(without, -0.5 / 1.6, 0)[1]);
  });

  test('contact shading darkens where surfaces meet', async () => {
    const make = async (contact: number): Promise<number> => {
      const s = new Sculpture({ surface: 'lit', contact }, { height: 50, viewHeight: 1.2 });
      s.show(s.field('field-plane', { offset: 0, colour: white }), s.field('field-box', { colour: white }));
      s.s.wire(s.s.add('light', 'Light', [0, 0], { form: 'ambient', colour: white }), s.shot, 'props');
      return at(await s.look(), 0, -0.2)[0];
    };
    expect(await make(1)).toBeLessThan((await make(0)) - 0.1);
  });

  test('the background is see-through, its edges are soft, and quality sets the size', async () => {
    const s = new Sculpture({ quality: 0.5 });
    const seen = await s.show(s.field('field-ball', { radius: 0.3, colour: white })).look();
    expect(at(seen, 0.7, 0)).toEqual([0, 0, 0, 0]);
    expect(seen.answer.width).toBe(Math.round(160 * 0.675));
    const edges = seen.answer.pixels.filter((v, k) => k % 4 === 3 && v > 0.02 && v < 0.98).length;
    expect(edges).toBeGreaterThan(10);
    const empty = await new Sculpture({ background: [1, 0, 0, 0.5] }).look();
    expect(at(empty, 0, 0)).toEqual([0.5, 0, 0, 0.5]);
  });
});

test('a picture is the same wherever its numbers are kept', async () => {
  const s = new Sculpture(
    {
      surface: 'lit',
      shadows: true,
      contact: 0.5,
      fog: 0.5,
      fogNear: 1,
      far: 5,
      background: [0.1, 0.2, 0.3, 0.5],
    },
    { projection: 'perspective', orbit: 30, height: 20, distance: 1.6 },
  );
  const tube = s.field('field-tube', { radius: 0.1, colour: [0.2, 1, 0.4, 1] });
  const turned = s.field('field-place', { turn: [20, 30, 40], scale: 1.2, move: [0.2, 0, 0] }, tube);
  const box = s.field('field-round', { radius: 0.05 }, s.field('field-box', { size: [0.4, 0.3, 0.2] }));
  s.show(s.field('field-blend', { soft: 0.1 }, turned, box));
  for (const form of ['sun', 'point', 'spot', 'ambient'])
    s.s.wire(
      s.s.add('light', form, [0, 0], { form, place: [0.6, 1, 1], soft: 0.2, shadow: 1 }),
      s.shot,
      'props',
    );
  const ask = (cornerRoom?: number): Promise<Seen> =>
    probe.ask({ scene: s.s.scene, node: s.shot, cornerRoom });
  const usual = await ask();
  expect(usual.answer.faults).toEqual({});
  expect(usual.share(0, 0.3)).toBeGreaterThan(0.05);
  for (const room of [0, 5]) expect((await ask(room)).apartFrom(usual)).toBeLessThan(0.01);
});

test('moving controls compiles nothing, and too many fields say so while the picture goes on', async () => {
  const s = new Sculpture();
  const ball = s.field('field-ball');
  const place = s.field('field-place', {}, ball);
  s.show(s.field('field-blend', {}, place, s.field('field-box')));
  const edits = [
    { node: ball, control: 'radius', from: 0.1, to: 0.5 },
    { node: s.shot, control: 'exposure', from: 0.1, to: 2 },
  ];
  const { compiles } = (await probe.ask({ scene: s.s.scene, node: s.shot, frames: 16, edits })).answer;
  expect(compiles).toBe(0);
  const many = new Sculpture();
  many.show(many.field('field-blend', {}, ...Array.from({ length: 200 }, () => many.field('field-ball'))));
  const { faults } = (await many.look()).answer;
  expect(Object.values(faults).join()).toMatch(/More than 96 fields/);
});

test('a field by itself is shown cut open, in its colours, with rings around it', async () => {
  const s = new Sculpture();
  const ball = s.field('field-ball', { radius: 0.3, colour: [1, 0, 0, 1] });
  const shell = s.field('field-shell', { thickness: 0.1 }, ball);
  s.show(shell);
  const seen = await probe.ask({ scene: s.s.scene, node: s.shot, watched: [shell], peek: shell });
  // The view is 1.3 units high.
  const cut = (x: number): Pixel => seen.at(0.5 + x / 1.3 / aspect, 0.5);
  const isRed = ([r, g, b]: Pixel): boolean => r > 0.5 && g < 0.1 && b < 0.1;
  expect(isRed(cut(0.31))).toBe(true);
  expect(isRed(cut(0))).toBe(false);
  expect(isRed(cut(0.45))).toBe(false);
  const brightness = Array.from({ length: 40 }, (_, k) => cut(0.42 + k * 0.008)[2]);
  const [low, high] = [Math.min(...brightness), Math.max(...brightness)];
  expect(high).toBeGreaterThan(low + 0.05);
});
