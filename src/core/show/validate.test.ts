import { describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import type { Kind } from '../kind/kind';
import { cyclesOf } from '../patch/cycles';
import { buildPlan } from '../patch/plan';
import { migrate } from './migrations';
import { makeShow, structuredCloneOf } from './create';
import { addNode, connect } from './edit';
import { defaultReturn } from '../document/return-settings';
import { checkShow, readShow, ShowFileError, writeShow } from './validate';
import type { Show } from '../document/types';

function sample(): Show {
  const show = makeShow(catalogue, 'Sample');
  const [scene] = show.scenes;
  const noise = addNode(scene, catalogue, 'noise', [0, 0]);
  connect(scene, catalogue, noise, 'n1', 'picture');
  return show;
}

const damage = (change: (show: Record<string, never> & Show) => void): ShowFileError => {
  const show = structuredCloneOf(sample()) as never;
  change(show);
  try {
    readShow(JSON.stringify(show), catalogue);
  } catch (error) {
    return error as ShowFileError;
  }
  throw new Error('The damaged show was opened.');
};

test('a show comes back from its file as it was', () => {
  const show = sample();
  const { show: read, findings } = readShow(writeShow(show), catalogue);
  expect(read).toEqual(show);
  expect(findings).toEqual([]);
});

test('every kind added with its defaults passes the schema', () => {
  const show = sample();
  for (const id of catalogue.keys()) if (id !== 'scene-out') addNode(show.scenes[0], catalogue, id, [0, 0]);
  expect(checkShow(show, catalogue)).toEqual([]);
});

describe('a damaged file says where', () => {
  test.each([
    ['a missing part', (s: Show) => delete (s as Partial<Show>).tempo, '', /tempo is missing/],
    ['a wrong type', (s: Show) => Object.assign(s.tempo, { bpm: 'fast' }), 'tempo.bpm', /must be number/],
    ['a value out of range', (s: Show) => Object.assign(s.canvas, { width: 0 }), 'canvas.width', />= 1/],
    [
      'something unknown',
      (s: Show) => Object.assign(s.scenes[0], { wall: 1 }),
      'scenes[0]',
      /wall is not known/,
    ],
    [
      'a wire from nowhere',
      (s: Show) => Object.assign(s.scenes[0].wires.w1.from, { node: 'n77' }),
      'scenes[0].wires.w1',
      /no node n77/,
    ],
    [
      'a node under a wrong id',
      (s: Show) => Object.assign(s.scenes[0].nodes.n2, { id: 'n5' }),
      'scenes[0].nodes.n2',
      /stands under n2/,
    ],
    [
      'a motion of an unknown type',
      (s: Show) =>
        Object.assign(s.scenes[0].nodes.n2.motions, { x: [{ type: 'jump', on: true, amount: 1 }] }),
      'scenes[0].nodes.n2.motions.x[0]',
      /type must be one/,
    ],
    [
      'a motion without its settings',
      (s: Show) =>
        Object.assign(s.scenes[0].nodes.n2.motions, {
          x: [{ type: 'wander', on: true, amount: 1, seed: 1 }],
        }),
      'scenes[0].nodes.n2.motions.x[0]',
      /speed is missing/,
    ],
    [
      'a Hit that waits for nobody',
      (s: Show) =>
        Object.assign(s.scenes[0].nodes.n2.motions, {
          x: [{ type: 'hit', on: true, amount: 1, trigger: 'n77', attack: 0, decay: 1 }],
        }),
      'scenes[0].nodes.n2.motions',
      /no node n77/,
    ],
    [
      'a wire from a name that every object has',
      (s: Show) => Object.assign(s.scenes[0].wires.w1.from, { node: 'constructor' }),
      'scenes[0].wires.w1',
      /no node constructor/,
    ],
    [
      'a wire under a wrong id',
      (s: Show) => Object.assign(s.scenes[0].wires.w1, { id: 'w7' }),
      'scenes[0].wires.w1',
      /id is w7, but it stands under w1/,
    ],
    [
      'a node that a return wire needs and that is not there',
      (s: Show) =>
        Object.assign(s.scenes[0].wires.w1, { back: { ...defaultReturn(), startsFrom: 'valueOf' } }),
      'scenes[0].wires.w1.back',
      /no node valueOf/,
    ],
    [
      'a loop that is too short to tell its phases',
      (s: Show) => Object.assign(s.scenes[0].loop, { length: 1e-308 }),
      'scenes[0].loop.length',
      />= 0.01/,
    ],
    [
      'a loop without an end',
      (s: Show) => Object.assign(s.scenes[0].loop, { length: 1e308 }),
      'scenes[0].loop.length',
      /<= 1000000/,
    ],
    [
      'a number that 32-bit floats cannot hold',
      (s: Show) => Object.assign(s.scenes[0].nodes.n2.controls, { list: [1e39] }),
      'scenes[0].nodes.n2.controls.list[0]',
      /<= 1e\+?30/,
    ],
    ['no scene', (s: Show) => (s.scenes = []), 'scenes', /fewer than 1/],
  ])('%s', (_name, change, where, what) => {
    const error = damage(change as never);
    expect(error).toBeInstanceOf(ShowFileError);
    expect(error.findings[0].where).toBe(where);
    expect(error.findings[0].what).toMatch(what);
  });

  test('a text that breaks off, one that is no show, one of a later version', () => {
    const text = writeShow(sample());
    expect(() => readShow(text.slice(0, 200), catalogue)).toThrow(/not a show file/);
    expect(() => readShow('{"a": 1}', catalogue)).toThrow(/not a show file of Pyrvel/);
    expect(() => readShow('null', catalogue)).toThrow(ShowFileError);
    expect(() => readShow(JSON.stringify({ ...sample(), version: 99 }), catalogue)).toThrow(
      /version 99; this/,
    );
  });
});

test('a node of an unknown kind is kept with all its data', () => {
  const show = sample();
  show.scenes[0].nodes.n9 = {
    ...show.scenes[0].nodes.n2,
    id: 'n9',
    kind: 'moon-dust',
    name: 'Moon',
    controls: { depth: 3, words: 'later' },
  };
  show.scenes[0].wires.w9 = { id: 'w9', from: { node: 'n9' }, to: { node: 'n1', port: 'picture' } };
  const { show: read, findings } = readShow(writeShow(show), catalogue);
  expect(read.scenes[0].nodes.n9).toEqual(show.scenes[0].nodes.n9);
  expect(writeShow(read)).toBe(writeShow(show));
  expect(findings[0].what).toContain('moon-dust');
});

test('values that do not fit, unknown controls and black scenes are remarks', () => {
  const show = sample();
  show.scenes[0].nodes.n2.controls.form = 'marble';
  show.scenes[0].nodes.n2.controls.sparkle = 1;
  show.scenes[0].wires = {};
  const whats = checkShow(show, catalogue).map((f) => f.what);
  expect(whats).toEqual(
    expect.arrayContaining([
      expect.stringMatching(/marble/),
      expect.stringMatching(/no control sparkle/),
      expect.stringMatching(/picture is black/),
    ]),
  );
  expect(readShow(writeShow(show), catalogue).findings.every((f) => f.level === 'warning')).toBe(true);
});

describe('cycles', () => {
  /** Two nodes in a ring that no return wire opens, beside the sample. */
  function ring(show: Show): string[] {
    const [scene] = show.scenes;
    const mix = addNode(scene, catalogue, 'blend', [0, 0]);
    const move = addNode(scene, catalogue, 'transform', [0, 0]);
    const there = connect(scene, catalogue, mix, move, 'picture');
    const back = connect(scene, catalogue, move, mix, 'picture');
    delete scene.wires[back].back;
    return [there, back];
  }

  test('a cycle that no return wire opens is opened, and the file says so', () => {
    const show = sample();
    const wires = ring(show);
    ring(show);
    const { show: read, findings } = readShow(writeShow(show), catalogue);
    expect(Object.values(read.scenes[0].wires).filter((w) => w.back)).toHaveLength(2);
    expect(findings.map((f) => f.where)).toContain(`scenes[0].wires.${wires[1]}`);
    expect(readShow(writeShow(read), catalogue).findings).toEqual([]);
  });

  test('a return wire that closes no cycle is remarked', () => {
    const show = sample();
    show.scenes[0].wires.w1.back = defaultReturn();
    const { findings } = readShow(writeShow(show), catalogue);
    expect(findings).toEqual([
      expect.objectContaining({
        level: 'warning',
        where: 'scenes[0].wires.w1.back',
        what: expect.stringMatching(/only delays/),
      }),
    ]);
  });
});

describe('formulas and limits are remarked with their place', () => {
  test.each([
    [
      'a formula that cannot be read',
      { formulas: { period: 'this is (not a formula' } },
      'formulas.period',
      /can't be read/,
    ],
    [
      'a formula that names nobody',
      { formulas: { period: 'ghost * 2' } },
      'formulas.period',
      /Nothing is called ghost/,
    ],
    ['a formula on nothing', { formulas: { wings: '1' } }, 'formulas.wings', /no such control/],
    [
      'a value beyond its limits',
      { controls: { octaves: -3 } },
      'controls.octaves',
      /beyond its limits; 1 is used/,
    ],
  ])('%s', (_name, change, where, what) => {
    const show = sample();
    const node = show.scenes[0].nodes.n2;
    for (const [key, values] of Object.entries(change)) Object.assign(node[key as 'formulas'], values);
    const { findings } = readShow(writeShow(show), catalogue);
    expect(findings).toHaveLength(1);
    expect(findings[0]).toMatchObject({ level: 'warning', where: `scenes[0].nodes.n2.${where}` });
    expect(findings[0].what).toMatch(what);
  });

  test('formulas that scenes can read are not', () => {
    const show = sample();
    const [scene] = show.scenes;
    const wave = addNode(scene, catalogue, 'oscillator', [0, 0]);
    scene.nodes[wave].name = 'Slow Wave';
    const formula = addNode(scene, catalogue, 'formula', [0, 0]);
    connect(scene, catalogue, wave, formula, 'in');
    scene.nodes[formula].controls.formula = 'x = in.value * u; y = slow_wave + time';
    scene.nodes.n2.formulas.period = 'value + slow_wave.value * 2';
    expect(checkShow(show, catalogue)).toEqual([]);
  });
});

describe('large documents', () => {
  /** One chain of `length` nodes, and from its end a return wire to its start. */
  function chain(length: number): Show {
    const show = sample();
    const [scene] = show.scenes;
    const [tall, add] = [
      addNode(scene, catalogue, 'blend', [0, 0]),
      addNode(scene, catalogue, 'blend', [0, 0]),
    ];
    const wire = connect(scene, catalogue, tall, add, 'picture');
    const [node, link] = [scene.nodes[add], scene.wires[wire]];
    for (let k = 0; k < length; k++) {
      const id = `c${k}`;
      scene.nodes[id] = { ...node, id, name: `Step ${k}` };
      const from = k ? `c${k - 1}` : tall;
      scene.wires[`x${k}`] = {
        ...link,
        id: `x${k}`,
        from: { node: from },
        to: { node: id, port: 'picture' },
      };
    }
    const end = { node: `c${length - 1}` };
    scene.wires.w1.from = end;
    scene.wires.last = { ...link, id: 'last', from: end, to: { node: tall, port: 'picture' } };
    return show;
  }

  // Each of these took hours or all of the stack before: that they end is the test.
  test('100,000 nodes in one chain are read, their cycle is opened, and they are planned', () => {
    const { show, findings } = readShow(writeShow(chain(100_000)), catalogue);
    expect(findings).toEqual([expect.objectContaining({ where: 'scenes[0].wires.last' })]);
    const plan = buildPlan(show.scenes[0], catalogue, ['n1']);
    expect(plan.order).toHaveLength(100_002);
    expect(plan.returns.map((wire) => wire.id)).toEqual(['last']);
    expect(cyclesOf(plan).map(({ nodes }) => nodes.length)).toEqual([100_001, 1]);
  });

  test('10,000 nodes that are off hand on what enters them', () => {
    const show = chain(10_000);
    const [scene] = show.scenes;
    for (const id of Object.keys(scene.nodes)) if (id.startsWith('c')) scene.nodes[id].on = false;
    delete scene.wires.last;
    const plan = buildPlan(scene, catalogue, ['n1']);
    expect(plan.order.map(({ id }) => id)).toEqual(['n3', 'n1']);
  });
});

describe('older files', () => {
  test('each version is brought to the next, one step a version, kinds included', () => {
    const kind: Kind = {
      ...catalogue.get('blur')!,
      migrate: {
        1: ({ soft, ...rest }) => ({ ...rest, radius: Number(soft) / 100 }),
        2: (c) => ({ ...c, spread: 3 }),
      },
    };
    const old = {
      version: 1,
      scenes: [{ loopBeats: 8, nodes: { n2: { kind: 'blur', controls: { soft: 5 } } }, wires: {} }, null, 7],
    };
    migrate(old, new Map([['blur', kind]]), 3);
    expect(old).toMatchObject({
      version: 3,
      files: {},
      inputs: { clock: 'own' },
      scenes: [
        {
          loop: { length: 8, unit: 'beats', lock: false },
          nodes: { n2: { controls: { radius: 0.05, spread: 3 } } },
        },
        null,
        7,
      ],
    });
  });

  test('what is no document of that version is left for the check to find', () => {
    for (const version of ['1', 0, 1.5, null, undefined, -1]) {
      const data = { version, scenes: 'none' };
      migrate(data as never, catalogue);
      expect(data.version).toBe(version);
    }
  });
});

test.each([
  '{',
  '{ "format": "pyrvel.show",\n',
  '{ "format": "pyrvel.show",\n "version"',
  '{ "format": "pyrv',
])('a torn text says in which line it ends: %j', (text) => {
  expect(() => readShow(text, catalogue)).toThrow(/breaks off in line \d/);
});
