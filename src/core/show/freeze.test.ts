import { expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { makeShow, structuredCloneOf } from './create';
import { addNode, connect } from './edit';
import { freeze, frozenOf, thaw } from './freeze';

function patch() {
  const [scene] = makeShow(catalogue, 'Frozen').scenes;
  const wave = addNode(scene, catalogue, 'oscillator', [0, 0]);
  const noise = addNode(scene, catalogue, 'noise', [0, 100]);
  const levels = addNode(scene, catalogue, 'levels', [200, 100]);
  connect(scene, catalogue, noise, levels, 'picture');
  scene.nodes[wave].name = 'Tide';
  scene.nodes[levels].formulas = { gamma: 'tide.value + 1' };
  return { scene, wave, noise, levels };
}

const into = (scene: ReturnType<typeof patch>['scene'], node: string): string[] =>
  Object.values(scene.wires).flatMap(({ from, to }) => (to.node === node ? [from.node] : []));

test('who read a costly node reads the frozen one, and back after a thaw: the patch is as it was', () => {
  const { scene, noise, levels } = patch();
  const before = structuredCloneOf(scene);
  const id = freeze(scene, catalogue, noise, 'clip', { file: 'f1' });
  expect(into(scene, levels)).toEqual([id]);
  expect(scene.nodes[id].controls.file).toBe('f1');
  expect(frozenOf(scene, id)).toBe(noise);
  expect(thaw(scene, id)).toBe(noise);
  // The name that the costly one had meanwhile went with the frozen one.
  expect(scene).toEqual(before);
});

test('formulas that name it read the frozen one', () => {
  const { scene, wave } = patch();
  const id = freeze(scene, catalogue, wave, 'table', { csv: 'value\n1' });
  expect(scene.nodes[id].name).toBe('Tide');
  expect(scene.nodes[wave].name).toBe('Tide live');
});

test('a node that stands for none is not thawed', () => {
  const { scene, noise } = patch();
  expect(thaw(scene, noise)).toBeNull();
  scene.nodes[noise].frozen = 'gone';
  expect(thaw(scene, noise)).toBeNull();
  expect(scene.nodes[noise]).toBeDefined();
});
