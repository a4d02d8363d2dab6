import { describe, expect, test } from '@jest/globals';
import { buildPlan, sceneOutOf } from '../core/patch/plan';
import { idleInputs } from '../core/inputs/inputs';
import { SceneRun } from '../core/run/scene-run';
import { makeShow } from '../core/show/create';
import { checkShow } from '../core/show/validate';
import { momentAt } from '../core/time/clock';
import { oneStep } from '../core/time/feedback-steps';
import { catalogue } from './catalogue';
import { exampleOf } from './examples';

describe.each([...catalogue.values()].map((kind) => [kind.label, kind] as const))(
  'the example of %s',
  (_label, kind) => {
    test('holds the kind where it is seen, is sound, and runs', () => {
      const scene = exampleOf(kind);
      const show = { ...makeShow(catalogue, 'Examples'), scenes: [scene] };
      expect(checkShow(show, catalogue)).toEqual([]);
      const out = sceneOutOf(scene, catalogue)!;
      const plan = buildPlan(scene, catalogue, [out]);
      // Plans go through relays: what counts is that the picture comes by one.
      const seen = kind.handsOn ? Object.keys(scene.nodes) : plan.order.map(({ id }) => id);
      expect(seen.some((id) => scene.nodes[id].kind === kind.id)).toBe(true);
      const run = new SceneRun(catalogue);
      run.update(scene, [out]);
      for (let k = 0; k < 3; k++)
        run.run({
          moment: momentAt(k / 60, k ? 1 / 60 : 0, 60, { bpm: 120, beatsPerBar: 4 }),
          live: idleInputs(),
          canvas: { width: 160, height: 90 },
          feedback: oneStep,
        });
      expect([...run.faults()]).toEqual([]);
    });
  },
);
