import type { LedWall } from '../document/types';
import earcut from 'earcut';
import type { DrawnOutline } from './outlines';
import { boxOfPoints } from './parts';
import type { WarpMesh } from './warp';

interface Size {
  width: number;
  height: number;
}
type Place = readonly [number, number];

/** Tiles that a wall has at most. */
export const mostTiles = 4096;

/** Pixels that a tile takes on the wall, as it is mounted. */
function mounted({ tile: [width, height] }: Pick<LedWall, 'tile'>, turn: number): [number, number] {
  return turn % 2 ? [height, width] : [width, height];
}

/** A tile on the wall: x, y, width and height in LED pixels from the wall's top left. */
export function tileBox(led: LedWall, k: number): [number, number, number, number] {
  const { x, y, turn } = led.tiles[k];
  return [x, y, ...mounted(led, turn)];
}

/** LED pixels that all tiles take together, from the wall's origin: left, top, width and height. */
export function wallBox(led: LedWall): [number, number, number, number] {
  if (!led.tiles.length) return [0, 0, led.tile[0], led.tile[1]];
  const corners = led.tiles.flatMap((_, k): [number, number][] => {
    const [x, y, width, height] = tileBox(led, k);
    return [
      [x, y],
      [x + width, y + height],
    ];
  });
  const { x, y, width, height } = boxOfPoints(corners);
  return [x, y, width, height];
}

/** What the wall takes of the canvas, in its pixels. */
export function ledPart(led: LedWall): { x: number; y: number; width: number; height: number; turn: number } {
  const [left, top, width, height] = wallBox(led);
  const { place, pixelSize } = led;
  return {
    x: place.x + left * pixelSize,
    y: place.y + top * pixelSize,
    width: width * pixelSize,
    height: height * pixelSize,
    turn: 0,
  };
}

/** Where a place of a tile's own picture (shares from its top left) lies on the tile as it is mounted. */
export function onMounted(turn: number, [a, b]: Place): [number, number] {
  switch (turn) {
    case 1:
      return [1 - b, a];
    case 2:
      return [1 - a, 1 - b];
    case 3:
      return [b, 1 - a];
    default:
      return [a, b];
  }
}

/** Tiles in rows and columns, with gaps in LED pixels between them. */
export function gridOfTiles(
  led: Pick<LedWall, 'tile'>,
  { columns, rows, gap, turn }: { columns: number; rows: number; gap: number; turn: number },
): LedWall['tiles'] {
  const [width, height] = mounted(led, turn);
  return Array.from({ length: Math.min(mostTiles, columns * rows) }, (_, k) => ({
    x: (k % columns) * (width + gap),
    y: Math.floor(k / columns) * (height + gap),
    turn,
    outline: null,
  }));
}

/**
 * Tiles as closed outlines of a drawing hang, drawn `pixelsWide` LED pixels wide. All have the size of the largest; each is lit inside of
 * its outline, which lies in the middle of its tile.
 */
export function tilesFromOutlines(
  outlines: readonly DrawnOutline[],
  pixelsWide: number,
): Pick<LedWall, 'tile' | 'tiles'> {
  const whole = boxOfPoints(outlines.flatMap(({ points }) => points));
  const scale = pixelsWide / Math.max(whole.width, 1e-6);
  const boxes = outlines.map(({ points }) => boxOfPoints(points));
  const tile = (['width', 'height'] as const).map((side) =>
    // A pixel more, since tiles lie on whole pixels.
    Math.max(1, Math.ceil(Math.max(...boxes.map((box) => box[side])) * scale - 1e-6) + 1),
  ) as [number, number];
  return {
    tile,
    tiles: outlines.slice(0, mostTiles).map(({ points }, k) => {
      const middle = [
        (boxes[k].x + boxes[k].width / 2 - whole.x) * scale,
        (boxes[k].y + boxes[k].height / 2 - whole.y) * scale,
      ];
      const [x, y] = middle.map((at, axis) => Math.round(at - tile[axis] / 2));
      const outline = points.map(([px, py]): [number, number] => {
        const at = [(px - whole.x) * scale - x, (py - whole.y) * scale - y];
        return [0, 1].map(
          (axis) => Math.round(Math.min(1, Math.max(0, at[axis] / tile[axis])) * 1e5) / 1e5,
        ) as [number, number];
      });
      return { x, y, turn: 0, outline };
    }),
  };
}

