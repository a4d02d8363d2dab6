import { expect, test } from '@jest/globals';
import { makeScene } from '../../core/show/create';
import { addNode } from '../../core/show/edit';
import type { Scene } from '../document/types';
import { catalogue } from '../../nodes/catalogue';
import { freePlace } from './free-place';

/** A scene whose cards stand at these places. */
function sceneOf(...places: [number, number][]): Scene {
  const scene = makeScene(catalogue, 's', 'S');
  scene.nodes = {};
  for (const place of places) addNode(scene, catalogue, 'noise', place);
  return scene;
}

test('an open place is taken as it is', () => {
  expect(freePlace(sceneOf(), [10, 20])).toEqual([10, 20]);
  expect(freePlace(sceneOf([400, 20], [10, 300]), [10, 20])).toEqual([10, 20]);
});

test('a card that would be hidden moves the new one below it, past all that stand there', () => {
  const [x, y] = freePlace(sceneOf([190, 10]), [190, 10]);
  expect(x).toBe(190);
  expect(y).toBeGreaterThanOrEqual(130);
  const [, below] = freePlace(sceneOf([190, 10], [200, 130], [150, 260]), [190, 10]);
  expect(below).toBeGreaterThanOrEqual(380);
});

test('however often a card is added beside the same one, none hides another', () => {
  const scene = sceneOf([0, 0]);
  for (let k = 0; k < 12; k++) addNode(scene, catalogue, 'noise', freePlace(scene, [190, 10]));
  const places = Object.values(scene.nodes).map(({ place }) => place);
  for (const [k, [ax, ay]] of places.entries())
    for (const [bx, by] of places.slice(k + 1))
      expect(Math.abs(ax - bx) >= 154 || Math.abs(ay - by) >= 114).toBe(true);
});
