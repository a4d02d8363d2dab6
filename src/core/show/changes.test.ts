import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { produce } from 'immer';
import { catalogue } from '../../nodes/catalogue';
import { applyChanges, changesBetween } from './changes';
import { makeScene, makeShow } from './create';
import {
  addNode,
  connect,
  EditError,
  moveNode,
  removeNodes,
  renameNode,
  setControl,
  setFormula,
} from './edit';
import type { Scene, Show } from '../document/types';

const kinds = ['noise', 'blend', 'blur', 'oscillator', 'formula', 'instances', 'shot'];

/** One edit, chosen by three numbers 0..1. */
function edit(scene: Scene, [what, first, second]: readonly number[]): void {
  const ids = Object.keys(scene.nodes);
  const at = (share: number): string => ids[Math.min(ids.length - 1, Math.floor(share * ids.length))];
  const [a, b] = [at(first), at(second)];
  switch (Math.floor(what * 7)) {
    case 0:
    case 1:
      addNode(scene, catalogue, kinds[Math.floor(first * kinds.length)], [first * 900, second * 900]);
      break;
    case 2: {
      const ports = Object.keys(catalogue.get(scene.nodes[b].kind)!.inputs);
      if (ports.length) connect(scene, catalogue, a, b, ports[Math.floor(first * ports.length)]);
      break;
    }
    case 3:
      removeNodes(scene, catalogue, [a]);
      break;
    case 4:
      renameNode(scene, a, `Name ${Math.round(second * 5)}`);
      break;
    case 5:
      moveNode(scene, a, [second, first]);
      setControl(scene, a, 'amount', second);
      break;
    default:
      setFormula(scene, a, 'amount', second > 0.5 ? `sin(time) * ${second}` : null);
  }
}

const share = fc.double({ min: 0, max: 0.9999, noNaN: true });

test('what the engine makes of the changes is the show that was edited, whatever the edits were', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(3), share, share, share), { maxLength: 40 }), (edits) => {
      const start: Show = produce(makeShow(catalogue, 'Start'), (draft) => {
        draft.scenes.push(makeScene(catalogue, 's2', 'Second'));
      });
      let now = start;
      let engine = start;
      for (const [place, ...numbers] of edits) {
        const before = now;
        now = produce(now, (draft) => {
          if (place === 3) {
            draft.tempo.bpm = 60 + Math.round(numbers[0] * 100);
            if (numbers[1] > 0.7) draft.scenes.reverse();
            else if (numbers[1] > 0.5)
              draft.scenes.push(makeScene(catalogue, `s${draft.scenes.length + 7}`, 'More'));
            return;
          }
          const scene = draft.scenes[Math.min(place, draft.scenes.length - 1)] as Scene;
          try {
            edit(scene, numbers);
          } catch (error) {
            if (!(error instanceof EditError)) throw error;
          }
        });
        engine = applyChanges(engine, JSON.parse(JSON.stringify(changesBetween(before, now))));
      }
      expect(engine).toEqual(now);
      // The same from the start in one go, as the journal keeps it.
      expect(applyChanges(start, changesBetween(start, now))).toEqual(now);
    }),
    { seed: 11, numRuns: 120 },
  );
});

test('nothing changed is no change; what is untouched keeps its identity', () => {
  const show = makeShow(catalogue, 'Same');
  expect(changesBetween(show, show)).toEqual([]);
  const next = produce(show, (draft) => void (draft.scenes[0].name = 'Other'));
  const applied = applyChanges(show, changesBetween(show, next));
  expect(applied.scenes[0].nodes).toBe(show.scenes[0].nodes);
});
