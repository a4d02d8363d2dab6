import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { catalogue } from '../../nodes/catalogue';
import type { Scene } from '../document/types';
import { defaultReturn } from '../document/return-settings';
import { openCycles, wiresThatCloseNothing } from './cycles';
import { makeScene } from './create';
import { addNode } from './edit';

/** A scene of blends whose wires are put in by hand, as a file may hold them: [from, to], `back` of those that return. */
function sceneOf(
  count: number,
  wires: readonly (readonly [number, number])[],
  back: readonly number[] = [],
): Scene {
  const scene = makeScene(catalogue, 's', 'Cycles');
  for (const id of Object.keys(scene.nodes)) delete scene.nodes[id];
  const ids = Array.from({ length: count }, (_, k) => addNode(scene, catalogue, 'blend', [k, 0]));
  wires.forEach(([from, to], k) => {
    scene.wires[`w${k}`] = {
      id: `w${k}`,
      from: { node: ids[from] },
      to: { node: ids[to], port: 'picture' },
      ...(back.includes(k) ? { back: defaultReturn() } : {}),
    } as Scene['wires'][string];
  });
  return scene;
}

/** Whether any node can be reached from itself without a return wire: by taking away what nothing enters, again and again. */
function hasCycle(scene: Scene): boolean {
  const wires = Object.values(scene.wires).filter((wire) => !wire.back);
  const left = new Set(Object.keys(scene.nodes));
  for (;;) {
    const free = [...left].filter(
      (id) => !wires.some(({ from, to }) => to.node === id && left.has(from.node)),
    );
    if (!free.length) return left.size > 0;
    for (const id of free) left.delete(id);
  }
}

describe('cycles in a file', () => {
  test('that no return wire opens are opened by one, at the wire that leads back to the oldest node', () => {
    const scene = sceneOf(3, [
      [0, 1],
      [1, 2],
      [2, 0],
    ]);
    expect(hasCycle(scene)).toBe(true);
    expect(openCycles(scene).map(({ id }) => id)).toEqual(['w2']);
    expect(hasCycle(scene)).toBe(false);
  });

  test('that are open stay as they are', () => {
    const scene = sceneOf(
      2,
      [
        [0, 1],
        [1, 0],
      ],
      [1],
    );
    const before = structuredClone(scene);
    expect(openCycles(scene)).toEqual([]);
    expect(scene).toEqual(before);
  });

  test('of a node with itself are opened as well', () => {
    const scene = sceneOf(1, [[0, 0]]);
    expect(openCycles(scene)).toHaveLength(1);
  });

  test('do not arise from wires between separate parts', () => {
    expect(
      openCycles(
        sceneOf(4, [
          [0, 1],
          [0, 2],
          [1, 3],
          [2, 3],
        ]),
      ),
    ).toEqual([]);
  });

  const anyScene = fc
    .record({
      count: fc.integer({ min: 1, max: 9 }),
      pairs: fc.array(fc.tuple(fc.nat(), fc.nat()), { maxLength: 24 }),
      back: fc.array(fc.nat({ max: 23 }), { maxLength: 6 }),
    })
    .map(({ count, pairs, back }) =>
      sceneOf(
        count,
        pairs.map(([a, b]) => [a % count, b % count] as const),
        back,
      ),
    );

  test('are gone afterwards, whatever the wires, and only wires on a cycle were touched', () => {
    fc.assert(
      fc.property(anyScene, (scene) => {
        const plain = Object.values(scene.wires).filter((wire) => !wire.back).length;
        const had = hasCycle(scene);
        const opened = openCycles(scene);
        expect(hasCycle(scene)).toBe(false);
        expect(opened.length > 0).toBe(had);
        expect(Object.values(scene.wires).filter((wire) => !wire.back)).toHaveLength(plain - opened.length);
        // A wire that was opened closes something, or opening it was for nothing.
        const useless = new Set(wiresThatCloseNothing(scene).map(({ id }) => id));
        for (const { id } of opened) expect(useless.has(id)).toBe(false);
      }),
    );
  });

  test('a second look finds nothing more', () => {
    fc.assert(
      fc.property(anyScene, (scene) => {
        openCycles(scene);
        expect(openCycles(scene)).toEqual([]);
      }),
    );
  });

  test('return wires that close nothing are found, those that close something are not', () => {
    const scene = sceneOf(
      4,
      [
        [0, 1],
        [1, 0],
        [2, 3],
      ],
      [1, 2],
    );
    expect(wiresThatCloseNothing(scene).map(({ id }) => id)).toEqual(['w2']);
    expect(wiresThatCloseNothing(sceneOf(2, [[0, 1]]))).toEqual([]);
  });

  test('of 20,000 nodes in one ring are opened at once', () => {
    const count = 20000;
    const scene = makeScene(catalogue, 's', 'Ring');
    const template = addNode(scene, catalogue, 'blend', [0, 0]);
    const node = scene.nodes[template];
    scene.nodes = {};
    for (let k = 0; k < count; k++) scene.nodes[`n${k}`] = { ...node, id: `n${k}` };
    for (let k = 0; k < count; k++)
      scene.wires[`w${k}`] = {
        id: `w${k}`,
        from: { node: `n${k}` },
        to: { node: `n${(k + 1) % count}`, port: 'picture' },
      } as Scene['wires'][string];
    expect(openCycles(scene).map(({ id }) => id)).toEqual([`w${count - 1}`]);
  });
});
