import { lazy, Suspense } from 'react';
import type { Scene } from '../../core/document/types';
import { sessionStore, useSession } from '../data/session';
import { editShow, endGesture, useShow } from '../data/show-store';
import { engine } from '../engine/client';
import { ScrubNumber } from '../parts/scrub-number';
import { SelectField } from '../parts/field';

const LoopSection = lazy(() => import('./loop-section'));

/** The settings of the whole show, while nothing is chosen. */
export function ShowInspector({ scene }: { scene: Scene }) {
  const canvas = useShow((show) => show.canvas);
  const transition = useShow((show) => show.transition);
  const workScale = useSession((s) => s.workScale);
  return (
    <div className="flex min-h-0 grow flex-col gap-1 overflow-y-auto p-3">
      <h2 className="font-semibold">{scene.name}</h2>
      <p className="quiet mb-2">Choose a node or a wire to see its controls.</p>
      <Suspense fallback={<div className="h-28" />}>
        <LoopSection scene={scene} />
      </Suspense>
      <h3 className="heading mt-1">Canvas of the show</h3>
      <div className="flex h-7 items-center gap-2">
        <span className="w-24 shrink-0">Pixels</span>
        {(['width', 'height'] as const).map((k) => (
          <ScrubNumber
            key={k}
            label={`Canvas ${k}`}
            value={canvas[k]}
            step={1}
            fine={0.25}
            digits={0}
            min={16}
            max={16384}
            className="w-16"
            onChange={(v) => editShow((show) => void (show.canvas[k] = Math.round(v)), `canvas ${k}`)}
            onDone={endGesture}
          />
        ))}
      </div>
      <div className="flex h-7 items-center gap-2">
        <span className="w-24 shrink-0">Frames a second</span>
        <SelectField
          label="Frames a second"
          value={String(canvas.fps)}
          options={['24', '25', '30', '50', '60'].map((f) => [f, f])}
          onChange={(f) => editShow((show) => void (show.canvas.fps = Number(f)))}
        />
      </div>
      <div className="flex h-7 items-center gap-2">
        <span
          className="w-24 shrink-0"
          title="What is drawn while no stage window is open. The stage is always full."
        >
          Work size
        </span>
        <SelectField
          label="Work size"
          value={String(workScale)}
          options={[
            ['auto', 'Holds the frame rate'],
            ['1', 'Full'],
            ['0.5', 'Half'],
            ['0.25', 'Quarter'],
          ]}
          onChange={(v) => {
            const scale = v === 'auto' ? 'auto' : (Number(v) as 1 | 0.5 | 0.25);
            sessionStore.setState({ workScale: scale });
            engine().set({ type: 'work-scale', scale });
          }}
        />
      </div>
      <div className="flex h-7 items-center gap-2">
        <span className="w-24 shrink-0">Transition</span>
        <ScrubNumber
          label="Transition length"
          value={transition.length}
          step={0.05}
          fine={0.01}
          min={0}
          max={600}
          unit={transition.unit === 'beats' ? ' beats' : ' s'}
          className="w-16"
          onChange={(v) => editShow((show) => void (show.transition.length = v), 'fade')}
          onDone={endGesture}
        />
      </div>
      <Rehearsal />
    </div>
  );
}

/** Faults that can happen on the night, on purpose and before doors. */
function Rehearsal() {
  return (
    <>
      <h3 className="heading mt-3">Simulate a fault</h3>
      <div className="flex gap-1">
        <button
          type="button"
          className="btn btn-xs border edge bg-base-100"
          title="Takes the graphics card away for a moment: pictures must stay and come back"
          onClick={() => engine().inject('context-loss')}
        >
          Lose the graphics
        </button>
        <button
          type="button"
          className="btn btn-xs border edge bg-base-100"
          title="Stops the engine: a new one must take over where it was"
          onClick={() => engine().inject('crash')}
        >
          Stop the engine
        </button>
      </div>
    </>
  );
}
