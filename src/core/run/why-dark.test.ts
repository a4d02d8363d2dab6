import { describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { makeScene } from '../show/create';
import { addNode, connect, setFormula } from '../show/edit';
import type { ControlValue, Scene } from '../document/types';
import { sceneOutOf } from '../patch/plan';
import { defaultCamera } from '../kind/prop';
import { momentAt } from '../time/clock';
import { oneStep } from '../time/feedback-steps';
import { idleInputs } from '../inputs/inputs';
import { SceneRun } from './scene-run';
import { seesPlace, whyDark } from './why-dark';

class Patch {
  readonly scene: Scene = makeScene(catalogue, 's1', 'Dark');
  readonly out = sceneOutOf(this.scene, catalogue)!;

  add(kind: string, controls: Record<string, ControlValue> = {}, wires: Record<string, string> = {}): string {
    const id = addNode(this.scene, catalogue, kind, [0, 0]);
    Object.assign(this.scene.nodes[id].controls, controls);
    for (const [port, from] of Object.entries(wires)) connect(this.scene, catalogue, from, id, port);
    return id;
  }

  /** A shot of these, led to the scene's picture. */
  shot(...props: string[]): this {
    const shot = this.add('shot');
    for (const prop of props) connect(this.scene, catalogue, prop, shot, 'props');
    connect(this.scene, catalogue, shot, this.out, 'picture');
    return this;
  }

  why(): string {
    const run = new SceneRun(catalogue);
    run.update(this.scene, [this.out]);
    run.run({
      moment: momentAt(0, 0, 60, { bpm: 120, beatsPerBar: 4 }),
      live: idleInputs(),
      canvas: { width: 160, height: 90 },
      feedback: oneStep,
    });
    return whyDark(run, this.out, 160 / 90)
      .map(({ node, sentence }) => `${this.scene.nodes[node].name}: ${sentence}`)
      .join('\n');
  }
}

describe('why dark', () => {
  test('a scene that shows something has no reasons', () => {
    const p = new Patch();
    expect(p.shot(p.add('body', {}, { shape: p.add('ball') }), p.add('camera'), p.add('light')).why()).toBe(
      '',
    );
    const copies = new Patch();
    const on = copies.add('ball', { form: 'even' });
    expect(copies.shot(copies.add('instances', { size: 0.05 }, { on })).why()).toBe('');
  });

  test('nothing wired in', () => {
    expect(new Patch().why()).toMatch(/Scene Out: Nothing is wired into Picture/);
    const p = new Patch();
    expect(p.shot(p.add('body')).why()).toMatch(/Body: Nothing is wired into Shape/);
    expect(new Patch().shot().why()).toMatch(/Shot: Nothing is wired into Props/);
  });

  test('all copies in one place, one sample where many are needed', () => {
    const p = new Patch();
    const copies = p.add('instances', { count: 200 });
    expect(p.shot(copies).why()).toMatch(
      /All 200 copies stand in one place: Place has one sample where 200 are needed/,
    );
    setFormula(p.scene, copies, 'place.x', 'u - 0.5');
    expect(p.why()).toBe('');
    const laid = new Patch();
    expect(laid.shot(laid.add('instances', { count: 20, layout: 'circle' })).why()).toBe('');
  });

  test('multiplied by zero, and alpha 0', () => {
    const p = new Patch();
    const shape = p.add('ball');
    const place = p.add('place', { scale: 0 }, { shape });
    expect(p.shot(p.add('body', {}, { shape: place })).why()).toMatch(
      /Place: Scale is 0: everything is multiplied/,
    );
    const q = new Patch();
    const body = q.add('body', { colour: [1, 1, 1, 0] }, { shape: q.add('ball') });
    expect(q.shot(body).why()).toMatch(/Body: The alpha of Colour is 0/);
    const r = new Patch();
    r.shot(r.add('body', {}, { shape: r.add('ball') }), r.add('light', { strength: 0 }));
    expect(r.why()).toMatch(/All lights are dark/);
  });

  test('outside of the view, and the camera inside', () => {
    const p = new Patch();
    const far = p.add('place', { move: [30, 0, 0] }, { shape: p.add('ball') });
    expect(p.shot(p.add('body', {}, { shape: far })).why()).toMatch(/outside of the camera’s view/);
    const q = new Patch();
    const inside = q.add('camera', { distance: 0.1 });
    expect(q.shot(q.add('body', {}, { shape: q.add('ball') }), inside).why()).toMatch(/camera stands inside/);
    const behind = new Patch();
    const away = behind.add('camera', { by: 'place', place: [0, 0, 2], aim: [0, 0, 4] });
    expect(behind.shot(behind.add('body', {}, { shape: behind.add('ball') }), away).why()).toMatch(/outside/);
    expect(seesPlace(defaultCamera, 1.7, [0, 0, 0])).toBe(true);
    expect(seesPlace(defaultCamera, 1.7, [2, 0, 0])).toBe(false);
    expect(seesPlace(defaultCamera, 1.7, [2, 0, 0], 3)).toBe(true);
  });

  test('no faces, no points, not a number', () => {
    const p = new Patch();
    expect(p.shot(p.add('body', { draw: 'surface' }, { shape: p.add('spiral') })).why()).toMatch(/no faces/);
    const q = new Patch();
    const values = q.add('values', { list: [0, Number.NaN, 1] });
    const curve = q.add('lane-curve', {}, { in: values });
    const why = q.shot(q.add('body', { draw: 'points' }, { shape: curve })).why();
    expect(why).toMatch(/not numbers/);
  });
});
