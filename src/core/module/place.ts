/**
 * Where nodes inside of modules are: the id of a node in a scene whose modules were taken apart is the ids of the module nodes
 * that it lies in and its own, `n5/n2`. A place that is edited is a scene and the module nodes that lead there, `s1/n5`.
 */
const mark = '/';

/** The id of a node that lies in a module node. */
export const inside = (module: string, node: string): string => `${module}${mark}${node}`;

/** The scene of a place, and the module nodes that lead to it. */
export function splitPlace(place: string): { scene: string; path: string[] } {
  const [scene, ...path] = place.split(mark);
  return { scene, path };
}

/** The scene that a place lies in. */
export const sceneOfPlace = (place: string): string => splitPlace(place).scene;

/** What ids of nodes of a place begin with, in a scene whose modules were taken apart. */
export function prefixOf(place: string): string {
  const at = place.indexOf(mark);
  return at < 0 ? '' : `${place.slice(at + 1)}${mark}`;
}

/** The place that a node lies in, and its id there. `scene`: that of the place. */
export function placeOfNode(scene: string, node: string): { place: string; node: string } {
  const at = node.lastIndexOf(mark);
  return at < 0
    ? { place: scene, node }
    : { place: `${scene}${mark}${node.slice(0, at)}`, node: node.slice(at + 1) };
}

/** The place that a place lies in; null of a scene. */
export function placeAround(place: string): { place: string; node: string } | null {
  const at = place.lastIndexOf(mark);
  return at < 0 ? null : { place: place.slice(0, at), node: place.slice(at + 1) };
}

/** The node at a place that a node of a scene lies in or is; null if it lies elsewhere. */
export function nodeAtPlace(place: string, node: string): string | null {
  const prefix = prefixOf(place);
  if (!node.startsWith(prefix)) return null;
  const [own] = node.slice(prefix.length).split(mark);
  return own || null;
}
