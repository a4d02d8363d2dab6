import type { Show } from '../document/types';
import { noBlend, plainColour } from '../wall/screens';
import { flatWarp } from '../wall/warp';
import { freeId, freeName } from './create';

/** Adds a screen that takes the whole canvas; gives its id. Changes the show it is given. */
export function addScreen(show: Show): string {
  const { outputs } = show.wall;
  const id = freeId(
    'o',
    outputs.map((output) => output.id),
  );
  const { width, height } = show.canvas;
  outputs.push({
    id,
    name: freeName(
      'Screen',
      outputs.map((output) => output.name),
    ),
    type: 'screen',
    part: { x: 0, y: 0, width, height, turn: 0 },
    quarterTurns: 0,
    mirrored: false,
    warp: flatWarp(),
    masks: [],
    blend: noBlend(),
    colour: plainColour(),
  });
  return id;
}
