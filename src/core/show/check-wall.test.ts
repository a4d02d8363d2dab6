import { expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { makeShow } from './create';
import { showVersion, type ScreenOutput } from '../document/types';
import { addLedWall, addPixelString, addScreen } from './edit-wall';
import { homeSeat } from '../wall/room';
import { readShow, ShowFileError, writeShow } from './validate';

const withScreens = () => {
  const show = makeShow(catalogue, 'Wall');
  addScreen(show);
  addScreen(show);
  return show;
};

const screenAt = (show: ReturnType<typeof withScreens>, k: number): ScreenOutput =>
  show.wall.outputs[k] as ScreenOutput;

test('screens have names and ids of their own, take the whole canvas and are read back', () => {
  const show = withScreens();
  expect(show.wall.outputs.map(({ id, name }) => [id, name])).toEqual([
    ['o1', 'Screen'],
    ['o2', 'Screen 2'],
  ]);
  expect(screenAt(show, 0).part).toEqual({ x: 0, y: 0, width: 1920, height: 1080, turn: 0 });
  expect(readShow(writeShow(show), catalogue).show).toEqual(show);
});

test('an older show gets an empty wall', () => {
  const { wall, ...older } = makeShow(catalogue, 'Old');
  expect(wall.outputs).toEqual([]);
  const { show } = readShow(JSON.stringify({ ...older, version: 2 }), catalogue);
  expect(show.wall).toEqual({ outputs: [], venue: null, limiter: false, seat: [...homeSeat] });
  expect(show.version).toBe(showVersion);
});

test('outputs of version 3 hang as they lie on the canvas, and strings go where they went', () => {
  const show = makeShow(catalogue, 'Old');
  for (const add of [addScreen, addLedWall, addPixelString]) add(show);
  const old = JSON.parse(writeShow(show)) as { version: number; wall: Record<string, unknown> };
  old.version = 3;
  delete old.wall.venue;
  delete old.wall.seat;
  for (const output of old.wall.outputs as Record<string, unknown>[]) {
    delete output.room;
    for (const tile of (output.tiles ?? []) as Record<string, unknown>[]) delete tile.outline;
    const send = (output.send ?? {}) as Record<string, unknown>;
    delete send.simulated;
    delete send.onStop;
  }
  expect(readShow(JSON.stringify(old), catalogue).show).toEqual(show);
});

test('a warp without all of its points, ids twice and parts without a size are refused with their place', () => {
  const refused = (spoil: (show: ReturnType<typeof withScreens>) => void): string => {
    const show = withScreens();
    spoil(show);
    try {
      readShow(writeShow(show), catalogue);
    } catch (error) {
      if (error instanceof ShowFileError)
        return error.findings.map(({ where, what }) => `${where}: ${what}`).join('\n');
      throw error;
    }
    return '';
  };
  expect(refused((show) => (screenAt(show, 1).warp.columns = 3))).toContain(
    'wall.outputs[1].warp.points: A warp of 3 x 2 needs 6 points, not 4.',
  );
  expect(refused((show) => (show.wall.outputs[1].id = 'o1'))).toContain('Two outputs have the id o1');
  expect(refused((show) => (screenAt(show, 0).part.width = 0))).toContain('wall.outputs[0].part.width');
});

test('a screen beside the canvas is said, and opens', () => {
  const show = withScreens();
  screenAt(show, 0).part.x = 4000;
  const { findings } = readShow(writeShow(show), catalogue);
  expect(findings).toContainEqual(
    expect.objectContaining({ level: 'warning', where: 'wall.outputs[0].part' }),
  );
});
