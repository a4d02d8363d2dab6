import { useEffect, useRef, useState } from 'react';
import { curveAt, slopeAt, valuesOfCurves } from '../../../core/signal/curve';
import type { CurveKey, CurveLane } from '../../../core/document/types';
import { shortNumber } from '../../../core/text/short-number';

const colours = ['var(--wire-signal)', 'var(--wire-image)', 'var(--wire-shape)', 'var(--wire-prop)'];
/** The colour a lane is drawn in; four, then round again. */
export const laneColour = (lane: number): string => colours[lane % colours.length];

const margin = { left: 44, right: 14, top: 10, bottom: 18 };
/** Pixels from a key to the ends of its slopes. */
const handleReach = 42;

interface Size {
  width: number;
  height: number;
}

type Drag =
  | {
      what: 'keys';
      x: number;
      y: number;
      from: readonly CurveKey[];
      still: ReadonlySet<number>;
      moved: boolean;
    }
  | { what: 'slope'; key: number; side: 0 | 1 }
  | { what: 'box'; x: number; y: number; toX: number; toY: number };

/** How pixels of the plot and times and values belong together. */
function scalesOf({ width, height }: Size, span: number, [low, high]: readonly [number, number]) {
  const across = Math.max(1, width - margin.left - margin.right);
  const up = Math.max(1, height - margin.top - margin.bottom);
  return {
    x: (at: number): number => margin.left + (at / span) * across,
    y: (value: number): number => margin.top + (1 - (value - low) / (high - low)) * up,
    at: (x: number): number => ((x - margin.left) / across) * span,
    value: (y: number): number => low + (1 - (y - margin.top) / up) * (high - low),
    /** Pixels for a slope of 1. */
    rise: (up / (high - low)) * (span / across),
  };
}

/** Values the plot reaches over: those of the keys and a little more. */
function reachOf(lanes: readonly CurveLane[]): [number, number] {
  const [low, high] = valuesOfCurves(lanes);
  const margin = (high - low) * 0.12;
  return [low - margin, high + margin];
}

