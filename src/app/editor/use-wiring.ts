import { useReactFlow, type Connection, type FinalConnectionState } from '@xyflow/react';
import { useRef, useState } from 'react';
import { carriedBy, kindOf } from '../../core/kind/kind';
import { connect, disconnect, kindCarrying } from '../../core/show/edit';
import type { Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { editScene } from '../data/show-store';
import { useStable } from '../parts/use-stable';
import type { AddRequest } from './add-request';
import { outputOf, type CardNode, type WireEdge } from './flow-model';
import { portChoices, type PortChoice } from './port-choices';
import { refuseWire } from './refuse-wire';

/** A wire that was dropped on a card with several ports that take it. */
export interface Dropped {
  at: readonly [number, number];
  from: string;
  /** Of a node with several outputs: which. */
  output: string | undefined;
  to: string;
  choices: PortChoice[];
}

export const pointOf = (event: MouseEvent | TouchEvent): [number, number] =>
  'changedTouches' in event
    ? [event.changedTouches[0].clientX, event.changedTouches[0].clientY]
    : [event.clientX, event.clientY];

/** Draws the wire that was drawn on the canvas. */
const connectAs = (draft: Scene, { source, target, sourceHandle, targetHandle }: Connection): string =>
  connect(draft, catalogue, source, target, targetHandle!, outputOf(sourceHandle));

/**
 * Wires drawn by hand: what React Flow calls, and the wire that waits for a choice of its port. `ask` opens Add for a wire that
 * was pulled into the open.
 */
export function useWiring(scene: Scene, ask: (request: AddRequest) => void) {
  const flow = useReactFlow<CardNode, WireEdge>();
  const [dropped, setDropped] = useState<Dropped | null>(null);
  const onConnect = useStable((connection: Connection) => {
    editScene(scene.id, (draft) => connectAs(draft, connection));
  });

  const onConnectEnd = useStable((event: MouseEvent | TouchEvent, state: FinalConnectionState) => {
    if (state.isValid || !state.fromNode) return;
    const [x, y] = pointOf(event);
    const end = state.fromHandle?.type === 'target' ? 'target' : 'source';
    const from = state.fromNode.id;
    const kind = kindOf(catalogue, scene.nodes[from]);
    if (!kind) return;
    const port = state.fromHandle?.id ?? 'out';
    const output = end === 'source' ? outputOf(port) : undefined;
    const carries =
      end === 'source' ? (carriedBy(kind, output) ?? kind.output) : (kind.inputs[port]?.carries ?? 'signal');
    const card = document
      .elementsFromPoint(x, y)
      .map((e) => e.closest<HTMLElement>('.react-flow__node'))
      .find(Boolean);
    const over = card?.dataset.id;
    if (over && end === 'source') {
      const target = kindCarrying(scene, catalogue, scene.nodes[over], carries);
      const choices = target ? portChoices(target, carries) : [];
      if (choices.length === 1)
        editScene(scene.id, (draft) => connect(draft, catalogue, from, over, choices[0].port, output));
      else if (choices.length > 1) setDropped({ at: [x, y], from, output, to: over, choices });
      else refuseWire(scene, from, over);
      return;
    }
    if (over) {
      const source = kindOf(catalogue, scene.nodes[over]);
      if (source?.output === carries)
        editScene(scene.id, (draft) => connect(draft, catalogue, over, from, port));
      else refuseWire(scene, over, from);
      return;
    }
    const at = flow.screenToFlowPosition({ x, y });
    ask({ at: [at.x, at.y], wire: { node: from, output, carries, end, port } });
  });

  /** A wire pulled off its end goes elsewhere or away. */
  const pulled = useRef(false);
  const onReconnectStart = useStable(() => void (pulled.current = false));
  const onReconnect = useStable((old: WireEdge, connection: Connection) => {
    pulled.current = true;
    editScene(scene.id, (draft) => {
      disconnect(draft, old.id);
      connectAs(draft, connection);
    });
  });
  const onReconnectEnd = useStable((_: unknown, edge: WireEdge) => {
    if (!pulled.current) editScene(scene.id, (draft) => disconnect(draft, edge.id));
  });

  const isValidConnection = useStable((c: Connection | WireEdge): boolean => {
    const source = kindOf(catalogue, scene.nodes[c.source]);
    const carries = source && carriedBy(source, outputOf(c.sourceHandle));
    const target = carries && kindCarrying(scene, catalogue, scene.nodes[c.target], carries);
    return Boolean(target && portChoices(target, carries).some((p) => p.port === c.targetHandle));
  });

  return {
    dropped,
    setDropped,
    handlers: {
      onConnect,
      onConnectEnd,
      onReconnect,
      onReconnectStart,
      onReconnectEnd,
      isValidConnection,
    },
  };
}
