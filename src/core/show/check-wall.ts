import type { Finding } from './finding';
import type { Show } from '../document/types';
import { boundsOf } from '../wall/parts';

/** What the schema can't say of the outputs of a show. */
export function checkWall({ wall, canvas }: Pick<Show, 'wall' | 'canvas'>): Finding[] {
  const findings: Finding[] = [];
  const ids = new Set<string>();
  wall.outputs.forEach(({ id, name, warp, part }, k) => {
    const at = `wall.outputs[${k}]`;
    if (ids.has(id))
      findings.push({ level: 'error', where: `${at}.id`, what: `Two outputs have the id ${id}.` });
    ids.add(id);
    const needed = warp.columns * warp.rows;
    if (warp.points.length !== needed)
      findings.push({
        level: 'error',
        where: `${at}.warp.points`,
        what: `A warp of ${warp.columns} x ${warp.rows} needs ${needed} points, not ${warp.points.length}.`,
      });
    const box = boundsOf(part);
    if (box.x >= canvas.width || box.y >= canvas.height || box.x + box.width <= 0 || box.y + box.height <= 0)
      findings.push({
        level: 'warning',
        where: `${at}.part`,
        what: `${name} lies outside of the canvas, so it is black. Move its part in the Wall view.`,
      });
  });
  return findings;
}
