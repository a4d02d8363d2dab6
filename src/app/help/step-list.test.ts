import { describe, expect, test } from '@jest/globals';
import { makeScene } from '../../core/show/create';
import { addNode, connect, setControl, setFormula } from '../../core/show/edit';
import type { Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { steps, type Doing } from './step-list';

/** What a newcomer did, and which steps that ticks. */
function ticked(
  prepare: (scene: Scene) => void,
  act: (scene: Scene) => void,
  other: Partial<Doing> = {},
): string[] {
  const before = makeScene(catalogue, 's1', 'Scene');
  prepare(before);
  const now = structuredClone(before);
  // The document keeps what did not change; a clone would make every control look moved.
  for (const id of Object.keys(now.nodes)) now.nodes[id].controls = before.nodes[id].controls;
  act(now);
  const nothing: Doing = { selection: [], scene: before, stages: 0 };
  return steps
    .filter((step) => step.isDone(nothing, { ...nothing, scene: now, ...other }))
    .map(({ title }) => title);
}
const withNoise = (scene: Scene): void => void addNode(scene, catalogue, 'noise', [0, 0]);
const noiseOf = (scene: Scene): string => Object.values(scene.nodes).find(({ kind }) => kind === 'noise')!.id;
const outOf = (scene: Scene): string => Object.values(scene.nodes).find(({ kind }) => kind !== 'noise')!.id;

describe('the first steps are ticked by doing them', () => {
  test('nothing done ticks none', () => expect(ticked(withNoise, () => {})).toEqual([]));
  test('a card is chosen', () =>
    expect(ticked(withNoise, () => {}, { selection: ['n1'] })).toEqual(['Choose a card']));
  test('a number is dragged', () =>
    expect(
      ticked(withNoise, (scene) => {
        const node = scene.nodes[noiseOf(scene)];
        scene.nodes[node.id] = { ...node, controls: { ...node.controls, period: 2 } };
      }),
    ).toEqual(['Drag a number']));
  test('a node is added', () => expect(ticked(() => {}, withNoise)).toEqual(['Add a step of your own']));
  test('a node is wired in', () =>
    expect(
      ticked(withNoise, (scene) => void connect(scene, catalogue, noiseOf(scene), outOf(scene), 'picture')),
    ).toEqual(['Wire it in']));
  test('a formula moves a control', () =>
    expect(ticked(withNoise, (scene) => setFormula(scene, noiseOf(scene), 'period', 'time'))).toEqual([
      'Let it move',
    ]));
  test('a signal that is wired to a control moves it too', () => {
    const prepare = (scene: Scene): void => {
      withNoise(scene);
      addNode(scene, catalogue, 'oscillator', [0, 0]);
      setControl(scene, noiseOf(scene), 'period', 1);
    };
    const act = (scene: Scene): void => {
      const wave = Object.values(scene.nodes).find(({ kind }) => kind === 'oscillator')!.id;
      connect(scene, catalogue, wave, noiseOf(scene), 'period');
    };
    expect(ticked(prepare, act)).toEqual(['Wire it in', 'Let it move']);
  });
  test('a stage window is opened', () =>
    expect(ticked(withNoise, () => {}, { stages: 1 })).toEqual(['Put it on stage']));
});
