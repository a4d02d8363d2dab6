import { quietInputs } from '../src/core/run/inputs';
import { SceneRun } from '../src/core/run/scene-run';
import type { Show } from '../src/core/show/types';
import { momentAt } from '../src/core/time/clock';
import { oneStep } from '../src/core/time/loop-steps';
import { catalogue } from '../src/nodes/catalogue';
import { readFrames, UsageError } from './arguments';
import { findNode, findScene } from './find';

const figure = (value: number): string => String(Number(value.toPrecision(7)));

/**
 * The samples of a signal or the points of a shape as CSV, `frame,sample,<lane>,…`, a line a sample. Runs from frame 0,
 * so that what has memory stands as it would on stage.
 */
export function* evalLines(show: Show, options: ReadonlyMap<string, string>): Generator<string> {
  const scene = findScene(show, options.get('scene'));
  const node = findNode(scene, options.get('node'));
  const { first, last } = readFrames(options.get('frames') ?? '0');
  const fps = Number(options.get('fps') ?? show.canvas.fps);
  if (!(fps > 0)) throw new UsageError(`--fps takes a number above 0, not ${options.get('fps')}.`);
  const run = new SceneRun(catalogue);
  run.update(scene, [node.id]);
  let head = '';
  for (let frame = 0; frame <= last; frame++) {
    const moment = momentAt(frame / fps, frame === 0 ? 0 : 1 / fps, fps, show.tempo, undefined, scene.loop);
    run.run({ moment, live: quietInputs(), canvas: show.canvas, loop: oneStep });
    const fault = run.faults().get(node.id);
    if (fault) throw new UsageError(`${node.name}: ${fault}`);
    if (frame < first) continue;
    const state = run.runs.get(node.id);
    const names = state?.given ? state.given.lanes.map((lane) => lane.name) : ['x', 'y', 'z'];
    const count = state?.given?.length ?? state?.shape?.count;
    if (!state || count === undefined)
      throw new UsageError(
        `${node.name} is no signal and no shape. eval prints those; render draws the others.`,
      );
    const line = ['frame', 'sample', ...names].join(',');
    if (line !== head) yield (head = line);
    for (let i = 0; i < count; i++) {
      const values = state.given
        ? state.given.lanes.map((lane) => lane.samples[i])
        : [...state.shape!.positions.subarray(3 * i, 3 * i + 3)];
      yield [frame, i, ...values.map(figure)].join(',');
    }
  }
}