const wholeTile: readonly Place[] = [
  [0, 0],
  [1, 0],
  [1, 1],
  [0, 1],
];

/** Corners of the lit part of a tile, as shares of it before it is turned. */
export const litCorners = ({ outline }: LedWall['tiles'][number]): readonly Place[] => outline ?? wholeTile;

/** Numbers of the tiles in the order in which they are wired: in lines from a corner, to and fro if it is a serpentine. */
export function chainOf(led: LedWall): number[] {
  const { along, from, serpentine } = led.raster;
  const inRows = along === 'rows';
  const isRight = from === 'topRight' || from === 'lowerRight';
  const isLow = from === 'lowerLeft' || from === 'lowerRight';
  const [across, down] = inRows ? [isRight, isLow] : [isLow, isRight];
  const middles = led.tiles.map((_, k) => {
    const [x, y, width, height] = tileBox(led, k);
    const middle = [x + width / 2, y + height / 2];
    return inRows ? middle : [middle[1], middle[0]];
  });
  // Tiles whose middles are less than half a tile apart are in one line.
  const reach = Math.min(...led.tile) / 2;
  const byLine = middles.map((_, k) => k).sort((a, b) => middles[a][1] - middles[b][1]);
  const lines: number[][] = [];
  for (const k of byLine) {
    const line = lines[lines.length - 1];
    if (line && middles[k][1] - middles[line[0]][1] < reach) line.push(k);
    else lines.push([k]);
  }
  if (down) lines.reverse();
  return lines.flatMap((line, n) => {
    line.sort((a, b) => middles[a][0] - middles[b][0]);
    return across !== (serpentine && n % 2 === 1) ? line.reverse() : line;
  });
}

/** Upper left corner of each tile in the raster: as they are packed by hand, else one after the other in the order of the chain. */
export function rasterPlaces(led: LedWall): [number, number][] {
  const { places, width } = led.raster;
  if (places) return led.tiles.map((_, k) => places[k] ?? [0, 0]);
  const [w, h] = led.tile;
  const inRow = Math.max(1, Math.floor(width / w));
  const packed: [number, number][] = led.tiles.map(() => [0, 0]);
  chainOf(led).forEach((tile, n) => (packed[tile] = [(n % inRow) * w, Math.floor(n / inRow) * h]));
  return packed;
}

/** What is wrong with how tiles lie in a raster: tiles that stand beyond it, and pairs that share pixels. */
export function rasterFaults(led: LedWall): { outside: number[]; overlaps: [number, number][] } {
  const [w, h] = led.tile;
  const { width, height } = led.raster;
  const places = rasterPlaces(led);
  const outside = places.flatMap(([x, y], k) =>
    x < 0 || y < 0 || x + w > width || y + h > height ? [k] : [],
  );
  const overlaps: [number, number][] = [];
  const order = places.map((_, k) => k).sort((a, b) => places[a][0] - places[b][0]);
  order.forEach((a, n) => {
    for (const b of order.slice(n + 1)) {
      if (places[b][0] >= places[a][0] + w) break;
      if (Math.abs(places[b][1] - places[a][1]) < h) overlaps.push(a < b ? [a, b] : [b, a]);
    }
  });
  return { outside, overlaps };
}

/** Smallest raster, at most `mostWidth` wide, that holds the chain. */
export function rasterFor(led: Pick<LedWall, 'tile' | 'tiles'>, mostWidth = 1920): Size {
  const [w, h] = led.tile;
  const inRow = Math.max(1, Math.min(led.tiles.length, Math.floor(mostWidth / w)));
  return { width: inRow * w, height: Math.max(1, Math.ceil(led.tiles.length / inRow)) * h };
}

