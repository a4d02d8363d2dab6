import clsx from 'clsx';
import { Camera, Trash2 } from 'lucide-react';
import { useRef, useState } from 'react';
import { removeSnapshot } from '../../../core/show/edit-desk';
import type { DeskPage, Snapshot } from '../../../core/document/types';
import { takeSnapshot } from '../../actions/play-actions';
import { playSession } from '../../data/play-session';
import { editShow, endGesture, useShow } from '../../data/show-store';
import { perform } from '../../engine/perform';
import { SelectField, TextField } from '../../parts/field';
import { ScrubNumber } from '../../parts/scrub-number';
import { Bindable } from '../bindable';
import { SnapshotPicture } from '../scene-picture';
import { takeStarts } from '../transition-rows';

const cornerNames = ['lower left', 'lower right', 'upper left', 'upper right'];

/** A snapshot as a button with its picture. Shift-click stores the desk in it. */
function Slot({ snapshot, page, arranging }: { snapshot: Snapshot; page: DeskPage; arranging: boolean }) {
  const { recallSeconds: seconds, recallStart: start } = playSession();
  return (
    <Bindable
      target={{ type: 'snapshot', snapshot: snapshot.id }}
      label={snapshot.name}
      className="w-24 shrink-0"
    >
      <button
        type="button"
        className="block w-full overflow-hidden rounded border-2 edge text-left hover:border-primary"
        data-snapshot={snapshot.name}
        aria-label={`Recall ${snapshot.name}`}
        title={`Recalls ${snapshot.name}; Shift-click stores the desk in it`}
        onClick={(event) => {
          if (event.shiftKey) takeSnapshot(page.id, snapshot.id);
          else perform({ type: 'recall', snapshot: snapshot.id, seconds, start });
        }}
      >
        <span className="block h-[3.375rem] bg-base-100">
          {snapshot.scene && <SnapshotPicture snapshot={snapshot} sceneId={snapshot.scene} />}
        </span>
        {!arranging && <span className="block truncate px-1 text-2xs leading-5">{snapshot.name}</span>}
      </button>
      {arranging && (
        <div className="flex">
          <TextField
            label="Name of the snapshot"
            value={snapshot.name}
            className="h-5! min-w-0 px-1! text-2xs"
            onChange={(name) =>
              name.trim() &&
              editShow((show) => {
                const found = show.snapshots.find(({ id }) => id === snapshot.id);
                if (found) found.name = name.trim().slice(0, 120);
              })
            }
          />
          <button
            type="button"
            className="quiet px-1"
            aria-label={`Delete ${snapshot.name}`}
            onClick={() => editShow((show) => removeSnapshot(show, snapshot.id))}
          >
            <Trash2 size={11} />
          </button>
        </div>
      )}
    </Bindable>
  );
}

