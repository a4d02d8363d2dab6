import type { ScreenOutput, Wall } from '../src/core/document/types';
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

/** The wall of the demo show: a screen above the band, and two tall panes of glass that are lit from behind at an angle. */
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
    screen('o3', 'Right pane', { x: 1354, y: 90, width: 506, height: 900, turn: 0 }, { mirrored: true }),
  ],
});
