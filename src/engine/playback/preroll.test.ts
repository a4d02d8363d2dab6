import { describe, expect, test } from '@jest/globals';
import { makeScene, makeShow } from '../../core/show/create';
import { idleInputs } from '../../core/inputs/inputs';
import { oneStep } from '../../core/time/feedback-steps';
import { catalogue } from '../../nodes/catalogue';
import { prerollFrames, strideAt } from './preroll';
import type { ScenePlayer } from './scene-player';
import type { Preroll } from './transport';

const show = { ...makeShow(catalogue, 'Night'), scenes: [makeScene(catalogue, 's', 'S')] };
const { fps } = show.canvas;

/** A player that notes the frames it runs and those it draws. `unmade`: turns until its pictures can be drawn. */
function playerOf(remembers: boolean, returns: number, numbersAlone = remembers, unmade = 0) {
  const frames: { frame: number; dt: number; drawn: boolean }[] = [];
  const pictures = new Set(Array.from({ length: returns }, (_, k) => `n${k}`));
  const player = {
    historyOf: () => ({ numbers: remembers, numbersAlone, pictures }),
    renderer: { areDrawn: () => unmade-- <= 0 },
    playOnTheWay(...[, { moment }, , , history]: Parameters<ScenePlayer['playOnTheWay']>) {
      const drawn = history.pictures.size > 0;
      frames.push({ frame: Math.round(moment.time * fps), dt: moment.dt, drawn });
      return drawn;
    },
  };
  return { frames, player: player as unknown as ScenePlayer };
}

/** Runs all of the way, in as many turns as it takes. */
function runAll(
  player: ScenePlayer,
  last: number,
  stride = 1,
  way: Preroll = { first: 0, next: 0, last },
): number {
  let drawn = 0;
  while (way.next <= way.last)
    if (
      prerollFrames(way, show, new Map([['s', player]]), stride, (moment) => ({
        moment,
        live: idleInputs(),
        canvas: { width: 16, height: 9 },
        feedback: oneStep,
      }))
    )
      drawn++;
  return drawn;
}

describe('a preroll', () => {
  test('runs every frame of what has a memory, in order, and draws nothing', () => {
    const { frames, player } = playerOf(true, 0);
    expect(runAll(player, 150)).toBe(0);
    expect(frames.map(({ frame }) => frame)).toEqual(Array.from({ length: 151 }, (_, k) => k));
    expect(frames.some(({ drawn }) => drawn)).toBe(false);
  });

  test('draws image feedback for the last second, a frame at a time', () => {
    const { frames, player } = playerOf(true, 1);
    expect(runAll(player, 2 * fps)).toBe(fps);
    expect(frames.filter(({ drawn }) => drawn).map(({ frame }) => frame)[0]).toBe(fps + 1);
  });

  test('of image feedback alone is that second', () => {
    const { frames, player } = playerOf(true, 1, false);
    expect(runAll(player, 2 * fps)).toBe(fps);
    expect(frames.map(({ frame }) => frame)).toEqual(Array.from({ length: fps }, (_, k) => fps + 1 + k));
    const short = playerOf(true, 1, false);
    runAll(short.player, 5);
    expect(short.frames.map(({ frame }) => frame)).toEqual([0, 1, 2, 3, 4, 5]);
  });

  test('of who joins late takes longer steps where frames are dear, and ends at the same one', () => {
    const { frames, player } = playerOf(true, 1);
    expect(runAll(player, 2 * fps, 7)).toBe(Math.ceil(fps / 7));
    const drawn = frames.filter((one) => one.drawn);
    expect(drawn.at(-1)!.frame).toBe(2 * fps);
    expect(drawn.reduce((sum, { dt }) => sum + dt, 0)).toBeCloseTo(1);
    // What has a memory in numbers only went on frame by frame up to there.
    expect(frames.length - drawn.length).toBe(fps + 1);
  });

  test('waits with time standing until there is something to draw pictures with', () => {
    const { frames, player } = playerOf(true, 1, true, 4);
    expect(runAll(player, 2 * fps)).toBe(4 + fps);
    const standing = frames.filter(({ drawn, dt }) => drawn && dt === 0);
    expect(standing.map(({ frame }) => frame)).toEqual([fps, fps, fps, fps]);
    expect(frames.filter(({ dt }) => dt > 0)).toHaveLength(2 * fps);
  });

  test('of what passed while it was run is that of numbers alone', () => {
    const late = { first: 0, next: 61, last: 180, isLate: true };
    const { frames, player } = playerOf(true, 1);
    expect(runAll(player, 180, 7, { ...late })).toBe(0);
    expect(frames.map(({ frame }) => frame)).toEqual(Array.from({ length: 120 }, (_, k) => 61 + k));
    const pictures = playerOf(true, 1, false);
    runAll(pictures.player, 180, 7, { ...late });
    expect(pictures.frames).toEqual([]);
  });

  test('takes steps as long as its frames take, and none longer than a tenth of a second', () => {
    expect([0, 10, 17, 50, 90, 2000].map((ms) => strideAt(ms, 60))).toEqual([1, 1, 1, 3, 5, 6]);
    expect([0, 50, 2000].map((ms) => strideAt(ms, 24))).toEqual([1, 1, 2]);
  });

  test('leaves out what has no memory', () => {
    const { frames, player } = playerOf(false, 1);
    runAll(player, 30);
    expect(frames).toEqual([]);
  });
});
