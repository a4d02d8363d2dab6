import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { produce, type Draft } from 'immer';
import { catalogue } from '../../nodes/catalogue';
import type { Show } from '../document/types';
import { rebased } from './rebase';
import { checkShow } from './validate';

const demo = JSON.parse(
  readFileSync(path.resolve(import.meta.dirname, '../../../demo/night-apiary.pyrvel.json'), 'utf8'),
) as Show;
const start: Show = { ...demo, scenes: demo.scenes.slice(0, 3), moves: [], cues: demo.cues.slice(0, 4) };
const edit = (show: Show, how: (draft: Draft<Show>) => void): Show => produce(show, how);

/** Edits of one scene. */
const editOf = (scene: number): fc.Arbitrary<(draft: Draft<Show>) => void> =>
  fc
    .tuple(fc.nat({ max: 3 }), fc.nat(), fc.integer({ min: -500, max: 500 }))
    .map(([what, k, value]) => (draft) => {
      const { nodes, wires } = draft.scenes[scene];
      const ids = Object.keys(nodes).filter((id) => nodes[id].kind !== 'scene-out');
      const id = ids[k % ids.length];
      if (what === 0 && id) nodes[id].place = [value, value];
      if (what === 1) delete wires[Object.keys(wires)[k % Object.keys(wires).length]];
      if (what === 2) nodes[`x${value + 500}`] = { ...nodes[id ?? Object.keys(nodes)[0]] };
      if (what === 3) draft.scenes[scene].name = `Name ${value}`;
    });

describe('undo beside somebody else', () => {
  it('takes back the own edit and leaves theirs, whatever they are, in other scenes', () => {
    fc.assert(
      fc.property(
        fc.array(editOf(0), { minLength: 1, maxLength: 5 }),
        fc.array(editOf(1), { minLength: 1, maxLength: 5 }),
        (mine, theirs) => {
          const own = mine.reduce(edit, start);
          const both = theirs.reduce(edit, own);
          // Back from `both`: what stood before the own edits, with theirs done to it.
          const undone = rebased(start, own, both);
          expect(undone).toEqual(theirs.reduce(edit, start));
          // And forth again.
          expect(rebased(own, own, both)).toBe(both);
        },
      ),
      { seed: 3, numRuns: 60 },
    );
  });

  it('keeps what is theirs in the same scene, and never leaves a wire to nothing', () => {
    const { wires } = start.scenes[0];
    const [, wire] = Object.entries(wires)[0];
    const own = edit(start, (draft) => {
      draft.scenes[0].name = 'Mine';
      delete draft.scenes[0].wires[Object.keys(wires)[0]];
    });
    const both = edit(own, (draft) => {
      const scene = draft.scenes[0];
      delete scene.nodes[wire.from.node];
      for (const [id, { from, to }] of Object.entries(scene.wires))
        if (from.node === wire.from.node || to.node === wire.from.node) delete scene.wires[id];
      scene.loop = { ...scene.loop, length: 77 };
    });
    const undone = rebased(start, own, both);
    expect(undone.scenes[0].name).toBe(start.scenes[0].name);
    expect(undone.scenes[0].loop.length).toBe(77);
    expect(undone.scenes[0].nodes[wire.from.node]).toBeUndefined();
    expect(checkShow(undone, catalogue).filter(({ level }) => level === 'error')).toEqual([]);
  });

  it('leaves out what they changed of a thing that was not there yet', () => {
    const own = edit(
      start,
      (draft) => void (draft.scenes[0].nodes.mine = { ...Object.values(draft.scenes[0].nodes)[0] }),
    );
    const both = edit(own, (draft) => void (draft.scenes[0].nodes.mine.place = [9, 9]));
    expect(rebased(start, own, both)).toEqual(start);
  });

  it('keeps lists of things in the order that they gave them, and what is new in its place', () => {
    const own = edit(start, (draft) => void draft.cues.splice(1, 1));
    const both = edit(own, (draft) => {
      draft.cues.reverse();
      draft.cues.splice(1, 0, { ...draft.cues[0], id: 'theirs' });
    });
    const [a, b, c, d] = start.cues.map(({ id }) => id);
    expect(both.cues.map(({ id }) => id)).toEqual([d, 'theirs', c, a]);
    expect(rebased(start, own, both).cues.map(({ id }) => id)).toEqual([d, 'theirs', c, a, b]);
  });
});
