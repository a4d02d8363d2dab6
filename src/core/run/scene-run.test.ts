import { beforeEach, describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { ballShape } from '../shape/make';
import type { Model } from '../shape/model/model';
import { makeScene } from '../show/create';
import { addNode, connect, setControl, setFormula, setMotions } from '../show/edit';
import type { ControlValue, Scene, Wire } from '../document/types';
import { momentAt } from '../time/clock';
import { idleInputs, type InputState } from '../inputs/inputs';
import { guardValue } from './return-run';
import { SceneRun } from './scene-run';
import { whyDark } from './why-dark';
import { oneStep } from '../time/feedback-steps';

let scene: Scene;
let run: SceneRun;
let frame: number;
let live: InputState;
const fps = 60;

beforeEach(() => {
  scene = makeScene(catalogue, 's1', 'Scene');
  run = new SceneRun(catalogue);
  frame = -1;
  live = idleInputs();
});

function add(kind: string, controls: Record<string, ControlValue> = {}): string {
  const id = addNode(scene, catalogue, kind, [0, 0]);
  Object.assign(scene.nodes[id].controls, controls);
  return id;
}
function wire(from: string, to: string, port: string, more: Partial<Wire> = {}): string {
  const id = connect(scene, catalogue, from, to, port);
  Object.assign(scene.wires[id], more);
  return id;
}
/** Takes the scene as it stands (edits here are made in place, so the run gets a copy with new identities). */
let taken: Scene;
function update(...roots: string[]): void {
  taken = JSON.parse(JSON.stringify(scene)) as Scene;
  run.update(taken, roots);
}
function step(count = 1, rate = fps): void {
  for (let k = 0; k < count; k++) {
    frame++;
    run.run({
      moment: momentAt(frame / rate, frame === 0 ? 0 : 1 / rate, rate, { bpm: 120, beatsPerBar: 4 }),
      live,
      canvas: { width: 160, height: 90 },
      feedback: oneStep,
    });
  }
}
const samples = (id: string, lane = 0): number[] => [...run.runs.get(id)!.signal.lanes[lane].samples];
const control = (id: string, name: string): unknown => run.runs.get(id)!.controls[name];
const identity: Wire['fit'] = { from: [0, 1], to: [0, 1], bend: 1, edges: 'pass' };

describe('control sources', () => {
  test('a value, a formula, a wire with a fit, and a motion on top', () => {
    const blur = add('blur', { radius: 0.05 });
    update(blur);
    step();
    expect(control(blur, 'radius')).toBeCloseTo(0.05);
    setFormula(scene, blur, 'radius', 'value * 2 + time * 0');
    update(blur);
    step();
    expect(control(blur, 'radius')).toBeCloseTo(0.1);
    const values = add('values', { dials: [0.5, 0, 0] });
    wire(values, blur, 'radius');
    update(blur);
    step();
    expect(control(blur, 'radius')).toBeCloseTo(0.1); // 0..1 on 0..0.2
    setMotions(scene, blur, 'radius', [
      { type: 'swing', on: true, amount: 0.05, shape: 'square', rate: 0, unit: 'hertz', phase: 0 },
    ]);
    update(blur);
    step();
    expect(control(blur, 'radius')).toBeCloseTo(0.15);
  });

  test('several motions lie on one control in their order; a Hit waits for a node that nothing else needs', () => {
    const [shape, keys] = [add('flat-shape', { turn: 10 }), add('keys')];
    const at = { on: true, amount: 20 };
    setMotions(scene, shape, 'turn', [
      { type: 'hit', ...at, trigger: keys, attack: 0, decay: 10 },
      { type: 'ramp', ...at, amount: 5, way: 'once', length: 0, unit: 'seconds', eased: false },
      { type: 'follow', on: true, amount: 1, rise: 0, fall: 0 },
    ]);
    update(shape);
    const degrees = (): number => ((control(shape, 'turn') as number) * 180) / Math.PI;
    step();
    expect(degrees()).toBeCloseTo(15);
    live = { ...live, keys: { Space: { down: true, presses: 1 } } };
    step();
    expect(degrees()).toBeCloseTo(35);
    expect(taken.nodes[shape].controls.turn).toBe(10);
    run.restart();
    live = { ...live, keys: { Space: { down: false, presses: 1 } } };
    step();
    expect(degrees()).toBeCloseTo(15);
  });

  test('hard limits hold whatever drives a control; angles become radians', () => {
    const [blur, turn] = [add('blur'), add('transform', { turn: 180 })];
    setFormula(scene, blur, 'radius', '-5');
    update(blur, turn);
    step();
    expect(control(blur, 'radius')).toBe(0);
    expect(control(turn, 'turn')).toBeCloseTo(Math.PI);
  });

  test('a broken formula is said with its place, and the last value stays', () => {
    const blur = add('blur');
    setFormula(scene, blur, 'radius', '0.03 + time * 0');
    update(blur);
    step();
    setFormula(scene, blur, 'radius', '0.03 + tim');
    update(blur);
    step();
    expect(control(blur, 'radius')).toBeCloseTo(0.03);
    expect(run.faults().get(blur)).toMatch(/radius: Nothing is called tim\. .*time\? \(at 8\)/);
    setFormula(scene, blur, 'radius', '0.04');
    update(blur);
    step();
    expect(run.faults().size).toBe(0);
    expect(control(blur, 'radius')).toBeCloseTo(0.04);
  });

  test('formulas read other nodes, their lanes and counts', () => {
    const line = add('number-line', { samples: 5, from: 2, to: 4 });
    const ball = add('ball', { form: 'even', points: 40 });
    const blur = add('blur');
    setFormula(scene, blur, 'radius', '(number_line + ball.count + number_line.count) * 0.001');
    update(blur, line, ball);
    step();
    expect(control(blur, 'radius')).toBeCloseTo(0.047);
    setFormula(scene, blur, 'radius', 'number_line.q');
    update(blur, line, ball);
    step();
    expect(run.faults().get(blur)).toMatch(/has no lane q; it has value/);
  });
});

describe('many samples', () => {
  test('n samples drive n copies; fewer spread as the wire says', () => {
    const copies = add('instances');
    const line = add('number-line', { samples: 4, from: 0, to: 3 });
    const id = wire(line, copies, 'size', { fit: { from: [0, 1], to: [0, 1], bend: 1, edges: 'pass' } });
    update(copies);
    step();
    expect(run.runs.get(copies)!.count).toBe(4);
    expect([...(control(copies, 'size') as Float32Array)]).toEqual([0, 1, 2, 3]);
    setControl(scene, copies, 'count', 8);
    for (const [spread, expected] of [
      ['repeat', [0, 1, 2, 3, 0, 1, 2, 3]],
      ['mirror', [0, 1, 2, 3, 3, 2, 1, 0]],
      ['hold', [0, 1, 2, 3, 3, 3, 3, 3]],
    ] as const) {
      scene.wires[id].spread = spread;
      update(copies);
      step();
      expect([...(control(copies, 'size') as Float32Array)]).toEqual(expected);
    }
    expect(run.runs.get(copies)!.note).toMatch(/^Size: 4 samples stretched over 8 copies\.$/);
  });

  test('a formula gives each copy its own; a vector takes lanes by name', () => {
    const copies = add('instances', { count: 3 });
    setFormula(scene, copies, 'size', 'i / n');
    const scatter = add('scatter', { samples: 3, lanes: 3, range: [0, 1] });
    wire(scatter, copies, 'place', { fit: identity });
    update(copies);
    step();
    expect([...(control(copies, 'size') as Float32Array)].map((v) => Math.round(v * 3))).toEqual([0, 1, 2]);
    const place = control(copies, 'place') as Float32Array[];
    for (let k = 0; k < 3; k++) expect([...place[k]]).toEqual(samples(scatter, k));
  });

  test('a formula says how many copies there are from the very first frame', () => {
    add('number-line', { samples: 5 });
    const copies = add('instances', { count: 0 });
    setFormula(scene, copies, 'place.x', 'number_line');
    update(copies);
    step();
    expect(run.runs.get(copies)!.count).toBe(5);
  });

  test('copies count with points, with pixels and with rows', () => {
    const copies = add('instances');
    wire(add('ball', { form: 'even', points: 77 }), copies, 'on');
    update(copies);
    step();
    expect(run.runs.get(copies)!.count).toBe(77);
    const noise = add('noise');
    scene.nodes[noise].size = [64, 4];
    wire(noise, copies, 'pixels');
    update(copies);
    step();
    expect(run.runs.get(copies)!.count).toBe(256);
    setControl(scene, copies, 'reads', 'rows');
    update(copies);
    step();
    expect(run.runs.get(copies)!.count).toBe(77);
  });
});

describe('return wires of signals', () => {
  function loop(keep: number, more: object = {}): { remap: string; back: string } {
    // remap = in + 1, its input its own past: x = keep * x + 1.
    const remap = add('remap', { from: [0, 1], to: [0, 1], after: 1 });
    const back = wire(remap, remap, 'in');
    Object.assign(scene.wires[back].back!, { keep, guard: 'off', ...more });
    return { remap, back };
  }

  test('settle at input / (1 - keep) at 30, 60 and 144 frames a second', () => {
    const { remap } = loop(0.9);
    update(remap);
    step(300, 60);
    expect(samples(remap)[0]).toBeCloseTo(10, 2);
  });

  test('the guard holds, and is smooth', () => {
    const { remap } = loop(1.1, { guard: 'soft', limit: 4 });
    update(remap);
    step(500);
    expect(samples(remap)[0]).toBeLessThanOrEqual(5);
    expect(guardValue(1, 4)).toBe(1);
    expect(guardValue(2.001, 4)).toBeCloseTo(2.001, 5);
    expect(guardValue(-1e9, 4)).toBeGreaterThanOrEqual(-4);
  });

  test('starts from a source and is cleared by a signal that rises, and by hand', () => {
    const start = add('values', { list: [100] });
    const gate = add('keys', { key: 'KeyA' });
    const { remap, back } = loop(1, { startsFrom: start, clearWhen: gate });
    update(remap);
    step();
    expect(samples(remap)[0]).toBe(101);
    step(4);
    expect(samples(remap)[0]).toBe(105);
    live = { ...live, keys: { KeyA: { down: true, presses: 1 } } };
    step();
    expect(samples(remap)[0]).toBe(101);
    step(3);
    expect(samples(remap)[0]).toBe(104);
    run.clearReturn(back);
    step();
    expect(samples(remap)[0]).toBe(101);
  });

  test('are a memory of numbers, which a loop of images is not', () => {
    update(loop(1).remap);
    expect([run.remembers, run.remembersNumbers]).toEqual([true, true]);
    scene = makeScene(catalogue, 's2', 'Trail');
    const trail = add('blend');
    wire(trail, trail, 'picture');
    update(trail);
    expect([run.remembers, run.remembersNumbers]).toEqual([true, false]);
  });

  test('stands still while time does', () => {
    const { remap } = loop(1);
    update(remap);
    step(5);
    const before = samples(remap)[0];
    frame--;
    step();
    expect(samples(remap)[0]).toBe(before);
  });
});

describe('what did not change is not done again', () => {
  test('static nodes rest, moving ones run', () => {
    const [ball, place, wave] = [add('ball'), add('place'), add('oscillator')];
    wire(ball, place, 'shape');
    update(place, wave);
    step();
    const shape = run.runs.get(place)!.shape;
    step(3);
    expect(run.runs.get(place)!.changed).toBe(false);
    expect(run.runs.get(place)!.shape).toBe(shape);
    expect(run.runs.get(wave)!.changed).toBe(true);
    setControl(scene, ball, 'size', 1);
    update(place, wave);
    step();
    expect(run.runs.get(place)!.shape).not.toBe(shape);
  });

  test('moving a control does not rebuild the plan, a wire does; memory stays', () => {
    const [wave, past] = [add('oscillator'), add('history', { samples: 4, span: 1 })];
    wire(wave, past, 'in');
    update(past);
    step(30);
    const version = run.planVersion;
    const old = run.runs.get(past)!.memory;
    // An edit as the store makes it: everything but the changed value keeps its identity.
    const edited = {
      ...taken,
      nodes: {
        ...taken.nodes,
        [wave]: { ...taken.nodes[wave], controls: { ...taken.nodes[wave].controls, rate: 2 } },
      },
    };
    run.update(edited, [past]);
    expect(run.planVersion).toBe(version);
    wire(add('oscillator'), past, 'in');
    update(past);
    expect(run.planVersion).toBe(version + 1);
    expect(run.runs.get(past)!.memory).toBe(old);
  });

  test('the same frames give the same values, also after a restart', () => {
    const wave = add('oscillator', { rate: 0.7 });
    const past = add('history', { samples: 8, span: 0.4 });
    wire(wave, past, 'in');
    update(past);
    step(60);
    const first = samples(past);
    run.restart();
    frame = -1;
    step(60);
    expect(samples(past)).toEqual(first);
  });

  test('a model that is on its way, or damaged, leaves the shape that was there', () => {
    let answer: (file: string) => Model | null = () => null;
    run = new SceneRun(catalogue, null, { model: (file) => answer(file) });
    const model = add('model', { file: 'first' });
    const count = (): number => run.runs.get(model)!.shape!.count;
    update(model);
    step();
    expect(count()).toBe(0);
    const part = { name: 'Part', shape: ballShape(1, 4, 6), picture: null };
    answer = () => ({ parts: [part], pictures: [], notes: [] });
    run.markAwaiting();
    step();
    const there = count();
    expect(there).toBe(part.shape.count);
    answer = () => null;
    setControl(scene, model, 'file', 'second');
    update(model);
    step();
    expect(count()).toBe(there);
    answer = () => {
      throw new Error('Line 2 names 2 points too many.');
    };
    run.markAwaiting();
    step();
    expect(count()).toBe(there);
    expect(run.runs.get(model)!.error).toBe('Line 2 names 2 points too many.');
  });
});

describe('what a patch may hold that makes no sense', () => {
  test('a wire of a wrong type carries nothing, and the node says so', () => {
    const [noise, body, shot, walk] = [add('noise'), add('body'), add('shot'), add('random-walk')];
    wire(body, shot, 'props');
    scene.wires.bad = { id: 'bad', from: { node: noise }, to: { node: body, port: 'shape' } };
    scene.wires.worse = { id: 'worse', from: { node: body }, to: { node: noise, port: 'period' } };
    scene.wires.gone = { id: 'gone', from: { node: walk }, to: { node: shot, port: 'nowhere' } };
    update(shot, noise);
    step(2);
    const faults = run.faults();
    expect(faults.get(body)).toBe('Noise gives image, and Body takes shape at Shape; the wire does nothing.');
    expect(faults.get(noise)).toMatch(/gives prop, and Noise takes signal/);
    expect(faults.get(shot)).toMatch(/no port nowhere/);
    expect(run.plan.nodes.has(walk)).toBe(false);
    expect(run.inputsOf(body).shape).toBeNull();
    expect(whyDark(run, shot, 1).map(({ sentence }) => sentence)).toContain(faults.get(body));
  });

  test('a wrong type stays out also where nodes on the way are off', () => {
    const [picture, mix, walk] = [add('noise'), add('data-image'), add('random-walk')];
    const blend = add('blend');
    wire(mix, blend, 'picture');
    wire(walk, mix, Object.keys(catalogue.get('data-image')!.inputs)[0]);
    scene.nodes[mix].on = false;
    update(blend, picture);
    step(1);
    expect(run.inputsOf(blend).picture).toBeNull();
  });

  test('a whole picture begins with a thousand copies and says so; Count and older shows go beyond', () => {
    const [picture, copies] = [add('noise'), add('instances')];
    scene.nodes[picture].size = [300, 200];
    wire(picture, copies, 'pixels');
    update(copies);
    step(2);
    expect(run.runs.get(copies)!.count).toBe(1000);
    expect(run.runs.get(copies)!.note).toBe('60,000 pixels, 1,000 copies: raise “Pixels at most” for more.');
    setControl(scene, copies, 'mostPixels', 1048576);
    update(copies);
    step(2);
    expect(run.runs.get(copies)!.count).toBe(60_000);
    expect(run.runs.get(copies)!.note).toBeNull();
    expect(catalogue.get('instances')!.migrate![1]({ count: 0 })).toEqual({ count: 0, mostPixels: 1048576 });
  });

  test('a picture made of numbers is as large as these, whatever size it is given', () => {
    const [numbers, strip] = [add('number-line', { samples: 40 }), add('data-image')];
    wire(numbers, strip, 'in');
    scene.nodes[strip].size = [1, 40];
    update(strip);
    step(1);
    expect(run.runs.get(strip)!.image).toMatchObject({ width: 40, height: 1 });
  });

  test('a formula whose node was deleted keeps its last values and says so', () => {
    const [blur, drift] = [add('blur'), add('values', { list: [0.25] })];
    scene.nodes[drift].name = 'Drift';
    setFormula(scene, blur, 'radius', 'drift * 0.1');
    update(blur);
    step(2);
    expect(control(blur, 'radius')).toBeCloseTo(0.025);
    delete scene.nodes[drift];
    update(blur);
    step(2);
    expect(control(blur, 'radius')).toBeCloseTo(0.025);
    expect(run.faults().get(blur)).toMatch(/radius: Nothing is called drift any more/);
  });
});
