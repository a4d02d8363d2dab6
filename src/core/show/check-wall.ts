import type { LedWall, Output, PixelString, ScreenOutput, Show } from '../document/types';
import { rasterFaults } from '../wall/led';
import { partOf } from '../wall/outputs';
import { mostArtNetUniverse } from '../wall/pixels/art-net';
import { nodeOf } from '../wall/pixels/datagrams';
import { patchOf } from '../wall/pixels/pixels';
import { mostSacnUniverse } from '../wall/pixels/sacn';
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

function checkSending(string: PixelString, at: string): Finding[] {
  const { name, send } = string;
  const { protocol, address } = send;
  const where = `${at}.send.address`;
  if (protocol !== 'none' && protocol !== 'sacn' && !address && !send.simulated)
    return [
      { level: 'warning', where, what: `${name} has no address to be sent to. Type one in the Wall view.` },
    ];
  if (address && address.split('.').some((part) => Number(part) > 255))
    return [{ level: 'warning', where, what: `${address} is no IPv4 address. Its numbers go up to 255.` }];
  const [least, most] = protocol === 'artnet' ? [0, mostArtNetUniverse] : [1, mostSacnUniverse];
  const beyond =
    protocol === 'none' || protocol === 'ddp'
      ? undefined
      : patchOf(string).find((patch) => patch.universe < least || patch.universe > most);
  if (!beyond) return [];
  return [
    {
      level: 'warning',
      where: `${at}.send.universe`,
      what: `${protocol === 'artnet' ? 'Art-Net' : 'sACN'} has the universes ${least} to ${most}; ${name} would be sent to ${beyond.universe}.`,
    },
  ];
}

/** Strings that would write to the same channels. */
function checkPatches(outputs: readonly Output[]): Finding[] {
  const findings: Finding[] = [];
  const taken = new Map<string, { name: string; first: number; last: number }[]>();
  outputs.forEach((output, k) => {
    if (output.type !== 'string' || output.send.protocol === 'none' || output.send.protocol === 'ddp') return;
    for (const { universe, channel, bytes } of patchOf(output)) {
      const key = `${output.send.protocol} ${nodeOf(output)} ${universe}`;
      const [first, last] = [channel, channel + bytes - 1];
      const others = taken.get(key) ?? [];
      const other = others.find((one) => one.first <= last && first <= one.last);
      if (other)
        findings.push({
          level: 'warning',
          where: `wall.outputs[${k}].send`,
          what: `${output.name} and ${other.name} share channels of universe ${universe}. Move one of them.`,
        });
      taken.set(key, [...others, { name: output.name, first, last }]);
    }
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
    if (output.type === 'screen') findings.push(...checkWarp(output, at));
    else if (output.type === 'led') findings.push(...checkRaster(output, at));
    else findings.push(...checkSending(output, at));
    const box = boundsOf(partOf(output));
    if (box.x >= canvas.width || box.y >= canvas.height || box.x + box.width <= 0 || box.y + box.height <= 0)
      findings.push({
        level: 'warning',
        where: `${at}.${{ screen: 'part', led: 'place', string: 'points' }[output.type]}`,
        what: `${name} lies outside of the canvas, so it is black. Move its part in the Wall view.`,
      });
  });
  return [...findings, ...checkPatches(wall.outputs)];
}
