import type { ReactFlowInstance } from '@xyflow/react';
import { useState } from 'react';
import { kindOf } from '../../core/kind/kind';
import { moveNode } from '../../core/show/edit';
import { nextNode, type Direction } from '../../core/show/walk-patch';
import type { Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { choose } from '../data/session';
import { editScene } from '../data/show-store';
import { faceHeight, faceWidth } from './live-layout';
import type { CardNode, WireEdge } from './flow-model';

const directions: Readonly<Record<string, Direction>> = {
  ArrowLeft: 'left',
  ArrowRight: 'right',
  ArrowUp: 'up',
  ArrowDown: 'down',
};

/** Patch pixels that chosen cards move by with each key. */
const step = 24;
const steps: Readonly<Record<Direction, readonly [number, number]>> = {
  left: [-step, 0],
  right: [step, 0],
  up: [0, -step],
  down: [0, step],
};

/** The patch by keys: arrows choose the next node in their direction, with Alt and Shift they move what is chosen. */
export function useWalk(
  scene: Scene,
  selection: readonly string[],
  flow: ReactFlowInstance<CardNode, WireEdge>,
): { onKeyDown(event: React.KeyboardEvent): void; announcement: React.ReactNode } {
  const [said, say] = useState('');
  const onKeyDown = (event: React.KeyboardEvent): void => {
    const direction = directions[event.key];
    const { target } = event;
    const isTyping =
      target instanceof HTMLElement && target.matches('input, textarea, select, [role="slider"]');
    if (!direction || isTyping || event.ctrlKey || event.metaKey) return;
    if (event.altKey && event.shiftKey) {
      const [dx, dy] = steps[direction];
      editScene(
        scene.id,
        (draft) => {
          for (const id of selection) {
            const place = draft.nodes[id]?.place;
            if (place) moveNode(draft, id, [place[0] + dx, place[1] + dy]);
          }
        },
        `walk ${selection.join(' ')}`,
      );
    } else if (!event.altKey && !event.shiftKey) {
      const next = nextNode(scene, selection[0] ?? null, direction);
      if (!next) return;
      choose([next]);
      const node = scene.nodes[next];
      const kind = kindOf(catalogue, node);
      say(`${node.name}, ${kind?.label ?? node.kind}${node.on ? '' : ', off'}`);
      const [x, y] = [node.place[0] + faceWidth / 2, node.place[1] + faceHeight / 2];
      const box = event.currentTarget.getBoundingClientRect();
      const at = flow.flowToScreenPosition({ x, y });
      const isSeen = at.x > box.left && at.x < box.right && at.y > box.top && at.y < box.bottom;
      if (!isSeen) void flow.setCenter(x, y, { zoom: flow.getZoom(), duration: 150 });
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const announcement = (
    <p className="sr-only" role="status">
      {said}
    </p>
  );
  return { onKeyDown, announcement };
}
