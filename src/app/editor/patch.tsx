import {
  ReactFlow,
  SelectionMode,
  applyNodeChanges,
  useNodesInitialized,
  useReactFlow,
  type NodeChange,
} from '@xyflow/react';
import { lazy, Suspense, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { connect, insertOnWire, moveNode } from '../../core/show/edit';
import { placeAround } from '../../core/module/place';
import type { Scene } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { patchLook } from '../data/patch-look';
import { choose, useSession } from '../data/session';
import { editScene, showStore, useKinds } from '../data/show-store';
import { moduleOfNode, openModule } from '../actions/module-actions';
import { Card } from './card';
import { Dots } from './dots';
import { placeExample } from '../actions/clipboard';
import { mostDrawn } from './in-sight';
import { offerPatch } from '../actions/patch-actions';
import { flowEdges, flowNodes, type CardNode, type WireEdge } from './flow-model';
import { LiveLayer } from './live-layer';
import { faceHeight, faceWidth } from './live-layout';
import { PatchTools } from './patch-tools';
import { tidy } from './tidy';
import { useAdding } from './use-adding';
import { useLook } from './use-look';
import { useSight } from './use-sight';
import { useWalk } from './use-walk';
import { pointOf, useWiring } from './use-wiring';
import { offerStarts } from '../data/start-session';
import { useStable } from '../parts/use-stable';
import { fitPatch } from './fit-patch';
import { goalStore, goTo, showGoal } from './going-to';
import { WireLine } from './wire';

const loadPalette = () => import('./add-palette');
const AddPalette = lazy(loadPalette);
const LinkLines = lazy(() => import('./link-lines'));
const OverviewMap = lazy(() => import('./overview-map'));
const PortMenu = lazy(() => import('./port-menu'));
const FindNode = lazy(() => import('./find-node'));
const Frames = lazy(() => import('./frames'));
const WireTo = lazy(() => import('./wire-to'));
const ModulePath = lazy(() => import('./module-path'));

// What React Flow is given stays the same where it can: it goes through all cards for whatever is new.
const nodeTypes = { card: Card };
const edgeTypes = { wire: WireLine };
const lineStyle = { stroke: 'var(--color-primary)', strokeWidth: 2 };
const credits = { hideAttribution: true };

const onPaneClick = (): void => choose([]);
const onNodeClick = (event: React.MouseEvent, node: CardNode): void => {
  if (!event.shiftKey) choose([node.id]);
};
const onEdgeClick = (_: unknown, edge: WireEdge): void => choose([], edge.id);

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
  const { adding, setAdding, openAdd, add } = useAdding(scene, selection, box);
  const wiring = useWiring(scene, setAdding);
  const { dropped, setDropped } = wiring;
  const walk = useWalk(scene, selection, flow);
  const { links, focused, joints } = useLook(scene, selection);
  const look = patchLook();
  const fromScene = useMemo(() => flowNodes(scene, selection, focused), [scene, selection, focused]);
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
  const now = useRef(scene);
  useEffect(() => void (now.current = scene));
  const isLarge = fromScene.length > mostDrawn;
  useEffect(() => {
    // Of a large patch only what is in sight is ever measured.
    if (!measured && !isLarge) return;
    const timer = setTimeout(() => {
      if (!showGoal(flow, now.current)) void fitPatch(flow, box.current, now.current);
    }, 30);
    return () => clearTimeout(timer);
  }, [measured, isLarge, flow]);
  useEffect(() => goalStore.subscribe(() => void showGoal(flow, now.current)), [flow]);
  const kinds = useKinds();
  // eslint-disable-next-line react-hooks/exhaustive-deps -- what wires carry follows from the kinds of modules
  const edges = useMemo(() => flowEdges(scene, wire, joints, focused), [scene, wire, kinds, joints, focused]);

  // The scene as it is drawn: the same while only values change.
  // eslint-disable-next-line react-hooks/exhaustive-deps -- these are all that is drawn of it
  const drawn = useMemo(() => scene, [scene.id, fromScene, edges]);

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

  useSight(drawn, box);
  // It is loaded beside the first picture, and there when it is wanted.
  useEffect(() => void loadPalette(), []);
  const [isFinding, setFinding] = useState(false);
  const [wiringFrom, setWiringFrom] = useState<string | null>(null);
  const [tidying, setTidying] = useState(false);
  const tidyUp = async (): Promise<void> => {
    setTidying(true);
    try {
      await tidy(scene);
      // The cards have to stand at their new places before the view can be fitted around them.
      await new Promise((resolve) => setTimeout(resolve, 60));
      await fitPatch(flow, box.current, now.current, 200);
    } finally {
      setTidying(false);
    }
  };

  const onNodeDoubleClick = useStable((_: unknown, { id }: CardNode) => {
    if (moduleOfNode(showStore.getState().show, scene.nodes[id])) openModule(scene, id);
  });
  const onNodeDragStop = useStable(
    (event: MouseEvent | TouchEvent | React.MouseEvent, node: CardNode, moved: CardNode[]) => {
      const [x, y] = pointOf(event as MouseEvent);
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
    },
  );

  const fit = useCallback(() => void fitPatch(flow, box.current, now.current, 200), [flow]);
  const middle = (): [number, number] => {
    const { left, top, width, height } = box.current!.getBoundingClientRect();
    const { x, y } = flow.screenToFlowPosition({ x: left + width / 2 - 120, y: top + height / 2 - 70 });
    return [x, y];
  };
  useEffect(() =>
    offerPatch({
      add: openAdd,
      tidy: () => void tidyUp(),
      fit,
      find: () => setFinding(true),
      wire: (node) => setWiringFrom(node),
      middle,
    }),
  );

  return (
    <div
      ref={box}
      className="relative h-full outline-none focus-visible:ring-2 focus-visible:ring-primary focus-visible:ring-inset"
      tabIndex={0}
      role="group"
      aria-label={`Patch of ${scene.name}. Arrow keys go from node to node, with Alt and Shift they move it`}
      onKeyDown={walk.onKeyDown}
      data-testid="patch"
      onDragOver={(event) => {
        if (event.dataTransfer.types.includes('Files')) event.preventDefault();
      }}
      onDrop={(event) => {
        const files = [...event.dataTransfer.files].filter(({ name }) =>
          name.endsWith('.pyrvel-module.json'),
        );
        if (!files.length) return;
        event.preventDefault();
        const { x, y } = flow.screenToFlowPosition({ x: event.clientX, y: event.clientY });
        void import('../actions/library-actions').then(({ takeModuleFile }) =>
          files.forEach((file, k) => void takeModuleFile(file, scene, [x + 200 * k, y])),
        );
      }}
    >
      <ReactFlow
        nodes={nodes}
        edges={edges}
        nodeTypes={nodeTypes}
        edgeTypes={edgeTypes}
        onNodesChange={onNodesChange}
        onSelectionChange={onSelectionChange}
        onPaneClick={onPaneClick}
        onNodeClick={onNodeClick}
        onNodeDoubleClick={onNodeDoubleClick}
        onEdgeClick={onEdgeClick}
        {...wiring.handlers}
        onNodeDragStop={onNodeDragStop}
        onDoubleClick={(event) => {
          if ((event.target as HTMLElement).classList.contains('react-flow__pane'))
            openAdd(event.clientX, event.clientY);
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
        proOptions={credits}
        connectionLineStyle={lineStyle}
        disableKeyboardA11y
      >
        <Dots />
        {Object.keys(scene.frames ?? {}).length > 0 && (
          <Suspense fallback={null}>
            <Frames scene={scene} />
          </Suspense>
        )}
        <LiveLayer scene={drawn} />
        {links.length > 0 && (
          <Suspense fallback={null}>
            <LinkLines links={links} focused={focused} />
          </Suspense>
        )}
        {look.map && (
          <Suspense fallback={null}>
            <OverviewMap />
          </Suspense>
        )}
      </ReactFlow>
      <PatchTools isTidying={tidying} />
      {placeAround(scene.id) && (
        <Suspense fallback={null}>
          <ModulePath place={scene.id} />
        </Suspense>
      )}
      {Object.keys(scene.nodes).length <= 1 && !placeAround(scene.id) && (
        <p className="quiet pointer-events-none absolute inset-x-0 top-1/3 text-center">
          Press <kbd className="figures rounded border edge px-1.5">/</kbd> to add a first node, and wire it
          into Scene Out, or
          <button
            type="button"
            className="btn btn-sm pointer-events-auto ml-2 border edge bg-base-200"
            onClick={() => offerStarts('this')}
          >
            begin with a scene that moves
          </button>
        </p>
      )}
      {adding && (
        <Suspense fallback={null}>
          <AddPalette
            request={adding}
            isInModule={placeAround(scene.id) !== null}
            onAdd={add}
            onExample={(example, packs) => {
              setAdding(null);
              placeExample(scene, example, adding.at, packs);
              box.current?.focus();
            }}
            onClose={() => setAdding(null)}
          />
        </Suspense>
      )}
      {walk.announcement}
      {wiringFrom !== null && scene.nodes[wiringFrom] && (
        <Suspense fallback={null}>
          <WireTo
            scene={scene}
            node={wiringFrom}
            onClose={() => {
              setWiringFrom(null);
              box.current?.focus();
            }}
          />
        </Suspense>
      )}
      {isFinding && (
        <Suspense fallback={null}>
          <FindNode
            scene={scene.id}
            onChoose={(id, node) => {
              setFinding(false);
              box.current?.focus();
              goTo(id, node);
            }}
            onClose={() => {
              setFinding(false);
              box.current?.focus();
            }}
          />
        </Suspense>
      )}
      {dropped && (
        <Suspense fallback={null}>
          <PortMenu
            at={dropped.at}
            name={scene.nodes[dropped.to]?.name ?? ''}
            choices={dropped.choices}
            onClose={() => setDropped(null)}
            onChoose={(port) => {
              editScene(scene.id, (draft) =>
                connect(draft, catalogue, dropped.from, dropped.to, port, dropped.output),
              );
              choose([dropped.to]);
              setDropped(null);
            }}
          />
        </Suspense>
      )}
    </div>
  );
}
