import { inside, placeOfNode, prefixOf, sceneOfPlace } from '../../core/module/place';
import type { EngineRequest, LayerLayout, OutputSource, Watch } from '../../engine/protocol/protocol';

/**
 * The editor edits a scene or what lies in a module; the engine plays scenes whose modules were taken apart. What is said of a place is
 * brought here into the words of the engine, and back.
 */
type Place = string;

const idAt = (place: Place, node: string): string => prefixOf(place) + node;
const orNull = (place: Place, node: string | null): string | null =>
  node === null ? null : idAt(place, node);

export function sourceInEngine(source: OutputSource): OutputSource {
  switch (source.type) {
    case 'scene':
      return {
        ...source,
        scene: sceneOfPlace(source.scene),
        without: orNull(source.scene, source.without),
      };
    case 'node':
      return { ...source, scene: sceneOfPlace(source.scene), node: idAt(source.scene, source.node) };
    default:
      return source;
  }
}

export function watchInEngine(watch: Watch): Watch {
  const place = watch.scene;
  if (place === null) return watch;
  return {
    scene: sceneOfPlace(place),
    cards: watch.cards.map((node) => idAt(place, node)),
    bench: orNull(place, watch.bench),
    inspected: orNull(place, watch.inspected),
  };
}

export function layoutInEngine(layout: LayerLayout | null): LayerLayout | null {
  if (!layout) return null;
  const place = layout.scene;
  const at = <T extends { node: string }>(list: readonly T[]): T[] =>
    list.map((one) => ({ ...one, node: idAt(place, one.node) }));
  return { ...layout, scene: sceneOfPlace(place), faces: at(layout.faces), wires: at(layout.wires) };
}

export function requestInEngine(request: EngineRequest): EngineRequest {
  switch (request.type) {
    case 'pixel':
    case 'shader':
      return { ...request, scene: sceneOfPlace(request.scene), node: idAt(request.scene, request.node) };
    case 'why':
    case 'picture':
      return { ...request, scene: sceneOfPlace(request.scene) };
    case 'data': {
      const { scene, node } = request.request;
      return {
        ...request,
        request: { ...request.request, scene: sceneOfPlace(scene), node: orNull(scene, node) },
      };
    }
    default:
      return request;
  }
}

/** The id that a node has at a place; null if it does not lie just there. */
export function idAtPlace(place: Place, node: string): string | null {
  const prefix = prefixOf(place);
  if (!node.startsWith(prefix)) return null;
  const own = node.slice(prefix.length);
  return own.includes('/') ? null : own;
}

/** What was said of nodes of a scene, sorted by the places where they lie; a module node says what is said inside of it. */
export function byPlaces(
  scene: string,
  said: Readonly<Record<string, string>>,
): Record<string, Record<string, string>> {
  const places: Record<string, Record<string, string>> = { [scene]: {} };
  for (const [id, sentence] of Object.entries(said)) {
    let { place, node } = placeOfNode(scene, id);
    for (;;) {
      (places[place] ??= {})[node] ??= sentence;
      if (place === scene) break;
      ({ place, node } = placeOfNode(scene, prefixOf(place).slice(0, -1)));
    }
  }
  return places;
}

/** Milliseconds of a node at a place: its own, or of all that lies in it. */
export function costAt(
  place: Place,
  node: string,
  nodeMs: Readonly<Record<string, number>>,
): number | undefined {
  const id = idAt(place, node);
  const within = inside(id, '');
  let sum: number | undefined;
  for (const [other, ms] of Object.entries(nodeMs))
    if (other === id || other.startsWith(within)) sum = (sum ?? 0) + ms;
  return sum;
}
