import type { LedWall, Output, ScreenOutput, Show } from '../document/types';
import { rasterFaults } from '../wall/led';
import { partOf } from '../wall/outputs';
import { boundsOf } from '../wall/parts';
import type { Finding } from './finding';

function checkWarp({ warp }: ScreenOutput, at: string): Finding[] {
  const needed = warp.columns * warp.rows;
  if (warp.points.length === needed) return [];
  return [
    {
      level: 'error',
      where: `${at}.warp.points`,
      what: `A warp of ${warp.columns} x ${warp.rows} needs ${needed} points, not ${warp.points.length}.`,
    },
  ];
}

function checkRaster(led: LedWall, at: string): Finding[] {
  const { places } = led.raster;
  if (places && places.length !== led.tiles.length)
    return [
      {
        level: 'error',
        where: `${at}.raster.places`,
        what: `${led.tiles.length} tiles need as many places in the raster, not ${places.length}.`,
      },
    ];
  const { outside, overlaps } = rasterFaults(led);
  const findings: Finding[] = [];
  if (outside.length)
    findings.push({
      level: 'warning',
      where: `${at}.raster`,
      what: `${outside.length} tiles of ${led.name} stand beyond its raster and stay dark. Make the raster larger.`,
    });
  if (overlaps.length)
    findings.push({
      level: 'warning',
      where: `${at}.raster`,
      what: `Tiles of ${led.name} share pixels of its raster: ${overlaps[0].map((k) => k + 1).join(' and ')}. Move one of them.`,
    });
  return findings;
}

/** What the schema can't say of the outputs of a show. */
export function checkWall({ wall, canvas }: Pick<Show, 'wall' | 'canvas'>): Finding[] {
  const findings: Finding[] = [];
  const ids = new Set<string>();
  wall.outputs.forEach((output: Output, k) => {
    const { id, name } = output;
    const at = `wall.outputs[${k}]`;
    if (ids.has(id))
      findings.push({ level: 'error', where: `${at}.id`, what: `Two outputs have the id ${id}.` });
    ids.add(id);
    findings.push(...(output.type === 'screen' ? checkWarp(output, at) : checkRaster(output, at)));
    const box = boundsOf(partOf(output));
    if (box.x >= canvas.width || box.y >= canvas.height || box.x + box.width <= 0 || box.y + box.height <= 0)
      findings.push({
        level: 'warning',
        where: output.type === 'screen' ? `${at}.part` : `${at}.place`,
        what: `${name} lies outside of the canvas, so it is black. Move its part in the Wall view.`,
      });
  });
  return findings;
}
