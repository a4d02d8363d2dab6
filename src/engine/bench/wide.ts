import type { Gpu } from '../gpu/gpu';
import { Patch, Rig, size } from './rig';

/** A lattice, so that there is something to be softened, and what softens it. */
function over(gpu: Gpu, kind: string, controls: Record<string, number>): Rig {
  const p = new Patch();
  const lattice = p.add('lattice', { cells: [12, 12], cellsALoop: [1, 0] });
  const node = p.add(kind, controls);
  p.wire(lattice, node, 'picture');
  return new Rig(gpu, p, node);
}

export const blurEngine = (gpu: Gpu, radiusPx: number): Rig =>
  over(gpu, 'blur', { radius: radiusPx / size.height });

export const glowEngine = (gpu: Gpu): Rig => over(gpu, 'glow', { threshold: 0.2, reach: 0.3 });
