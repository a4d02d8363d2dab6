import { FilePlus2, X } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { catalogueWith } from '../../core/module/show-catalogue';
import { relaysFor, takeSceneApart } from '../../core/module/take-apart';
import { makeScene, structuredCloneOf } from '../../core/show/create';
import { takeModules } from '../../core/show/module-pack';
import type { Scene, Show } from '../../core/document/types';
import { catalogue } from '../../nodes/catalogue';
import { starts } from '../../nodes/modules/starts';
import { freshScene } from '../actions/scene-actions';
import { loadLibrary, libraryStore, modulesWith, packOfKind } from '../data/module-library';
import { openScene, sessionStore } from '../data/session';
import { startSession } from '../data/start-session';
import { editShow } from '../data/show-store';
import { EngineCanvas } from '../engine/engine-canvas';

type Start = (typeof starts)[number];

const close = (): void => startSession.setState({ isOpen: null });

/** Puts a starting point into the show: as another scene at its end, or in place of the empty one that is open. */
function begin(start: Start | null, of: 'another' | 'this'): void {
  const { sceneId } = sessionStore.getState();
  const id = editShow((draft) => {
    const show = draft as Show;
    for (const module of start?.modules ?? [])
      for (const pack of packOfKind(`module-${module}`)) takeModules(show, pack);
    const name = start?.name ?? 'Scene 1';
    const open = show.scenes.find((scene) => scene.id === sceneId);
    const { nodes, wires, loop } = structuredCloneOf(start?.scene ?? makeScene(catalogue, 's', name));
    if (of === 'this' && open) {
      Object.assign(open, {
        name: start ? freshScene(show, name, open.id).name : open.name,
        nodes,
        wires,
        loop,
      });
      return open.id;
    }
    const fresh = freshScene(show, name);
    show.scenes.push({ ...fresh, nodes, wires, loop });
    return fresh.id;
  });
  close();
  if (id) openScene(id);
}

/** The moving picture of a starting point. */
function Picture({ start }: { start: Start }) {
  const library = libraryStore();
  const scene = useMemo((): Scene => {
    const modules = library.shipped.length ? modulesWith({}) : {};
    const known = catalogueWith(catalogue, modules);
    return relaysFor(takeSceneApart(start.scene, modules, known), known);
  }, [start, library]);
  const source = useMemo(() => ({ type: 'example' as const, scene, inTurn: true as const }), [scene]);
  return <EngineCanvas source={source} className="aspect-video w-full" label={`Picture of ${start.name}`} />;
}

/** Twelve scenes to begin from, with moving pictures, and an empty one. */
export default function Starts({ of }: { of: 'another' | 'this' }) {
  const box = useRef<HTMLDivElement>(null);
  const [isReady, setReady] = useState(false);
  useEffect(() => void loadLibrary().then(() => setReady(true)), []);
  useEffect(() => box.current?.querySelector('button')?.focus(), []);
  return (
    <div className="absolute inset-0 z-40 overflow-y-auto bg-black/60 p-6" onPointerDown={close}>
      <div
        ref={box}
        role="dialog"
        aria-label="Begin a scene"
        aria-modal="true"
        data-testid="starts"
        className="mx-auto max-w-5xl rounded-lg border edge bg-base-200 p-4 shadow-2xl"
        onPointerDown={(event) => event.stopPropagation()}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Escape') close();
        }}
      >
        <div className="mb-3 flex items-center gap-3">
          <h2 className="text-lg font-semibold">Begin with</h2>
          <button
            type="button"
            className="btn btn-sm border edge bg-base-100"
            onClick={() => begin(null, of)}
          >
            <FilePlus2 size={14} /> An empty scene
          </button>
          <span className="quiet grow">
            or one of these, made of ordinary nodes to take apart and change:
          </span>
          <button type="button" className="tool" aria-label="Close" onClick={close}>
            <X size={15} />
          </button>
        </div>
        <div className="grid grid-cols-4 gap-3">
          {starts.map((start) => (
            <button
              key={start.id}
              type="button"
              data-start={start.id}
              className="flex flex-col overflow-hidden rounded border edge bg-base-100 text-left hover:border-primary focus-visible:border-primary"
              onClick={() => begin(start, of)}
            >
              {isReady ? <Picture start={start} /> : <div className="aspect-video w-full bg-black" />}
              <span className="block px-2 pt-1.5 font-semibold">{start.name}</span>
              <span className="quiet block px-2 pb-2 text-2xs">{start.about}</span>
            </button>
          ))}
        </div>
      </div>
    </div>
  );
}
