import type { LedWall, PixelString, ScreenOutput, Wall } from '../src/core/document/types';
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
  ...change,
});

/** Places of six cabinets behind the band, in columns that hang lower towards the sides. */
const cabinets: readonly (readonly [number, number])[] = [
  [0, 96],
  [96, 48],
  [192, 0],
  [288, 0],
  [384, 48],
  [480, 96],
];

const combs: LedWall = {
  id: 'o4',
  name: 'Comb cabinets',
  type: 'led',
  place: { x: 672, y: 540 },
  pixelSize: 1,
  tile: [96, 192],
  pitch: 5.2,
  tiles: cabinets.map(([x, y], k) => ({ x, y, turn: k < 3 ? 0 : 2 })),
  raster: { width: 576, height: 192, along: 'columns', from: 'topLeft', serpentine: false, places: null },
  colour: { ...plainColour(), brightness: 0.8 },
};

/** Pixels along the edge of a bench; they are sent nowhere until somebody says where. */
const bench = (id: string, name: string, from: number, to: number, universe: number): PixelString => ({
  id,
  name,
  type: 'string',
  layout: 'path',
  points: [
    [from, 1010],
    [to, 1010],
  ],
  closed: false,
  reversed: false,
  pixels: 90,
  area: 8,
  order: 'GRB',
  bits: 8,
  gamma: 2.2,
  brightness: 0.8,
  milliamperes: 20,
  mostAmperes: 4,
  send: { protocol: 'none', address: '', universe, channel: 1, priority: 100, sync: false, rate: 44 },
});

/** The wall of the demo show: two benches with pixels, a screen above the band, six LED cabinets that rise towards the middle, and two tall panes of glass that are lit from behind at an angle. */
export const apiaryWall = ({ width, height }: { width: number; height: number }): Wall => ({
  outputs: [
    screen('o1', 'Above the band', { x: 0, y: 0, width, height, turn: 0 }),
    screen(
      'o2',
      'Left pane',
      { x: 60, y: 90, width: 506, height: 900, turn: 0 },
      {
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
    combs,
    bench('o5', 'Left bench', 400, 700, 1),
    bench('o6', 'Right bench', 1220, 1520, 2),
    screen('o3', 'Right pane', { x: 1354, y: 90, width: 506, height: 900, turn: 0 }, { mirrored: true }),
  ],
});
