import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { Sketch } from '../demo/sketch';
import type { ControlValue } from '../src/core/document/types';
import { glbOf, pngOf } from './files';
import { Probe, type Pixel, type Seen } from './probe';

jest.setTimeout(400000);
let probe: Probe;
beforeAll(async () => {
  probe = await Probe.open();
});
afterAll(() => probe?.close());

const white = [1, 1, 1, 1];
const red = [1, 0, 0, 1];
const green = [0, 1, 0, 1];
const aspect = 160 / 90;
type Controls = Record<string, ControlValue>;

/** Props before a camera that looks straight on, one scene unit high. */
class Scenery {
  readonly s = new Sketch('s1', 'Scenery', [900, 0]);
  readonly shot: string;
  readonly camera: string;

  constructor(shot: Controls = {}, camera: Controls = {}) {
    const plain = { edges: 'plain', tone: 'none', ...shot };
    this.shot = this.s.add('shot', 'Shot', [600, 0], plain, { precision: '32' });
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

  /** A node of any kind with its first input wired. */
  node(kind: string, controls: Controls = {}, wires: Record<string, string> = {}): string {
    const id = this.s.add(kind, `${kind} ${Object.keys(this.s.scene.nodes).length}`, [0, 0], controls);
    for (const [port, from] of Object.entries(wires)) this.s.wire(from, id, port);
    return id;
  }

  /** An image of just these pixels, row by row from the bottom; `nan` is what is not a number. */
  picture(size: [number, number], pixels: readonly (readonly (number | 'nan')[])[]): string {
    const text = (v: number | 'nan'): string => (v === 'nan' ? 'sqrt(-1.0 - place.x)' : v.toFixed(4));
    const rows = pixels.map(
      (pixel, k) =>
        `  if (at.y == ${Math.floor(k / size[0])} && at.x == ${k % size[0]}) return vec4(${pixel.map(text).join(', ')});`,
    );
    const code = `/*\n{}\n*/\nvec4 paint(vec2 place) {\n  ivec2 at = ivec2(place * vec2(${size[0]}.0, ${size[1]}.0));\n${rows.join('\n')}\n  return vec4(0.0);\n}\n`;
    const id = this.node('shader', { code, good: code });
    this.s.scene.nodes[id].size = size;
    return id;
  }

  /** A flat body of a shape. */
  body(
    shape: string,
    shapeControls: Controls = {},
    controls: Controls = {},
    wires: Record<string, string> = {},
  ): string {
    const made = this.node(shape, shapeControls);
    return this.node('body', { shading: 'flat', colour: white, ...controls }, { shape: made, ...wires });
  }

  show(...props: string[]): this {
    for (const prop of props) this.s.wire(prop, this.shot, 'props');
    return this;
  }

  look(more: { frames?: number; fps?: number } = {}): Promise<Seen> {
    return probe.ask({ scene: this.s.scene, node: this.shot, ...more });
  }
}

/** The pixel at a place in scene units, as the straight camera sees it. */
const at = (seen: Seen, x: number, y: number): Pixel => seen.at(0.5 + x / aspect, 0.5 + y);
const near = (value: number, wanted: number, within = 0.02): void =>
  expect(Math.abs(value - wanted)).toBeLessThan(within);

/** Middle of all that is bright, in scene units, and how much of the picture it is. */
function middle(seen: Seen, channel = 0): { x: number; y: number; share: number } {
  const { width, height, pixels } = seen.answer;
  let [x, y, sum] = [0, 0, 0];
  for (let k = 0; k < width * height; k++) {
    const v = pixels[4 * k + channel];
    x += v * ((k % width) + 0.5);
    y += v * (Math.floor(k / width) + 0.5);
    sum += v;
  }
  return { x: (x / sum / width - 0.5) * aspect, y: y / sum / height - 0.5, share: sum / (width * height) };
}

describe('cameras', () => {
  test('a copy at a known place lands on its pixel, straight on and in perspective', async () => {
    for (const camera of [
      { projection: 'straight' },
      { projection: 'perspective', view: 40 },
    ] as Controls[]) {
      const c = new Scenery({}, { ...camera, distance: 2 });
      const body = c.body('sheet', { size: [0.06, 0.06] });
      c.show(c.node('instances', { count: 1, place: [0.3, -0.2, 0] }, { body }));
      const { x, y } = middle(await c.look());
      const scale = camera.projection === 'straight' ? 1 : 1 / (2 * 2 * Math.tan((20 * Math.PI) / 180));
      near(x, 0.3 * scale, 0.01);
      near(y, -0.2 * scale, 0.01);
    }
  });

  test('a lens of 24 mm sees a height as large as its distance', async () => {
    const c = new Scenery({}, { projection: 'perspective', lensBy: 'lens', lens: 24, distance: 2 });
    c.show(c.body('sheet', { size: [1, 1] }));
    near((await c.look()).share(0, 0.5), 0.25 / aspect, 0.02);
  });

  test('what is out of focus is blurred, what is in focus stays sharp', async () => {
    const edge = async (z: number): Promise<number> => {
      const c = new Scenery({}, { projection: 'perspective', distance: 2, blur: 0.06, focus: 2 });
      const sheet = c.node('sheet', { size: [0.5, 0.5] });
      const placed = c.node('place', { move: [0, 0, z] }, { shape: sheet });
      c.show(c.node('body', { shading: 'flat', colour: white }, { shape: placed }));
      const seen = await c.look();
      return seen.share(0, 0.05) - seen.share(0, 0.95);
    };
    expect(await edge(0)).toBeLessThan(0.01);
    expect(await edge(-2)).toBeGreaterThan(0.01);
  });

  test('depth as an image: near is white, far is black', async () => {
    const c = new Scenery({ gives: 'depth', depthFrom: 2.5, depthTo: 3.5 });
    const shape = c.node('place', { move: [-0.4, 0, 0.5] }, { shape: c.node('sheet', { size: [0.3, 0.3] }) });
    const far = c.node('place', { move: [0.4, 0, -0.25] }, { shape: c.node('sheet', { size: [0.3, 0.3] }) });
    c.show(c.node('body', {}, { shape }), c.node('body', {}, { shape: far }));
    const seen = await c.look();
    near(at(seen, -0.4, 0)[0], 1);
    expect(at(seen, 0, 0.4)[0]).toBe(0);
    // Straight on, distances are counted along the view in the same way.
    near(at(seen, 0.4, 0)[0], 0.25);
  });

  test('the background is see-through, and edges of see-through bodies keep their share', async () => {
    const c = new Scenery({ background: [1, 0, 0, 0] });
    c.show(c.body('sheet', { size: [0.5, 0.5] }, { colour: [0, 1, 0, 0.5], solid: false }));
    const seen = await c.look();
    expect(at(seen, 0.6, 0)).toEqual([0, 0, 0, 0]);
    at(seen, 0, 0).forEach((v, k) => near(v, [0, 0.5, 0, 0.5][k], 0.01));
  });
});

describe('instances', () => {
  test('rows of a data image reach place, tint, turn and size', async () => {
    const c = new Scenery();
    // One column of four pixels: place, tint, turn and size of one copy.
    const picture = c.picture(
      [1, 4],
      [
        [0.75, 0.5, 0.5, 1],
        [0, 1, 0, 1],
        [0.5, 0.5, 0.75, 1],
        [1, 1, 1, 1],
      ],
    );
    const body = c.body('sheet', { size: [0.2, 0.05] });
    const copies = c.node(
      'instances',
      { reads: 'rows', reach: [0.8, 0.4, 0.4], turnReach: [0, 0, 180], sizeRange: [1, 2], count: 1 },
      { body },
    );
    c.s.wire(picture, copies, 'pixels');
    c.show(copies);
    const seen = await c.look();
    expect(seen.answer.faults).toEqual({});
    const { x, y } = middle(seen, 1);
    near(x, 0.4, 0.01);
    near(y, 0, 0.01);
    expect(seen.share(0, 0.1)).toBe(0);
    // Twice as large, and turned by a quarter: it stands upright.
    expect(at(seen, 0.4, 0.17)[1]).toBeGreaterThan(0.9);
    expect(at(seen, 0.48, 0)[1]).toBe(0);
  });

  test('growth from the bottom leaves the base where it is', async () => {
    for (const scale of [1, 2]) {
      const c = new Scenery();
      const body = c.body('box', { size: [0.1, 0.2, 0.1] });
      c.show(c.node('instances', { count: 1, size: scale, place: [0, -0.3, 0], growth: 'bottom' }, { body }));
      const seen = await c.look();
      near(at(seen, 0, -0.32)[0], 0, 1e-6);
      near(at(seen, 0, -0.28)[0], 1, 1e-6);
      near(at(seen, 0, -0.3 + 0.2 * scale - 0.02)[0], 1, 1e-6);
      near(at(seen, 0, -0.3 + 0.2 * scale + 0.02)[0], 0, 1e-6);
    }
  });

  test.each([
    ['line', { layoutSize: 1 }, [-0.5, 0], 3],
    ['circle', { layoutSize: 0.6 }, [0.3, 0], 4],
    ['grid', { columns: 3, rows: 2, spacing: [0.3, 0.3, 0] }, [0.3, 0.15], 6],
    ['spiral', { layoutSize: 0.8, turns: 1 }, [0.4, 0], 5],
  ] as const)('a %s is laid out', async (layout, controls, [x, y], count) => {
    const c = new Scenery();
    const body = c.body('sheet', { size: [0.05, 0.05] });
    c.show(c.node('instances', { layout, count, ...controls } as Controls, { body }));
    const seen = await c.look();
    near(at(seen, x - 0.001, y)[0], 1, 1e-5);
    near(seen.mean(0), (count * 0.0025) / aspect, (count * 0.001) / aspect);
  });

  test('copies of copies stand in every place of both', async () => {
    const c = new Scenery();
    const body = c.body('sheet', { size: [0.04, 0.04] });
    const pair = c.node('instances', { layout: 'line', layoutSize: 0.2, count: 2, tint: red }, { body });
    c.show(
      c.node('instances', { layout: 'grid', columns: 1, rows: 2, spacing: [0, 0.4, 0] }, { body: pair }),
    );
    const seen = await c.look();
    for (const [x, y] of [
      [-0.1, -0.2],
      [0.1, -0.2],
      [-0.1, 0.2],
      [0.1, 0.2],
    ])
      expect(at(seen, x, y).slice(0, 3)).toEqual([1, 0, 0]);
    near(seen.mean(0), (4 * 0.0016) / aspect, 0.0018);
  });

  test('a palette goes there and back over the copies', async () => {
    const c = new Scenery();
    const body = c.body('sheet', { size: [0.05, 0.05] });
    const palette = [
      { at: 0, colour: red },
      { at: 1, colour: green },
    ];
    c.show(
      c.node('instances', { layout: 'line', count: 4, palette, paletteWay: 'mirror' } as never, { body }),
    );
    const seen = await c.look();
    const reds = [-0.5, -1 / 6, 1 / 6, 0.5].map((x) => at(seen, x, 0)[0]);
    near(reds[0], 0.75);
    near(reds[1], 0.25);
    near(reds[2], 0.25);
    near(reds[3], 0.75);
  });

  test('each copy shows its cell of a picture, or what lies where it stands', async () => {
    const make = (part: string): Scenery => {
      const c = new Scenery();
      const picture = c.node('gradient', {
        length: aspect,
        colours: [
          { at: 0, colour: [0, 0, 0, 1] },
          { at: 1, colour: [1, 1, 1, 1] },
        ] as never,
      });
      const body = c.body('sheet', { size: [0.1, 0.1] }, {}, { picture });
      c.show(
        c.node(
          'instances',
          { layout: 'line', layoutSize: 0.8, count: 3, part, cells: [3, 1], frame: [1.6, 1] },
          { body },
        ),
      );
      return c;
    };
    const cells = await make('cells').look();
    [-0.4, 0, 0.4].forEach((x, k) => near(at(cells, x, 0)[0], (k + 0.5) / 3, 0.05));
    const place = await make('place').look();
    [-0.4, 0, 0.4].forEach((x) => near(at(place, x, 0)[0], x / 1.6 + 0.5, 0.05));
  });

  test('a soft region changes the copies inside it', async () => {
    const c = new Scenery();
    const body = c.body('sheet', { size: [0.05, 0.05] });
    const region = { region: 'ball', regionPlace: [-0.5, 0, 0], regionSize: [0.4, 0.4, 0.4], regionPush: 0 };
    c.show(
      c.node(
        'instances',
        { layout: 'line', count: 3, ...region, regionScale: 3, regionTint: green },
        { body },
      ),
    );
    const seen = await c.look();
    expect(at(seen, -0.56, 0).slice(0, 3)).toEqual([0, 1, 0]);
    expect(at(seen, 0, 0).slice(0, 3)).toEqual([1, 1, 1]);
    expect(at(seen, 0.06, 0)[0]).toBe(0);
  });

  test('copies face along a direction and away from the middle', async () => {
    const c = new Scenery();
    const body = c.body('sheet', { size: [0.2, 0.2] });
    c.show(c.node('instances', { count: 1, facing: 'direction', toward: [1, 0, 0] }, { body }));
    expect((await c.look()).share(0, 0.5)).toBeLessThan(0.005);
    const out = new Scenery();
    const flat = out.body('sheet', { size: [0.2, 0.2] });
    out.show(
      out.node(
        'instances',
        { layout: 'circle', layoutSize: 0.6, count: 4, facing: 'outward' },
        { body: flat },
      ),
    );
    expect((await out.look()).share(0, 0.5)).toBeLessThan(0.02);
  });

  test('copies come and go at their times', async () => {
    const c = new Scenery();
    const body = c.body('sheet', { size: [0.1, 0.1] });
    const copies = c.node(
      'instances',
      { layout: 'line', count: 2, timed: true, rise: 0.1, stay: 0.5 },
      { body },
    );
    c.s.formula(copies, 'start', 'i');
    c.show(copies);
    const then = async (frames: number): Promise<[number, number]> => {
      const seen = await c.look({ frames, fps: 10 });
      return [at(seen, -0.5, 0)[0], at(seen, 0.5, 0)[0]];
    };
    expect(await then(4)).toEqual([1, 0]);
    expect(await then(13)).toEqual([0, 1]);
  });

  test('what is not a number is left out, and no points are no copies', async () => {
    const c = new Scenery();
    const places = c.picture(
      [2, 1],
      [
        [0.5, 0.5, 0.5, 1],
        ['nan', 'nan', 'nan', 1],
      ],
    );
    const body = c.body('sheet', { size: [0.1, 0.1] });
    c.show(c.node('instances', { reads: 'places' }, { body, pixels: places }));
    near((await c.look()).mean(0), 0.01 / aspect, 0.002);
    const none = new Scenery();
    const on = none.node('point-grid', { columns: 1, rows: 1 });
    const loose = none.node('strands', { which: 'edges' }, { shape: on });
    none.show(none.node('instances', {}, { body: none.body('sheet'), on: loose }));
    expect((await none.look()).mean(0)).toBe(0);
  });

  test('a light cannot be copied, and copies of copies of copies say so', async () => {
    const c = new Scenery();
    const one = c.node('instances', {}, { body: c.body('ball') });
    const two = c.node('instances', {}, { body: one });
    const three = c.node('instances', {}, { body: two });
    const light = c.node('instances', {}, { body: c.node('light') });
    c.show(three, light);
    const { faults } = (await c.look()).answer;
    expect(faults[three]).toMatch(/copies of copies/i);
    expect(faults[light]).toMatch(/light cannot be copied/);
  });
});

describe('bodies', () => {
  test('a lift moves points by an image, times a second one', async () => {
    const lifted = async (by: number | null): Promise<number> => {
      const c = new Scenery();
      const lift = c.node('fill', { colour: white });
      const wires: Record<string, string> = { lift };
      if (by !== null) wires.liftBy = c.node('fill', { colour: [by, by, by, 1] });
      c.show(c.body('sheet', { size: [0.1, 0.1] }, { liftAlong: 'y', liftDepth: 0.3 }, wires));
      return middle(await c.look()).y;
    };
    near(await lifted(null), 0.3, 0.01);
    near(await lifted(0.5), 0.15, 0.01);
  });

  test('a cut-out takes away what is dark', async () => {
    const c = new Scenery();
    const half = c.node('gradient', {
      length: 0.001,
      colours: [
        { at: 0, colour: [0, 0, 0, 1] },
        { at: 1, colour: [1, 1, 1, 1] },
      ] as never,
    });
    c.show(c.body('sheet', { size: [0.6, 0.6] }, {}, { cutOut: half }));
    const seen = await c.look();
    expect(at(seen, -0.2, 0)[3]).toBe(0);
    expect(at(seen, 0.2, 0)[3]).toBe(1);
  });

  test('lines are as wide as they say, thinner where an image is dark, and edges show where there are no rows', async () => {
    const width = async (controls: Controls, by?: number): Promise<number> => {
      const c = new Scenery();
      const wires: Record<string, string> =
        by === undefined ? {} : { widthBy: c.node('fill', { colour: [by, by, by, 1] }) };
      c.show(c.body('segment', {}, { draw: 'lines', leastWidth: 0, ...controls }, wires));
      const seen = await c.look();
      let sum = 0;
      for (let y = 0; y < 90; y++) sum += seen.at(0.5, (y + 0.5) / 90)[0];
      return sum;
    };
    near(await width({ width: 6 }), 6, 0.6);
    near(await width({ width: 6 }, 0.5), 3, 0.6);
    near(await width({ width: 0.2 }), 0.2, 0.15);
    near(await width({ width: 0.2, leastWidth: 3 }), 3, 0.6);
    const c = new Scenery();
    c.show(c.body('polyhedron', { solid: 'cube' }, { draw: 'lines', width: 3, lines: 'columns' }));
    expect((await c.look()).mean(0)).toBe(0);
    const edges = new Scenery();
    edges.show(edges.body('box', {}, { draw: 'lines', width: 3, lines: 'edges' }));
    expect((await edges.look()).mean(0)).toBeGreaterThan(0.01);
  });

  test('a million points and a million pieces of line are drawn', async () => {
    for (const draw of ['points', 'lines']) {
      const c = new Scenery();
      const picture = c.node('fill', { colour: red });
      c.show(
        c.body(
          'sheet',
          { size: [1, 0.5], columns: 1024, rows: 1024 },
          { draw, pointSize: 0.004, width: 1, solid: false },
          { picture },
        ),
      );
      const seen = await c.look();
      near(at(seen, 0.2, 0.1)[0], 1, 1e-4);
      near(at(seen, 0.2, 0.1)[1], 0, 1e-4);
      expect(at(seen, 0, 0.4)[3]).toBe(0);
    }
  });

  test('own light, scatter and shine each do their part', async () => {
    const bright = async (controls: Controls): Promise<number> => {
      const c = new Scenery();
      const shape = c.node('ball', { size: 0.6 });
      c.show(c.node('body', { colour: [0.5, 0.5, 0.5, 1], ...controls }, { shape }));
      c.show(c.node('light', { place: [0, 0, 1] }));
      return at(await c.look(), 0, 0)[0];
    };
    near(await bright({ shine: 0 }), 0.5, 0.01);
    near(await bright({ shine: 0, diffuse: 0.5 }), 0.25, 0.01);
    near(await bright({ shine: 0, diffuse: 0, ownLight: 0.4 }), 0.2, 0.01);
    near(await bright({ shine: 1, diffuse: 0 }), 1, 0.02);
  });
});

describe('light', () => {
  /** A floor seen from above, a ball over its middle, and a light from the left. */
  function floor(light: Controls): Scenery {
    const c = new Scenery({}, { projection: 'straight', height: 90, viewHeight: 1.6 });
    const sheet = c.node('place', { turn: [-90, 0, 0] }, { shape: c.node('sheet', { size: [3, 3] }) });
    c.show(c.node('body', { colour: white, shine: 0 }, { shape: sheet }));
    const ball = c.node('place', { move: [0, 0.25, 0] }, { shape: c.node('ball', { size: 0.3 }) });
    c.show(c.node('body', { colour: red, shine: 0 }, { shape: ball }), c.node('light', light));
    return c;
  }
  const units = (seen: Seen, x: number, y: number): Pixel => at(seen, x / 1.6, y / 1.6);

  test.each([
    ['sun', { form: 'sun', place: [-1, 1, 0], aim: [0, 0, 0] }],
    ['spot', { form: 'spot', place: [-1, 1.2, 0], aim: [0, 0, 0], angle: 100, reach: 3 }],
    ['point', { form: 'point', place: [-1, 1.2, 0], aim: [0, 0, 0], reach: 3 }],
  ])('the shadow of a %s falls away from it', async (_name, light) => {
    const without = await floor(light).look();
    const seen = await floor({ ...light, shadow: 1, soft: 0 }).look();
    // From the left at 45 degrees the ball's shadow lies a quarter unit to the right.
    expect(units(without, 0.3, 0)[1]).toBeGreaterThan(0.2);
    expect(units(seen, 0.3, 0)[1]).toBeLessThan(0.05);
    near(units(seen, -0.5, 0)[1], units(without, -0.5, 0)[1], 0.03);
    expect(units(seen, 0.3, 0.6)[1]).toBeGreaterThan(0.1);
  });

  test('a large light has softer shadows, and half a shadow is half as dark', async () => {
    const sun = { form: 'sun', place: [-1, 1, 0], shadow: 1 };
    const grey = async (soft: number): Promise<number> => {
      const seen = await floor({ ...sun, soft }).look();
      let found = 0;
      for (let k = 0; k < 160; k++) {
        const v = seen.at((k + 0.5) / 160, 0.5)[1];
        if (v > 0.1 && v < 0.6) found++;
      }
      return found;
    };
    expect(await grey(0.8)).toBeGreaterThan((await grey(0)) + 3);
    const half = units(await floor({ ...sun, shadow: 0.5 }).look(), 0.3, 0)[1];
    near(half, 0.5 * units(await floor({ ...sun, shadow: 0 }).look(), 0.3, 0)[1], 0.03);
  });

  test('a spot lights its cone and nothing else', async () => {
    const seen = await floor({
      form: 'spot',
      place: [0.5, 1, 0],
      aim: [0.5, 0, 0],
      angle: 30,
      reach: 2,
    }).look();
    expect(units(seen, 0.5, 0)[1]).toBeGreaterThan(0.2);
    expect(units(seen, -0.5, 0)[1]).toBe(0);
  });
});

describe('from outside', () => {
  test('a model shows with the picture that came with it', async () => {
    const c = new Scenery();
    const model = c.node('model', { size: 0.9 });
    c.show(c.node('body', { shading: 'flat', colour: white }, { shape: model }));
    const seen = await c.look();
    expect(seen.answer.faults).toEqual({});
    const [r, g, b] = at(seen, 0.02, -0.1);
    expect(r).toBeGreaterThan(b + 0.2);
    expect(g).toBeGreaterThan(b);
    expect(seen.share(3, 0.5)).toBeGreaterThan(0.15);
  });

  test('each part of a model shows its own picture, which repeats, or its colour', async () => {
    const bands = pngOf([
      [255, 0, 0],
      [0, 0, 255],
    ]);
    const plain = pngOf([
      [0, 255, 0],
      [0, 255, 0],
    ]);
    const file = await glbOf([
      { x: -0.5, picture: bands },
      { x: 0, picture: plain },
      { x: 0.5, colour: [1, 0.2140411, 0, 1] },
    ]);
    const c = new Scenery();
    const model = c.node('model', { file: 'm', scale: 'own' });
    const body = c.node('body', { shading: 'flat', colour: white }, { shape: model });
    c.show(body);
    const files = { m: file.toString('base64') };
    const seen = await probe.ask({ scene: c.s.scene, node: c.shot, files });
    expect(seen.answer.faults).toEqual({});
    const is = (x: number, y: number, wanted: readonly number[]): void =>
      wanted.forEach((v, k) => near(at(seen, x, y)[k], v, 0.05));
    for (const y of [0.3, -0.1]) is(-0.5, y, [1, 0, 0, 1]);
    for (const y of [0.1, -0.3]) is(-0.5, y, [0, 0, 1, 1]);
    is(0, 0.2, [0, 1, 0, 1]);
    // Colours of materials are linear; half as bright to the eye is a fifth of the light.
    is(0.5, 0.2, [1, 0.5, 0, 1]);
    expect(at(seen, 0.25, 0)[3]).toBe(0);
  });

  test('letters are solids, and their holes are open', async () => {
    const c = new Scenery();
    const letters = c.node('letterform', { text: 'O', size: 0.8 });
    c.show(c.node('body', { shading: 'flat', colour: white }, { shape: letters }));
    const seen = await c.look();
    expect(at(seen, 0, 0)[3]).toBe(0);
    expect(at(seen, 0, 0.37)[3]).toBe(1);
  });

  test('a relief stands in the colours of its picture, lifted by its brightness', async () => {
    const c = new Scenery({}, { height: 90, viewHeight: 1 });
    const half = c.node('gradient', {
      length: 0.001,
      colours: [
        { at: 0, colour: [0.2, 0, 0, 1] },
        { at: 1, colour: [1, 1, 1, 1] },
      ] as never,
    });
    c.show(c.node('relief', { depth: 0.4, blending: 'over', draw: 'rows', width: 3 }, { picture: half }));
    // Seen from above, the bright half has come out toward the bottom of the picture.
    const seen = await c.look();
    expect(at(seen, 0.5, -0.4)[1]).toBeGreaterThan(0.9);
    expect(at(seen, -0.5, -0.4)[3]).toBe(0);
    expect(at(seen, -0.5, -0.018)[0]).toBeGreaterThan(0.1);
  });
});

test('what stands still builds no mesh, compiles nothing and keeps its textures', async () => {
  const c = new Scenery();
  const body = c.body('polyhedron', { divisions: 4 });
  const on = c.node('point-scatter', { form: 'ball', points: 500 });
  const copies = c.node('instances', { facing: 'normal', growth: 'bottom' }, { body, on });
  c.s.swing(c.camera, 'orbit', { amount: 10, rate: 1 });
  c.show(copies, c.body('sheet', { columns: 40, rows: 40 }, { draw: 'lines' }));
  const { meshes, compiles, textures, shaders } = (await c.look({ frames: 20 })).answer;
  expect({ meshes, compiles, textures, shaders }).toEqual({
    meshes: 0,
    compiles: 0,
    textures: 0,
    shaders: 0,
  });
  // And what moves is only refilled, once a frame.
  const moving = new Scenery();
  const pushed = moving.node('push', { speed: 1 }, { shape: moving.node('ball') });
  moving.show(moving.node('body', {}, { shape: pushed }));
  const answer = (await moving.look({ frames: 20 })).answer;
  expect({ meshes: answer.meshes, compiles: answer.compiles }).toEqual({ meshes: 9, compiles: 0 });
});
