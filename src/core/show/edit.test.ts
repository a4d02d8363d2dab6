import { beforeEach, describe, expect, test } from '@jest/globals';
import { enablePatches, produce, produceWithPatches, applyPatches } from 'immer';
import { catalogue } from '../../nodes/catalogue';
import { applyChanges, changesBetween } from './changes';
import { makeShow } from './create';
import {
  addNode,
  connect,
  copyNodes,
  disconnect,
  EditError,
  insertOnWire,
  pasteNodes,
  removeNodes,
  renameNode,
  sendHome,
  setControl,
  setFormula,
  setMotions,
} from './edit';
import { freshMotion } from '../document/motions';
import type { Motion, Scene, Show } from '../document/types';

enablePatches();
let show: Show;
let scene: Scene;
let out: string;
const add = (kind: string): string => addNode(scene, catalogue, kind, [0, 0]);
const wire = (from: string, to: string, port: string): string => connect(scene, catalogue, from, to, port);

beforeEach(() => {
  show = makeShow(catalogue, 'Test');
  [scene] = show.scenes;
  out = Object.keys(scene.nodes)[0];
});

describe('wires', () => {
  test('replace what was there, unless the port takes many', () => {
    const [a, b] = [add('noise'), add('fill')];
    wire(a, out, 'picture');
    wire(b, out, 'picture');
    expect(Object.values(scene.wires).map((w) => w.from.node)).toEqual([b]);
    const shot = add('shot');
    const [body, light] = [add('body'), add('light')];
    wire(body, shot, 'props');
    wire(light, shot, 'props');
    wire(light, shot, 'props');
    expect(Object.values(scene.wires).filter((w) => w.to.node === shot)).toHaveLength(2);
  });

  test('what closes a cycle becomes a return wire, for images and signals', () => {
    const [mix, move] = [add('blend'), add('transform')];
    const forth = wire(mix, move, 'picture');
    const back = wire(move, mix, 'picture');
    expect(scene.wires[forth].back).toBeUndefined();
    expect(scene.wires[back].back).toMatchObject({
      keep: 0.95,
      startsFrom: null,
      clearWhen: null,
      guard: 'soft',
    });
    const [remap, steps] = [add('remap'), add('steps')];
    wire(remap, steps, 'in');
    expect(scene.wires[wire(steps, remap, 'in')].back).toBeDefined();
    expect(scene.wires[wire(remap, remap, 'before')].back).toBeDefined();
  });

  test('a wire that does not fit is refused and changes nothing', () => {
    const [noise, ball] = [add('noise'), add('ball')];
    const before = JSON.stringify(scene);
    expect(() => wire(ball, out, 'picture')).toThrow(/takes image there/);
    expect(() => wire(noise, out, 'nothing')).toThrow(EditError);
    expect(() => wire(out, noise, 'period')).toThrow(EditError);
    expect(() => wire('n99', out, 'picture')).toThrow(/no node n99/);
    expect(JSON.stringify(scene)).toBe(before);
  });

  test('a signal gets the fit of its natural range on the useful one of the control', () => {
    const [wave, turn] = [add('oscillator'), add('transform')];
    expect(scene.wires[wire(wave, turn, 'turn')].fit).toEqual({
      from: [-1, 1],
      to: [0, 360],
      bend: 1,
      edges: 'pass',
    });
    const scatter = add('scatter');
    expect(scene.wires[wire(scatter, turn, 'scale')].fit).toMatchObject({ from: [0, 1], to: [0.1, 3] });
  });

  test('a wire into a whole control and one into a part take each other’s place', () => {
    const [wave, turn] = [add('oscillator'), add('transform')];
    wire(wave, turn, 'move');
    wire(wave, turn, 'move.x');
    expect(Object.values(scene.wires).map((w) => w.to.port)).toEqual(['move.x']);
    wire(wave, turn, 'move');
    expect(Object.values(scene.wires).map((w) => w.to.port)).toEqual(['move']);
  });
});

