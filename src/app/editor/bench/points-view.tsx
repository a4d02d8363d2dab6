import { useEffect, useRef, useState } from 'react';
import type { BenchData } from '../../../engine/protocol/protocol';
import { drawPoints } from './draw-points';

/** Points and lines in space, turned by dragging. */
export function PointsView({ data }: { data: BenchData }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [view, setView] = useState({ orbit: 0.6, height: 0.45 });
  const drag = useRef<{ x: number; y: number } | null>(null);
  useEffect(() => {
    const element = canvas.current!;
    const box = element.parentElement!;
    if (element.width !== box.clientWidth || element.height !== box.clientHeight) {
      element.width = box.clientWidth;
      element.height = box.clientHeight;
    }
    const colour = getComputedStyle(document.documentElement).getPropertyValue('--wire-shape');
    drawPoints(element.getContext('2d')!, data.positions!, colour, { lines: data.lines, ...view });
  }, [data, view]);
  return (
    <div className="relative min-w-0 grow overflow-hidden">
      <canvas
        ref={canvas}
        className="absolute inset-0 cursor-move touch-none"
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          drag.current = { x: e.clientX, y: e.clientY };
        }}
        onPointerMove={(e) => {
          const from = drag.current;
          if (!from) return;
          setView((v) => ({
            orbit: v.orbit - (e.clientX - from.x) * 0.01,
            height: Math.min(1.57, Math.max(-1.57, v.height + (e.clientY - from.y) * 0.01)),
          }));
          drag.current = { x: e.clientX, y: e.clientY };
        }}
        onPointerUp={() => (drag.current = null)}
      />
      <span className="quiet absolute bottom-1 left-2 text-2xs">drag to turn</span>
    </div>
  );
}
