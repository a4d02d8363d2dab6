import clsx from 'clsx';
import { ArrowRightToLine, Search } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { fromHex, toHex } from '../../core/colour';
import { transitionSeconds } from '../../core/show/transition';
import { moveInList } from '../../core/show/edit-desk';
import type { Scene } from '../../core/document/types';
import { scenePageOf, shownOf } from '../actions/play-actions';
import { playSession } from '../data/play-session';
import { editShow, useShow } from '../data/show-store';
import { perform } from '../engine/perform';
import { EngineCanvas } from '../engine/engine-canvas';
import { liveStore } from '../engine/live';
import { Bindable } from './bindable';
import { ScenePicture } from './scene-picture';

const pages = Array.from({ length: 9 }, (_, k) => k + 1);
/** Colours that a scene can be marked with: none of them is one that says what is on stage. */
const tints = ['#c2586b', '#b9a5e8', '#6f9bd1', '#9dbf7a', '#e8dcc2', '#8a7f74'];

/** A scene that moves in its button as far as the machine has time, over its kept picture. */
function MovingPicture({ sceneId }: { sceneId: string }) {
  const source = useMemo(() => ({ type: 'tile', scene: sceneId }) as const, [sceneId]);
  const [isSeen, setIsSeen] = useState(false);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // Only what is in sight has turns.
    const observer = new IntersectionObserver(([entry]) => setIsSeen(entry.isIntersecting));
    observer.observe(box.current!);
    return () => observer.disconnect();
  }, []);
  return (
    <div ref={box} className="relative h-full w-full">
      <ScenePicture sceneId={sceneId} />
      {isSeen && (
        <EngineCanvas
          source={source}
          className="pointer-events-none absolute! inset-0 bg-transparent!"
          label=""
        />
      )}
    </div>
  );
}

/** What can be changed of a button: its mark, its page, its place. */
function Marks({ scene }: { scene: Scene }) {
  const { tint = null, page = 1 } = scene.button ?? {};
  const edit = (change: Partial<NonNullable<Scene['button']>>): void =>
    void editShow((show) => {
      const found = show.scenes.find(({ id }) => id === scene.id);
      if (found) found.button = { tint, page, ...change };
    });
  return (
    <div
      className="absolute inset-0 z-10 flex flex-col justify-between bg-base-100/80 p-1"
      data-marks={scene.name}
    >
      <div className="flex flex-wrap gap-1">
        {[null, ...tints].map((hex) => (
          <button
            key={hex ?? 'none'}
            type="button"
            aria-label={hex ? `Mark ${scene.name} with ${hex}` : `No mark on ${scene.name}`}
            aria-pressed={(tint && toHex(tint)) === hex}
            className="size-5 rounded-full border-2 edge aria-pressed:border-base-content"
            style={{ background: hex ?? 'transparent' }}
            onClick={() => edit({ tint: hex ? fromHex(hex) : null })}
          />
        ))}
      </div>
      <div className="flex items-center gap-1">
        <select
          aria-label={`Page of ${scene.name}`}
          className="h-7 rounded border edge bg-base-100 px-1"
          value={page}
          onChange={(event) => edit({ page: Number(event.target.value) })}
        >
          {pages.map((k) => (
            <option key={k} value={k}>
              Page {k}
            </option>
          ))}
        </select>
        {(
          [
            ['←', -1, 'earlier'],
            ['→', 1, 'later'],
          ] as const
        ).map(([sign, by, words]) => (
          <button
            key={by}
            type="button"
            className="h-7 rounded border edge bg-base-100 px-2"
            aria-label={`Move ${scene.name} ${words}`}
            onClick={() => editShow((show) => moveInList(show.scenes, scene.id, by))}
          >
            {sign}
          </button>
        ))}
      </div>
    </div>
  );
}

