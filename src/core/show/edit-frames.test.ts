import { beforeEach, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import type { Scene } from '../document/types';
import { applyChanges, changesBetween } from './changes';
import { makeScene, makeShow, structuredCloneOf } from './create';
import { addNode } from './edit';
import {
  addFrame,
  addNote,
  changeFrame,
  heldBy,
  lineUp,
  moveFrame,
  removeFrame,
  sizeFrame,
} from './edit-frames';
import { checkShow } from './validate';

let scene: Scene;
let [a, b, c] = ['', '', ''];
beforeEach(() => {
  scene = makeScene(catalogue, 's1', 'Frames');
  [a, b, c] = [
    [0, 0],
    [300, 40],
    [1000, 500],
  ].map(([x, y]) => addNode(scene, catalogue, 'noise', [x, y]));
});
const placeOf = (id: string): [number, number] => scene.nodes[id].place as [number, number];

test('a frame lies around what was chosen, holds it, and takes it along', () => {
  const id = addFrame(scene, [a, b]);
  expect(heldBy(scene, id).nodes).toEqual([a, b]);
  const note = addNote(scene, [20, -20]);
  sizeFrame(scene, note, [100, 40]);
  expect(heldBy(scene, id).frames).toEqual([note]);
  moveFrame(scene, id, [50, -10]);
  expect([placeOf(a), placeOf(b), placeOf(c)]).toEqual([
    [50, -10],
    [350, 30],
    [1000, 500],
  ]);
  expect(scene.frames![note].place).toEqual([70, -30]);
  removeFrame(scene, id);
  expect(Object.keys(scene.nodes)).toContain(a);
});

test('a note holds nothing, and keeps its words', () => {
  const id = addNote(scene, [-20, -20]);
  sizeFrame(scene, id, [900, 900]);
  expect(heldBy(scene, id)).toEqual({ nodes: [], frames: [] });
  changeFrame(scene, id, { text: '# Bees' });
  expect(scene.frames![id].text).toBe('# Bees');
});

test('frames are part of the document, and of what is sent and noted of an edit', () => {
  const before = { ...makeShow(catalogue, 'Show'), scenes: [structuredCloneOf(scene)] };
  addFrame(scene, [a]);
  const after = { ...before, scenes: [scene] };
  expect(checkShow(after, catalogue).filter(({ level }) => level === 'error')).toEqual([]);
  expect(applyChanges(before, changesBetween(before, after))).toEqual(after);
});

test('nodes are lined up, and spread evenly', () => {
  lineUp(scene, [a, b, c], 'row');
  expect([a, b, c].map((id) => placeOf(id)[1])).toEqual([250, 250, 250]);
  lineUp(scene, [a, b, c], 'across');
  expect([a, b, c].map((id) => placeOf(id)[0])).toEqual([0, 500, 1000]);
});
