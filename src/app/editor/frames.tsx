import { useStore, ViewportPortal } from '@xyflow/react';
import { Palette, Trash2 } from 'lucide-react';
import { useRef, useState } from 'react';
import Markdown from 'react-markdown';
import {
  changeFrame,
  frameTints,
  heldBy,
  moveFrame,
  removeFrame,
  sizeFrame,
} from '../../core/show/edit-frames';
import type { PatchFrame, Scene } from '../../core/document/types';
import { editScene, endGesture } from '../data/show-store';

const css = (tint: PatchFrame['tint'], alpha: number): string | undefined =>
  tint ? `rgb(${tint.map((v) => Math.round(v * 255)).join(' ')} / ${alpha})` : undefined;

/** Patch pixels that an arrow key moves a frame by. */
const keyStep = 10;
const arrows: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-keyStep, 0],
  ArrowRight: [keyStep, 0],
  ArrowUp: [0, -keyStep],
  ArrowDown: [0, keyStep],
};

/** Follows a drag in patch pixels; `move` is given how far it went since the last call. */
function useDrag(begin: () => (by: readonly [number, number]) => void) {
  const zoom = useStore((s) => s.transform[2]);
  const drag = useRef<{ x: number; y: number; move(by: readonly [number, number]): void } | null>(null);
  return {
    onPointerDown: (event: React.PointerEvent<HTMLElement>) => {
      if (event.button !== 0) return;
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      drag.current = { x: event.clientX, y: event.clientY, move: begin() };
    },
    onPointerMove: (event: React.PointerEvent<HTMLElement>) => {
      const { current } = drag;
      if (!current) return;
      current.move([(event.clientX - current.x) / zoom, (event.clientY - current.y) / zoom]);
      current.x = event.clientX;
      current.y = event.clientY;
    },
    onPointerUp: () => {
      drag.current = null;
      endGesture();
    },
    onPointerCancel: () => {
      drag.current = null;
    },
  };
}

function Frame({ scene, frame }: { scene: Scene; frame: PatchFrame }) {
  const [isWriting, setWriting] = useState(false);
  const { id, type, text, place, size, tint } = frame;
  const isNote = type === 'note';
  const edit = (change: (draft: Scene) => void, gesture: string | null = null): void =>
    void editScene(scene.id, change, gesture);
  const handle = useDrag(() => {
    // What it holds is found once: what it passes over on its way is not picked up.
    const held = heldBy(scene, id);
    return (by) => edit((draft) => moveFrame(draft, id, by, held), `frame ${id}`);
  });
  const corner = useDrag(() => {
    let [width, height] = size;
    return ([dx, dy]) => {
      width += dx;
      height += dy;
      edit((draft) => sizeFrame(draft, id, [width, height]), `frame size ${id}`);
    };
  });
  const nextTint = (): void => {
    const at = frameTints.findIndex((one) => one.every((v, k) => v === tint?.[k]));
    const next =
      isNote && at === frameTints.length - 1 ? null : [...frameTints[(at + 1) % frameTints.length]];
    edit((draft) => changeFrame(draft, id, { tint: next as PatchFrame['tint'] }));
  };
  const finish = (words: string): void => {
    setWriting(false);
    if (words !== text) edit((draft) => changeFrame(draft, id, { text: words.slice(0, 8000) }));
  };
  const write = isWriting && (
    <textarea
      autoFocus
      aria-label={isNote ? 'Words of the note' : 'Title of the frame'}
      className="nodrag nopan nowheel pointer-events-auto h-full w-full resize-none rounded bg-base-100 p-2 outline-none"
      rows={isNote ? undefined : 1}
      defaultValue={text}
      onFocus={(event) => event.target.select()}
      onBlur={(event) => finish(event.target.value)}
      onPointerDown={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape' || (event.key === 'Enter' && !isNote && !event.shiftKey))
          event.currentTarget.blur();
      }}
    />
  );
  return (
    <section
      className="group absolute -z-20 rounded-lg border"
      style={{
        left: place[0],
        top: place[1],
        width: size[0],
        height: size[1],
        borderColor: css(tint, 0.55) ?? 'var(--color-base-300)',
        background: css(tint, 0.07) ?? 'color-mix(in oklab, var(--color-base-200) 80%, transparent)',
      }}
      aria-label={`${isNote ? 'Note' : 'Frame'} ${text.split('\n')[0]}`}
      data-frame={id}
    >
      <header
        tabIndex={0}
        role="button"
        aria-label={`${isNote ? 'Note' : `Frame ${text}`}: drag, or arrow keys, move it; Enter writes; Delete removes it`}
        className="nodrag nopan pointer-events-auto flex h-8 cursor-grab items-center gap-1 rounded-t-lg px-2.5 active:cursor-grabbing"
        style={{ color: css(tint, 1) }}
        {...handle}
        onDoubleClick={(event) => {
          event.stopPropagation();
          setWriting(true);
        }}
        onKeyDown={(event) => {
          const step = arrows[event.key];
          if (step) edit((draft) => moveFrame(draft, id, step), `frame ${id}`);
          else if (event.key === 'Enter') setWriting(true);
          else if (event.key === 'Delete' || event.key === 'Backspace')
            edit((draft) => removeFrame(draft, id));
          else return;
          event.preventDefault();
          event.stopPropagation();
        }}
        onBlur={endGesture}
      >
        {!isNote && (write || <span className="grow truncate text-base font-semibold">{text}</span>)}
        {isNote && <span className="grow" />}
        <button
          type="button"
          className="tool px-1 opacity-0 group-hover:opacity-100 focus-visible:opacity-100"
          aria-label="Another colour"
          onPointerDown={(event) => event.stopPropagation()}
          onClick={nextTint}
        >
          <Palette size={13} />
        </button>
        <button
          type="button"
          className="tool px-1 opacity-0 group-hover:opacity-100 focus-visible:opacity-100"
          aria-label={isNote ? 'Remove the note' : 'Remove the frame; its cards stay'}
          onPointerDown={(event) => event.stopPropagation()}
          onClick={() => edit((draft) => removeFrame(draft, id))}
        >
          <Trash2 size={13} />
        </button>
      </header>
      {isNote && (
        <div
          className="note nowheel pointer-events-auto absolute inset-x-0 top-6 bottom-0 overflow-y-auto px-3 pb-2"
          onDoubleClick={(event) => {
            event.stopPropagation();
            setWriting(true);
          }}
        >
          {write || <Markdown>{text}</Markdown>}
        </div>
      )}
      <span
        className="nodrag nopan pointer-events-auto absolute right-0 bottom-0 h-4 w-4 cursor-nwse-resize rounded-br-lg border-r-2 border-b-2 opacity-0 group-hover:opacity-100"
        style={{ borderColor: css(tint, 0.8) ?? 'currentColor' }}
        title="Drag to size it"
        {...corner}
      />
    </section>
  );
}

/** Frames and notes, behind the cards and behind what the engine paints there. */
export default function Frames({ scene }: { scene: Scene }) {
  return (
    <ViewportPortal>
      {Object.values(scene.frames ?? {}).map((frame) => (
        <Frame key={frame.id} scene={scene} frame={frame} />
      ))}
    </ViewportPortal>
  );
}