/** Between two snapshots a fader, among four a pad. */
function Morph({ page, snapshots }: { page: DeskPage; snapshots: readonly Snapshot[] }) {
  const [at, setAt] = useState<readonly [number, number]>([0, 0]);
  const box = useRef<HTMLDivElement>(null);
  const isPad = page.corners[2] !== null || page.corners[3] !== null;
  const put = (x: number, y: number): void => {
    const next: [number, number] = [Math.min(1, Math.max(0, x)), isPad ? Math.min(1, Math.max(0, y)) : 0];
    setAt(next);
    perform({ type: 'morph', page: page.id, at: next });
  };
  const move = (event: React.PointerEvent): void => {
    const { left, top, width, height } = box.current!.getBoundingClientRect();
    put((event.clientX - left) / width, 1 - (event.clientY - top) / height);
  };
  const nameOf = (id: string | null): string => snapshots.find((one) => one.id === id)?.name ?? '';
  const isReady = page.corners.filter(Boolean).length > 1;
  return (
    <div
      ref={box}
      role="slider"
      tabIndex={isReady ? 0 : -1}
      aria-label="Morph"
      aria-disabled={!isReady}
      aria-valuemin={0}
      aria-valuemax={1}
      aria-valuenow={at[0]}
      aria-valuetext={`${Math.round(at[0] * 100)} %`}
      title="Moves the page between the snapshots at its ends; choose these under Lay out"
      className={clsx(
        'relative h-[3.375rem] w-full touch-none overflow-hidden rounded border-2 edge bg-base-100 text-2xs',
        isReady ? 'cursor-crosshair' : 'opacity-60',
      )}
      onPointerDown={(event) => {
        if (!isReady) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        move(event);
      }}
      onPointerMove={(event) => event.currentTarget.hasPointerCapture(event.pointerId) && move(event)}
      onKeyDown={(event) => {
        const way = {
          ArrowLeft: [-0.05, 0],
          ArrowRight: [0.05, 0],
          ArrowDown: [0, -0.05],
          ArrowUp: [0, 0.05],
        }[event.key];
        if (!way || !isReady) return;
        event.preventDefault();
        event.stopPropagation();
        put(at[0] + way[0], at[1] + way[1]);
      }}
    >
      {page.corners.map((id, k) => (
        <span
          key={k}
          className={clsx(
            'quiet absolute max-w-[48%] truncate px-1',
            k % 2 ? 'right-0' : 'left-0',
            k < 2 ? 'bottom-0' : 'top-0',
          )}
        >
          {nameOf(id)}
        </span>
      ))}
      {isReady ? (
        <span
          className={clsx(
            'absolute bg-primary',
            isPad
              ? 'size-3 -translate-x-1/2 translate-y-1/2 rounded-full'
              : 'inset-y-0 w-1.5 -translate-x-1/2',
          )}
          style={{ left: `${at[0] * 100}%`, ...(isPad ? { bottom: `${at[1] * 100}%` } : {}) }}
        />
      ) : (
        <span className="quiet absolute inset-0 grid place-items-center">Morph</span>
      )}
    </div>
  );
}

/** The snapshots of a page: stored, recalled over a time, and mixed. */
export function Snapshots({ page }: { page: DeskPage }) {
  const all = useShow((show) => show.snapshots);
  const { arranging, recallSeconds, recallStart } = playSession();
  const snapshots = all.filter(({ scene }) => scene === page.scene);
  return (
    <div className="flex shrink-0 items-start gap-2" role="group" aria-label="Snapshots">
      <div className="flex w-24 shrink-0 flex-col gap-1">
        <button
          type="button"
          className="btn h-11 w-full border edge bg-base-100 px-1 text-2xs font-normal"
          title="Stores how this page stands as a new snapshot"
          onClick={() => takeSnapshot(page.id)}
        >
          <Camera size={14} /> Store
        </button>
        <ScrubNumber
          label="Length of a recall"
          value={recallSeconds}
          step={0.05}
          fine={0.01}
          digits={2}
          min={0}
          max={600}
          unit=" s"
          className="w-full"
          onChange={(v) => playSession.setState({ recallSeconds: v })}
        />
        <SelectField
          label="Start of a recall"
          value={recallStart}
          options={takeStarts}
          onChange={(v) => playSession.setState({ recallStart: v as 'now' | 'beat' | 'bar' })}
        />
      </div>
      <div className="flex min-w-0 grow gap-1.5 overflow-x-auto">
        {snapshots.map((snapshot) => (
          <Slot key={snapshot.id} snapshot={snapshot} page={page} arranging={arranging} />
        ))}
      </div>
      <div className="w-40 shrink-0">
        {arranging ? (
          <div className="grid grid-cols-2 gap-1">
            {[2, 3, 0, 1].map((k) => (
              <SelectField
                key={k}
                label={`Snapshot at the ${cornerNames[k]}`}
                value={page.corners[k] ?? ''}
                options={[['', '–'], ...snapshots.map(({ id, name }) => [id, name] as const)]}
                className="min-w-0 text-2xs"
                onChange={(id) => {
                  editShow((show) => {
                    const found = show.desk.find((one) => one.id === page.id);
                    if (found) found.corners[k] = id || null;
                  });
                  endGesture();
                }}
              />
            ))}
          </div>
        ) : (
          <Morph page={page} snapshots={all} />
        )}
      </div>
    </div>
  );
}
