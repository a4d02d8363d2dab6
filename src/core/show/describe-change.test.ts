import { beforeEach, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { catalogue } from '../../nodes/catalogue';
import type { Scene, Show } from '../document/types';
import { makeScene, makeShow } from './create';
import {
  addNode,
  connect,
  moveNode,
  removeNodes,
  renameNode,
  setControl,
  setFormula,
  switchNode,
} from './edit';
import { describeChange, differences } from './describe-change';
import { makeModule } from './make-module';

let show: Show;
beforeEach(() => {
  show = makeShow(catalogue, 'Said');
});
/** Makes an edit of the first scene; gives what is said of it. */
function said(edit: (scene: Scene, draft: Show) => unknown): string {
  const after = produce(show, (draft) => {
    edit(draft.scenes[0] as Scene, draft as Show);
  });
  const { text } = describeChange(show, after, catalogue);
  show = after;
  return text;
}

test('each edit is said by what it did to what', () => {
  let noise = '';
  expect(said((s) => (noise = addNode(s, catalogue, 'noise', [0, 0])))).toBe('Noise added');
  expect(said((s) => setControl(s, noise, 'period', 0.9))).toBe('Period of Noise');
  expect(said((s) => setFormula(s, noise, 'octaves', '2'))).toBe('Formula on Octaves of Noise');
  expect(said((s) => moveNode(s, noise, [50, 0]))).toBe('Noise moved');
  expect(said((s) => switchNode(s, noise, false))).toBe('Noise switched off');
  expect(said((s) => renameNode(s, noise, 'Mist'))).toBe('Noise renamed to Mist');
  expect(said((s) => connect(s, catalogue, noise, 'n1', 'picture'))).toBe('Mist into Scene Out wired');
  let module = '';
  expect(said((s, draft) => (module = makeModule(draft, catalogue, s, [noise], 'Fog')))).toMatch(
    /^Module Fog made, and \d more$/,
  );
  expect(said((_, draft) => setControl({ ...draft.modules.fog }, noise, 'period', 0.2))).toBe(
    'Period of Mist in the module Fog',
  );
  expect(said((s) => removeNodes(s, catalogue, [module]))).toBe('Fog deleted');
  expect(said((s) => (s.loop = { ...s.loop, length: 3 }))).toBe('Loop of Scene 1');
  expect(said((_, draft) => draft.scenes.push(makeScene(catalogue, 's2', 'Two')))).toBe('Scene Two added');
  expect(said((_, draft) => draft.scenes.reverse())).toBe('Scenes in another order');
  expect(said((_, draft) => (draft.tempo = { bpm: 99, beatsPerBar: 4 }))).toBe('Tempo');
});

test('what differs between two versions is a list, with the scene of each', () => {
  const before = show;
  said((s) => addNode(s, catalogue, 'noise', [0, 0]));
  said((_, draft) => (draft.name = 'Other'));
  expect(differences(before, show, catalogue)).toEqual([
    { text: 'Noise added', scene: 's1' },
    { text: 'Name of the show', scene: null },
  ]);
  expect(describeChange(show, show, catalogue).text).toBe('Nothing that is seen');
});
