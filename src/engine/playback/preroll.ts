import type { Frame } from '../../core/run/frame';
import type { Show } from '../../core/document/types';
import { momentAt, type Moment } from '../../core/time/clock';
import type { History, ScenePlayer } from './scene-player';
import type { Preroll } from './transport';

const numbersOnly: History = { numbers: true, pictures: new Set() };

/** Milliseconds of a frame given to the preroll after a jump. */
const budgetMs = 12;

/**
 * Runs memories up to the goal of a jump, for as long as one frame may take; the last picture stays. Pictures that
 * count later are drawn for the last second of the way only. Returns whether anything was drawn.
 */
export function prerollFrames(
  way: Preroll,
  show: Show,
  players: ReadonlyMap<string, ScenePlayer>,
  frameAt: (moment: Moment) => Frame,
): boolean {
  const { fps } = show.canvas;
  const start = performance.now();
  while (way.next <= way.last && performance.now() - start < budgetMs) {
    const frame = frameAt(momentAt(way.next / fps, way.next === 0 ? 0 : 1 / fps, fps, show.tempo));
    const isNear = way.last - way.next < fps;
    let isDrawn = false;
    for (const [id, player] of players) {
      const scene = show.scenes.find((other) => other.id === id);
      if (!scene) continue;
      const history = player.historyOf(scene, []);
      if (!history.numbers) continue;
      const drawn = player.playOnTheWay(scene, frame, [], show.canvas.height, isNear ? history : numbersOnly);
      isDrawn ||= drawn;
    }
    way.next++;
    // Work must not pile up on the GPU.
    if (isDrawn) return true;
  }
  return false;
}
