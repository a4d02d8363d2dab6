import { transitionSeconds } from '../../core/show/transition';
import { sceneOfPlace } from '../../core/module/place';
import clsx from 'clsx';
import { Copy, Plus, Trash2, Tv } from 'lucide-react';
import { memo, useEffect, useRef, useState } from 'react';
import { commandOf, runCommand, titleOf } from '../commands/registry';
import { moveScene } from '../actions/scene-actions';
import { openScene } from '../data/session';
import { editShow, useShow } from '../data/show-store';
import { liveStore } from '../engine/live';

/** A tab that is dragged to another place. */
const sceneDrag = 'application/x-pyrvel-scene';

const SceneTab = memo(function SceneTab({ id, name, open }: { id: string; name: string; open: boolean }) {
  const onStage = liveStore((s) => (s.program.incoming ?? s.program.program) === id);
  const [draft, setDraft] = useState<string | null>(null);
  const [isOver, setOver] = useState(false);
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
      title={`${onStage ? `${name} is on stage. ` : ''}Double-click to rename, drag to move`}
      className={clsx(
        'flex h-7 shrink-0 items-center gap-1.5 rounded px-2.5 whitespace-nowrap',
        open ? 'bg-base-300 font-semibold' : 'quiet hover:bg-base-300/60',
        isOver && 'ring-1 ring-primary',
      )}
      draggable
      onDragStart={(event) => {
        event.dataTransfer.setData(sceneDrag, id);
        event.dataTransfer.effectAllowed = 'move';
      }}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes(sceneDrag)) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        const dragged = event.dataTransfer.getData(sceneDrag);
        setOver(false);
        if (!dragged) return;
        event.preventDefault();
        moveScene(dragged, id);
      }}
      onClick={() => openScene(id)}
      onDoubleClick={() => setDraft(name)}
    >
      {onStage && <span className="h-2 w-2 rounded-full bg-primary" aria-label="on stage" />}
      {name}
    </button>
  );
});

/** The scenes of the show, the one open here, and the way to the stage for it. */
export const SceneBar = memo(function SceneBar({ place }: { place: string }) {
  const sceneId = sceneOfPlace(place);
  const scenes = useShow((show) => show.scenes);
  const fade = useShow(transitionSeconds);
  const onStage = liveStore((s) => (s.program.incoming ?? s.program.program) === sceneId);
  return (
    <div className="flex h-9 shrink-0 items-center gap-1 border-b edge px-2">
      <div
        role="tablist"
        aria-label="Scenes"
        className="flex min-w-0 items-center gap-1 overflow-x-auto [scrollbar-width:none]"
      >
        {scenes.map((scene) => (
          <SceneTab key={scene.id} id={scene.id} name={scene.name} open={scene.id === sceneId} />
        ))}
      </div>
      <button
        type="button"
        className="tool"
        aria-label="New scene"
        title={titleOf(commandOf('scene.start'))}
        onClick={() => runCommand('scene.start')}
      >
        <Plus size={15} />
      </button>
      <span className="grow" />
      <button
        type="button"
        className="tool"
        aria-label="Duplicate scene"
        title={titleOf(commandOf('scene.duplicate'))}
        onClick={() => runCommand('scene.duplicate')}
      >
        <Copy size={14} />
      </button>
      <button
        type="button"
        className="tool"
        aria-label="Delete scene"
        title={titleOf(commandOf('scene.delete'))}
        onClick={() => runCommand('scene.delete')}
      >
        <Trash2 size={14} />
      </button>
      <button
        type="button"
        className={clsx('tool', onStage && 'text-primary')}
        disabled={onStage}
        title={`Fade the stage to this scene in ${fade} s (${commandOf('stage.take').keys![0]})`}
        onClick={() => runCommand('stage.take')}
      >
        <Tv size={14} /> {onStage ? 'On stage' : 'Take to stage'}
      </button>
    </div>
  );
});
