import { beforeEach, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import type { Scene } from '../document/types';
import { makeScene } from './create';
import { addNode, setControl, setFormula, setMotions } from './edit';
import { alikeAmong, copyControls, isChanged, pasteControls } from './edit-controls';

let scene: Scene;
let [a, b, blur] = ['', '', ''];
beforeEach(() => {
  scene = makeScene(catalogue, 's1', 'Controls');
  [a, b, blur] = ['noise', 'noise', 'blur'].map((kind) => addNode(scene, catalogue, kind, [0, 0]));
});

test('what differs from its home is changed, in whatever form it is stored', () => {
  const { period, place } = catalogue.get('noise')!.controls;
  expect(isChanged(period, period.default as number)).toBe(false);
  expect(isChanged(period, undefined)).toBe(false);
  expect(isChanged(period, 0.9)).toBe(true);
  expect(isChanged(place, [0, 0, 0])).toBe(false);
  expect(isChanged(place, [0, 0.1, 0])).toBe(true);
});

test('controls go to nodes of the kind with all that moves them, and to others as far as they are alike', () => {
  setControl(scene, a, 'period', 0.77);
  setFormula(scene, a, 'octaves', '2 + beat');
  setMotions(scene, a, 'place.x', [{ type: 'wander', on: true, amount: 1, speed: 1, seed: 1 }]);
  setFormula(scene, b, 'rate', 'time');
  const copied = copyControls(scene.nodes[a]);
  expect(pasteControls(scene, catalogue, [b, 'gone'], copied)).toBeGreaterThan(5);
  expect(scene.nodes[b]).toMatchObject({
    controls: scene.nodes[a].controls,
    formulas: { octaves: '2 + beat' },
    motions: scene.nodes[a].motions,
  });
  const before = structuredClone(scene.nodes[blur].controls);
  pasteControls(scene, catalogue, [blur], copied);
  expect(scene.nodes[blur].controls).toEqual(before);
  const mosaic = addNode(scene, catalogue, 'mosaic', [0, 0]);
  setControl(scene, blur, 'amount', 0.4);
  pasteControls(scene, catalogue, [mosaic], copyControls(scene.nodes[blur]));
  expect(scene.nodes[mosaic].controls.amount).toBe(0.4);
});

test('an edit of one of several chosen nodes is meant for those of its kind', () => {
  expect(alikeAmong(scene, a, [blur, a, b])).toEqual([a, b]);
  expect(alikeAmong(scene, a, [b])).toEqual([a]);
});