/** The curves with their keys; where they are dragged, everything else is said to the bench. */
export function CurvePlot({
  lanes,
  active,
  chosen,
  span,
  snap,
  playhead,
  onChoose,
  onMove,
  onSlopes,
  onAdd,
  onDone,
  onKeyDown,
}: {
  lanes: readonly CurveLane[];
  active: number;
  chosen: ReadonlySet<number>;
  span: number;
  snap: number;
  playhead: number | null;
  onChoose(keys: ReadonlySet<number>): void;
  /** Keys as they were when the drag began, and how far they were dragged. */
  onMove(from: readonly CurveKey[], by: { at: number; value: number }, chosen: ReadonlySet<number>): void;
  onSlopes(key: number, slopes: [number, number]): void;
  onAdd(at: number, value: number): void;
  onDone(): void;
  onKeyDown(event: React.KeyboardEvent): void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const [size, setSize] = useState<Size>({ width: 600, height: 160 });
  const [drag, setDrag] = useState<Drag | null>(null);
  /** The view stands still while something is dragged, or it would run away from the hand. */
  const [held, setHeld] = useState<[number, number] | null>(null);
  useEffect(() => {
    const watch = new ResizeObserver(([{ contentRect }]) =>
      setSize({ width: contentRect.width, height: contentRect.height }),
    );
    watch.observe(svg.current!);
    return () => watch.disconnect();
  }, []);
  // The lane that is drawn sets the scale; others are seen as far as they lie within.
  const reach = held ?? reachOf([lanes[active]]);
  const scale = scalesOf(size, span, reach);
  const { keys } = lanes[active];
  const place = (event: { clientX: number; clientY: number }): { x: number; y: number } => {
    const box = svg.current!.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const begin = (event: React.PointerEvent, next: Drag): void => {
    event.stopPropagation();
    svg.current!.setPointerCapture(event.pointerId);
    svg.current!.focus();
    setHeld(reach);
    setDrag(next);
  };
  const grabKey = (event: React.PointerEvent, k: number): void => {
    let next = new Set(chosen.has(k) ? chosen : [k]);
    if (event.shiftKey) {
      next = new Set(chosen);
      if (!next.delete(k)) next.add(k);
    }
    onChoose(next);
    if (next.has(k)) begin(event, { what: 'keys', ...place(event), from: keys, still: next, moved: false });
  };
  const move = (event: React.PointerEvent): void => {
    if (!drag) return;
    const { x, y } = place(event);
    if (drag.what === 'keys') {
      if (!drag.moved && Math.hypot(x - drag.x, y - drag.y) < 3) return;
      if (!drag.moved) setDrag({ ...drag, moved: true });
      onMove(
        drag.from,
        { at: scale.at(x) - scale.at(drag.x), value: scale.value(y) - scale.value(drag.y) },
        drag.still,
      );
    } else if (drag.what === 'slope') {
      const key = keys[drag.key];
      const dx = drag.side ? Math.max(4, x - scale.x(key.at)) : Math.min(-4, x - scale.x(key.at));
      const slope = -(y - scale.y(key.value)) / dx / scale.rise;
      const other = slopeAt(keys, drag.key, drag.side ? 0 : 1);
      // Both sides turn together; with Alt each goes its own way.
      const slopes: [number, number] = event.altKey
        ? drag.side
          ? [other, slope]
          : [slope, other]
        : [slope, slope];
      onSlopes(drag.key, slopes);
    } else setDrag({ ...drag, toX: x, toY: y });
  };
  const end = (): void => {
    if (drag?.what === 'box') {
      const [left, right] = [Math.min(drag.x, drag.toX), Math.max(drag.x, drag.toX)];
      const [top, bottom] = [Math.min(drag.y, drag.toY), Math.max(drag.y, drag.toY)];
      const inside = keys.flatMap((key, k) => {
        const [x, y] = [scale.x(key.at), scale.y(key.value)];
        return x >= left && x <= right && y >= top && y <= bottom ? [k] : [];
      });
      onChoose(new Set(inside));
    }
    setDrag(null);
    setHeld(null);
    onDone();
  };
  const path = (lane: CurveLane): string => {
    const points: string[] = [];
    for (let x = 0; x <= size.width - margin.left - margin.right; x += 2) {
      const at = scale.at(margin.left + x);
      points.push(`${(margin.left + x).toFixed(1)},${scale.y(curveAt(lane.keys, at)).toFixed(1)}`);
    }
    return points.join(' ');
  };
  const lines = Array.from({ length: 9 }, (_, k) => (span * k) / 8);
  const levels = [
    reach[0] + (reach[1] - reach[0]) * 0.107,
    (reach[0] + reach[1]) / 2,
    reach[1] - (reach[1] - reach[0]) * 0.107,
  ];
  const [only] = chosen;
  const free = chosen.size === 1 && keys[only]?.form === 'free' ? only : null;
  const handle = (k: number, side: 0 | 1): { x: number; y: number } => {
    const slope = slopeAt(keys, k, side) * scale.rise;
    const reachX = (handleReach / Math.hypot(1, slope)) * (side ? 1 : -1);
    return { x: scale.x(keys[k].at) + reachX, y: scale.y(keys[k].value) - reachX * slope };
  };
  return (
    <svg
      ref={svg}
      role="application"
      aria-label="Curve"
      tabIndex={0}
      className="min-h-0 min-w-0 grow touch-none rounded bg-base-100 outline-none focus-visible:ring-1 focus-visible:ring-primary"
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        const { x, y } = place(event);
        begin(event, { what: 'box', x, y, toX: x, toY: y });
      }}
      onPointerMove={move}
      onPointerUp={end}
      onDoubleClick={(event) => {
        const { x, y } = place(event);
        onAdd(Math.min(span, Math.max(0, scale.at(x))), Number(scale.value(y).toFixed(3)));
      }}
    >
      {lines.map((at, k) => (
        <g key={k}>
          <line
            x1={scale.x(at)}
            x2={scale.x(at)}
            y1={margin.top}
            y2={size.height - margin.bottom}
            className="stroke-base-300"
          />
          <text
            x={scale.x(at)}
            y={size.height - 5}
            textAnchor="middle"
            className="figures fill-base-content/60 text-2xs"
          >
            {shortNumber(at)}
          </text>
        </g>
      ))}
      {levels.map((level) => (
        <g key={level}>
          <line
            x1={margin.left}
            x2={size.width - margin.right}
            y1={scale.y(level)}
            y2={scale.y(level)}
            className="stroke-base-300"
          />
          <text
            x={margin.left - 6}
            y={scale.y(level) + 3}
            textAnchor="end"
            className="figures fill-base-content/60 text-2xs"
          >
            {shortNumber(level, 2)}
          </text>
        </g>
      ))}
      {lanes.map((lane, k) => (
        <polyline
          key={k}
          points={path(lane)}
          fill="none"
          stroke={laneColour(k)}
          strokeWidth={k === active ? 2 : 1}
          opacity={k === active ? 1 : 0.45}
        />
      ))}
      {playhead !== null && playhead >= 0 && playhead <= span && (
        <line
          x1={scale.x(playhead)}
          x2={scale.x(playhead)}
          y1={margin.top}
          y2={size.height - margin.bottom}
          className="stroke-primary"
          strokeDasharray="2 3"
          data-testid="playhead"
        />
      )}
      {free !== null &&
        ([0, 1] as const).map((side) => {
          const tip = handle(free, side);
          return (
            <g key={side}>
              <line
                x1={scale.x(keys[free].at)}
                y1={scale.y(keys[free].value)}
                x2={tip.x}
                y2={tip.y}
                className="stroke-base-content/60"
              />
              <circle
                cx={tip.x}
                cy={tip.y}
                r={4.5}
                className="cursor-grab fill-base-100 stroke-base-content"
                data-slope={side}
                onPointerDown={(event) => begin(event, { what: 'slope', key: free, side })}
              />
            </g>
          );
        })}
      {keys.map((key, k) => (
        <rect
          key={k}
          x={scale.x(key.at) - 4.5}
          y={scale.y(key.value) - 4.5}
          width={9}
          height={9}
          rx={key.form === 'smooth' || key.form === 'free' ? 4.5 : 0}
          className="cursor-move"
          fill={chosen.has(k) ? laneColour(active) : 'var(--color-base-100)'}
          stroke={laneColour(active)}
          strokeWidth={1.5}
          data-key={k}
          onPointerDown={(event) => grabKey(event, k)}
          onDoubleClick={(event) => event.stopPropagation()}
        >
          <title>{`${shortNumber(key.at)} · ${shortNumber(key.value)}`}</title>
        </rect>
      ))}
      {drag?.what === 'box' && (
        <rect
          x={Math.min(drag.x, drag.toX)}
          y={Math.min(drag.y, drag.toY)}
          width={Math.abs(drag.toX - drag.x)}
          height={Math.abs(drag.toY - drag.y)}
          className="fill-primary/10 stroke-primary"
        />
      )}
      {snap > 0 && <title>{`Snaps to ${shortNumber(snap)}`}</title>}
    </svg>
  );
}
