import earcut from 'earcut';
import type { LedWall, ScreenOutput } from '../document/types';
import { cornersOnWall, litCorners, rasterPlaces, wallBox } from './led';
import type { WindowOutput } from './outputs';
import { onSurface, surfaceOf, turned, type Vec3 } from './room';

interface Size {
  width: number;
  height: number;
}

/** The surface of an output as triangles, facing +z of its own. */
export interface RoomMesh {
  /** Metres in the room, 3 a corner. */
  places: Float32Array;
  /** Shares of what its window shows, from the top left, 2 a corner. */
  pictures: Float32Array;
  indices: Uint32Array;
  middle: Vec3;
  facing: Vec3;
  /** Square metres. */
  area: number;
}

/** Where a place of what is seen (shares from its top left) lies in what the window of a screen shows, which may be turned and mirrored. */
function inWindow({ quarterTurns, mirrored }: ScreenOutput, u: number, v: number): [number, number] {
  let [x, y] = [u - 0.5, v - 0.5];
  for (let k = 0; k < quarterTurns; k++) [x, y] = [-y, x];
  return [(mirrored ? -x : x) + 0.5, y + 0.5];
}

function screenMesh(screen: ScreenOutput, canvas: Size): Pick<RoomMesh, 'places' | 'pictures' | 'indices'> {
  const surface = surfaceOf(screen, canvas);
  const to = onSurface(surface);
  const corners = [
    [0, 0],
    [1, 0],
    [1, 1],
    [0, 1],
  ] as const;
  return {
    places: new Float32Array(
      corners.flatMap(([u, v]) => to((u - 0.5) * surface.width, (0.5 - v) * surface.height)),
    ),
    pictures: new Float32Array(corners.flatMap(([u, v]) => inWindow(screen, u, v))),
    indices: Uint32Array.of(0, 2, 1, 0, 3, 2),
  };
}

function ledMesh(led: LedWall, canvas: Size): Pick<RoomMesh, 'places' | 'pictures' | 'indices'> {
  const to = onSurface(surfaceOf(led, canvas));
  const [left, top, width, height] = wallBox(led);
  const metres = led.pitch / 1000;
  const [w, h] = led.tile;
  const places: number[] = [];
  const pictures: number[] = [];
  const indices: number[] = [];
  rasterPlaces(led).forEach(([rx, ry], k) => {
    const start = places.length / 3;
    const corners = litCorners(led.tiles[k]);
    cornersOnWall(led, k).forEach(([x, y]) =>
      places.push(...to((x - left - width / 2) * metres, -(y - top - height / 2) * metres)),
    );
    for (const corner of corners)
      pictures.push((rx + corner[0] * w) / led.raster.width, (ry + corner[1] * h) / led.raster.height);
    indices.push(...earcut(corners.flat()).map((corner) => start + corner));
  });
  return {
    places: new Float32Array(places),
    pictures: new Float32Array(pictures),
    indices: new Uint32Array(indices),
  };
}

/** The surface of an output in the room. The tiles of an LED wall read the raster, as they do on the night. */
export function roomMesh(output: WindowOutput, canvas: Size): RoomMesh {
  const surface = surfaceOf(output, canvas);
  const mesh = output.type === 'screen' ? screenMesh(output, canvas) : ledMesh(output, canvas);
  return {
    ...mesh,
    middle: surface.at as unknown as Vec3,
    facing: turned(surface.turn)[2],
    area: surface.width * surface.height,
  };
}
