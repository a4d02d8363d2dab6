import type { Gpu } from '../gpu/gpu';
import { Patch, Rig } from './rig';

/** A patch of 200 nodes in which nothing moves. */
export function stillEngine(gpu: Gpu): Rig {
  const p = new Patch();
  const kinds = ['levels', 'hue-saturation', 'gradient-map', 'tone', 'transform'];
  let over: string | null = null;
  let count = 1;
  for (let row = 0; row < 19; row++) {
    let last = p.add('noise', { rate: 0, seed: row });
    count++;
    for (let k = 0; k < 8; k++) {
      const next = p.add(kinds[(row + k) % kinds.length]);
      p.wire(last, next, 'picture');
      last = next;
      count++;
    }
    if (over) {
      const blend = p.add('blend', { amount: 0.3 });
      p.wire(over, blend, 'picture');
      p.wire(last, blend, 'over');
      last = blend;
      count++;
    }
    over = last;
  }
  while (count < 200) {
    const next = p.add('levels');
    p.wire(over!, next, 'picture');
    over = next;
    count++;
  }
  return new Rig(gpu, p, over!);
}
