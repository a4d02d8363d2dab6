import { csvFormatRow } from 'd3-dsv';
import type { Show } from '../document/types';
import { hasWindow, partOf, windowSizeOf } from './outputs';
import { pixelCount } from './pixels/pixels';
import { surfaceOf } from './room';

const heads = [
  'name',
  'type',
  'part x',
  'part y',
  'part width',
  'part height',
  'part turn',
  'window width',
  'window height',
  'tiles',
  'pixels',
  'protocol',
  'address',
  'universe',
  'channel',
  'room x',
  'room y',
  'room z',
  'turned x',
  'turned y',
  'turned z',
  'metres wide',
  'metres high',
];

const fine = (value: number): number => Math.round(value * 1000) / 1000;

/** The outputs of a wall as comma separated values (RFC 4180), one a row. */
export function wallTable({ wall, canvas }: Pick<Show, 'wall' | 'canvas'>): string {
  const rows = wall.outputs.map((output) => {
    const { x, y, width, height, turn } = partOf(output);
    const surface = surfaceOf(output, canvas);
    const [windowWidth, windowHeight] = hasWindow(output) ? windowSizeOf(output) : ['', ''];
    const send = output.type === 'string' ? output.send : null;
    return [
      output.name,
      output.type,
      ...[x, y, width, height, turn].map(fine),
      windowWidth,
      windowHeight,
      output.type === 'led' ? output.tiles.length : '',
      output.type === 'string' ? pixelCount(output) : '',
      send?.protocol ?? '',
      send ? (send.simulated ? 'simulated' : send.address) : '',
      send?.universe ?? '',
      send?.channel ?? '',
      ...[...surface.at, ...surface.turn, surface.width, surface.height].map(fine),
    ];
  });
  return [heads, ...rows].map((row) => csvFormatRow(row.map(String))).join('\r\n');
}
