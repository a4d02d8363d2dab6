import { expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { idleInputs } from '../inputs/inputs';
import { inside } from '../module/place';
import { catalogueWith } from '../module/show-catalogue';
import { takeSceneApart } from '../module/take-apart';
import { makeShow } from '../show/create';
import { addNode, setControl, setDraft } from '../show/edit';
import { bringOut } from '../show/edit-module';
import { makeModule } from '../show/make-module';
import { checkShow } from '../show/validate';
import { momentAt } from '../time/clock';
import { oneStep } from '../time/feedback-steps';
import { SceneRun } from './scene-run';

const frame = (k: number) => ({
  moment: momentAt(k / 60, 1 / 60, 60, { bpm: 120, beatsPerBar: 4 }),
  live: idleInputs(),
  canvas: { width: 16, height: 9 },
  feedback: oneStep,
});

test('values for work count only where they are asked for, and make no new plan', () => {
  const show = makeShow(catalogue, 'Drafts');
  const [scene] = show.scenes;
  const ball = addNode(scene, catalogue, 'ball', [0, 0]);
  setControl(scene, ball, 'rings', 60);
  setDraft(scene, ball, 'rings', 6);
  expect(checkShow(show, catalogue).filter(({ level }) => level === 'error')).toEqual([]);
  const run = new SceneRun(catalogue);
  run.update(scene, [ball]);
  run.run(frame(0));
  const count = (): number => run.runs.get(ball)!.shape!.count;
  const full = count();
  const version = run.planVersion;
  run.useDrafts(true);
  run.run(frame(1));
  expect(count()).toBeLessThan(full / 5);
  run.useDrafts(false);
  run.run(frame(2));
  expect(count()).toBe(full);
  expect(run.planVersion).toBe(version);
  setDraft(scene, ball, 'rings', null);
  expect(scene.nodes[ball].draft).toBeUndefined();
});

test('those of a module reach what its controls set', () => {
  const show = makeShow(catalogue, 'Drafts');
  const [scene] = show.scenes;
  const ball = addNode(scene, catalogue, 'ball', [0, 0]);
  const made = makeModule(show, catalogue, scene, [ball], 'Globe');
  const control = bringOut(show.modules.globe, catalogue, ball, 'rings');
  control.range = [0, 1];
  control.targets[0].to = [0, 100];
  setDraft(scene, made, 'rings', 0.1);
  const known = catalogueWith(catalogue, show.modules);
  const flat = takeSceneApart(scene, show.modules, known);
  expect(flat.nodes[inside(made, ball)].draft).toEqual({ rings: 10 });
});
