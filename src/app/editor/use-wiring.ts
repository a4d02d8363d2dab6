import { useReactFlow, type Connection, type FinalConnectionState } from '@xyflow/react';
import { useCallback, useRef, useState } from 'react';
import { kindOf } from '../../core/kind/kind';
import { connect, disconnect } from '../../core/show/edit';
import type { Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { editScene } from '../data/show-store';
import type { AddRequest } from './add-request';
import type { CardNode, WireEdge } from './flow-model';
import { portChoices, type PortChoice } from './port-menu';
import { refuseWire } from './refuse-wire';

/** A wire that was dropped on a card with several ports that take it. */
export interface Dropped {
  at: readonly [number, number];
  from: string;
  to: string;
  choices: PortChoice[];
}

export const pointOf = (event: MouseEvent | TouchEvent): [number, number] =>
  'changedTouches' in event
    ? [event.changedTouches[0].clientX, event.changedTouches[0].clientY]
    : [event.clientX, event.clientY];

/**
 * Wires drawn by hand: what React Flow calls, and the wire that waits for a choice of its port. `ask` opens Add for a wire that
 * was pulled into the open.
 */
export function useWiring(scene: Scene, ask: (request: AddRequest) => void) {
  const flow = useReactFlow<CardNode, WireEdge>();
  const [dropped, setDropped] = useState<Dropped | null>(null);
  const onConnect = useCallback(
    (connection: Connection) => {
      editScene(scene.id, (draft) =>
        connect(draft, catalogue, connection.source, connection.target, connection.targetHandle!),
      );
    },
    [scene.id],
  );

  const onConnectEnd = useCallback(
    (event: MouseEvent | TouchEvent, state: FinalConnectionState) => {
      if (state.isValid || !state.fromNode) return;
      const [x, y] = pointOf(event);
      const end = state.fromHandle?.type === 'target' ? 'target' : 'source';
      const from = state.fromNode.id;
      const kind = kindOf(catalogue, scene.nodes[from]);
      if (!kind) return;
      const port = state.fromHandle?.id ?? 'out';
      const carries = end === 'source' ? kind.output : (kind.inputs[port]?.carries ?? 'signal');
      const card = document
        .elementsFromPoint(x, y)
        .map((e) => e.closest<HTMLElement>('.react-flow__node'))
        .find(Boolean);
      const over = card?.dataset.id;
      if (over && end === 'source') {
        const target = kindOf(catalogue, scene.nodes[over]);
        const choices = target ? portChoices(target, carries) : [];
        if (choices.length === 1)
          editScene(scene.id, (draft) => connect(draft, catalogue, from, over, choices[0].port));
        else if (choices.length > 1) setDropped({ at: [x, y], from, to: over, choices });
        else refuseWire(scene, from, over);
        return;
      }
      if (over) {
        if (kindOf(catalogue, scene.nodes[over])?.output === carries)
          editScene(scene.id, (draft) => connect(draft, catalogue, over, from, port));
        else refuseWire(scene, over, from);
        return;
      }
      const at = flow.screenToFlowPosition({ x, y });
      ask({ at: [at.x, at.y], wire: { node: from, carries, end, port } });
    },
    [scene, flow, ask],
  );

  /** A wire pulled off its end goes elsewhere or away. */
  const pulled = useRef(false);
  const onReconnect = useCallback(
    (old: WireEdge, connection: Connection) => {
      pulled.current = true;
      editScene(scene.id, (draft) => {
        disconnect(draft, old.id);
        connect(draft, catalogue, connection.source, connection.target, connection.targetHandle!);
      });
    },
    [scene.id],
  );

  const isValidConnection = (c: Connection | WireEdge): boolean => {
    const source = kindOf(catalogue, scene.nodes[c.source]);
    const target = kindOf(catalogue, scene.nodes[c.target]);
    return Boolean(
      source &&
      target &&
      c.targetHandle &&
      portChoices(target, source.output).some((p) => p.port === c.targetHandle),
    );
  };

  return {
    dropped,
    setDropped,
    handlers: {
      onConnect,
      onConnectEnd,
      onReconnect,
      onReconnectStart: () => void (pulled.current = false),
      onReconnectEnd: (_: unknown, edge: WireEdge) => {
        if (!pulled.current) editScene(scene.id, (draft) => disconnect(draft, edge.id));
      },
      isValidConnection,
    },
  };
}
