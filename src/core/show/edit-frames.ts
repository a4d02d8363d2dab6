import type { Patch, PatchFrame } from '../document/types';
import { freeId } from './create';
import { EditError, moveNode } from './edit';

/** About what a card covers, in patch pixels. */
const card = { width: 154, height: 114 } as const;
/** Patch pixels between a frame and the cards around which it is laid; above, its title has to go as well. */
const around = { side: 24, top: 48 } as const;
const noteSize: [number, number] = [240, 140];

/** Colours that frames take in turn. */
export const frameTints: readonly [number, number, number][] = [
  [0.94, 0.65, 0.23],
  [0.37, 0.78, 0.75],
  [0.91, 0.45, 0.52],
  [0.68, 0.6, 0.9],
  [0.6, 0.72, 0.4],
];

const framesOf = (patch: Patch): PatchFrame[] => Object.values(patch.frames ?? {});

function frameOf(patch: Patch, id: string): PatchFrame {
  const frame = patch.frames?.[id];
  if (!frame) throw new EditError('This frame is gone.');
  return frame;
}

function add(patch: Patch, frame: Omit<PatchFrame, 'id'>): string {
  patch.frames ??= {};
  const id = freeId('f', Object.keys(patch.frames));
  patch.frames[id] = { id, ...frame };
  return id;
}

/** Lays a frame around nodes. Gives its id. */
export function addFrame(patch: Patch, nodes: readonly string[]): string {
  const places = nodes.flatMap((id) => (patch.nodes[id] ? [patch.nodes[id].place] : []));
  if (!places.length) throw new EditError('Choose the nodes that the frame is to hold.');
  const left = Math.min(...places.map(([x]) => x)) - around.side;
  const top = Math.min(...places.map(([, y]) => y)) - around.top;
  const right = Math.max(...places.map(([x]) => x)) + card.width + around.side;
  const bottom = Math.max(...places.map(([, y]) => y)) + card.height + around.side;
  const count = framesOf(patch).filter(({ type }) => type === 'frame').length;
  return add(patch, {
    type: 'frame',
    text: 'Frame',
    place: [left, top],
    size: [right - left, bottom - top],
    tint: [...frameTints[count % frameTints.length]],
  });
}

/** Puts a note down at a place. Gives its id. */
export const addNote = (patch: Patch, place: readonly [number, number]): string =>
  add(patch, {
    type: 'note',
    text: '**Note**\n\nDouble-click to write.',
    place: [Math.round(place[0]), Math.round(place[1])],
    size: [...noteSize],
    tint: null,
  });

/** Nodes whose cards have their middles in a frame, and frames and notes that lie in it; a note holds nothing. */
export function heldBy(patch: Patch, id: string): { nodes: string[]; frames: string[] } {
  const frame = frameOf(patch, id);
  if (frame.type === 'note') return { nodes: [], frames: [] };
  const [left, top] = frame.place;
  const [right, bottom] = [left + frame.size[0], top + frame.size[1]];
  const has = (x: number, y: number): boolean => x >= left && x <= right && y >= top && y <= bottom;
  return {
    nodes: Object.values(patch.nodes)
      .filter(({ place: [x, y] }) => has(x + card.width / 2, y + card.height / 2))
      .map((node) => node.id),
    frames: framesOf(patch)
      .filter(
        (other) =>
          other.id !== id &&
          has(other.place[0], other.place[1]) &&
          has(other.place[0] + other.size[0], other.place[1] + other.size[1]),
      )
      .map((other) => other.id),
  };
}

/** Moves a frame with what it holds. `held`: what that is, where it was found before the move began. */
export function moveFrame(
  patch: Patch,
  id: string,
  by: readonly [number, number],
  held: { nodes: readonly string[]; frames: readonly string[] } = heldBy(patch, id),
): void {
  for (const one of [id, ...held.frames]) {
    const frame = frameOf(patch, one);
    frame.place = [Math.round(frame.place[0] + by[0]), Math.round(frame.place[1] + by[1])];
  }
  for (const node of held.nodes) {
    const there = patch.nodes[node]?.place;
    if (there) moveNode(patch, node, [there[0] + by[0], there[1] + by[1]]);
  }
}

export function sizeFrame(patch: Patch, id: string, size: readonly [number, number]): void {
  frameOf(patch, id).size = [Math.max(60, Math.round(size[0])), Math.max(40, Math.round(size[1]))];
}

export function changeFrame(
  patch: Patch,
  id: string,
  change: Partial<Pick<PatchFrame, 'text' | 'tint'>>,
): void {
  Object.assign(frameOf(patch, id), change);
}

/** Removes a frame or note; what it held stays. */
export function removeFrame(patch: Patch, id: string): void {
  if (patch.frames) delete patch.frames[id];
}

const middleOf = (places: readonly number[]): number => (Math.min(...places) + Math.max(...places)) / 2;

/** Lines nodes up: by their middles in a row or column, or evenly between the outermost two. */
export function lineUp(
  patch: Patch,
  nodes: readonly string[],
  how: 'row' | 'column' | 'across' | 'down',
): void {
  const own = nodes.flatMap((id) => (patch.nodes[id] ? [patch.nodes[id]] : []));
  if (own.length < 2) return;
  const k = how === 'row' || how === 'down' ? 1 : 0;
  if (how === 'row' || how === 'column') {
    const to = middleOf(own.map(({ place }) => place[k]));
    for (const node of own) moveNode(patch, node.id, k ? [node.place[0], to] : [to, node.place[1]]);
    return;
  }
  const sorted = [...own].sort((a, b) => a.place[k] - b.place[k]);
  const [first, last] = [sorted[0].place[k], sorted[sorted.length - 1].place[k]];
  sorted.forEach((node, at) => {
    const to = first + ((last - first) * at) / (sorted.length - 1);
    moveNode(patch, node.id, k ? [node.place[0], to] : [to, node.place[1]]);
  });
}
