import { create } from 'zustand';
import { shallow } from 'zustand/shallow';
import type { Scene } from '../../core/document/types';
import { kindOf } from '../../core/kind/kind';
import { catalogue } from '../../nodes/catalogue';
import { cardSize } from './flow-model';

/** Part of the patch that is seen, in patch pixels. */
export interface PatchView {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Ids of the nodes whose cards lie in a view, at least in part, and of the signals that are wired into them: their wires show values. */
export function cardsIn(scene: Scene, { x, y, width, height }: PatchView): string[] {
  const seen = new Set<string>();
  for (const { id, place } of Object.values(scene.nodes))
    if (
      place[0] < x + width &&
      place[0] + cardSize.width > x &&
      place[1] < y + height &&
      place[1] + cardSize.height > y
    )
      seen.add(id);
  const isSignal = (id: string): boolean => kindOf(catalogue, scene.nodes[id])?.output === 'signal';
  const signals = Object.values(scene.wires)
    .filter(({ from, to }) => seen.has(to.node) && isSignal(from.node))
    .map(({ from }) => from.node);
  return [...new Set([...seen, ...signals])];
}

/** Cards above which only those in sight are drawn: below it, panning is smoother with all of them there. */
export const mostDrawn = 150;

/** Nodes whose cards are in sight; null: nothing is known yet. */
export const cardsInSight = create<{ ids: readonly string[] | null }>()(() => ({ ids: null }));

/** Takes another list, unless it is the same. */
export function seeCards(ids: readonly string[] | null): void {
  if (!shallow(ids, cardsInSight.getState().ids)) cardsInSight.setState({ ids });
}
