import { describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { makeShow, structuredCloneOf } from './create';
import { addNode, connect } from './edit';
import { checkShow, readShow, ShowFileError, writeShow } from './validate';
import type { Show } from './types';

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
    expect(() => readShow(JSON.stringify({ ...sample(), version: 2 }), catalogue)).toThrow(/version 2/);
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

test('a circle that no return wire opens is opened', () => {
  const show = sample();
  const [scene] = show.scenes;
  const mix = addNode(scene, catalogue, 'blend', [0, 0]);
  const move = addNode(scene, catalogue, 'transform', [0, 0]);
  connect(scene, catalogue, mix, move, 'picture');
  delete scene.wires[connect(scene, catalogue, move, mix, 'picture')].back;
  const { show: read } = readShow(writeShow(show), catalogue);
  expect(Object.values(read.scenes[0].wires).filter((w) => w.back)).toHaveLength(1);
});
