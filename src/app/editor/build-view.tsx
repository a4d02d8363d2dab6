import { sceneOfPlace } from '../../core/module/place';
import { ReactFlowProvider } from '@xyflow/react';
import { lazy, Suspense, useEffect, useMemo } from 'react';
import { Group, Panel, Separator } from 'react-resizable-panels';
import { useSession, openScene } from '../data/session';
import { useScene, useShow } from '../data/show-store';
import { engine } from '../engine/client';
import { startSession } from '../data/start-session';
import { variationSession } from '../data/variation-session';
import { liveStore } from '../engine/live';
import { Bench } from './bench/bench';
import { benchNodeOf } from './bench/bench-node';
import { cardsInSight, mostDrawn } from './in-sight';
import { Inspector } from './inspector';
import { Monitor } from './monitor';
import { Patch } from './patch';
import { LoopBar } from './loop-bar';
import { SceneBar } from './scene-bar';

const Starts = lazy(() => import('./starts'));
const Variations = lazy(() => import('./variations/variations'));

/** Tells the engine what this view looks at. */
function useWatch(sceneId: string): void {
  const scene = useScene(sceneId);
  const { selection, benchOpen } = useSession();
  const bench = scene ? benchNodeOf(scene, selection) : null;
  const inSight = cardsInSight((s) => s.ids);
  const isVarying = variationSession((s) => s.isOpen);
  const ids = useMemo(() => {
    // Where the patch is not shown, no card is.
    const all = scene && !isVarying ? Object.keys(scene.nodes) : [];
    // Until it is known what is in sight, all of them are, but of a large patch none: its first picture must not wait for them.
    const seen = new Set(inSight ?? (all.length > mostDrawn ? [] : all));
    return all.filter((id) => seen.has(id)).join(' ');
  }, [scene, inSight, isVarying]);
  useEffect(() => {
    const chosen = selection[0] ?? null;
    engine().watch({
      scene: sceneId,
      cards: ids ? ids.split(' ') : [],
      bench: benchOpen ? bench : null,
      inspected: chosen,
    });
  }, [sceneId, ids, selection, benchOpen, bench]);
  useEffect(() => () => engine().watch({ scene: null, cards: [], bench: null, inspected: null }), []);
}

/**
 * Panels look for their edges under each move of the pointer, and lay the page out for that. While something is dragged that took the
 * pointer for itself, which an edge does too, nobody else has to look.
 */
function keepDragToItself(event: React.PointerEvent): void {
  const taker = event.target as Element;
  if (taker.hasPointerCapture(event.pointerId) && !taker.closest('[role="separator"]'))
    event.preventDefault();
}

/** Make patches: the patch in the middle, monitor and inspector on the right, the bench below. */
export function BuildView() {
  const { sceneId, benchOpen } = useSession();
  const firstScene = useShow((show) => show.scenes[0]?.id ?? '');
  const scene = useScene(sceneId);
  const around = useScene(sceneOfPlace(sceneId));
  const gone = !scene && firstScene !== '';
  useEffect(() => {
    if (gone) openScene(around?.id ?? (liveStore.getState().program.program || firstScene));
  }, [gone, around, firstScene]);
  useWatch(sceneId);
  const starting = startSession((s) => s.isOpen);
  const isVarying = variationSession((s) => s.isOpen);
  if (!scene) return <main className="quiet grid h-full place-items-center">Opening the show…</main>;
  return (
    <main className="relative flex h-full flex-col" onPointerMoveCapture={keepDragToItself}>
      {starting && (
        <Suspense fallback={null}>
          <Starts of={starting} />
        </Suspense>
      )}
      <SceneBar place={scene.id} />
      <LoopBar loop={(around ?? scene).loop} />
      <Group orientation="horizontal" className="min-h-0 grow">
        <Panel minSize="40%">
          <Group orientation="vertical" className="h-full">
            <Panel minSize="25%">
              {isVarying ? (
                <Suspense fallback={null}>
                  <Variations key={scene.id} scene={scene} />
                </Suspense>
              ) : (
                <ReactFlowProvider key={scene.id}>
                  <Patch scene={scene} />
                </ReactFlowProvider>
              )}
            </Panel>
            <Separator className="h-1 bg-base-300 hover:bg-primary" />
            {benchOpen ? (
              <Panel defaultSize="30%" minSize="18%" maxSize="60%">
                <Bench scene={scene} />
              </Panel>
            ) : (
              <Panel defaultSize="2.125rem" minSize="2.125rem" maxSize="2.125rem">
                <Bench scene={scene} />
              </Panel>
            )}
          </Group>
        </Panel>
        <Separator className="w-1 bg-base-300 hover:bg-primary" />
        <Panel defaultSize="29%" minSize="20rem" maxSize="50%">
          <div className="panel flex h-full flex-col">
            <Monitor scene={scene} />
            <Inspector scene={scene} />
          </div>
        </Panel>
      </Group>
    </main>
  );
}
