import { beforeEach, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import type { Scene } from '../document/types';
import { idleInputs } from '../inputs/inputs';
import { makeScene } from '../show/create';
import { addNode, connect, setControl, setFormula } from '../show/edit';
import { momentAt, wayDone } from '../time/clock';
import { oneStep } from '../time/feedback-steps';
import { SceneRun } from './scene-run';

let scene: Scene;
let run: SceneRun;
let frame: number;
const add = (kind: string): string => addNode(scene, catalogue, kind, [0, 0]);
const wire = (from: string, to: string, port: string): string => connect(scene, catalogue, from, to, port);

beforeEach(() => {
  scene = makeScene(catalogue, 's1', 'Choose');
  run = new SceneRun(catalogue);
  frame = 0;
});

function play(frames: number, root: string): void {
  scene = { ...scene, nodes: { ...scene.nodes }, wires: { ...scene.wires } };
  run.update(scene, [root]);
  for (let k = 0; k < frames; k++, frame++)
    run.run({
      moment: momentAt(frame / 60, frame ? 1 / 60 : 0, 60, { bpm: 120, beatsPerBar: 4 }),
      live: idleInputs(),
      canvas: { width: 16, height: 9 },
      feedback: oneStep,
    });
}
const rests = (...ids: string[]): boolean[] => ids.map((id) => run.runs.get(id)!.rests);
const number = (id: string): number => run.runs.get(id)!.given!.lanes[0].samples[0];
const set = (id: string, control: string, value: number | string): void => {
  scene.nodes[id] = { ...scene.nodes[id], controls: { ...scene.nodes[id].controls, [control]: value } };
};

test('only what is chosen runs, with all that it reads; what others read too goes on', () => {
  const [shared, a, b, choose] = [add('oscillator'), add('remap'), add('remap'), add('choose')];
  wire(shared, a, 'in');
  const own = add('drift');
  wire(own, b, 'in');
  wire(a, choose, 'first');
  wire(b, choose, 'second');
  // Once each, so that there is something to show.
  play(1, choose);
  expect(rests(shared, a, own, b)).toEqual([false, false, false, false]);
  play(2, choose);
  expect(rests(shared, a, own, b)).toEqual([false, false, true, true]);
  expect(number(choose)).toBe(number(a));
  set(choose, 'number', 2);
  play(1, choose);
  expect(rests(shared, a, own, b)).toEqual([true, true, false, false]);
  expect(number(choose)).toBe(number(b));
});

test('what wakes is at once where it would be', () => {
  const [wave, other, choose] = [add('oscillator'), add('values'), add('choose')];
  wire(other, choose, 'first');
  wire(wave, choose, 'second');
  play(30, choose);
  set(choose, 'number', 2);
  play(1, choose);
  const alone = new SceneRun(catalogue);
  const before = run;
  run = alone;
  frame = 30;
  play(1, wave);
  expect(number(wave)).toBeCloseTo(before.runs.get(choose)!.given!.lanes[0].samples[0], 6);
});

test('what decides never rests, even if it hangs on what is chosen by another', () => {
  const [which, inner, outer] = [add('formula'), add('choose'), add('choose')];
  setControl(scene, which, 'formula', 'value = 1 + step(0.1, time)');
  const [a, b, c] = [add('values'), add('values'), add('values')];
  set(a, 'list', 0);
  wire(a, inner, 'first');
  wire(b, inner, 'second');
  wire(inner, outer, 'first');
  wire(c, outer, 'second');
  const driven = wire(which, outer, 'number');
  scene.wires[driven] = { ...scene.wires[driven], fit: undefined };
  delete scene.wires[driven].fit;
  play(3, outer);
  expect(rests(which, inner, c)).toEqual([false, false, true]);
  play(6, outer);
  expect(rests(which, inner, a, c)).toEqual([false, true, true, false]);
});

test('by the beat it goes through what is wired, and at random the same seed gives the same', () => {
  const choose = add('choose');
  const sources = [3, 5, 9].map((value, k) => {
    const id = add('values');
    setControl(scene, id, 'list', [value]);
    wire(id, choose, ['first', 'third', 'sixth'][k]);
    return id;
  });
  expect(sources).toHaveLength(3);
  set(choose, 'by', 'beat');
  set(choose, 'every', 1);
  const seen = (): number[] => {
    frame = 0;
    run = new SceneRun(catalogue);
    return Array.from({ length: 6 }, () => {
      play(1, choose);
      frame += 29;
      return number(choose);
    });
  };
  expect(seen()).toEqual([3, 5, 9, 3, 5, 9]);
  set(choose, 'by', 'random');
  const random = seen();
  expect(seen()).toEqual(random);
  expect(new Set(random).size).toBeGreaterThan(1);
});

test('a formula that names a node keeps it awake only while it counts', () => {
  const [wave, named, choose, other] = [add('oscillator'), add('remap'), add('choose'), add('values')];
  setFormula(scene, named, 'after', 'oscillator * 2');
  wire(named, choose, 'first');
  wire(other, choose, 'second');
  play(2, choose);
  expect(rests(wave)).toEqual([false]);
  set(choose, 'number', 2);
  play(2, choose);
  expect(rests(wave, named)).toEqual([true, true]);
});

test('a motion with memory on what decides moves once a frame', () => {
  const [inner, outer] = [add('choose'), add('choose')];
  wire(add('values'), inner, 'first');
  wire(inner, outer, 'first');
  const slow = { type: 'follow' as const, on: true, amount: 1, rise: 0.1, fall: 0.1 };
  scene.nodes[inner] = { ...scene.nodes[inner], motions: { number: [slow] } };
  play(1, outer);
  set(inner, 'number', 6);
  play(3, outer);
  // Towards 6 from 1 with a rise of 0.1 s, three frames of 1/60 s.
  const share = 1 - (1 - wayDone(0.1, 1 / 60)) ** 3;
  expect(run.runs.get(inner)!.parts.get('number')!.samples[0]).toBeCloseTo(1 + 5 * share, 4);
});

test('what is chosen by a choice among others is there in the very frame', () => {
  const [which, inner, outer] = [add('values'), add('choose'), add('choose')];
  setControl(scene, which, 'list', [2]);
  const [low, high, first, second] = [add('values'), add('values'), add('values'), add('values')];
  for (const [id, value] of [
    [low, 1],
    [high, 2],
    [first, 7],
    [second, 8],
  ] as const)
    setControl(scene, id, 'list', [value]);
  wire(low, inner, 'first');
  wire(high, inner, 'second');
  wire(first, outer, 'first');
  wire(second, outer, 'second');
  for (const id of [wire(which, inner, 'number'), wire(inner, outer, 'number')]) {
    scene.wires[id] = { ...scene.wires[id] };
    delete scene.wires[id].fit;
  }
  play(1, outer);
  expect(number(outer)).toBe(8);
});
