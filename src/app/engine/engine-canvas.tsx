import { useEffect, useRef } from 'react';
import type { SurfaceRole } from '../../engine/protocol';
import { engine } from './client';
import { listenToPointer } from '../inputs/keys-pointer';

/** Pixels of a canvas on the desk: half of a sharp display's, since the stage comes first. */
const sizeOf = (box: HTMLElement): { width: number; height: number } => {
  const ratio = Math.min(1.5, window.devicePixelRatio || 1);
  return {
    width: Math.max(2, Math.round(box.clientWidth * ratio)),
    height: Math.max(2, Math.round(box.clientHeight * ratio)),
  };
};

/** A place that the engine paints into. With `playable`, the pointer over it drives Pointer nodes. */
export function EngineCanvas({
  role,
  className,
  playable,
  label,
}: {
  role: SurfaceRole;
  className?: string;
  playable?: boolean;
  label: string;
}) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = box.current!;
    const client = engine();
    const id = client.addSurface({
      role,
      make() {
        const canvas = document.createElement('canvas');
        canvas.className = 'block h-full w-full';
        canvas.dataset.surface = role;
        const size = sizeOf(element);
        canvas.width = size.width;
        canvas.height = size.height;
        // The canvas of an engine that died stays behind the new one until that has painted.
        element.prepend(canvas);
        return { canvas: canvas.transferControlToOffscreen(), ...size };
      },
    });
    const settled = client.on('surface-painted', (painted) => {
      if (painted.id === id) [...element.querySelectorAll('canvas')].slice(1).forEach((old) => old.remove());
    });
    const observer = new ResizeObserver(() => {
      const { width, height } = sizeOf(element);
      client.resizeSurface(id, width, height);
    });
    observer.observe(element);
    const quiet = playable ? listenToPointer(element) : undefined;
    return () => {
      settled();
      quiet?.();
      observer.disconnect();
      client.removeSurface(id);
      element.replaceChildren();
    };
  }, [role, playable]);
  return (
    <div
      ref={box}
      className={`relative overflow-hidden bg-black [&>canvas+canvas]:absolute [&>canvas+canvas]:inset-0 ${className ?? ''}`}
      role="img"
      aria-label={label}
    />
  );
}
