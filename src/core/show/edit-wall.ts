import type { LedWall, Output, PixelString, Show } from '../document/types';
import { gridOfTiles, mostTiles, rasterFor, rasterPlaces, tileBox, tilesFromOutlines } from '../wall/led';
import type { MvrContent } from '../wall/mvr';
import type { DrawnOutline } from '../wall/outlines';
import { boxOfPoints, type Box } from '../wall/parts';
import { patchOf, pixelOrders } from '../wall/pixels/pixels';
import { noBlend, plainColour } from '../wall/screens';
import { flatWarp } from '../wall/warp';
import { freeId, freeName } from './create';
import { EditError } from './edit';

/** Adds an output with an id and a name of its own; gives its id. Changes the show. */
function add(show: Show, name: string, make: (head: { id: string; name: string }) => Output): string {
  const { outputs } = show.wall;
  const id = freeId(
    'o',
    outputs.map((output) => output.id),
  );
  const free = freeName(
    name,
    outputs.map((output) => output.name),
  );
  outputs.push(make({ id, name: free }));
  return id;
}

/** Adds a screen that takes the whole canvas. */
export const addScreen = (show: Show): string =>
  add(show, 'Screen', (head) => ({
    ...head,
    type: 'screen',
    part: { x: 0, y: 0, width: show.canvas.width, height: show.canvas.height, turn: 0 },
    quarterTurns: 0,
    mirrored: false,
    warp: flatWarp(),
    masks: [],
    blend: noBlend(),
    colour: plainColour(),
    room: null,
  }));

/** Adds an LED wall of four by three tiles of half a metre, in the upper left of the canvas. */
export const addLedWall = (show: Show): string =>
  add(show, 'LED wall', (head) => {
    const tile: [number, number] = [128, 128];
    const tiles = gridOfTiles({ tile }, { columns: 4, rows: 3, gap: 0, turn: 0 });
    return {
      ...head,
      type: 'led',
      place: { x: 0, y: 0 },
      pixelSize: 1,
      tile,
      pitch: 3.9,
      tiles,
      raster: {
        ...rasterFor({ tile, tiles }),
        along: 'rows',
        from: 'topLeft',
        serpentine: false,
        places: null,
      },
      colour: plainColour(),
      room: null,
    };
  });

/** Adds a string of 60 pixels along a line in the lower part of the canvas, which is sent nowhere yet. */
export const addPixelString = (show: Show): string =>
  add(show, 'Pixel string', (head) => {
    const { width, height } = show.canvas;
    const taken = show.wall.outputs.flatMap((output) =>
      output.type === 'string' ? patchOf(output).map(({ universe }) => universe) : [],
    );
    return {
      ...head,
      type: 'string',
      layout: 'path',
      points: [
        [Math.round(width * 0.1), Math.round(height * 0.85)],
        [Math.round(width * 0.9), Math.round(height * 0.85)],
      ],
      closed: false,
      reversed: false,
      pixels: 60,
      area: Math.max(1, Math.round(height / 90)),
      order: 'GRB',
      bits: 8,
      gamma: 2.2,
      brightness: 1,
      milliamperes: 20,
      mostAmperes: 0,
      room: null,
      send: {
        simulated: false,
        onStop: 'black',
        protocol: 'none',
        address: '',
        universe: Math.max(0, ...taken) + 1,
        channel: 1,
        priority: 100,
        sync: false,
        rate: 44,
      },
    };
  });

/**
 * Adds what a rig holds, hung where it hung; on the canvas everything lies as it is seen from the front, in the middle eight tenths. Strings
 * are simulated until somebody says where they go. Gives the ids.
 */
export function hangFromMvr(show: Show, { screens, strings }: MvrContent): string[] {
  const { canvas } = show;
  const box = boxOfPoints(
    [...screens, ...strings].flatMap(({ at: [x, y], width }): [number, number][] => [
      [x - width / 2, -y - width / 3],
      [x + width / 2, -y + width / 3],
    ]),
  );
  const scale = Math.min(
    (0.8 * canvas.width) / Math.max(box.width, 0.01),
    (0.8 * canvas.height) / Math.max(box.height, 0.01),
  );
  const place = (x: number, y: number): [number, number] => [
    Math.round(canvas.width / 2 + (x - box.x - box.width / 2) * scale),
    Math.round(canvas.height / 2 + (-y - box.y - box.height / 2) * scale),
  ];
  const added: string[] = [];
  const last = <T extends Output>(id: string): T => show.wall.outputs.find((output) => output.id === id) as T;
  const named = (id: string, name: string): void => {
    const others = show.wall.outputs.filter((output) => output.id !== id).map((output) => output.name);
    last(id).name = freeName(name.slice(0, 120), others);
    added.push(id);
  };
  for (const { name, at, turn, width } of screens) {
    const id = addScreen(show);
    const [x, y] = place(at[0], at[1]);
    const [w, h] = [
      Math.max(8, Math.round(width * scale)),
      Math.max(8, Math.round((width * scale * 9) / 16)),
    ];
    Object.assign(last(id), {
      part: { x: x - Math.round(w / 2), y: y - Math.round(h / 2), width: w, height: h, turn: 0 },
      room: { at: [...at], turn: [...turn], width },
    });
    named(id, name);
  }
  for (const { name, at, turn, width, pixels, order, universe, channel } of strings) {
    const id = addPixelString(show);
    const string = last<PixelString>(id);
    const [x, y] = place(at[0], at[1]);
    const reach = Math.max(4, (width * scale) / 2);
    Object.assign(string, {
      points: [
        [Math.round(x - reach), y],
        [Math.round(x + reach), y],
      ],
      pixels,
      order: pixelOrders.find((known) => known === order) ?? 'RGB',
      room: { at: [...at], turn: [...turn], width: Math.max(0.01, width) },
    });
    Object.assign(string.send, { protocol: 'sacn', simulated: true, universe, channel });
    named(id, name);
  }
  return added;
}

