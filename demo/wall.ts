import type { LedWall, PixelString, RoomPlace, ScreenOutput, Wall } from '../src/core/document/types';
import { tilesFromOutlines } from '../src/core/wall/led';
import type { DrawnOutline } from '../src/core/wall/outlines';
import { noBlend, plainColour } from '../src/core/wall/screens';
import { flatWarp } from '../src/core/wall/warp';

const screen = (
  id: string,
  name: string,
  part: ScreenOutput['part'],
  change: Partial<ScreenOutput> = {},
): ScreenOutput => ({
  id,
  name,
  type: 'screen',
  part,
  quarterTurns: 0,
  mirrored: false,
  warp: flatWarp(),
  masks: [],
  blend: noBlend(),
  colour: plainColour(),
  room: null,
  ...change,
});

/** Where the light of the evening hangs in the glasshouse, metres and degrees. */
const hung = (at: RoomPlace['at'], turn: RoomPlace['turn'], width: number): RoomPlace => ({
  at,
  turn,
  width,
});

/** Rings of cells around the middle one of the comb. */
const rings = 5;

/** The outlines of a comb of 91 cells that stand on a corner, in rows from the top. */
function combOutlines(): DrawnOutline[] {
  const outlines: DrawnOutline[] = [];
  for (let row = -rings; row <= rings; row++)
    for (let k = Math.max(-rings, -rings - row); k <= Math.min(rings, rings - row); k++) {
      const [x, y] = [Math.sqrt(3) * (k + row / 2), 1.5 * row];
      outlines.push({
        closed: true,
        points: Array.from({ length: 6 }, (_, corner): [number, number] => {
          const angleRad = ((60 * corner - 90) * Math.PI) / 180;
          return [x + 0.97 * Math.cos(angleRad), y + 0.97 * Math.sin(angleRad)];
        }),
      });
    }
  return outlines;
}

const comb: LedWall = {
  id: 'o4',
  name: 'Comb',
  type: 'led',
  place: { x: 575, y: 176 },
  pixelSize: 1,
  pitch: 3.9,
  ...tilesFromOutlines(combOutlines(), 770),
  raster: { width: 1024, height: 768, along: 'rows', from: 'topLeft', serpentine: true, places: null },
  colour: { ...plainColour(), brightness: 0.8 },
  room: hung([1.72, 2.05, 0.35], [0, 0, 0], 3),
};

/** 300 RGBW pixels along the edge of a bench. Until somebody says which node they hang on, the one that is built in shows them. */
const bench = (id: string, name: string, from: number, universe: number, x: number): PixelString => ({
  id,
  name,
  type: 'string',
  layout: 'path',
  points: [
    [from, 1030],
    [from + 840, 1030],
  ],
  closed: false,
  reversed: false,
  pixels: 300,
  area: 8,
  order: 'RGBW',
  bits: 8,
  gamma: 2.2,
  brightness: 0.8,
  milliamperes: 12,
  mostAmperes: 6,
  room: hung([x, 0.86, 5.4], [0, x < 0 ? 90 : -90, 0], 6),
  send: {
    simulated: true,
    onStop: 'black',
    protocol: 'artnet',
    address: '',
    universe,
    channel: 1,
    priority: 100,
    sync: true,
    rate: 44,
  },
});

/**
 * The wall of the demo show, in a glasshouse of eleven by seven metres: a screen above the band, an LED wall of 91 hexagons beside it,
 * two panes of glass that are lit from behind at an angle, and a string of pixels along each bench.
 */
export const apiaryWall = ({ width, height }: { width: number; height: number }): Wall => ({
  venue: 'shipped:glasshouse.glb',
  limiter: false,
  seat: [0.4, 1.35, 8.6],
  outputs: [
    screen(
      'o1',
      'Above the band',
      { x: 0, y: 0, width, height, turn: 0 },
      { room: hung([-1.5, 2.35, 0.3], [0, 0, 0], 3.2) },
    ),
    screen(
      'o2',
      'Left pane',
      { x: 60, y: 90, width: 506, height: 900, turn: 0 },
      {
        room: hung([-3.4, 1.35, 3], [0, 90, 0], 1.05),
        warp: {
          columns: 2,
          rows: 2,
          smooth: false,
          points: [
            [0.08, 0.02],
            [0.98, 0.09],
            [0.05, 0.97],
            [0.95, 0.92],
          ],
        },
        masks: [
          {
            points: [
              [0.05, 0.12],
              [0.5, 0],
              [1, 0.12],
              [1, 1],
              [0, 1],
            ],
            soft: 0.01,
            hides: 'outside',
          },
        ],
      },
    ),
    comb,
    bench('o5', 'Left bench', 60, 1, -2.2),
    bench('o6', 'Right bench', 1020, 4, 2.2),
    screen(
      'o3',
      'Right pane',
      { x: 1354, y: 90, width: 506, height: 900, turn: 0 },
      { mirrored: true, room: hung([3.4, 1.35, 3], [0, -90, 0], 1.05) },
    ),
  ],
});
