import { toHex } from '../colour';
import type { ControlValue, Rgba, Show } from '../document/types';
import { kindOf, type Catalogue } from '../kind/kind';

/**
 * The colours that a show uses, most used first, each once: those of its colour controls and of the stops of its gradients, in scenes and
 * modules. Alpha does not count. `most`: how many at the most.
 */
export function paletteOf(show: Show, catalogue: Catalogue, most = 24): Rgba[] {
  const uses = new Map<string, { colour: Rgba; count: number }>();
  const use = (colour: readonly number[]): void => {
    const key = toHex(colour);
    const known = uses.get(key);
    if (known) known.count++;
    else uses.set(key, { colour: [colour[0], colour[1], colour[2], 1], count: 1 });
  };
  const look = (type: string, value: ControlValue | undefined): void => {
    if (!Array.isArray(value)) return;
    if (type === 'colour' && value.every((v) => typeof v === 'number')) use(value as number[]);
    if (type === 'gradient')
      for (const stop of value) if (typeof stop === 'object' && 'colour' in stop) use(stop.colour);
  };
  for (const { nodes } of [...show.scenes, ...Object.values(show.modules ?? {})])
    for (const node of Object.values(nodes))
      for (const [name, { type }] of Object.entries(kindOf(catalogue, node)?.controls ?? {}))
        look(type, node.controls[name]);
  return [...uses.values()]
    .sort((a, b) => b.count - a.count)
    .slice(0, most)
    .map(({ colour }) => colour);
}
