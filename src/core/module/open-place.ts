import type { Module, Scene, Show } from '../document/types';
import { moduleIdOf } from './module-kind';
import { placeOfNode, splitPlace } from './place';

/** The module that is edited at a place; null at a scene, or where the way there is gone. */
export function moduleAt(show: Pick<Show, 'scenes' | 'modules'>, place: string): Module | null {
  const { scene, path } = splitPlace(place);
  let nodes = show.scenes.find(({ id }) => id === scene)?.nodes;
  let module: Module | null = null;
  for (const id of path) {
    const node = nodes && Object.hasOwn(nodes, id) ? nodes[id] : undefined;
    const wanted = node ? moduleIdOf(node.kind) : null;
    if (wanted === null || !Object.hasOwn(show.modules, wanted)) return null;
    module = show.modules[wanted];
    nodes = module.nodes;
  }
  return module;
}

/** Modules as they are edited, by the place: the same as long as the module and the loop of its scene are. */
const opened = new WeakMap<Module, Map<string, Scene>>();

/** The patch at a place, as a scene: that scene, or what lies in a module, under the id of the place. Null if it is gone. */
export function sceneAt(show: Pick<Show, 'scenes' | 'modules'>, place: string): Scene | null {
  const { scene: id, path } = splitPlace(place);
  const scene = show.scenes.find((one) => one.id === id) ?? null;
  if (path.length === 0 || !scene) return scene;
  const module = moduleAt(show, place);
  if (!module) return null;
  const known = opened.get(module)?.get(place);
  if (known?.loop === scene.loop) return known;
  const made: Scene = {
    id: place,
    name: module.name,
    loop: scene.loop,
    nodes: module.nodes,
    wires: module.wires,
    ...(module.frames ? { frames: module.frames } : {}),
  };
  const places = opened.get(module) ?? new Map<string, Scene>();
  opened.set(module, places.set(place, made));
  return made;
}

/** What leads to a place, from its scene on: the place and name of each. */
export function pathTo(
  show: Pick<Show, 'scenes' | 'modules'>,
  place: string,
): { place: string; name: string }[] {
  const { scene, path } = splitPlace(place);
  const places = [scene, ...path.map((_, k) => [scene, ...path.slice(0, k + 1)].join('/'))];
  return places.flatMap((one, k) => {
    const around = k > 0 ? sceneAt(show, places[k - 1]) : null;
    const name = k === 0 ? sceneAt(show, one)?.name : around?.nodes[path[k - 1]]?.name;
    return name === undefined ? [] : [{ place: one, name }];
  });
}

/** What a node of a scene is called, with the modules that it lies in: `Ripple › Noise`. */
export function nameOfNode(show: Pick<Show, 'scenes' | 'modules'>, scene: string, node: string): string {
  const at = placeOfNode(scene, node);
  const own = sceneAt(show, at.place)?.nodes[at.node]?.name ?? node;
  return [
    ...pathTo(show, at.place)
      .slice(1)
      .map(({ name }) => name),
    own,
  ].join(' › ');
}