describe('nodes', () => {
  test('one dropped on a wire stands between its ends', () => {
    const [noise, blur, ball] = [add('noise'), add('blur'), add('ball')];
    const id = wire(noise, out, 'picture');
    expect(insertOnWire(scene, catalogue, id, ball)).toBe(false);
    expect(insertOnWire(scene, catalogue, id, blur)).toBe(true);
    const ends = Object.values(scene.wires).map((w) => [w.from.node, w.to.node]);
    expect(ends).toEqual(
      expect.arrayContaining([
        [blur, out],
        [noise, blur],
      ]),
    );
    expect(ends).toHaveLength(2);
  });

  test('removing one joins the wire that ran through it; Scene Out stays', () => {
    const [noise, blur] = [add('noise'), add('blur')];
    wire(noise, blur, 'picture');
    wire(blur, out, 'picture');
    removeNodes(scene, catalogue, [blur, out]);
    expect(Object.keys(scene.nodes)).toEqual([out, noise]);
    expect(Object.values(scene.wires)[0]).toMatchObject({ from: { node: noise }, to: { node: out } });
  });

  test('renaming keeps names apart and formulas following', () => {
    const [a, b] = [add('oscillator'), add('oscillator')];
    const turn = add('transform');
    renameNode(scene, a, 'Wind');
    setFormula(scene, turn, 'turn', 'wind.value * 90 + wind');
    renameNode(scene, a, 'Gale');
    expect(scene.nodes[turn].formulas.turn).toBe('gale.value * 90 + gale');
    renameNode(scene, b, 'Gale');
    expect(scene.nodes[b].name).toBe('Gale 2');
    expect(() => renameNode(scene, a, '  ')).toThrow(EditError);
  });

  test('a formula takes the place of a wire; home takes both away', () => {
    const [wave, turn] = [add('oscillator'), add('transform')];
    wire(wave, turn, 'turn');
    setFormula(scene, turn, 'turn', 'time');
    expect(Object.keys(scene.wires)).toHaveLength(0);
    scene.nodes[turn].controls.turn = 33;
    sendHome(scene, catalogue, turn, 'turn');
    expect(scene.nodes[turn].formulas).toEqual({});
    expect(scene.nodes[turn].controls.turn).toBe(0);
  });

  test('formulas of copies speak of the copies, each name replaced once, in formula nodes too', () => {
    const [first, second, reader, formula] = [add('noise'), add('noise'), add('noise'), add('formula')];
    setFormula(scene, reader, 'period', 'noise + noise_2 * 2');
    setControl(scene, formula, 'formula', 'value = noise_2 - noise');
    const fresh = pasteNodes(scene, catalogue, copyNodes(scene, [first, second, reader, formula]), [0, 0]);
    const [a, b, read, text] = fresh.map((id) => scene.nodes[id]);
    expect([a.name, b.name]).toEqual(['Noise 4', 'Noise 5']);
    expect(read.formulas.period).toBe('noise_4 + noise_5 * 2');
    expect(text.controls.formula).toBe('value = noise_5 - noise_4');
  });

  test('copies keep their wires, those from outside too', () => {
    const [noise, wave, blur] = [add('noise'), add('oscillator'), add('blur')];
    wire(noise, blur, 'picture');
    wire(wave, blur, 'radius');
    const [copiedNoise, copiedBlur] = pasteNodes(scene, catalogue, copyNodes(scene, [noise, blur]), [10, 20]);
    expect(scene.nodes[copiedBlur].name).toBe('Blur 2');
    expect(scene.nodes[copiedBlur].place).toEqual([10, 20]);
    const into = Object.values(scene.wires).filter((w) => w.to.node === copiedBlur);
    expect(into.map((w) => [w.from.node, w.to.port]).sort()).toEqual(
      [
        [copiedNoise, 'picture'],
        [wave, 'radius'],
      ].sort(),
    );
    const other = makeShow(catalogue, 'Other').scenes[0];
    const [lone] = pasteNodes(other, catalogue, copyNodes(scene, [blur]), [0, 0]);
    expect(Object.values(other.wires)).toHaveLength(0);
    expect(other.nodes[lone].kind).toBe('blur');
  });

  test('a copied cycle stays one, half a cycle becomes a plain wire', () => {
    const [mix, move] = [add('blend'), add('transform')];
    wire(mix, move, 'picture');
    wire(move, mix, 'picture');
    const [m2, t2] = pasteNodes(scene, catalogue, copyNodes(scene, [mix, move]), [0, 0]);
    const back = Object.values(scene.wires).find((w) => w.from.node === t2 && w.to.node === m2);
    expect(back?.back).toBeDefined();
    const [half] = pasteNodes(scene, catalogue, copyNodes(scene, [mix]), [0, 0]);
    expect(Object.values(scene.wires).find((w) => w.to.node === half)?.back).toBeUndefined();
  });
});

