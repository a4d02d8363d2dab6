import { beforeEach, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import type { Scene } from '../document/types';
import { makeScene } from './create';
import { addNode, connect, setFormula } from './edit';
import { withValuesAt } from '../module/with-values';
import { cross, setValues, valuesOf, variablesOf, vary } from './variations';

let scene: Scene;
let noise: string;
beforeEach(() => {
  scene = makeScene(catalogue, 's1', 'Vary');
  noise = addNode(scene, catalogue, 'noise', [0, 0]);
});
const keys = (): string[] => variablesOf(scene, catalogue).map(({ key }) => key);

test('what is driven, hidden or switched off does not vary', () => {
  expect(keys()).toContain(`${noise} period`);
  setFormula(scene, noise, 'period', 'time');
  expect(keys()).not.toContain(`${noise} period`);
  connect(scene, catalogue, addNode(scene, catalogue, 'oscillator', [0, 0]), noise, 'rate');
  expect(keys()).not.toContain(`${noise} rate`);
  scene.nodes[noise].on = false;
  expect(keys().some((key) => key.startsWith(noise))).toBe(false);
});

test('no strength changes nothing, full strength stays within the range, and a seed gives the same again', () => {
  const variables = variablesOf(scene, catalogue);
  const base = valuesOf(scene, variables);
  expect(vary(base, variables, 0, 5)).toEqual(base);
  const once = vary(base, variables, 1, 5);
  expect(vary(base, variables, 1, 5)).toEqual(once);
  expect(vary(base, variables, 1, 6)).not.toEqual(once);
  for (let seed = 0; seed < 40; seed++)
    for (const { key, spec } of variables) {
      if (!('range' in spec)) continue;
      for (const value of [vary(base, variables, 1, seed)[key]].flat() as number[]) {
        expect(value).toBeGreaterThanOrEqual(spec.range[0] - 1e-3);
        expect(value).toBeLessThanOrEqual(spec.range[1] + 1e-3);
      }
    }
});

test('colours go where they are seen to, and keep their alpha', () => {
  const fill = addNode(scene, catalogue, 'fill', [0, 0]);
  scene.nodes[fill].controls.colour = [0.5, 0.4, 0.3, 0.7];
  const [colour] = variablesOf(scene, catalogue).filter(({ node }) => node === fill);
  const moved = vary(valuesOf(scene, [colour]), [colour], 1, 3)[colour.key] as number[];
  expect(moved[3]).toBe(0.7);
  expect(moved.slice(0, 3)).not.toEqual([0.5, 0.4, 0.3]);
  expect(moved.every((v) => v >= 0 && v <= 1)).toBe(true);
});

test('a child has each value of one of its parents', () => {
  const variables = variablesOf(scene, catalogue);
  const base = valuesOf(scene, variables);
  const [a, b] = [vary(base, variables, 1, 1), vary(base, variables, 1, 2)];
  const child = cross(a, b, 9);
  for (const [key, value] of Object.entries(child)) expect([a[key], b[key]]).toContainEqual(value);
  expect(child).not.toEqual(a);
  expect(child).not.toEqual(b);
});

test('values are set in place, or in a copy that shares the rest', () => {
  const values = { [`${noise} period`]: 0.77, 'gone size': 3 };
  const { scene: copy } = withValuesAt({ scenes: [scene], modules: {} }, 's1', values);
  expect(copy.nodes[noise].controls.period).toBe(0.77);
  expect(scene.nodes[noise].controls.period).not.toBe(0.77);
  expect(copy.nodes.n1).toBe(scene.nodes.n1);
  setValues(scene, values);
  expect(scene.nodes[noise].controls.period).toBe(0.77);
});
