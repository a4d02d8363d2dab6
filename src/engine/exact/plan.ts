import type { ExportPlan } from '../../core/export/schedule';
import { checkSpec, ExportError, loopFrames, mostAnimated, type ExportSpec } from '../../core/export/spec';
import type { Scene, Show } from '../../core/document/types';
import type { Catalogue } from '../../core/kind/kind';
import { cyclesOf } from '../../core/patch/cycles';
import { picturesWithHistory } from '../../core/patch/history';
import { sceneOutOf } from '../../core/patch/plan';
import { SceneRun } from '../../core/run/scene-run';
import type { LiveInputs } from '../playback/live-inputs';
import { secondsOf } from './exact-program';
import { sceneOf } from './exact-scene';

/** A scene as it is planned for an export; null: it shows nothing. */
function planned(catalogue: Catalogue, scene: Scene, node: string | null): SceneRun | null {
  const out = node ?? sceneOutOf(scene, catalogue);
  if (out === null) return null;
  const run = new SceneRun(catalogue);
  run.update(scene, [out]);
  return run;
}

/**
 * Whether pieces may begin from checkpoints: pictures of earlier frames count, and no numbers are read from them, so that numbers can be worked
 * out without them.
 */
function takesCheckpoints(catalogue: Catalogue, show: Show, { source }: ExportSpec): boolean {
  if (source.type !== 'scene') return false;
  const run = planned(catalogue, sceneOf(show, source.scene), source.node);
  if (!run || run.plan.order.some(({ kind }) => kind.output === 'signal' && kind.pixels)) return false;
  return picturesWithHistory(run.plan, cyclesOf(run.plan)).size > 0;
}

function loopPlan(catalogue: Catalogue, show: Show, spec: ExportSpec, closed: boolean): ExportPlan {
  if (spec.source.type !== 'scene') throw new ExportError('Only a scene has a loop.');
  const scene = sceneOf(show, spec.source.scene);
  const frames = loopFrames(show, scene, spec.fps);
  const whole = Math.max(1, Math.round(frames));
  const remarks: string[] = [];
  if (Math.abs(frames - whole) > 1e-3)
    remarks.push(
      `One loop is ${Number(frames.toFixed(3))} frames long at ${spec.fps} frames a second, so it cannot meet exactly. ${whole} are written.`,
    );
  // Its first round then looks otherwise than the others.
  const isWarm = planned(catalogue, scene, spec.source.node)?.remembers ?? false;
  if (isWarm) remarks.push('This scene has a memory: its second round is written, when the memory is warm.');
  const first = isWarm ? whole : 0;
  return { first, count: whole + (closed ? 1 : 0), meets: first + whole, remarks };
}

/** Frames of an export. Throws ExportError where it cannot be made. */
export function planOf(catalogue: Catalogue, inputs: LiveInputs, show: Show, spec: ExportSpec): ExportPlan {
  checkSpec(show, spec);
  const { range, source, fps, format } = spec;
  let plan: ExportPlan;
  if (range.type === 'frames')
    plan = { first: range.first, count: range.last - range.first + 1, meets: null, remarks: [] };
  else if (source.type === 'scene')
    plan = loopPlan(catalogue, show, spec, range.type === 'loop' && range.closed);
  else {
    const seconds = secondsOf(catalogue, inputs, show, source);
    if (seconds === null)
      throw new ExportError(
        'This running order never ends: a cue goes back for ever. Export a range of frames.',
      );
    plan = { first: 0, count: Math.max(1, Math.round(seconds * fps)), meets: null, remarks: [] };
  }
  if (format.type === 'animation' && plan.count > mostAnimated)
    throw new ExportError(
      `A moving preview has ${mostAnimated} frames at most, and this one ${plan.count}. Export fewer frames a second, a range, or a video.`,
    );
  return { ...plan, checkpoints: takesCheckpoints(catalogue, show, spec) };
}
