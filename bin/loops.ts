import { loopReport } from '../src/core/show/loop-report';
import type { Show } from '../src/core/document/types';
import { ShowApart } from '../src/core/module/take-apart';
import { catalogue } from '../src/nodes/catalogue';
import type { Options } from './arguments';
import { findScene } from './find';

const figure = (value: number): string => String(Number(value.toPrecision(6)));

/** A line for each scene: how long its loop is and after how long all that turns is back; then what does not fit. */
export function* loopLines(written: Show, options: Options): Generator<string> {
  const show = new ShowApart(catalogue).of(written);
  const wanted = options.all('scene');
  const scenes = wanted.length ? wanted.map((name) => findScene(show, name)) : show.scenes;
  for (const scene of scenes) {
    const { seconds, paces, joint } = loopReport(scene, catalogue, show.tempo, show.canvas.fps);
    const again = joint === null ? 'nothing turns' : `all together after ${figure(joint)} s`;
    const locked = scene.loop.lock ? ', locked' : '';
    yield `${scene.name}: loop of ${figure(scene.loop.length)} ${scene.loop.unit} (${figure(seconds)} s${locked}); ${again}`;
    for (const { node, part, motion, value, unit, cycles, nearest } of paces) {
      if (nearest === null) continue;
      const what = motion === null ? part : `motion ${motion + 1} on ${part}`;
      yield `  ${scene.nodes[node].name}, ${what}: ${figure(value)} (${unit}) makes ${figure(cycles)} cycles; ${figure(nearest)} fits`;
    }
  }
}
