import { expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { makeScene } from './create';
import { addNode } from './edit';
import { nextNode } from './walk-patch';

test('a walk goes to the nearest node ahead, and what lies aside counts as further', () => {
  const scene = makeScene(catalogue, 's1', 'Walk');
  delete scene.nodes.n1;
  const [a, b, c, d] = [
    [0, 0],
    [200, 90],
    [300, 0],
    [0, 200],
  ].map(([x, y]) => addNode(scene, catalogue, 'noise', [x, y]));
  expect(nextNode(scene, null, 'right')).toBe(a);
  expect(nextNode(scene, a, 'right')).toBe(c);
  expect(nextNode(scene, c, 'left')).toBe(b);
  expect(nextNode(scene, a, 'down')).toBe(d);
  expect(nextNode(scene, d, 'up')).toBe(a);
  expect(nextNode(scene, a, 'left')).toBeNull();
  expect(nextNode(scene, 'gone', 'up')).toBe(a);
});
