import { describe, expect, test } from '@jest/globals';
import { catalogue } from '../../nodes/catalogue';
import { makeShow } from '../show/create';
import { addLedWall, addTile, hangOutlines, layOutTiles, placeInRaster, removeTile } from '../show/edit-wall';
import type { DrawnOutline } from './outlines';
import { readShow, writeShow } from '../show/validate';
import type { LedWall } from '../document/types';
import {
  chainOf,
  cornersOnWall,
  ledPart,
  onMounted,
  rasterDrawing,
  rasterFaults,
  rasterFor,
  rasterMesh,
  rasterPlaces,
  wallBox,
} from './led';
import { moveOutput, windowSizeOf } from './outputs';

/** Three columns and two rows of tiles of 20 x 10 pixels, numbered row by row. */
function wall(change: Partial<LedWall['raster']> = {}): LedWall {
  const show = makeShow(catalogue, 'LED');
  addLedWall(show);
  const led = show.wall.outputs[0] as LedWall;
  led.tile = [20, 10];
  layOutTiles(led, { columns: 3, rows: 2, gap: 0, turn: 0 });
  Object.assign(led.raster, { width: 120, height: 10 }, change);
  return led;
}

describe('the chain of tiles', () => {
  test('runs in rows or columns, from each corner, and back in every other line as a serpentine', () => {
    const chain = (change: Partial<LedWall['raster']>): string => chainOf(wall(change)).join('');
    expect(chain({})).toBe('012345');
    expect(chain({ serpentine: true })).toBe('012543');
    expect(chain({ from: 'topRight' })).toBe('210543');
    expect(chain({ from: 'lowerLeft', serpentine: true })).toBe('345210');
    expect(chain({ from: 'lowerRight' })).toBe('543210');
    expect(chain({ along: 'columns' })).toBe('031425');
    expect(chain({ along: 'columns', serpentine: true })).toBe('034125');
    expect(chain({ along: 'columns', from: 'topRight' })).toBe('251403');
    expect(chain({ along: 'columns', from: 'lowerLeft', serpentine: true })).toBe('301452');
  });

  test('holds for walls of odd shape: tiles nearly at the same height are in one row', () => {
    const led = wall();
    led.tiles[1].y = 4;
    removeTile(led, 5);
    expect(chainOf(led)).toEqual([0, 1, 2, 3, 4]);
  });
});

describe('the raster', () => {
  test('is packed in the order of the chain, line by line', () => {
    expect(rasterPlaces(wall())).toEqual([0, 20, 40, 60, 80, 100].map((x) => [x, 0]));
    expect(rasterPlaces(wall({ width: 50, height: 30, serpentine: true }))).toEqual([
      [0, 0],
      [20, 0],
      [0, 10],
      [20, 20],
      [0, 20],
      [20, 10],
    ]);
    expect(rasterFor(wall(), 50)).toEqual({ width: 40, height: 30 });
  });

  test('is checked for tiles beyond it and for shared pixels', () => {
    expect(rasterFaults(wall())).toEqual({ outside: [], overlaps: [] });
    expect(rasterFaults(wall({ width: 60, height: 10 })).outside).toEqual([3, 4, 5]);
    const led = wall();
    placeInRaster(led, 2, 31, 0);
    expect(rasterFaults(led)).toEqual({ outside: [], overlaps: [[1, 2]] });
    placeInRaster(led, 2, -8, 10.4);
    expect(led.raster.places![2]).toEqual([0, 10]);
    expect(rasterFaults(led)).toEqual({ outside: [2], overlaps: [] });
  });

  test('places by hand stay with their tiles', () => {
    const led = wall();
    placeInRaster(led, 4, 0, 10);
    removeTile(led, 0);
    expect(led.raster.places).toHaveLength(5);
    expect(rasterPlaces(led)[3]).toEqual([0, 10]);
    expect(addTile(led)).toBe(5);
    expect(led.raster.places).toHaveLength(6);
    expect(led.tiles[5]).toEqual({ x: 60, y: 10, turn: 0, outline: null });
  });

  test('draws each tile from its place on the wall, pixel for pixel in a window of its size', () => {
    const led = wall({ serpentine: true });
    const { places, pictures, indices } = rasterMesh(led, { width: 120, height: 10 });
    expect(indices).toHaveLength(36);
    // The fourth tile of the chain is the last of the second row.
    const corner = (tile: number, k: number): number[] =>
      [
        places[12 * tile + 3 * k] * 120,
        places[12 * tile + 3 * k + 1] * 10,
        pictures[8 * tile + 2 * k] * 60,
        pictures[8 * tile + 2 * k + 1] * 20,
      ].map((v) => Math.round(v * 1e4) / 1e4);
    expect(corner(5, 0)).toEqual([60, 0, 40, 10]);
    expect(corner(5, 2)).toEqual([80, 10, 60, 20]);
  });

  test('a turned tile is read turned', () => {
    const led = wall();
    led.tiles = [{ x: 0, y: 0, turn: 1, outline: null }];
    expect(wallBox(led)).toEqual([0, 0, 10, 20]);
    const { pictures } = rasterMesh(led, { width: 20, height: 10 });
    // Its own upper left hangs at the upper right, its upper right at the lower right.
    expect([...pictures]).toEqual([1, 0, 1, 1, 0, 1, 0, 0]);
    for (const turn of [0, 1, 2, 3]) {
      const [x, y] = onMounted(turn, [0.5, 0.5]);
      expect([x, y]).toEqual([0.5, 0.5]);
    }
  });
});