/** Lays the tiles of a wall out anew. The raster is packed by its rule again, and grows where it has to. */
export function layOutTiles(
  led: LedWall,
  grid: { columns: number; rows: number; gap: number; turn: number },
): void {
  led.tiles = gridOfTiles(led, grid);
  led.raster.places = null;
  const needed = rasterFor(led, led.raster.width);
  led.raster.width = Math.max(led.raster.width, needed.width);
  led.raster.height = Math.max(led.raster.height, needed.height);
}

/** Hangs tiles as closed outlines of a drawing lie, which is `pixelsWide` LED pixels wide: all have the size of the largest, each is lit inside of its outline. The raster is packed anew. */
export function hangOutlines(led: LedWall, outlines: readonly DrawnOutline[], pixelsWide: number): void {
  Object.assign(led, tilesFromOutlines(outlines, pixelsWide));
  led.raster.places = null;
  const needed = rasterFor(led, Math.max(led.raster.width, led.tile[0]));
  led.raster.width = Math.max(led.raster.width, needed.width);
  led.raster.height = Math.max(led.raster.height, needed.height);
}

/** Lays a string along the outline of a drawing, or, where it has several, a pixel in the middle of each; it fills `part` of the canvas. */
export function layOnOutlines(string: PixelString, outlines: readonly DrawnOutline[], part: Box): void {
  const box = boxOfPoints(outlines.flatMap(({ points }) => points));
  const scale = Math.min(part.width / Math.max(box.width, 1e-6), part.height / Math.max(box.height, 1e-6));
  const place = ([x, y]: readonly [number, number]): [number, number] => [
    Math.round((part.x + (x - box.x) * scale) * 10) / 10,
    Math.round((part.y + (y - box.y) * scale) * 10) / 10,
  ];
  const [first] = outlines;
  if (outlines.length === 1)
    Object.assign(string, { layout: 'path', closed: first.closed, points: first.points.map(place) });
  else
    Object.assign(string, {
      layout: 'points',
      points: outlines.map(({ points }) => {
        const own = boxOfPoints(points);
        return place([own.x + own.width / 2, own.y + own.height / 2]);
      }),
    });
}

/** Lays a string anew inside of `part`: once round, or in rows that run to and fro. */
export function layString(
  string: PixelString,
  form: 'circle' | 'grid',
  part: Box,
  columns: number,
  rows: number,
): void {
  if (form === 'circle') {
    const points = Array.from({ length: 48 }, (_, k): [number, number] => {
      const angleRad = (k / 48) * 2 * Math.PI;
      return [
        Math.round((part.x + (part.width / 2) * (1 + Math.sin(angleRad))) * 10) / 10,
        Math.round((part.y + (part.height / 2) * (1 - Math.cos(angleRad))) * 10) / 10,
      ];
    });
    Object.assign(string, { layout: 'path', closed: true, points });
    return;
  }
  const points = Array.from({ length: Math.min(20000, columns * rows) }, (_, k): [number, number] => {
    const row = Math.floor(k / columns);
    const along = row % 2 ? columns - 1 - (k % columns) : k % columns;
    return [
      Math.round((part.x + ((along + 0.5) / columns) * part.width) * 10) / 10,
      Math.round((part.y + ((row + 0.5) / rows) * part.height) * 10) / 10,
    ];
  });
  Object.assign(string, { layout: 'points', points });
}

/** Adds a tile to the right of the last; gives its number. */
export function addTile(led: LedWall): number {
  if (led.tiles.length >= mostTiles) throw new EditError(`A wall has at most ${mostTiles} tiles.`);
  const k = led.tiles.length - 1;
  const [x, y, width] = k < 0 ? [0, 0, 0] : tileBox(led, k);
  led.raster.places?.push([0, 0]);
  led.tiles.push({ x: x + width, y, turn: led.tiles[k]?.turn ?? 0, outline: null });
  return led.tiles.length - 1;
}

export function removeTile(led: LedWall, k: number): void {
  led.tiles.splice(k, 1);
  led.raster.places?.splice(k, 1);
}

/** Places a tile in the raster by hand; all others stay where they are. */
export function placeInRaster(led: LedWall, k: number, x: number, y: number): void {
  led.raster.places ??= rasterPlaces(led);
  led.raster.places[k] = [Math.max(0, Math.round(x)), Math.max(0, Math.round(y))];
}
