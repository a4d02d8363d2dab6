import { fromHex } from '../../core/colour';
import { kindOf } from '../../core/kind/kind';
import type { Scene } from '../../core/document/types';
import type { LayerFace, LayerLayout, LayerWire } from '../../engine/protocol/protocol';
import { catalogue } from '../../nodes/catalogue';

/** Size of a face inside of the border of its card, in patch pixels; that of a signal is lower. */
export const faceWidth = 152;
export const faceHeight = 86;
const signalFaceHeight = 56;
const border = 1;

/** Where a card lies: its upper left and its order, the higher in front. */
export interface Placed {
  id: string;
  x: number;
  y: number;
  z: number;
}

/** The faces of cards that lie in a view, those behind first. */
export function facesOf(
  scene: Scene,
  cards: readonly Placed[],
  view: { x: number; y: number; width: number; height: number },
): LayerFace[] {
  const faces: { z: number; face: LayerFace }[] = [];
  for (const { id, x, y, z } of cards) {
    const kind = kindOf(catalogue, scene.nodes[id]);
    if (!kind) continue;
    const shows = kind.output === 'image' || kind.output === 'field' ? 'picture' : 'numbers';
    const height = kind.output === 'signal' ? signalFaceHeight : faceHeight;
    if (x > view.x + view.width || x + faceWidth < view.x) continue;
    if (y > view.y + view.height || y + height < view.y) continue;
    faces.push({ z, face: { node: id, shows, x: x + border, y: y + border, width: faceWidth, height } });
  }
  return faces.sort((a, b) => a.z - b.z).map(({ face }) => face);
}

/** Pixels around a card into which its ports and its shadow reach. */
const around = 16;
/** Height of the line with the name, below the face. */
const nameHeight = 30;

/**
 * What of each card has to be cut away, by its node, as an SVG path in pixels from its upper left: the faces of cards that lie
 * over it. Faces are painted behind all cards, so what lies between would cover them.
 */
export function cutouts(faces: readonly LayerFace[]): Map<string, string> {
  const cuts = new Map<string, string>();
  faces.forEach((lower, k) => {
    const [left, top] = [lower.x - border, lower.y - border];
    const [width, height] = [faceWidth + 2 * border, lower.height + nameHeight];
    let holes = '';
    for (const upper of faces.slice(k + 1)) {
      if (upper.x > left + width || upper.x + upper.width < left) continue;
      if (upper.y > top + height || upper.y + upper.height < top) continue;
      holes += ` M ${upper.x - left} ${upper.y - top} h ${upper.width} v ${upper.height} h ${-upper.width} z`;
    }
    if (holes)
      cuts.set(
        lower.node,
        `M ${-around} ${-around} h ${width + 2 * around} v ${height + 2 * around} h ${-width - 2 * around} z${holes}`,
      );
  });
  return cuts;
}

const wires = new Map<string, LayerWire>();
const listeners = new Set<() => void>();
const tell = (): void => {
  for (const listener of listeners) listener();
};

/** Says how a wire lies that shows what it carries; gives what takes it away. */
export function placeWire(id: string, wire: LayerWire): () => void {
  wires.set(id, wire);
  tell();
  return () => {
    wires.delete(id);
    tell();
  };
}

export const placedWires = (): LayerWire[] => [...wires.values()];

/** Called when a wire lies otherwise. */
export function onWires(listener: () => void): () => void {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}

/** `#f0a63a` as red, green and blue, 0..1; grey for anything else. */
export const readColour = (text: string): [number, number, number] => fromHex(text) ?? [0.5, 0.5, 0.5];

/** Colours of the theme that is shown, as the engine takes them. */
export function themeColours(): LayerLayout['colours'] {
  const style = getComputedStyle(document.documentElement);
  const of = (name: string): [number, number, number] => readColour(style.getPropertyValue(name));
  return {
    signal: of('--wire-signal'),
    shape: of('--wire-shape'),
    prop: of('--wire-prop'),
    image: of('--wire-image'),
    ground: of('--color-base-100'),
    ink: of('--color-base-content'),
  };
}