function SceneButton({ scene, index, seconds }: { scene: Scene; index: number; seconds: number }) {
  const { id, name } = scene;
  const program = liveStore((s) => s.program);
  const arranging = playSession((s) => s.arranging);
  const leaving = program.program === id && program.incoming !== null;
  const coming = program.incoming === id;
  const on = program.program === id && !leaving;
  const isNext = program.next === id;
  const tint = scene.button?.tint;
  return (
    <Bindable target={{ type: 'scene', scene: id }} label={name}>
      <div
        className={clsx(
          'group relative overflow-hidden rounded-md border-2',
          on || coming ? 'border-primary' : isNext ? 'border-secondary' : 'edge',
        )}
        draggable={arranging}
        onDragStart={(event) => event.dataTransfer.setData('application/x-pyrvel-scene', id)}
        onDragOver={(event) => arranging && event.preventDefault()}
        onDrop={(event) => {
          const dragged = event.dataTransfer.getData('application/x-pyrvel-scene');
          if (!dragged || dragged === id) return;
          event.preventDefault();
          editShow((show) => {
            const at = (one: string): number => show.scenes.findIndex((s) => s.id === one);
            moveInList(show.scenes, dragged, at(id) - at(dragged));
          });
        }}
        data-scene-button={name}
        data-state={coming ? 'coming' : leaving ? 'leaving' : on ? 'on' : isNext ? 'next' : 'idle'}
      >
        <button
          type="button"
          className="block aspect-video w-full text-left"
          aria-label={`Fade to ${name}`}
          onClick={() => perform({ type: 'take', scene: id, seconds })}
          onContextMenu={(e) => {
            e.preventDefault();
            perform({ type: 'next', scene: id });
          }}
        >
          <MovingPicture sceneId={id} />
        </button>
        {tint && <span className="absolute inset-x-0 top-0 h-1.5" style={{ background: toHex(tint) }} />}
        {(coming || leaving) && (
          <span
            className="absolute bottom-11 left-0 h-1 bg-primary"
            style={{ width: `${(coming ? program.fade : 1 - program.fade) * 100}%` }}
          />
        )}
        <div className="flex h-11 items-center gap-1 bg-base-200 pl-2">
          {index < 9 && <span className="figures quiet text-2xs">{index + 1}</span>}
          <span className="min-w-0 grow truncate font-semibold" title={name}>
            {name}
          </span>
          {on || coming ? (
            <span className="shrink-0 pr-2 text-2xs font-semibold whitespace-nowrap text-primary">
              on air
            </span>
          ) : (
            <button
              type="button"
              className={clsx('tool h-11 min-w-11 justify-center', isNext ? 'text-secondary' : 'quiet')}
              aria-label={`Next: ${name}`}
              aria-pressed={isNext}
              title={isNext ? 'Leaves nothing ready' : 'Makes it ready and shows it under Next'}
              onClick={() => perform({ type: 'next', scene: isNext ? null : id })}
            >
              <ArrowRightToLine size={15} />
            </button>
          )}
        </div>
        {arranging && <Marks scene={scene} />}
      </div>
    </Bindable>
  );
}

/** A button for each scene, by pages or by what is searched for. */
export function SceneButtons() {
  const scenes = useShow((show) => show.scenes);
  const seconds = useShow(transitionSeconds);
  const { scenePage, search, arranging } = playSession();
  const shown = shownOf(scenes, scenePage, search);
  const used = new Set(scenes.map(scenePageOf));
  const offered = pages.filter((page) => used.has(page) || page === scenePage);
  return (
    <section aria-label="Scenes" className="flex min-h-0 shrink-0 basis-[19rem] flex-col">
      <div className="mb-1.5 flex h-9 shrink-0 items-center gap-1">
        <h2 className="mr-1 font-semibold">Scenes</h2>
        {offered.length > 1 &&
          offered.map((page) => (
            <button
              key={page}
              type="button"
              aria-label={`Scene page ${page}`}
              aria-pressed={page === scenePage && !search}
              className={clsx(
                'h-9 w-9 rounded border',
                page === scenePage && !search ? 'border-primary text-primary' : 'quiet edge',
              )}
              onClick={() => playSession.setState({ scenePage: page, search: '' })}
            >
              {page}
            </button>
          ))}
        <span className="quiet truncate pl-1 text-2xs">
          {arranging
            ? 'Mark, page and drag the buttons.'
            : 'A click or a digit takes a scene; right-click makes it next.'}
        </span>
        <span className="grow" />
        <label className="flex h-9 items-center gap-1 rounded border edge bg-base-100 px-2">
          <Search size={13} className="quiet" />
          <input
            aria-label="Search scenes"
            className="w-24 bg-transparent outline-none"
            value={search}
            onChange={(event) => playSession.setState({ search: event.target.value })}
            onKeyDown={(event) => event.key === 'Escape' && playSession.setState({ search: '' })}
          />
        </label>
      </div>
      <div className="grid min-h-0 grid-cols-[repeat(auto-fill,minmax(8.75rem,1fr))] gap-1.5 overflow-y-auto">
        {shown.map((scene, index) => (
          <SceneButton key={scene.id} scene={scene} index={index} seconds={seconds} />
        ))}
        {shown.length === 0 && <p className="quiet">No scene is found for “{search}”.</p>}
      </div>
    </section>
  );
}
