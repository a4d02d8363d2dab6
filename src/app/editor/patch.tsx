import { kindOf } from '../../core/kind/kind';
import {
  Background,
  BackgroundVariant,
  ReactFlow,
  SelectionMode,
  applyNodeChanges,
  useNodesInitialized,
  useReactFlow,
  useStore,
  type Connection,
  type FinalConnectionState,
  type NodeChange,
} from '@xyflow/react';
import { AlignHorizontalDistributeCenter, Maximize, Plus } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Kind } from '../../core/kind/kind';
import { addNode, connect, disconnect, insertOnWire, moveNode } from '../../core/show/edit';
import type { Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { choose, useSession } from '../data/session';
import { editScene } from '../data/show-store';
import { AddPalette, fittingPort, type AddRequest } from './add-palette';
import { Card, faceHeight, faceWidth } from './card';
import { commandOf, runCommand, titleOf } from '../commands/registry';
import { placeExample } from '../actions/clipboard';
import { cardsIn, seeCards } from './in-sight';
import { offerPatch } from '../actions/patch-actions';
import { flowEdges, flowNodes, type CardNode, type WireEdge } from './flow-model';
import { freePlace } from '../../core/show/free-place';
import { refuseWire } from './refuse-wire';
import { PortMenu, portChoices, type PortChoice } from './port-menu';
import { tidy } from './tidy';
import { WireLine } from './wire';

/** Cards above which only those in sight are drawn: below it, panning is smoother with all of them there. */
const mostDrawn = 150;

/** Milliseconds a view has to stand until the engine is told what is in sight: a pan is not worth a rebuild a frame. */
const sightMs = 150;

const nodeTypes = { card: Card };
const edgeTypes = { wire: WireLine };

interface Dropped {
  at: readonly [number, number];
  from: string;
  to: string;
  choices: PortChoice[];
}

const pointOf = (event: MouseEvent | TouchEvent): [number, number] =>
  'changedTouches' in event
    ? [event.changedTouches[0].clientX, event.changedTouches[0].clientY]
    : [event.clientX, event.clientY];

/** The wire of the patch that lies under a point of the screen, other than those of the node itself. */
function wireUnder(x: number, y: number, scene: Scene, node: string): string | null {
  for (const element of document.elementsFromPoint(x, y)) {
    const id = element.closest<SVGGElement>('[data-wire]')?.dataset.wire;
    const wire = id ? scene.wires[id] : undefined;
    if (wire && wire.from.node !== node && wire.to.node !== node) return wire.id;
  }
  return null;
}

/** The patch of a scene on its canvas. */
export function Patch({ scene }: { scene: Scene }) {
  const { selection, wire } = useSession();
  const flow = useReactFlow<CardNode, WireEdge>();
  const box = useRef<HTMLDivElement>(null);
  const [adding, setAdding] = useState<AddRequest | null>(null);
  const [dropped, setDropped] = useState<Dropped | null>(null);
  const fromScene = useMemo(() => flowNodes(scene, selection), [scene, selection]);
  const [nodes, setNodes] = useState<CardNode[]>(fromScene);
  // While cards are dragged the canvas is ahead of the document; any edit brings both together again, keeping what the
  // canvas measured of each card.
  const [shown, setShown] = useState(fromScene);
  if (shown !== fromScene) {
    setShown(fromScene);
    setNodes((old) => {
      const known = new Map(old.map((n) => [n.id, n]));
      return fromScene.map((n) => ({ ...n, measured: known.get(n.id)?.measured }));
    });
  }
  // The first look shows the whole patch; it has to wait until the cards were measured and the panels stand.
  const measured = useNodesInitialized();
  const isLarge = fromScene.length > mostDrawn;
  useEffect(() => {
    // Of a large patch only what is in sight is ever measured.
    if (!measured && !isLarge) return;
    const timer = setTimeout(() => void flow.fitView({ padding: 0.1, maxZoom: 1 }), 30);
    return () => clearTimeout(timer);
  }, [measured, isLarge, flow]);
  const edges = useMemo(() => flowEdges(scene, wire), [scene, wire]);

  const onNodesChange = useCallback((changes: NodeChange<CardNode>[]) => {
    setNodes((old) => applyNodeChanges(changes, old));
  }, []);
  const onSelectionChange = useCallback(
    ({ nodes: chosen, edges: wires }: { nodes: CardNode[]; edges: WireEdge[] }) => {
      const ids = chosen.map((n) => n.id);
      if (ids.length || wires.length) choose(ids, ids.length ? null : (wires[0]?.id ?? null));
    },
    [],
  );

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
      setAdding({ at: [at.x, at.y], wire: { node: from, carries, end, port } });
    },
    [scene, flow],
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

  // What is out of sight gets no preview, and is worked out only if something else needs it.
  const view = useStore(
    ({ transform: [x, y, zoom], width, height }) =>
      `${-x / zoom} ${-y / zoom} ${width / zoom} ${height / zoom}`,
  );
  useEffect(() => {
    const timer = setTimeout(() => {
      const [x, y, width, height] = view.split(' ').map(Number);
      seeCards(width > 0 ? cardsIn(scene, { x, y, width, height }) : null);
    }, sightMs);
    return () => clearTimeout(timer);
  }, [view, scene]);
  useEffect(() => () => seeCards(null), []);

  // Names stay readable when the whole patch is in sight: they shrink less than the cards do.
  const labelScale = useStore((s) => Math.round(Math.min(1.6, Math.max(1, 0.85 / s.transform[2])) * 10) / 10);
  const [tidying, setTidying] = useState(false);
  const tidyUp = async (): Promise<void> => {
    setTidying(true);
    try {
      await tidy(scene);
      // The cards have to stand at their new places before the view can be fitted around them.
      await new Promise((resolve) => setTimeout(resolve, 60));
      await flow.fitView({ padding: 0.12, maxZoom: 1, duration: 200 });
    } finally {
      setTidying(false);
    }
  };

  const add = (kind: Kind): void => {
    const request = adding!;
    setAdding(null);
    const id = editScene(scene.id, (draft) => {
      const fresh = addNode(draft, catalogue, kind.id, [
        Math.round(request.at[0]),
        Math.round(request.at[1]),
      ]);
      const port = fittingPort(kind, request.wire);
      if (request.wire && port) {
        if (request.wire.end === 'source') connect(draft, catalogue, request.wire.node, fresh, port);
        else connect(draft, catalogue, fresh, request.wire.node, request.wire.port);
      }
      return fresh;
    });
    if (id) {
      choose([id]);
      bringIntoSight(request.at);
    }
    box.current?.focus();
  };

  /** Moves the view if a card that was added would stand outside it. */
  const bringIntoSight = ([x, y]: readonly [number, number]): void => {
    const view = box.current!.getBoundingClientRect();
    const from = flow.flowToScreenPosition({ x, y });
    const to = flow.flowToScreenPosition({ x: x + faceWidth, y: y + faceHeight });
    const seen = from.x >= view.left && from.y >= view.top && to.x <= view.right && to.y <= view.bottom;
    if (!seen)
      void flow.setCenter(x + faceWidth / 2, y + faceHeight / 2, { zoom: flow.getZoom(), duration: 200 });
  };

  const openAdd = useCallback(
    (x?: number, y?: number) => {
      const bounds = box.current!.getBoundingClientRect();
      const chosen = selection.length === 1 ? scene.nodes[selection[0]] : undefined;
      // Without a place, a new card stands beside the chosen one, so that it is found where one works; before Scene Out, as
      // nothing comes after it.
      if (x === undefined && chosen) {
        const kind = kindOf(catalogue, chosen);
        const aside = kind?.output === 'image' && kind.isSceneOut ? -190 : 190;
        setAdding({ at: freePlace(scene, [chosen.place[0] + aside, chosen.place[1] + 10]), wire: null });
      } else {
        const at = flow.screenToFlowPosition({
          x: x ?? bounds.left + bounds.width / 2 - 76,
          y: y ?? bounds.top + bounds.height / 2 - 50,
        });
        setAdding({ at: x === undefined ? freePlace(scene, [at.x, at.y]) : [at.x, at.y], wire: null });
      }
    },
    [flow, scene, selection],
  );

  const fit = useCallback(() => void flow.fitView({ padding: 0.12, maxZoom: 1, duration: 200 }), [flow]);
  useEffect(() => offerPatch({ add: openAdd, tidy: () => void tidyUp(), fit }));

  return (
    <div
      ref={box}
      className="relative h-full outline-none"
      style={{ '--label-scale': labelScale } as React.CSSProperties}
      tabIndex={-1}
      data-far={labelScale > 1.3}
      data-testid="patch"
    >
      <ReactFlow
        nodes={nodes}
        edges={edges}
        nodeTypes={nodeTypes}
        edgeTypes={edgeTypes}
        onNodesChange={onNodesChange}
        onSelectionChange={onSelectionChange}
        onPaneClick={() => choose([])}
        onNodeClick={(event, node) => {
          if (!event.shiftKey) choose([node.id]);
        }}
        onEdgeClick={(_, edge) => choose([], edge.id)}
        onConnect={onConnect}
        onConnectEnd={onConnectEnd}
        onReconnect={onReconnect}
        onReconnectStart={() => (pulled.current = false)}
        onReconnectEnd={(_, edge) => {
          if (!pulled.current) editScene(scene.id, (draft) => disconnect(draft, edge.id));
        }}
        onNodeDragStop={(event, node, moved) => {
          const [x, y] = pointOf(event as unknown as MouseEvent);
          const middle = flow.flowToScreenPosition({
            x: node.position.x + faceWidth / 2,
            y: node.position.y + faceHeight / 2,
          });
          // Dropped by the pointer, or with the middle of the card on a wire.
          const under =
            moved.length === 1
              ? (wireUnder(x, y, scene, node.id) ?? wireUnder(middle.x, middle.y, scene, node.id))
              : null;
          editScene(scene.id, (draft) => {
            for (const card of moved) moveNode(draft, card.id, [card.position.x, card.position.y]);
            if (under) insertOnWire(draft, catalogue, under, node.id);
          });
        }}
        onDoubleClick={(event) => {
          if ((event.target as HTMLElement).classList.contains('react-flow__pane'))
            openAdd(event.clientX, event.clientY);
        }}
        isValidConnection={(c) => {
          const source = kindOf(catalogue, scene.nodes[c.source]);
          const target = kindOf(catalogue, scene.nodes[c.target]);
          return Boolean(
            source &&
            target &&
            c.targetHandle &&
            portChoices(target, source.output).some((p) => p.port === c.targetHandle),
          );
        }}
        zoomOnDoubleClick={false}
        onlyRenderVisibleElements={isLarge}
        deleteKeyCode={null}
        multiSelectionKeyCode="Shift"
        selectionKeyCode="Shift"
        selectionMode={SelectionMode.Partial}
        panOnScroll={false}
        minZoom={0.2}
        maxZoom={2}
        proOptions={{ hideAttribution: true }}
        connectionLineStyle={{ stroke: 'var(--color-primary)', strokeWidth: 2 }}
        disableKeyboardA11y
      >
        <Background variant={BackgroundVariant.Dots} gap={24} size={1} color="var(--color-base-300)" />
      </ReactFlow>
      <div className="absolute top-2 left-2 flex gap-1">
        <button
          type="button"
          className="btn btn-sm border edge bg-base-200 px-2.5"
          onClick={() => runCommand('patch.add')}
          title={titleOf(commandOf('patch.add'))}
        >
          <Plus size={14} /> Add <kbd className="figures quiet text-2xs">/</kbd>
        </button>
        <button
          type="button"
          className="btn btn-sm border edge bg-base-200 px-2"
          onClick={() => runCommand('patch.tidy')}
          disabled={tidying}
          aria-busy={tidying}
          title={titleOf(commandOf('patch.tidy'))}
          aria-label="Tidy"
        >
          <AlignHorizontalDistributeCenter size={14} /> Tidy
        </button>
        <button
          type="button"
          className="btn btn-sm border edge bg-base-200 px-2"
          onClick={() => runCommand('patch.fit')}
          title={titleOf(commandOf('patch.fit'))}
          aria-label="Whole patch"
        >
          <Maximize size={14} />
        </button>
      </div>
      {Object.keys(scene.nodes).length <= 1 && (
        <p className="quiet pointer-events-none absolute inset-x-0 top-1/3 text-center">
          Press <kbd className="figures rounded border edge px-1.5">/</kbd> to add a first node, and wire it
          into Scene Out.
        </p>
      )}
      {adding && (
        <AddPalette
          request={adding}
          onAdd={add}
          onExample={(example) => {
            setAdding(null);
            placeExample(scene, example, adding.at);
            box.current?.focus();
          }}
          onClose={() => setAdding(null)}
        />
      )}
      {dropped && (
        <PortMenu
          at={dropped.at}
          name={scene.nodes[dropped.to]?.name ?? ''}
          choices={dropped.choices}
          onClose={() => setDropped(null)}
          onChoose={(port) => {
            editScene(scene.id, (draft) => connect(draft, catalogue, dropped.from, dropped.to, port));
            choose([dropped.to]);
            setDropped(null);
          }}
        />
      )}
    </div>
  );
}
