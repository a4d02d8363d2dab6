import type { Frame } from '../../core/run/frame';
import type { Scene, Show } from '../../core/document/types';
import { longestStepSeconds, momentAt, type Moment } from '../../core/time/clock';
import type { History, ScenePlayer } from './scene-player';
import type { Preroll } from './transport';

const numbersOnly = { pictures: new Set<string>() };

/** Milliseconds of a frame given to the preroll after a jump. */
const budgetMs = 12;

/** Milliseconds for which pictures that were never drawn are waited for: their shaders are being made. */
const longestWaitMs = 10000;

interface Remembering {
  player: ScenePlayer;
  scene: Scene;
  history: History;
}

/**
 * Frames of a show that one which takes `costMs` to draw stands for, so that a second of the way takes about a second: as a performance
 * that is slow goes on, too.
 */
export const strideAt = (costMs: number, fps: number): number =>
  Math.max(1, Math.min(Math.round((costMs * fps) / 1000), Math.floor(longestStepSeconds * fps)));

/** Whether pictures that count later can be drawn; where not, it is seen to that they will be. */
function canDraw(
  way: Preroll,
  show: Show,
  memories: readonly Remembering[],
  frameAt: (moment: Moment) => Frame,
): boolean {
  const drawing = memories.filter(({ history }) => history.pictures.size > 0);
  way.waitsSince ??= performance.now();
  if (performance.now() - way.waitsSince > longestWaitMs) return true;
  if (drawing.every(({ player, history }) => player.renderer.areDrawn(history.pictures))) return true;
  // Time stands, so that nothing is remembered twice.
  const frame = frameAt(
    momentAt(Math.max(0, way.next - 1) / show.canvas.fps, 0, show.canvas.fps, show.tempo),
  );
  for (const { player, scene, history } of drawing)
    player.playOnTheWay(scene, frame, [], show.canvas.height, history);
  return false;
}

/**
 * Runs memories up to the goal of a jump, for as long as one frame may take; the last picture stays. Pictures that
 * count later are drawn for the last second of the way only, which is all of it where no number counts by itself. `stride`: frames of
 * the show that each of those stands for. Returns whether anything was drawn.
 */
export function prerollFrames(
  way: Preroll,
  show: Show,
  players: ReadonlyMap<string, ScenePlayer>,
  stride: number,
  frameAt: (moment: Moment) => Frame,
): boolean {
  const { fps } = show.canvas;
  const start = performance.now();
  const memories = [...players].flatMap(([id, player]): Remembering[] => {
    const scene = show.scenes.find((other) => other.id === id);
    if (!scene) return [];
    const history = player.historyOf(scene, []);
    return history.numbers ? [{ player, scene, history }] : [];
  });
  if (!memories.some(({ history }) => history.numbersAlone))
    way.next =
      memories.length === 0 || way.isLate ? way.last + 1 : Math.max(way.next, Math.floor(way.last - fps) + 1);
  while (way.next <= way.last && performance.now() - start < budgetMs) {
    const isNear = !way.isLate && way.last - way.next < fps;
    if (isNear && !canDraw(way, show, memories, frameAt)) return true;
    const count = isNear ? Math.min(stride, way.last - way.next + 1) : 1;
    const at = way.next + count - 1;
    const frame = frameAt(momentAt(at / fps, at === 0 ? 0 : count / fps, fps, show.tempo));
    let isDrawn = false;
    for (const { player, scene, history } of memories) {
      const drawn = player.playOnTheWay(scene, frame, [], show.canvas.height, isNear ? history : numbersOnly);
      isDrawn ||= drawn;
    }
    way.next += count;
    // Work must not pile up on the GPU.
    if (isDrawn) return true;
  }
  return false;
}