test('a wall takes its part of the canvas, is moved as a whole, and its window has the size of the raster', () => {
  const led = wall();
  led.pixelSize = 2;
  led.tiles.forEach((tile) => (tile.x += 5));
  moveOutput(led, 'x', 100);
  expect(ledPart(led)).toEqual({ x: 100, y: 0, width: 120, height: 40, turn: 0 });
  expect(led.place.x).toBe(90);
  expect(windowSizeOf(led)).toEqual([120, 10]);
});

test('the drawing for the crew has every tile with its number, sizes in pixels and millimetres, and no markup in names', () => {
  const led = wall({ serpentine: true });
  led.name = 'Front <left> & right';
  led.pitch = 2.5;
  const svg = rasterDrawing(led);
  expect(svg).toContain('Front &lt;left&gt; &amp; right');
  expect(svg).toContain('Raster 120 x 10 px · tiles 20 x 10 px, 50 mm x 25 mm · pitch 2.5 mm');
  expect(svg).toContain('6 tiles · wall 60 x 20 px, 150 mm x 50 mm');
  expect(svg.match(/<g /g)).toHaveLength(6);
});

test('a wall is read back; one whose raster is too small is said, one with other places than tiles is refused', () => {
  const show = makeShow(catalogue, 'LED');
  const led = wall();
  show.wall.outputs.push(led);
  expect(readShow(writeShow(show), catalogue).show).toEqual(show);
  led.raster.height = 5;
  expect(readShow(writeShow(show), catalogue).findings).toContainEqual(
    expect.objectContaining({ where: 'wall.outputs[0].raster', what: expect.stringContaining('6 tiles') }),
  );
  led.raster.places = [[0, 0]];
  expect(() => readShow(writeShow(show), catalogue)).toThrow(/6 tiles need as many places/);
});

describe('tiles that hang as outlines of a drawing', () => {
  const hexagon = (x: number, y: number): DrawnOutline => ({
    closed: true,
    points: [0, 1, 2, 3, 4, 5].map((k): [number, number] => [
      x + Math.cos((k * Math.PI) / 3),
      y + Math.sin((k * Math.PI) / 3),
    ]),
  });
  const hung = (): LedWall => {
    const led = wall();
    hangOutlines(led, [hexagon(1, 1), hexagon(4, 1), hexagon(2.5, 3)], 250);
    return led;
  };

  test('have the size of the largest, lie on whole pixels, and keep their form', () => {
    const led = hung();
    // Five units are 250 pixels; a pixel more, since tiles lie on whole ones.
    expect(led.tile).toEqual([101, 88]);
    expect(led.tiles).toHaveLength(3);
    led.tiles.forEach(({ x, y }) => expect(Number.isInteger(x) && Number.isInteger(y)).toBe(true));
    const corners = cornersOnWall(led, 1);
    expect(corners).toHaveLength(6);
    const scale = 50;
    corners.forEach(([x, y], k) => {
      const angleRad = (k * Math.PI) / 3;
      expect(Math.abs(x - (4 + Math.cos(angleRad)) * scale)).toBeLessThan(0.6);
      expect(Math.abs(y - (Math.sin(angleRad) + Math.sin(Math.PI / 3)) * scale)).toBeLessThan(0.6);
    });
    expect(rasterFaults(led)).toEqual({ outside: [], overlaps: [] });
  });

  test('are drawn inside of their outlines only', () => {
    const led = hung();
    const { places, indices } = rasterMesh(led, led.raster);
    expect(places).toHaveLength(3 * 6 * 3);
    // A hexagon has four triangles.
    expect(indices).toHaveLength(3 * 4 * 3);
    expect(rasterDrawing(led).match(/<polygon/g)).toHaveLength(3);
  });
});
