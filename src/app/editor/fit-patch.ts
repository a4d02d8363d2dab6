import { getViewportForBounds, type ReactFlowInstance } from '@xyflow/react';
import type { Scene } from '../../core/document/types';
import type { CardNode, WireEdge } from './flow-model';

/** Zooms so that the whole patch is in sight: its cards, frames and notes. Resolves when it stands. */
export async function fitPatch(
  flow: ReactFlowInstance<CardNode, WireEdge>,
  box: HTMLElement | null,
  scene: Scene,
  duration = 0,
): Promise<void> {
  const frames = Object.values(scene.frames ?? {});
  if (!frames.length || !box) {
    await flow.fitView({ padding: 0.1, maxZoom: 1, duration });
    return;
  }
  const cards = flow.getNodesBounds(flow.getNodes());
  const left = Math.min(cards.x, ...frames.map(({ place }) => place[0]));
  const top = Math.min(cards.y, ...frames.map(({ place }) => place[1]));
  const right = Math.max(cards.x + cards.width, ...frames.map(({ place, size }) => place[0] + size[0]));
  const bottom = Math.max(cards.y + cards.height, ...frames.map(({ place, size }) => place[1] + size[1]));
  const bounds = { x: left, y: top, width: right - left, height: bottom - top };
  const { width, height } = box.getBoundingClientRect();
  await flow.setViewport(getViewportForBounds(bounds, width, height, 0.2, 1, 0.1), { duration });
}
