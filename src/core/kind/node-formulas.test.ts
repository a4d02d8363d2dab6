import { beforeEach, describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import type { PatchNode, Scene } from '../document/types';
import { makeScene } from '../show/create';
import { addNode, setControl, setFormula } from '../show/edit';
import { formulasOf, renamedFormulas } from './node-formulas';

let scene: Scene;
let node: PatchNode;
beforeEach(() => {
  scene = makeScene(catalogue, 's1', 'Formulas');
  const id = addNode(scene, catalogue, 'formula', [0, 0]);
  setControl(scene, id, 'formula', 'value = drift.x + noise_2');
  setFormula(scene, id, 'samples', 'drift * 2');
  node = scene.nodes[id];
});

describe('formulas of a node', () => {
  test('are those on its controls, and those that are controls', () =>
    expect(formulasOf(node, catalogue)).toEqual(['drift * 2', 'value = drift.x + noise_2']));
  test('speak of other names afterwards, each replaced once', () => {
    const names = new Map([
      ['drift', 'noise_2'],
      ['noise_2', 'noise_3'],
    ]);
    const { formulas, controls } = renamedFormulas(node, names, catalogue);
    expect(formulas).toEqual({ samples: 'noise_2 * 2' });
    expect(controls.formula).toBe('value = noise_2.x + noise_3');
  });
  test('are the very same where nothing is renamed', () => {
    const { formulas, controls } = renamedFormulas(node, new Map([['other', 'x']]), catalogue);
    expect([formulas, controls]).toEqual([node.formulas, node.controls]);
    expect(formulas).toBe(node.formulas);
    expect(controls).toBe(node.controls);
  });
});
