import { ReactFlow, ReactFlowProvider } from '@xyflow/react';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import type { Scene } from '../../core/document/types';
import { catalogue, familyLabels, familyOf } from '../../nodes/catalogue';
import { openShow, showStore, useScene } from '../data/show-store';
import { Card } from '../editor/card';
import { ControlRow } from '../editor/controls/control-row';
import { flowNodes } from '../editor/flow-model';
import { LiveLayer } from '../editor/live-layer';
import { engine } from '../engine/client';
import { EngineCanvas } from '../engine/engine-canvas';
import { controlOfEachType, galleryShow, subjectOf } from './gallery-show';

const nodeTypes = { card: Card };

/** Opens the show of the gallery, which is kept nowhere. */
function useGalleryShow(): boolean {
  const [isOpen, setOpen] = useState(false);
  useEffect(() => {
    const show = galleryShow();
    openShow('', show);
    engine().open(show, show.scenes[0].id);
    setOpen(true);
    return showStore.subscribe(({ show: now }) => engine().update(now));
  }, []);
  return isOpen;
}

/** Shows what is in it only while it is in sight: the engine plays no more than that. */
function InSight({ children }: { children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null);
  const [inSight, setInSight] = useState(false);
  useEffect(() => {
    const observer = new IntersectionObserver(([entry]) => setInSight(entry.isIntersecting));
    observer.observe(box.current!);
    return () => observer.disconnect();
  }, []);
  return (
    <div ref={box} className="min-h-44">
      {inSight && children}
    </div>
  );
}

/** `live`: the engine paints what it shows. It paints one patch at a time. */
function CardOf({ scene, node, live }: { scene: Scene; node: string; live: boolean }) {
  const nodes = useMemo(
    () =>
      flowNodes(scene, [])
        .filter(({ id }) => id === node)
        .map((card) => ({ ...card, position: { x: 0, y: 0 } })),
    [scene, node],
  );
  return (
    <ReactFlowProvider>
      <ReactFlow
        nodes={nodes}
        edges={[]}
        nodeTypes={nodeTypes}
        fitView
        nodesDraggable={false}
        panOnDrag={false}
        zoomOnScroll={false}
        preventScrolling={false}
        proOptions={{ hideAttribution: true }}
      >
        {live && <LiveLayer scene={scene} />}
      </ReactFlow>
    </ReactFlowProvider>
  );
}

function Exhibit({ kind }: { kind: string }) {
  const scene = useScene(kind);
  const source = useMemo(() => ({ type: 'scene' as const, scene: kind, without: null }), [kind]);
  const node = scene && subjectOf(scene);
  const [live, setLive] = useState(false);
  if (!scene || !node) return null;
  const specs = catalogue.get(kind)!.controls;
  return (
    <div
      className="flex gap-4"
      onPointerEnter={() => {
        engine().watch({ scene: kind, cards: [node], bench: null, inspected: node });
        setLive(true);
      }}
      onPointerLeave={() => setLive(false)}
    >
      <EngineCanvas
        source={source}
        className="aspect-video h-44 shrink-0 rounded"
        label={`Example of ${scene.name}`}
      />
      <div className="h-44 w-52 shrink-0">
        <CardOf scene={scene} node={node} live={live} />
      </div>
      <div className="grid h-44 grow content-start gap-x-6 overflow-y-auto xl:grid-cols-2">
        {Object.entries(specs)
          .filter(([, spec]) => !spec.shownIf || spec.shownIf(scene.nodes[node].controls))
          .map(([control, spec]) => (
            <ControlRow key={control} scene={scene} node={node} control={control} spec={spec} />
          ))}
      </div>
    </div>
  );
}

function TypeRow({ kind, control }: { kind: string; control: string }) {
  const scene = useScene(kind);
  const node = scene && subjectOf(scene);
  if (!scene || !node) return null;
  return (
    <ControlRow scene={scene} node={node} control={control} spec={catalogue.get(kind)!.controls[control]} />
  );
}

/** In development only: every type of control, and the card, the example and the controls of every kind. */
export function GalleryView() {
  const isOpen = useGalleryShow();
  if (!isOpen) return null;
  return (
    <main className="h-full overflow-y-auto p-4" data-testid="gallery">
      <h2 className="heading mb-2">Types of controls</h2>
      <dl className="mb-6 grid gap-x-8 xl:grid-cols-2">
        {controlOfEachType().map(({ type, kind, control }) => (
          <div key={type} className="flex gap-3" data-type={type}>
            <dt className="quiet w-44 shrink-0 pt-1 text-2xs">
              {type} · {kind.label}
            </dt>
            <dd className="grow">
              <TypeRow kind={kind.id} control={control} />
            </dd>
          </div>
        ))}
      </dl>
      {[...catalogue.values()].map((kind) => (
        <section
          key={kind.id}
          className="mb-5 border-t edge pt-2"
          aria-label={kind.label}
          data-exhibit={kind.id}
        >
          <h3 className="mb-1 font-semibold">
            {kind.label}{' '}
            <span className="quiet text-2xs font-normal">
              {familyLabels[familyOf(kind)]} · {kind.summary}
            </span>
          </h3>
          <InSight>
            <Exhibit kind={kind.id} />
          </InSight>
        </section>
      ))}
    </main>
  );
}
