import { Undo2, X } from 'lucide-react';
import { useMemo, useRef } from 'react';
import { sceneOfPlace } from '../../core/module/place';
import { takeSceneApart } from '../../core/module/take-apart';
import { structuredCloneOf } from '../../core/show/create';
import { catalogue } from '../../nodes/catalogue';
import { editShow, useShow } from '../data/show-store';
import { EngineCanvas } from '../engine/engine-canvas';
import { comparison } from './compare-button';

/** On the monitor: A on the left of a line that can be moved, how the scene stands now on its right. */
export default function MonitorCompare({ place }: { place: string }) {
  const { a, split } = comparison();
  const now = useShow((show) => show.scenes.find(({ id }) => id === sceneOfPlace(place)));
  const box = useRef<HTMLDivElement>(null);
  const source = useMemo(
    () => a && { type: 'example' as const, scene: takeSceneApart(a.scene, a.modules, catalogue) },
    [a],
  );
  if (!a || !source || a.scene.id !== now?.id) return null;
  const move = (to: number): void => comparison.setState({ split: Math.min(1, Math.max(0, to)) });
  const takeBack = (): void => {
    editShow((show) => {
      const scene = show.scenes.find(({ id }) => id === a.scene.id);
      if (!scene) return;
      Object.assign(scene, structuredCloneOf(a.scene));
      Object.assign(show.modules, structuredCloneOf(a.modules));
    });
  };
  return (
    <div ref={box} className="absolute inset-0" data-testid="compare">
      <div className="absolute inset-0" style={{ clipPath: `inset(0 ${(1 - split) * 100}% 0 0)` }}>
        <EngineCanvas source={source} className="h-full w-full" label={`A: ${a.scene.name} as it was`} />
      </div>
      <div
        role="slider"
        tabIndex={0}
        aria-label="Line between A and now"
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(split * 100)}
        className="absolute inset-y-0 w-3 -translate-x-1/2 cursor-ew-resize touch-none border-primary outline-offset-0 before:absolute before:inset-y-0 before:left-1/2 before:w-px before:bg-primary"
        style={{ left: `${split * 100}%` }}
        onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
        onPointerMove={(event) => {
          if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
          const { left, width } = box.current!.getBoundingClientRect();
          move((event.clientX - left) / width);
        }}
        onKeyDown={(event) => {
          const by = { ArrowLeft: -0.02, ArrowRight: 0.02 }[event.key];
          if (by === undefined) return;
          event.preventDefault();
          event.stopPropagation();
          move(split + by);
        }}
      />
      <span className="pointer-events-none absolute bottom-1.5 left-1.5 rounded bg-base-100/80 px-1.5 font-semibold">
        A
      </span>
      <span className="absolute right-1.5 bottom-1.5 flex items-center rounded bg-base-100/80">
        <button type="button" className="tool" title="The scene stands as A again" onClick={takeBack}>
          <Undo2 size={12} /> Take A
        </button>
        <button
          type="button"
          className="tool px-1"
          aria-label="End the comparison"
          onClick={() => comparison.setState({ a: null })}
        >
          <X size={12} />
        </button>
      </span>
    </div>
  );
}
