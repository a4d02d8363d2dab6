import type { ReactFlowInstance } from '@xyflow/react';
import { create } from 'zustand';
import type { Scene } from '../../core/document/types';
import { choose, openScene, sessionStore } from '../data/session';
import { faceHeight, faceWidth } from './live-layout';
import type { CardNode, WireEdge } from './flow-model';

/** Least zoom at which a card that was asked for is seen. */
const leastZoom = 0.9;
/** Milliseconds for which a patch that opens shows the card that was asked for, and not itself as a whole. */
const openingMs = 4000;

/** The node that was asked for last, and when. */
export const goalStore = create<{ scene: string; node: string; at: number } | null>()(() => null);

/** Opens the scene of a node, chooses that, and brings its card into sight. */
export function goTo(scene: string, node: string): void {
  if (sessionStore.getState().sceneId !== scene) openScene(scene);
  choose([node]);
  goalStore.setState({ scene, node, at: performance.now() }, true);
}

/** Brings the card that was just asked for into the middle; false: none was. */
export function showGoal(flow: ReactFlowInstance<CardNode, WireEdge>, scene: Scene): boolean {
  const goal = goalStore.getState();
  if (goal?.scene !== scene.id || performance.now() - goal.at > openingMs) return false;
  const place = scene.nodes[goal.node]?.place;
  if (!place) return false;
  void flow.setCenter(place[0] + faceWidth / 2, place[1] + faceHeight / 2, {
    zoom: Math.max(leastZoom, flow.getZoom()),
  });
  return true;
}
