import { Armchair, BetweenVerticalStart, Boxes, Square } from 'lucide-react';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { Output } from '../../core/document/types';
import { moved, orbitFor, viewOf, type Orbit } from '../../core/wall/orbit';
import { onSurface, seenInRoom, surfaceOf } from '../../core/wall/room';
import { useShow } from '../data/show-store';
import { chooseOutputs, wallSession } from '../data/wall-session';
import { EngineCanvas } from '../engine/engine-canvas';

/** Degrees for each pixel that the pointer moves. */
const degreesAPixel = 0.3;
/** What arrow keys turn, degrees, and what + and - bring nearer. */
const keyDegrees = 5;
const keyNearer = 1.15;

const presets = [
  ['front', 'Front', Square],
  ['seat', 'Seat', Armchair],
  ['side', 'Side', BetweenVerticalStart],
  ['above', 'Above', Boxes],
] as const;

interface Size {
  width: number;
  height: number;
}

/** Corners of an output's surface as shares of the picture, from its top left; null where one lies behind the eyes. */
function cornersSeen(output: Output, canvas: Size, orbit: Orbit, aspect: number): [number, number][] | null {
  const surface = surfaceOf(output, canvas);
  const to = onSurface(surface);
  const [w, h] = [surface.width / 2, Math.max(surface.height, 0.06) / 2];
  const seen = [to(-w, h), to(w, h), to(w, -h), to(-w, -h)].map((place) =>
    seenInRoom(viewOf(orbit), place, aspect),
  );
  return seen.every((corner) => corner !== null) ? (seen as [number, number][]) : null;
}

/** The room with all outputs on their surfaces: what their windows show, and what arrived over the network. */
export function RoomPlan() {
  const canvas = useShow((show) => show.canvas);
  const wall = useShow((show) => show.wall);
  const { outputs } = wall;
  const chosen = wallSession((s) => s.chosen);
  const [orbit, setOrbit] = useState(() => orbitFor('front', wall, canvas));
  const source = useMemo(() => ({ type: 'room' as const, view: viewOf(orbit) }), [orbit]);
  const box = useRef<HTMLDivElement>(null);
  const [aspect, setAspect] = useState(16 / 9);
  useLayoutEffect(() => {
    const element = box.current!;
    const observer = new ResizeObserver(([{ contentRect }]) =>
      setAspect(contentRect.width / Math.max(1, contentRect.height)),
    );
    observer.observe(element);
    // The page must not scroll while the room comes nearer.
    const wheel = (event: WheelEvent): void => {
      event.preventDefault();
      setOrbit((now) => moved(now, { nearer: Math.exp(-event.deltaY / 600) }));
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => {
      observer.disconnect();
      element.removeEventListener('wheel', wheel);
    };
  }, []);

  const drag = (event: React.PointerEvent<HTMLDivElement>): void => {
    event.currentTarget.setPointerCapture(event.pointerId);
    let [x, y] = [event.clientX, event.clientY];
    const element = event.currentTarget;
    const follow = (e: PointerEvent): void => {
      const [dx, dy] = [e.clientX - x, e.clientY - y];
      [x, y] = [e.clientX, e.clientY];
      setOrbit((now) => moved(now, { turn: -dx * degreesAPixel, lift: dy * degreesAPixel }));
    };
    const end = (): void => {
      element.removeEventListener('pointermove', follow);
      for (const over of ['pointerup', 'pointercancel'] as const) element.removeEventListener(over, end);
    };
    element.addEventListener('pointermove', follow);
    for (const over of ['pointerup', 'pointercancel'] as const) element.addEventListener(over, end);
  };
  const byKey = (event: React.KeyboardEvent): void => {
    const way = {
      ArrowLeft: { turn: -keyDegrees },
      ArrowRight: { turn: keyDegrees },
      ArrowUp: { lift: keyDegrees },
      ArrowDown: { lift: -keyDegrees },
      '+': { nearer: keyNearer },
      '-': { nearer: 1 / keyNearer },
    }[event.key];
    if (!way || event.ctrlKey || event.altKey || event.metaKey) return;
    event.preventDefault();
    event.stopPropagation();
    setOrbit((now) => moved(now, way));
  };

  return (
    <div className="relative min-h-0 grow" data-testid="room">
      <div
        ref={box}
        className="absolute inset-0 cursor-grab touch-none outline-none focus-visible:ring-2 focus-visible:ring-primary active:cursor-grabbing"
        role="group"
        tabIndex={0}
        aria-label="Room: arrow keys turn, + and − come nearer"
        onPointerDown={drag}
        onKeyDown={byKey}
        onDoubleClick={() => chooseOutputs([])}
      >
        <EngineCanvas source={source} className="h-full w-full" label="Room" />
        <svg
          className="pointer-events-none absolute inset-0 h-full w-full"
          viewBox="0 0 1 1"
          preserveAspectRatio="none"
          fill="transparent"
        >
          {outputs.map((output) => {
            const corners = cornersSeen(output, canvas, orbit, aspect);
            const isChosen = chosen.includes(output.id);
            return (
              corners && (
                <polygon
                  key={output.id}
                  points={corners.map((corner) => corner.join(',')).join(' ')}
                  className="pointer-events-auto cursor-pointer"
                  stroke={isChosen ? 'var(--color-primary)' : 'transparent'}
                  strokeWidth={2}
                  vectorEffect="non-scaling-stroke"
                  data-surface={output.name}
                  onClick={(e) => chooseOutputs(e.shiftKey ? [...chosen, output.id] : [output.id])}
                >
                  <title>{output.name}</title>
                </polygon>
              )
            );
          })}
        </svg>
      </div>
      <div
        role="group"
        aria-label="Where you look from"
        className="absolute top-2 left-2 flex rounded bg-base-100/80"
      >
        {presets.map(([preset, name, Icon]) => (
          <button
            key={preset}
            type="button"
            className="tool gap-1"
            onClick={() => setOrbit(orbitFor(preset, wall, canvas))}
          >
            <Icon size={14} /> {name}
          </button>
        ))}
      </div>
    </div>
  );
}
