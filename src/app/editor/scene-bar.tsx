import clsx from 'clsx';
import { Copy, Plus, Trash2, Tv } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { freeId, freeName, makeScene, structuredCloneOf } from '../../core/show/create';
import { catalogue } from '../../nodes/catalogue';
import { openScene } from '../data/session';
import { editShow, undo, useShow } from '../data/show-store';
import { engine } from '../engine/client';
import { liveStore } from '../engine/live';
import { say } from '../parts/notices';

function SceneTab({ id, name, open }: { id: string; name: string; open: boolean }) {
  const onStage = liveStore((s) => (s.program.incoming ?? s.program.program) === id);
  const [draft, setDraft] = useState<string | null>(null);
  const tab = useRef<HTMLButtonElement>(null);
  // The open scene is in sight, however many there are.
  useEffect(() => {
    if (open) tab.current?.scrollIntoView({ inline: 'nearest', block: 'nearest' });
  }, [open]);
  const finish = (): void => {
    const wanted = draft?.trim();
    if (wanted && wanted !== name)
      editShow((show) => void (show.scenes.find((s) => s.id === id)!.name = wanted.slice(0, 60)));
    setDraft(null);
  };
  if (draft !== null) {
    return (
      <input
        autoFocus
        aria-label="Name of the scene"
        className="h-7 w-32 rounded border border-primary bg-base-100 px-2 outline-none"
        value={draft}
        onFocus={(e) => e.target.select()}
        onChange={(e) => setDraft(e.target.value)}
        onBlur={finish}
        onKeyDown={(e) => {
          if (e.key === 'Enter') finish();
          if (e.key === 'Escape') setDraft(null);
        }}
      />
    );
  }
  return (
    <button
      ref={tab}
      type="button"
      role="tab"
      data-scene={name}
      aria-selected={open}
      title={onStage ? `${name} is on stage. Double-click to rename` : 'Double-click to rename'}
      className={clsx(
        'flex h-7 shrink-0 items-center gap-1.5 rounded px-2.5 whitespace-nowrap',
        open ? 'bg-base-300 font-semibold' : 'quiet hover:bg-base-300/60',
      )}
      onClick={() => openScene(id)}
      onDoubleClick={() => setDraft(name)}
    >
      {onStage && <span className="h-2 w-2 rounded-full bg-primary" aria-label="on stage" />}
      {name}
    </button>
  );
}

/** The scenes of the show, the one open here, and the way to the stage for it. */
export function SceneBar({ sceneId }: { sceneId: string }) {
  const scenes = useShow((show) => show.scenes);
  const fade = useShow((show) => show.fadeSeconds);
  const onStage = liveStore((s) => (s.program.incoming ?? s.program.program) === sceneId);
  const add = (): void => {
    const id = editShow((show) => {
      const fresh = freeId(
        's',
        show.scenes.map((s) => s.id),
      );
      const name = freeName(
        'Scene 1',
        show.scenes.map((s) => s.name),
      );
      show.scenes.push(makeScene(catalogue, fresh, name));
      return fresh;
    });
    if (id) openScene(id);
  };
  const duplicate = (): void => {
    const id = editShow((show) => {
      const source = show.scenes.find((s) => s.id === sceneId)!;
      const fresh = freeId(
        's',
        show.scenes.map((s) => s.id),
      );
      const copy = structuredCloneOf(source);
      copy.id = fresh;
      copy.name = freeName(
        source.name,
        show.scenes.map((s) => s.name),
      );
      show.scenes.splice(show.scenes.indexOf(source) + 1, 0, copy);
      return fresh;
    });
    if (id) openScene(id);
  };
  const remove = (): void => {
    if (scenes.length === 1) {
      say({ tone: 'warning', text: 'A show keeps at least one scene. Add another before this one goes.' });
      return;
    }
    const at = scenes.findIndex((s) => s.id === sceneId);
    const { name } = scenes[at];
    const neighbour = scenes[at === 0 ? 1 : at - 1].id;
    editShow((show) => void show.scenes.splice(at, 1));
    openScene(neighbour);
    say({
      tone: 'info',
      text: `${name} is deleted.`,
      action: { label: 'Undo', run: () => (undo(), openScene(sceneId)) },
    });
  };
  return (
    <div
      className="flex h-9 shrink-0 items-center gap-1 border-b edge px-2"
      role="tablist"
      aria-label="Scenes"
    >
      <div className="flex min-w-0 items-center gap-1 overflow-x-auto [scrollbar-width:none]">
        {scenes.map((scene) => (
          <SceneTab key={scene.id} id={scene.id} name={scene.name} open={scene.id === sceneId} />
        ))}
      </div>
      <button type="button" className="tool" aria-label="New scene" title="New scene" onClick={add}>
        <Plus size={15} />
      </button>
      <span className="grow" />
      <button
        type="button"
        className="tool"
        aria-label="Duplicate scene"
        title="Duplicate this scene"
        onClick={duplicate}
      >
        <Copy size={14} />
      </button>
      <button
        type="button"
        className="tool"
        aria-label="Delete scene"
        title="Delete this scene"
        onClick={remove}
      >
        <Trash2 size={14} />
      </button>
      <button
        type="button"
        className={clsx('tool', onStage && 'text-primary')}
        disabled={onStage}
        title={`Fade the stage to this scene in ${fade} s`}
        onClick={() => engine().command({ type: 'take', scene: sceneId, seconds: fade })}
      >
        <Tv size={14} /> {onStage ? 'On stage' : 'Take to stage'}
      </button>
    </div>
  );
}
