import { beforeEach, describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { idleInputs } from '../inputs/inputs';
import { inside } from '../module/place';
import { catalogueWith, type ShowCatalogue } from '../module/show-catalogue';
import { ShowApart, takeSceneApart } from '../module/take-apart';
import { sceneOutOf } from '../patch/plan';
import { SceneRun } from '../run/scene-run';
import { momentAt } from '../time/clock';
import { oneStep } from '../time/feedback-steps';
import { catalogue } from '../../nodes/catalogue';
import type { Scene, Show } from '../document/types';
import { makeShow } from './create';
import { addNode, connect, EditError, renameNode, setControl, setFormula, setMotions } from './edit';
import { dissolveModule } from './dissolve-module';
import { bringOut, makeOwn, takeIn, tidyModule, usesOf } from './edit-module';
import { goesAlong, makeModule } from './make-module';
import { checkShow, readShow, writeShow } from './validate';

const demoShow = (): Show =>
  readShow(readFileSync(path.resolve('demo/night-apiary.pyrvel.json'), 'utf8'), catalogue).show;

let show: Show;
let scene: Scene;
const add = (kind: string, at: [number, number] = [0, 0]): string => addNode(scene, catalogue, kind, at);
const wire = (from: string, to: string, port: string): string => connect(scene, catalogue, from, to, port);
const kinds = (): ShowCatalogue => catalogueWith(catalogue, show.modules);

beforeEach(() => {
  show = makeShow(catalogue, 'Modules');
  [scene] = show.scenes;
});

/** Runs a scene as the engine does, for so many frames; everything in it is looked at. */
function play(of: Show, which: Scene, frames = 4): SceneRun {
  const known = catalogueWith(catalogue, of.modules);
  const flat = takeSceneApart(which, of.modules, known);
  const run = new SceneRun(known);
  run.update(flat, Object.keys(flat.nodes));
  for (let frame = 0; frame < frames; frame++)
    run.run({
      moment: momentAt(0.4 + frame / 30, frame ? 1 / 30 : 0, 30, { bpm: 120, beatsPerBar: 4 }),
      live: idleInputs(),
      canvas: { width: 160, height: 90 },
      feedback: oneStep,
    });
  return run;
}

/** All that a node gives and stands at, as plain data. */
function stateOf(run: SceneRun, id: string): unknown {
  const node = run.runs.get(id);
  if (!node) return null;
  const { given, shape, image } = node;
  // Formulas name nodes, which are called otherwise in a module.
  const specs = node.plan.kind.controls;
  const controls = Object.fromEntries(
    Object.entries(node.controls).filter(([name]) => specs[name].type !== 'formula'),
  );
  return JSON.parse(
    JSON.stringify({
      controls,
      lanes: given?.lanes.map(({ name, samples }) => [name, [...samples]]),
      points: shape && [shape.count, ...[...shape.positions].slice(0, 30)],
      size: image && [image.width, image.height],
      error: node.error,
    }),
  );
}

describe('a module made of chosen nodes', () => {
  test('takes what came in and gives what went out, by name', () => {
    const [noise, blur, levels] = [add('noise'), add('blur', [200, 0]), add('levels', [400, 0])];
    wire(noise, blur, 'picture');
    wire(blur, levels, 'picture');
    wire(levels, 'n1', 'picture');
    const made = makeModule(show, catalogue, scene, [blur, levels], 'Soft');
    expect(Object.keys(scene.nodes).sort()).toEqual([made, 'n1', noise].sort());
    const kind = kinds().get('module-soft')!;
    expect(kind.output).toBe('image');
    expect(Object.values(kind.inputs).map(({ label, carries }) => [label, carries])).toEqual([
      ['Picture', 'image'],
    ]);
    expect(Object.values(scene.wires).map(({ from, to }) => [from.node, to.node])).toEqual([
      [made, 'n1'],
      [noise, made],
    ]);
    expect(checkShow(show, catalogue)).toEqual([]);
  });

  test('takes along what lies between, and what a frozen node stands for', () => {
    const [a, b, c] = [add('noise'), add('blur'), add('levels')];
    wire(a, b, 'picture');
    wire(b, c, 'picture');
    wire(c, 'n1', 'picture');
    expect(goesAlong(scene, catalogue, [a, c, 'n1']).sort()).toEqual([a, b, c].sort());
    scene.nodes[b].frozen = a;
    expect(goesAlong(scene, catalogue, [b]).sort()).toEqual([a, b].sort());
  });

  test('reads nodes outside that its formulas and motions named, and is not read past', () => {
    const [slow, ball, push] = [add('oscillator'), add('ball'), add('place')];
    renameNode(scene, slow, 'Slow Swing');
    wire(ball, push, 'shape');
    setFormula(scene, push, 'move.x', 'slow_swing * 2 + sin(time)');
    setMotions(scene, push, 'scale', [
      { type: 'hit', on: true, amount: 1, trigger: slow, attack: 0.01, decay: 0.5 },
    ]);
    const before = stateOf(play(show, scene), push);
    const made = makeModule(show, catalogue, scene, [ball, push], 'Pushed');
    expect(stateOf(play(show, scene), inside(made, push))).toEqual(before);
    const rest = add('levels');
    setFormula(scene, rest, 'gamma', 'slow_swing');
    expect(() => makeModule(show, catalogue, scene, [slow], 'Read')).toThrow(EditError);
  });

  test('gives several outputs, each wired where it was', () => {
    const [swing, ball, blur] = [add('oscillator'), add('ball', [0, 300]), add('blur')];
    const [place, noise] = [add('place'), add('noise')];
    wire(noise, blur, 'picture');
    wire(swing, blur, 'radius');
    wire(ball, place, 'shape');
    const before = [stateOf(play(show, scene), blur), stateOf(play(show, scene), place)];
    const made = makeModule(show, catalogue, scene, [swing, ball], 'Two');
    const run = play(show, scene);
    expect([stateOf(run, blur), stateOf(run, place)]).toEqual(before);
    const kind = kinds().get('module-two')!;
    expect([kind.output, ...Object.values(kind.sideOutputs!).map(({ carries }) => carries)]).toEqual([
      'signal',
      'shape',
    ]);
    expect(usesOf(show, 'two')).toBe(1);
    expect(scene.nodes[made].name).toBe('Two');
  });

  test('feedback goes on through its border', () => {
    const [noise, blend, blur] = [add('noise'), add('blend'), add('blur')];
    wire(noise, blend, 'picture');
    wire(blend, blur, 'picture');
    const back = wire(blur, blend, 'over');
    expect(scene.wires[back].back).toBeDefined();
    scene.wires[back].back!.keep = 0.7;
    makeModule(show, catalogue, scene, [blur], 'Trail');
    const { plan } = play(show, scene);
    expect(plan.returns.map((wire) => [wire.back!.keep, wire.to.node])).toEqual([[0.7, blend]]);
    expect(plan.nodes.get(blend)!.inputs.over.map(({ node }) => node.endsWith(blur))).toEqual([true]);
  });

  test('desk controls go on moving what went in', () => {
    const blur = add('blur');
    wire(add('noise'), blur, 'picture');
    wire(blur, 'n1', 'picture');
    show.desk.push({
      id: 'p1',
      name: 'Page',
      scene: null,
      corners: [null, null, null, null],
      controls: [
        {
          id: 'd1',
          name: 'Soft',
          type: 'fader',
          place: [0, 0],
          size: [1, 1],
          range: [0, 1],
          step: 0,
          home: [0.1],
          unit: '',
          stored: true,
          targets: [{ scene: scene.id, node: blur, part: 'radius', from: 0, to: [0, 1], bend: 1 }],
          motions: [],
        },
      ],
    });
    const made = makeModule(show, catalogue, scene, [blur], 'Soft');
    const [{ node, part }] = show.desk[0].controls[0].targets;
    expect([node, part]).toEqual([made, 'radius']);
    const run = play(show, scene, 1);
    run.standIn([{ node: made, part: 'radius', value: 0.37 }]);
    expect(run.runs.get(inside(made, blur))!.controls.radius).toBeCloseTo(0.37);
  });
});

describe('controls of a module', () => {
  let made: string;
  let blur: string;
  beforeEach(() => {
    blur = add('blur');
    wire(add('noise'), blur, 'picture');
    wire(blur, 'n1', 'picture');
    made = makeModule(show, catalogue, scene, [blur], 'Soft');
  });
  const radius = (run: SceneRun, node = made): number =>
    run.runs.get(inside(node, blur))!.controls.radius as number;

  test('a value reaches what it sets; each node of the module has its own', () => {
    bringOut(show.modules.soft, kinds(), blur, 'radius');
    const other = addNode(scene, kinds(), 'module-soft', [0, 0]);
    setControl(scene, other, 'radius', 0.3);
    setControl(scene, made, 'radius', 0.12);
    const run = play(show, scene, 1);
    expect([radius(run), radius(run, other)].map((v) => Number(v.toFixed(4)))).toEqual([0.12, 0.3]);
  });

  test('a range of its own is led to that of what it sets, however it is driven', () => {
    const control = bringOut(show.modules.soft, kinds(), blur, 'radius');
    control.range = [0, 10];
    control.targets[0].to = [0.2, 0.6];
    setControl({ ...show.modules.soft }, blur, 'radius', 0.4);
    tidyModule(show, kinds(), show.modules.soft);
    expect(control.home).toBeCloseTo(5);
    expect(radius(play(show, scene, 1))).toBeCloseTo(0.4);
    setFormula(scene, made, 'radius', 'value + 5');
    setControl(scene, made, 'radius', 5);
    expect(radius(play(show, scene, 1))).toBeCloseTo(0.6);
    setFormula(scene, made, 'radius', null);
    setMotions(scene, made, 'radius', [
      { type: 'ramp', on: true, amount: 5, way: 'once', length: 0.001, unit: 'seconds', eased: false },
    ]);
    expect(radius(play(show, scene, 3))).toBeCloseTo(0.6);
    setMotions(scene, made, 'radius', []);
    const values = add('values');
    setControl(scene, values, 'list', [1]);
    const driven = connect(scene, kinds(), values, made, 'radius');
    scene.wires[driven].fit = { from: [0, 1], to: [0, 10], bend: 1, edges: 'pass' };
    expect(radius(play(show, scene, 1))).toBeCloseTo(0.6);
  });

  test('what was brought out can be taken in again, and leaves nothing behind', () => {
    const control = bringOut(show.modules.soft, kinds(), blur, 'radius');
    setFormula(scene, made, control.id, '0.3');
    takeIn(show, kinds(), show.modules.soft, control.id);
    expect(scene.nodes[made].formulas).toEqual({});
    expect(kinds().get('module-soft')!.controls).toEqual({});
  });

  test('a value that is turned inside is no other kind, and a control that is brought out is one', () => {
    const known = kinds();
    const before = known.get('module-soft');
    const soft = show.modules.soft;
    const turned = {
      ...soft,
      nodes: { ...soft.nodes, [blur]: { ...soft.nodes[blur], controls: { radius: 1 } } },
    };
    known.take({ soft: turned });
    expect(known.get('module-soft')).toBe(before);
    const named = { ...soft, name: 'Softer' };
    known.take({ soft: named });
    expect(known.get('module-soft')!.label).toBe('Softer');
  });

  test('one of its own changes alone', () => {
    const other = addNode(scene, kinds(), 'module-soft', [0, 0]);
    const own = makeOwn(show, scene, other);
    show.modules[own].nodes[blur].controls.radius = 0.9;
    const run = play(show, scene, 1);
    expect(radius(run)).not.toBeCloseTo(0.9);
    expect(radius(run, other)).toBeCloseTo(0.9);
  });
});

test('a module in a module gives the same, and time inside can be behind', () => {
  const swing = add('oscillator');
  const ball = add('ball');
  const place = add('place');
  wire(ball, place, 'shape');
  wire(swing, place, 'move.x');
  const plain = stateOf(play(show, scene), place);
  const inner = makeModule(show, catalogue, scene, [swing], 'Inner');
  const outer = makeModule(show, catalogue, scene, [inner, ball, place], 'Outer');
  expect(stateOf(play(show, scene), inside(outer, place))).toEqual(plain);
  scene.nodes[outer].delay = 0.1;
  const later = play(show, scene, 4).runs.get(inside(outer, place))!.controls.move as number[];
  const earlier = play(show, scene, 1).runs.get(inside(outer, place))!.controls.move as number[];
  // Three frames of 1/30 s later, a tenth of a second behind is where it was at first.
  scene.nodes[outer].delay = 0;
  const first = play(show, scene, 1).runs.get(inside(outer, place))!.controls.move as number[];
  expect(later[0]).toBeCloseTo(first[0], 5);
  expect(earlier[0]).not.toBeCloseTo(first[0], 3);
});

test('what did not change in a scene keeps its identity when it is taken apart again', () => {
  const blur = add('blur');
  wire(add('noise'), blur, 'picture');
  makeModule(show, catalogue, scene, [blur], 'Soft');
  const apart = new ShowApart(kinds());
  const first = apart.of(show);
  const next = apart.of({ ...show, scenes: [{ ...scene, name: 'Renamed' }] });
  expect(next.scenes[0].nodes).toBe(first.scenes[0].nodes);
  expect(next.scenes[0].wires).toBe(first.scenes[0].wires);
  expect(apart.of({ ...show, name: 'Else' }).scenes[0].nodes).toBe(first.scenes[0].nodes);
});

/** A small generator, so that the same parts are chosen each time. */
function* random(seed: number): Generator<number> {
  for (let state = seed; ;) {
    state = (state * 1664525 + 1013904223) % 2 ** 32;
    yield state / 2 ** 32;
  }
}

test('every scene of the demo gives the same with parts of it in modules, and once these are dissolved', () => {
  const rolls = random(7);
  let made = 0;
  for (const { id } of demoShow().scenes) {
    const of = demoShow();
    const whole = of.scenes.find((one) => one.id === id)!;
    const before = play(of, whole, 2);
    const names = new Map(Object.values(whole.nodes).map((node) => [node.name, node.id]));
    const ids = Object.keys(whole.nodes);
    const start = ids[Math.floor(rolls.next().value! * ids.length)];
    const chosen = ids.filter((other) => other === start || rolls.next().value! < 0.3);
    let node: string;
    try {
      node = makeModule(of, catalogue, whole, chosen, 'Part');
    } catch (error) {
      if (!(error instanceof EditError)) throw error;
      continue;
    }
    made++;
    expect(checkShow(of, catalogue).filter(({ level }) => level === 'error')).toEqual([]);
    const run = play(of, whole, 2);
    const out = sceneOutOf(whole, catalogue)!;
    for (const old of ids)
      expect([id, old, stateOf(run, whole.nodes[old] ? old : inside(node, old))]).toEqual([
        id,
        old,
        stateOf(before, old),
      ]);
    expect(run.plan.nodes.get(out)!.sources.map((source) => source.node.split('/').at(-1))).toEqual(
      before.plan.nodes.get(out)!.sources.map((source) => source.node),
    );
    dissolveModule(of, catalogue, whole, node);
    const again = play(of, whole, 2);
    for (const { name, id: now } of Object.values(whole.nodes))
      expect([id, name, stateOf(again, now)]).toEqual([id, name, stateOf(before, names.get(name)!)]);
  }
  expect(made).toBeGreaterThan(8);
});

test('a show with modules is written and read again', () => {
  const blur = add('blur');
  wire(add('noise'), blur, 'picture');
  makeModule(show, catalogue, scene, [blur], 'Soft');
  expect(readShow(writeShow(show), catalogue).show).toEqual(show);
});
