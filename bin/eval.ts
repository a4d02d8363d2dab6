import type { Prop } from '../src/core/kind/prop';
import { SceneRun } from '../src/core/run/scene-run';
import type { NodeRun } from '../src/core/run/node-run';
import type { Scene, Show } from '../src/core/document/types';
import { momentAt } from '../src/core/time/clock';
import { oneStep } from '../src/core/time/feedback-steps';
import { LiveInputs } from '../src/engine/playback/live-inputs';
import { ShowApart } from '../src/core/module/take-apart';
import { catalogue } from '../src/nodes/catalogue';
import { readFps, readFrames, UsageError, type Options } from './arguments';
import { figure, quoted } from './csv';
import { findAll } from './find';

/** Numbers of a node in rows: samples of a signal, points of a shape, places of copies. */
interface Table {
  columns: string[];
  count: number;
  row(i: number): number[];
}

/** Where copies stand, how they are turned (degrees) and sized, of the outermost level. */
function copiesTable(prop: Prop, name: string): Table | null {
  if (prop.type !== 'instances') return null;
  if (prop.pixels)
    throw new UsageError(
      `${name} takes its copies from the pixels of an image. Draw that image to read them.`,
    );
  const at = (lane: ArrayLike<number>, i: number): number => lane[lane.length > 1 ? i % lane.length : 0] ?? 0;
  const degrees = 180 / Math.PI;
  const on = prop.on?.count ? prop.on : null;
  return {
    columns: ['x', 'y', 'z', 'turn_x', 'turn_y', 'turn_z', 'size_x', 'size_y', 'size_z'],
    count: prop.count,
    row: (i) => {
      // Copies on a shape stand at its points, which are handed out evenly.
      const point = on ? Math.min(on.count - 1, Math.floor((i * on.count) / prop.count)) : 0;
      return [
        ...prop.place.map((lane, k) => at(lane, i) + (on ? on.positions[3 * point + k] : 0)),
        ...prop.turn.map((lane) => at(lane, i) * degrees),
        ...prop.size.map((lane) => at(lane, i) * at(prop.scale, i)),
      ];
    },
  };
}

function tableOf(run: NodeRun | undefined, name: string): Table {
  const signal = run?.given;
  if (signal)
    return {
      columns: signal.lanes.map((lane) => lane.name),
      count: signal.length,
      row: (i) => signal.lanes.map((lane) => lane.samples[i]),
    };
  const shape = run?.shape;
  if (shape)
    return {
      columns: ['x', 'y', 'z'],
      count: shape.count,
      row: (i) => [...shape.positions.subarray(3 * i, 3 * i + 3)],
    };
  const copies = run?.prop ? copiesTable(run.prop, name) : null;
  if (copies) return copies;
  throw new UsageError(
    `${name} is no signal, no shape, no copies and no field. eval prints those; render draws images.`,
  );
}

/**
 * Numbers of nodes as CSV, `frame,sample,<column>,…`, a line a sample, with the scene and node before them where several are
 * asked for. Runs from frame 0, so that what has memory stands as it would on stage; what hears the sound hears the loop that
 * is built in. `say` is told what cannot be heard.
 */
export function* evalLines(
  written: Show,
  options: Options,
  say: (line: string) => void = () => undefined,
): Generator<string> {
  // What lies in modules can be asked for as well: `Ripple › Noise`.
  const show = new ShowApart(catalogue).of(written);
  const wanted = findAll(show, options.all('scene'), options.all('node'));
  if (wanted.some(({ nodes }) => nodes.length === 0)) findAll(show, options.all('scene'), ['']);
  const frames = readFrames(options.get('frames') ?? '0');
  const fps = readFps(options.get('fps') ?? String(show.canvas.fps));
  const several = wanted.length * options.all('node').length > 1;
  let head = '';
  for (const { scene, nodes } of wanted) {
    const run = new SceneRun(catalogue);
    run.update(
      scene,
      nodes.map(({ id }) => id),
    );
    if (run.hears && show.inputs.sound.from !== 'loop')
      say('eval cannot decode sound files and hears no devices: these nodes hear silence.');
    for (const step of runTo(run, show, scene, fps, frames.at(-1)!)) {
      if (!frames.includes(step)) continue;
      for (const node of nodes) {
        const fault = run.faults().get(node.id);
        if (fault) throw new UsageError(`${node.name}: ${fault}`);
        const table = tableOf(run.runs.get(node.id), node.name);
        const line = [...(several ? ['scene', 'node'] : []), 'frame', 'sample', ...table.columns].join(',');
        if (line !== head) yield (head = line);
        const before = several ? [quoted(scene.name), quoted(node.name)] : [];
        for (let i = 0; i < table.count; i++)
          yield [...before, step, i, ...table.row(i).map(figure)].join(',');
      }
    }
  }
}

function* runTo(run: SceneRun, show: Show, scene: Scene, fps: number, last: number): Generator<number> {
  const inputs = new LiveInputs();
  inputs.setShow(show.inputs);
  for (let frame = 0; frame <= last; frame++) {
    const moment = momentAt(frame / fps, frame === 0 ? 0 : 1 / fps, fps, show.tempo, undefined, scene.loop);
    run.run({ moment, live: inputs.at(moment.time, run.hears), canvas: show.canvas, feedback: oneStep });
    yield frame;
  }
}
