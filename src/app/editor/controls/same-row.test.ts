import { expect, test } from '@jest/globals';
import { produce } from 'immer';
import { makeScene } from '../../../core/show/create';
import { addNode, connect, setControl } from '../../../core/show/edit';
import { sceneOutOf } from '../../../core/patch/plan';
import type { Scene } from '../../../core/document/types';
import { catalogue } from '../../../nodes/catalogue';
import { isSameRow } from './same-row';

const scene = makeScene(catalogue, 's1', 'One');
const node = addNode(scene, catalogue, 'levels', [0, 0]);
const other = addNode(scene, catalogue, 'levels', [200, 0]);
const after = (edit: (draft: Scene) => void): Scene => produce(scene, edit);
const isSame = (edit: (draft: Scene) => void): boolean => isSameRow(scene, after(edit), node, 'gamma');

test('a row is the same while other controls of its node have other values', () => {
  expect(isSame(() => undefined)).toBe(true);
  expect(isSame((draft) => setControl(draft, node, 'brightness', 0.5))).toBe(true);
});

test.each<[string, (draft: Scene) => void]>([
  ['its own value', (draft) => setControl(draft, node, 'gamma', 2)],
  ['a formula', (draft) => void (draft.nodes[node].formulas.gamma = 'time')],
  ['the name of its node', (draft) => void (draft.nodes[node].name = 'Bright')],
  ['another node', (draft) => setControl(draft, other, 'gamma', 2)],
  ['a wire', (draft) => void connect(draft, catalogue, other, sceneOutOf(draft, catalogue)!, 'picture')],
  ['the name of the scene', (draft) => void (draft.name = 'Two')],
  ['a node that is gone', (draft) => void delete draft.nodes[node]],
])('it is another with %s', (_, edit) => {
  expect(isSame(edit)).toBe(false);
});