/** Corners of the lit part of a tile on the wall, LED pixels from its origin. */
export function cornersOnWall(led: LedWall, k: number): [number, number][] {
  const [x, y, width, height] = tileBox(led, k);
  return litCorners(led.tiles[k]).map((corner) => {
    const [a, b] = onMounted(led.tiles[k].turn, corner);
    return [x + a * width, y + b * height];
  });
}

/** Triangles that draw a raster, as a warp is drawn: places are shares of a window of that size, pictures shares of the wall's part. */
export function rasterMesh(led: LedWall, window: Size): WarpMesh {
  const [w, h] = led.tile;
  const [left, top, width, height] = wallBox(led);
  const spots: number[] = [];
  const pictures: number[] = [];
  const indices: number[] = [];
  rasterPlaces(led).forEach(([x, y], k) => {
    const at = spots.length / 3;
    const corners = litCorners(led.tiles[k]);
    const onWall = cornersOnWall(led, k);
    corners.forEach((corner, n) => {
      spots.push((x + corner[0] * w) / window.width, (y + corner[1] * h) / window.height, 1);
      pictures.push((onWall[n][0] - left) / width, (onWall[n][1] - top) / height);
    });
    indices.push(...earcut(corners.flat()).map((corner) => at + corner));
  });
  return {
    places: new Float32Array(spots),
    pictures: new Float32Array(pictures),
    indices: new Uint32Array(indices),
  };
}

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

/** A drawing for the crew as SVG: the tiles of the raster with their numbers in the order of the chain, and sizes in pixels and millimetres. */
export function rasterDrawing(led: LedWall): string {
  const { width, height } = led.raster;
  const [w, h] = led.tile;
  const [, , wallWidth, wallHeight] = wallBox(led);
  const numbers = new Map(chainOf(led).map((tile, n) => [tile, n + 1]));
  const size = Math.max(width, height) / 45;
  const mm = (px: number): string => `${Math.round(px * led.pitch * 10) / 10} mm`;
  const tiles = rasterPlaces(led)
    .map(([x, y], k) => {
      const turn = led.tiles[k].turn * 90;
      const letters = Math.min(w, h);
      return `<g transform="translate(${x} ${y})"><polygon points="${litCorners(led.tiles[k])
        .map(([a, b]) => `${a * w},${b * h}`)
        .join(
          ' ',
        )}" fill="none" stroke="#000" stroke-width="${size / 12}"/><text x="${w / 2}" y="${h / 2}" font-size="${letters * 0.3}" text-anchor="middle" dominant-baseline="central">${numbers.get(k)}</text><text x="${w / 2}" y="${h * 0.86}" font-size="${letters * 0.11}" text-anchor="middle">${x}, ${y}${turn ? ` · ${turn}°` : ''}</text></g>`;
    })
    .join('');
  const lines = [
    `Raster ${width} x ${height} px · tiles ${w} x ${h} px, ${mm(w)} x ${mm(h)} · pitch ${led.pitch} mm`,
    `${led.tiles.length} tiles · wall ${wallWidth} x ${wallHeight} px, ${mm(wallWidth)} x ${mm(wallHeight)}`,
  ];
  const head = size * 5;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${-size} ${-head} ${width + 2 * size} ${height + head + size}" width="${width}" height="${height}" font-family="sans-serif"><rect x="${-size}" y="${-head}" width="${width + 2 * size}" height="${height + head + size}" fill="#fff"/><text y="${-head + size * 1.6}" font-size="${size * 1.3}" font-weight="600">${escaped(led.name)}</text>${lines
    .map((line, k) => `<text y="${-head + size * (2.9 + k * 1.15)}" font-size="${size * 0.8}">${line}</text>`)
    .join(
      '',
    )}<rect width="${width}" height="${height}" fill="none" stroke="#888" stroke-width="${size / 8}"/>${tiles}</svg>`;
}