describe('motions', () => {
  test('a Hit forgets a trigger that is removed, and a copy waits for the copy of it', () => {
    const [keys, shape] = [add('keys'), add('flat-shape')];
    const hit = { ...freshMotion('hit', [0, 1], 1), trigger: keys } as Motion;
    setMotions(scene, shape, 'turn', [hit]);
    const both = pasteNodes(scene, catalogue, copyNodes(scene, [keys, shape]), [20, 20]);
    const [copiedKeys, copiedShape] = both;
    expect(scene.nodes[copiedShape].motions.turn[0]).toMatchObject({ trigger: copiedKeys });
    const [alone] = pasteNodes(scene, catalogue, copyNodes(scene, [shape]), [40, 40]);
    expect(scene.nodes[alone].motions.turn[0]).toMatchObject({ trigger: keys });
    removeNodes(scene, catalogue, [keys]);
    for (const id of [shape, alone]) expect(scene.nodes[id].motions.turn[0]).toMatchObject({ trigger: null });
    expect(scene.nodes[copiedShape].motions.turn[0]).toMatchObject({ trigger: copiedKeys });
  });
});

describe('undo and the engine’s copy', () => {
  test('random edits are undone exactly, and small changes carry them over', () => {
    let seed = 12345;
    const random = (n: number): number => {
      seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
      return seed % n;
    };
    const kinds = [...catalogue.keys()].filter((id) => id !== 'scene-out');
    let now = produce(show, () => undefined);
    let mirror = now;
    const history: { before: Show; undo: Parameters<typeof applyPatches>[1] }[] = [];
    for (let step = 0; step < 300; step++) {
      const [next, , undo] = produceWithPatches(now, (draft) => {
        const target = draft.scenes[0] as Scene;
        const ids = Object.keys(target.nodes);
        const pick = (): string => ids[random(ids.length)];
        try {
          switch (random(6)) {
            case 0:
            case 1:
              addNode(target, catalogue, kinds[random(kinds.length)], [random(500), random(500)]);
              break;
            case 2:
            case 3: {
              const to = pick();
              const kind = catalogue.get(target.nodes[to].kind)!;
              const ports = [...Object.keys(kind.inputs), ...Object.keys(kind.controls)];
              if (ports.length) connect(target, catalogue, pick(), to, ports[random(ports.length)]);
              break;
            }
            case 4:
              if (ids.length > 30) removeNodes(target, catalogue, [pick()]);
              break;
            case 5: {
              const wires = Object.keys(target.wires);
              if (wires.length) disconnect(target, wires[random(wires.length)]);
            }
          }
        } catch (error) {
          if (!(error instanceof EditError)) throw error;
        }
      });
      history.push({ before: now, undo });
      mirror = applyChanges(mirror, changesBetween(now, next));
      now = next;
    }
    expect(Object.keys(now.scenes[0].nodes).length).toBeGreaterThan(20);
    expect(mirror).toEqual(now);
    for (const { before, undo } of history.reverse()) {
      now = applyPatches(now, undo);
      expect(now.scenes[0].wires).toEqual(before.scenes[0].wires);
    }
    expect(now).toEqual(show);
  });

  test('changes of scenes, head and order', () => {
    const next = produce(show, (draft) => {
      draft.tempo.bpm = 99;
      draft.scenes[0].name = 'First';
      draft.scenes.unshift({ ...makeShow(catalogue, 'x').scenes[0], id: 's2' });
    });
    const changes = changesBetween(show, next);
    expect(changes.map((c) => c.type).sort()).toEqual(['head', 'scene', 'scenes']);
    expect(applyChanges(show, changes)).toEqual(next);
    expect(changesBetween(next, next)).toEqual([]);
  });
});
