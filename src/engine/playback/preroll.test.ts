import { describe, expect, test } from '@jest/globals';
import { makeScene, makeShow } from '../../core/show/create';
import { idleInputs } from '../../core/inputs/inputs';
import { oneStep } from '../../core/time/feedback-steps';
import { catalogue } from '../../nodes/catalogue';
import { prerollFrames } from './preroll';
import type { ScenePlayer } from './scene-player';

const show = { ...makeShow(catalogue, 'Night'), scenes: [makeScene(catalogue, 's', 'S')] };
const { fps } = show.canvas;

/** A player that notes the frames it runs and those it draws. */
function playerOf(remembers: boolean, returns: number) {
  const frames: { frame: number; drawn: boolean }[] = [];
  const pictures = new Set(Array.from({ length: returns }, (_, k) => `n${k}`));
  const player: Pick<ScenePlayer, 'historyOf' | 'playOnTheWay'> = {
    historyOf: () => ({ numbers: remembers, pictures }),
    playOnTheWay(_scene, { moment }, _watched, _height, history) {
      const drawn = history.pictures.size > 0;
      frames.push({ frame: Math.round(moment.time * fps), drawn });
      return drawn;
    },
  };
  return { frames, player: player as unknown as ScenePlayer };
}

/** Runs all of the way, in as many turns as it takes. */
function runAll(player: ScenePlayer, last: number): number {
  const way = { first: 0, next: 0, last };
  let drawn = 0;
  while (way.next <= way.last)
    if (
      prerollFrames(way, show, new Map([['s', player]]), (moment) => ({
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

  test('leaves out what has no memory', () => {
    const { frames, player } = playerOf(false, 1);
    runAll(player, 30);
    expect(frames).toEqual([]);
  });
});
