import { beforeEach, describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { makeScene } from '../show/create';
import { addNode, connect, renameNode, setFormula } from '../show/edit';
import type { Scene } from '../document/types';
import { buildPlan, sceneOutOf } from './plan';
import { numberImages, storedImages } from './storage';

let scene: Scene;
let out: string;
const add = (kind: string): string => addNode(scene, catalogue, kind, [0, 0]);
const wire = (from: string, to: string, port: string): string => connect(scene, catalogue, from, to, port);
const plan = (without: string | null = null) => buildPlan(scene, catalogue, [out], without);
const order = (): string[] => plan().order.map((n) => n.id);

beforeEach(() => {
  scene = makeScene(catalogue, 's1', 'Scene');
  out = sceneOutOf(scene, catalogue)!;
});

describe('plan', () => {
  test('only what somebody watches is live, each after all it reads', () => {
    const [noise, idle, blur, wave] = [add('noise'), add('fill'), add('blur'), add('oscillator')];
    wire(blur, out, 'picture');
    wire(noise, blur, 'picture');
    wire(wave, blur, 'radius');
    const ids = order();
    expect(ids).not.toContain(idle);
    expect(ids.indexOf(noise)).toBeLessThan(ids.indexOf(blur));
    expect(ids.indexOf(wave)).toBeLessThan(ids.indexOf(blur));
    expect(ids[ids.length - 1]).toBe(out);
    expect(buildPlan(scene, catalogue, [out, idle]).nodes.has(idle)).toBe(true);
  });

  test('a return wire is live with all that feeds it, and no order comes from it', () => {
    const [mix, move, start, key] = [add('blend'), add('transform'), add('fill'), add('keys')];
    wire(mix, out, 'picture');
    wire(mix, move, 'picture');
    const back = wire(move, mix, 'picture');
    Object.assign(scene.wires[back].back!, { startsFrom: start, clearWhen: key });
    const planned = plan();
    expect(planned.returns.map((w) => w.id)).toEqual([back]);
    for (const id of [mix, move, start, key]) expect(planned.nodes.has(id)).toBe(true);
    expect(planned.nodes.get(mix)!.inputs.picture[0].back?.id).toBe(back);
    expect(planned.nodes.get(move)!.inputs.picture[0].back).toBeNull();
  });

  test('a cycle of plain wires, as in a damaged file, is opened', () => {
    const [mix, move] = [add('blend'), add('transform')];
    wire(mix, out, 'picture');
    wire(mix, move, 'picture');
    delete scene.wires[wire(move, mix, 'picture')].back;
    expect(plan().returns).toHaveLength(1);
    expect(order()).toHaveLength(3);
  });

  test('a node that is off hands on its first input; a maker that is off gives nothing', () => {
    const [noise, blur] = [add('noise'), add('blur')];
    wire(noise, blur, 'picture');
    wire(blur, out, 'picture');
    expect(plan(blur).nodes.get(out)!.inputs.picture[0].node).toBe(noise);
    scene.nodes[blur].on = false;
    expect(plan().nodes.get(out)!.inputs.picture[0].node).toBe(noise);
    scene.nodes[noise].on = false;
    expect(plan().nodes.get(out)!.inputs.picture).toEqual([]);
  });

  test('formulas bring the nodes they name', () => {
    const [blur, wave] = [add('blur'), add('oscillator')];
    renameNode(scene, wave, 'Slow Wave');
    wire(blur, out, 'picture');
    setFormula(scene, blur, 'radius', 'slow_wave * 0.1');
    const ids = order();
    expect(ids.indexOf(wave)).toBeGreaterThanOrEqual(0);
    expect(ids.indexOf(wave)).toBeLessThan(ids.indexOf(blur));
  });

  test('random graphs: every live node stands after its sources unless the wire returns', () => {
    let seed = 7;
    const random = (n: number): number => {
      seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
      return seed % n;
    };
    for (let round = 0; round < 30; round++) {
      scene = makeScene(catalogue, 's1', 'Scene');
      out = sceneOutOf(scene, catalogue)!;
      const kinds = ['blend', 'transform', 'blur', 'noise', 'masked-mix', 'displace'];
      const ids = Array.from({ length: 14 }, () => add(kinds[random(kinds.length)]));
      for (let k = 0; k < 30; k++) {
        const to = ids[random(ids.length)];
        const ports = Object.keys(catalogue.get(scene.nodes[to].kind)!.inputs);
        if (ports.length) wire(ids[random(ids.length)], to, ports[random(ports.length)]);
      }
      wire(ids[0], out, 'picture');
      const planned = plan();
      const at = new Map(planned.order.map((n, k) => [n.id, k]));
      for (const node of planned.order) {
        for (const sources of Object.values(node.inputs)) {
          for (const source of sources)
            if (!source.back) expect(at.get(source.node)!).toBeLessThan(at.get(node.id)!);
        }
      }
      expect(
        storedImages({ plan: planned, scene, sizeOf: () => 'same', wanted: new Set([out]) }).has(out),
      ).toBe(true);
    }
  });
});

describe('storage', () => {
  const stored = (sizeOf: (id: string) => string = () => 'same') =>
    storedImages({ plan: plan(), scene, sizeOf, wanted: new Set([out]) });

  test('a chain read at the same place is one shader', () => {
    const [noise, levels] = [add('noise'), add('levels')];
    wire(noise, levels, 'picture');
    wire(levels, out, 'picture');
    expect([...stored()]).toEqual([out]);
  });

  test('stored is what is read at many places, twice, at another size or precision, or comes back', () => {
    const [noise, blur, levels] = [add('noise'), add('blur'), add('levels')];
    wire(noise, blur, 'picture');
    wire(blur, levels, 'picture');
    wire(levels, out, 'picture');
    expect([...stored()].sort()).toEqual([out, noise, blur].sort());
    expect(stored((id) => (id === levels ? 'small' : 'large')).has(levels)).toBe(true);
    scene.nodes[levels].precision = '8';
    expect(stored().has(levels)).toBe(true);
    scene.nodes[levels].precision = 'auto';
    const mix = add('blend');
    wire(levels, mix, 'picture');
    wire(levels, mix, 'over');
    wire(mix, out, 'picture');
    expect(stored().has(levels)).toBe(true);
    const move = add('transform');
    wire(mix, move, 'picture');
    wire(move, mix, 'over');
    expect(stored().has(move)).toBe(true);
  });

  test('pixels used as numbers ask for 32 bits, through all that changes them', () => {
    const [noise, levels, copies, shot] = [add('noise'), add('levels'), add('instances'), add('shot')];
    wire(noise, levels, 'picture');
    wire(levels, copies, 'pixels');
    wire(copies, shot, 'props');
    wire(shot, out, 'picture');
    const numbers = numberImages(plan());
    expect(numbers.has(noise) && numbers.has(levels)).toBe(true);
    expect(numbers.has(shot)).toBe(false);
    expect(stored().has(levels)).toBe(true);
  });
});
