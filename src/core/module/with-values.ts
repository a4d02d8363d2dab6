import type { Module, Patch, Scene, Show } from '../document/types';
import { moduleAt } from './open-place';
import { splitPlace } from './place';

/** Values of controls, by node and control with a blank between. */
type Values = Readonly<Record<string, Module['controls'][number]['home']>>;

function patched<P extends Pick<Patch, 'nodes'>>(patch: P, values: Values): P {
  const nodes = { ...patch.nodes };
  for (const [key, value] of Object.entries(values)) {
    const [id, control] = key.split(' ');
    const node = Object.hasOwn(nodes, id) ? nodes[id] : undefined;
    if (node) nodes[id] = { ...node, controls: { ...node.controls, [control]: value } };
  }
  return { ...patch, nodes };
}

/** The scene of a place, and the modules of the show, with other values at the place; the rest is the same. */
export function withValuesAt(
  show: Pick<Show, 'scenes' | 'modules'>,
  place: string,
  values: Values,
): { scene: Scene; modules: Show['modules'] } {
  const { scene: id, path } = splitPlace(place);
  const scene = show.scenes.find((one) => one.id === id)!;
  if (path.length === 0) return { scene: patched(scene, values), modules: show.modules };
  const module = moduleAt(show, place);
  const modules = module ? { ...show.modules, [module.id]: patched(module, values) } : show.modules;
  return { scene: { ...scene }, modules };
}
