import { expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { makeScene } from '../show/create';
import { addNode, connect } from '../show/edit';
import type { Scene } from '../document/types';
import { randomAt } from '../random';
import { cyclesOf } from './cycles';
import { buildPlan, sceneOutOf } from './plan';

const scene = (): {
  scene: Scene;
  out: string;
  add(kind: string): string;
  wire(a: string, b: string, port?: string): string;
} => {
  const made = makeScene(catalogue, 's', 'Cycles');
  return {
    scene: made,
    out: sceneOutOf(made, catalogue)!,
    add: (kind) => addNode(made, catalogue, kind, [0, 0]),
    wire: (a, b, port = 'picture') => connect(made, catalogue, a, b, port),
  };
};

test('a loop is drawn as a whole, after what enters it and before what leaves it', () => {
  const s = scene();
  const [dot, blend, blur, tone] = ['flat-shape', 'blend', 'blur', 'tone'].map((kind) => s.add(kind));
  s.wire(dot, blend, 'over');
  s.wire(blend, blur);
  s.wire(blur, tone);
  s.wire(tone, s.out);
  s.wire(blur, blend);
  const cycles = cyclesOf(buildPlan(s.scene, catalogue, [s.out]));
  expect(cycles.map((c) => c.nodes.map((n) => n.id))).toEqual([[dot], [blend, blur], [tone], [s.out]]);
  expect(cycles.map((c) => c.returns)).toEqual([false, true, false, false]);
});

test('the mask and the home of a loop come before it', () => {
  const s = scene();
  const [blend, mask, home] = ['blend', 'flat-shape', 'noise'].map((kind) => s.add(kind));
  s.wire(blend, s.out);
  const wire = s.wire(blend, blend, 'over');
  Object.assign(s.scene.wires[wire].back!, { clearWhere: mask, startsFrom: home });
  const ids = cyclesOf(buildPlan(s.scene, catalogue, [s.out])).map((c) => c.nodes[0].id);
  expect(ids.indexOf(mask)).toBeLessThan(ids.indexOf(blend));
  expect(ids.indexOf(home)).toBeLessThan(ids.indexOf(blend));
});

test('in random patches each node stands in one cycle, after all it reads from outside', () => {
  for (let seed = 0; seed < 40; seed++) {
    const s = scene();
    const nodes = Array.from({ length: 12 }, (_, k) => s.add(k % 4 ? 'blend' : 'noise'));
    const pick = (k: number): number => Math.floor(randomAt(k, seed) * nodes.length);
    for (let k = 0; k < 26; k++) {
      const to = nodes[pick(2 * k)];
      if (s.scene.nodes[to].kind === 'blend') s.wire(nodes[pick(2 * k + 1)], to, k % 2 ? 'over' : 'picture');
    }
    s.wire(nodes[11], s.out);
    const plan = buildPlan(s.scene, catalogue, [s.out]);
    const cycles = cyclesOf(plan);
    const seen = new Map<string, number>();
    cycles.forEach((cycle, k) => cycle.nodes.forEach((node) => seen.set(node.id, k)));
    expect(seen.size).toBe(cycles.reduce((sum, cycle) => sum + cycle.nodes.length, 0));
    expect(seen.size).toBe(plan.order.length);
    cycles.forEach((cycle, k) => {
      for (const node of cycle.nodes)
        for (const source of Object.values(node.inputs).flat())
          expect(seen.get(source.node)!).toBeLessThanOrEqual(k);
    });
  }
});
