import { describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import type { LedWall, PixelString, ScreenOutput } from '../document/types';
import { makeShow } from '../show/create';
import { addLedWall, addPixelString, addScreen } from '../show/edit-wall';
import { moved, orbitOf, viewOf } from './orbit';
import { anglesOf, onSurface, seenInRoom, stringInRoom, surfaceOf, turned, type Vec3 } from './room';
import { roomMesh } from './room-mesh';

const canvas = { width: 1920, height: 1080 };
const show = (add: (show: ReturnType<typeof makeShow>) => string) => {
  const made = makeShow(catalogue, 'Room');
  made.canvas = { ...made.canvas, ...canvas };
  add(made);
  return made.wall.outputs[0];
};
const near = (a: readonly number[], b: readonly number[]): void =>
  a.forEach((v, k) => expect(v).toBeCloseTo(b[k], 5));

describe('surfaces', () => {
  test('hang on the back wall as parts lie on the canvas, until they are hung by hand', () => {
    const screen = show(addScreen) as ScreenOutput;
    screen.part = { x: 960, y: 0, width: 960, height: 540, turn: 0 };
    const home = surfaceOf(screen, canvas);
    near(home.at, [1.5, 0.5 + (0.75 * 6 * 1080) / 1920, 0]);
    expect([home.width, home.height]).toEqual([3, 3 * (540 / 960)]);
    screen.room = { at: [1, 2, 3], turn: [0, 90, 0], width: 4 };
    expect(surfaceOf(screen, canvas)).toMatchObject({ at: [1, 2, 3], width: 4, height: 2.25 });
    // Turned about y, its right side points away from the audience.
    near(onSurface(surfaceOf(screen, canvas))(1, 0), [1, 2, 2]);
  });

  test('an LED wall is as wide as its pixels are', () => {
    const led = show(addLedWall) as LedWall;
    led.room = { at: [0, 1, 0], turn: [0, 0, 0], width: 99 };
    expect(surfaceOf(led, canvas).width).toBeCloseTo((512 * 3.9) / 1000);
  });

  test('angles and matrices are inverse', () => {
    for (const angles of [
      [10, 20, 30],
      [-120, 45, 170],
      [0, 90, 0],
      [15, -90, 0],
    ])
      near(turned(anglesOf(turned(angles))).flat(), turned(angles).flat());
  });

  test('pixels of a string hang where they lie in its part', () => {
    const string = show(addPixelString) as PixelString;
    Object.assign(string, {
      points: [
        [100, 500],
        [300, 500],
      ],
      pixels: 2,
      area: 8,
    });
    string.room = { at: [0, 1, 2], turn: [0, 0, 0], width: 2.08 };
    near([...stringInRoom(string, canvas)], [-0.5, 1, 2, 0.5, 1, 2]);
  });
});

describe('what a surface shows', () => {
  test('a screen that is mounted turned and mirrored is seen upright', () => {
    const screen = show(addScreen) as ScreenOutput;
    screen.quarterTurns = 1;
    // The upper left of what is seen lies at the upper right of a window that was turned clockwise.
    near([...roomMesh(screen, canvas).pictures.slice(0, 4)], [1, 0, 1, 1]);
    screen.mirrored = true;
    near([...roomMesh(screen, canvas).pictures.slice(0, 4)], [0, 0, 0, 1]);
    screen.quarterTurns = 0;
    near([...roomMesh(screen, canvas).pictures.slice(0, 4)], [1, 0, 0, 0]);
  });

  test('tiles of an LED wall read the raster, and hang at their pitch', () => {
    const led = show(addLedWall) as LedWall;
    Object.assign(led, {
      tile: [10, 10],
      pitch: 100,
      tiles: [
        { x: 0, y: 0, turn: 0, outline: null },
        {
          x: 10,
          y: 0,
          turn: 0,
          outline: [
            [0, 0],
            [1, 0.5],
            [0, 1],
          ],
        },
      ],
    });
    Object.assign(led.raster, { width: 10, height: 20 });
    led.room = { at: [0, 2, 0], turn: [0, 0, 0], width: 1 };
    const { places, pictures, indices, area, facing } = roomMesh(led, canvas);
    expect(indices).toHaveLength(9);
    near([...places.slice(0, 3)], [-1, 2.5, 0]);
    near([...places.slice(15, 18)], [1, 2, 0]);
    near([...pictures.slice(8, 14)], [0, 0.5, 1, 0.75, 0, 1]);
    expect(area).toBeCloseTo(2);
    near(facing, [0, 0, 1]);
  });
});

describe('where somebody looks from', () => {
  test('what is looked at is in the middle, what is to the right is to the right', () => {
    const view = viewOf({ around: 30, above: 20, away: 5, target: [1, 2, 0] });
    near(seenInRoom(view, [1, 2, 0], 1.6)!, [0.5, 0.5]);
    expect(seenInRoom({ eye: [0, 1, 5], target: [0, 1, 0] }, [1, 1, 0], 1)![0]).toBeGreaterThan(0.5);
    expect(seenInRoom({ eye: [0, 1, 5], target: [0, 1, 0] }, [0, 2, 0], 1)![1]).toBeLessThan(0.5);
    expect(seenInRoom({ eye: [0, 1, 5], target: [0, 1, 0] }, [0, 1, 9], 1)).toBeNull();
  });

  test('a pair of eyes stands on the way round that leads to it', () => {
    const eye: Vec3 = [0.4, 1.3, 8];
    near(viewOf(orbitOf(eye, [0, 2, 0])).eye, eye);
  });

  test('goes round, and stays above the floor and below the top', () => {
    const orbit = { around: 170, above: 80, away: 5, target: [0, 1, 0] as Vec3 };
    expect(moved(orbit, { turn: 20, lift: 40 })).toMatchObject({ around: -170, above: 89 });
    expect(moved(orbit, { lift: -300, nearer: 1000 })).toMatchObject({ above: -5, away: 0.5 });
  });
});
