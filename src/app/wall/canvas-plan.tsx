import clsx from 'clsx';
import { useLayoutEffect, useRef, useState } from 'react';
import { boundsOf, cornersOf, snapOf } from '../../core/wall/parts';
import { cornersOnWall } from '../../core/wall/led';
import { pixelPlaces } from '../../core/wall/pixels/pixels';
import { moveOutput, partOf } from '../../core/wall/outputs';
import type { LedWall, Output, OutputPart, PixelString } from '../../core/document/types';
import { editScreen, editString } from '../actions/wall-actions';
import { editShow, endGesture, useShow } from '../data/show-store';
import { EngineCanvas } from '../engine/engine-canvas';
import { arrowOf, followDrag } from './drag';
import { PlanFrame } from './plan-frame';
import { chooseOutputs, wallSession } from '../data/wall-session';

const program = { type: 'program' } as const;
/** Space around the canvas in which parts may lie, as a share of it. */
const margin = 0.08;
/** Pixels of the page within which edges meet. */
const reachPx = 7;

const whole = (value: number): number => Math.round(value);

/** A corner of a part that is dragged: the opposite one stays. */
function resized(part: OutputPart, corner: number, at: readonly [number, number]): OutputPart {
  const opposite = cornersOf(part)[(corner + 2) % 4];
  const angleRad = (part.turn * Math.PI) / 180;
  const [dx, dy] = [at[0] - opposite[0], at[1] - opposite[1]];
  const along = dx * Math.cos(angleRad) + dy * Math.sin(angleRad);
  const down = -dx * Math.sin(angleRad) + dy * Math.cos(angleRad);
  const width = Math.max(8, whole(Math.abs(along)));
  const height = Math.max(8, whole(Math.abs(down)));
  const [w, h] = [Math.sign(along || 1) * width, Math.sign(down || 1) * height];
  const middle = [
    opposite[0] + (w * Math.cos(angleRad) - h * Math.sin(angleRad)) / 2,
    opposite[1] + (w * Math.sin(angleRad) + h * Math.cos(angleRad)) / 2,
  ];
  return { ...part, width, height, x: whole(middle[0] - width / 2), y: whole(middle[1] - height / 2) };
}

/** The tiles of an LED wall. */
function Tiles({ led, size }: { led: LedWall; size: number }) {
  const { place, pixelSize } = led;
  const path = led.tiles
    .map((_, k) => {
      const corners = cornersOnWall(led, k).map(
        ([x, y]) => `${place.x + x * pixelSize} ${place.y + y * pixelSize}`,
      );
      return `M${corners.join('L')}z`;
    })
    .join('');
  return <path d={path} fill="none" stroke="currentColor" strokeWidth={0.75 * size} opacity={0.8} />;
}

/** Dots that are drawn of a string at most. */
const mostDots = 1500;

/** The pixels of a string, and the points it is laid through. */
function Dots({
  string,
  size,
  isChosen,
  drag,
}: {
  string: PixelString;
  size: number;
  isChosen: boolean;
  drag(event: React.PointerEvent<Element>, k: number): void;
}) {
  const places = pixelPlaces(string);
  const step = Math.max(1, Math.ceil(places.length / 2 / mostDots));
  const dots: string[] = [];
  for (let k = 0; k < places.length / 2; k += step) dots.push(`M${places[2 * k]} ${places[2 * k + 1]}h0`);
  return (
    <>
      <path
        d={dots.join('')}
        stroke="currentColor"
        strokeWidth={Math.max(string.area * 0.6, 3 * size)}
        strokeLinecap="round"
      />
      {/* Where the feed comes in. */}
      <circle
        cx={places[0]}
        cy={places[1]}
        r={5 * size}
        fill="none"
        stroke="currentColor"
        strokeWidth={1.5 * size}
      />
      {isChosen &&
        string.points.length <= 200 &&
        string.points.map(([x, y], k) => (
          <circle
            key={k}
            cx={x}
            cy={y}
            r={6 * size}
            className="cursor-move"
            fill="var(--color-base-100)"
            stroke="currentColor"
            strokeWidth={1.5 * size}
            data-string-point={k}
            onPointerDown={(event) => drag(event, k)}
          />
        ))}
    </>
  );
}

/** The canvas of the show with the part that each output takes of it. */
export function CanvasPlan() {
  const canvas = useShow((show) => show.canvas);
  const outputs = useShow((show) => show.wall.outputs);
  const chosen = wallSession((s) => s.chosen);
  const svg = useRef<SVGSVGElement>(null);
  const origin = [-margin * canvas.width, -margin * canvas.height] as const;
  const units = [canvas.width * (1 + 2 * margin), canvas.height * (1 + 2 * margin)] as const;
  const [pageWidth, setPageWidth] = useState(0);
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([entry]) => setPageWidth(entry.contentRect.width));
    observer.observe(svg.current!);
    return () => observer.disconnect();
  }, []);
  /** Pixels of the canvas for each of the page. */
  const size = pageWidth ? units[0] / pageWidth : 1;

  const move = (
    ids: readonly string[],
    from: ReadonlyMap<string, OutputPart>,
    [x, y]: readonly [number, number],
  ): void => {
    editShow(
      (show) => {
        for (const output of show.wall.outputs) {
          const start = ids.includes(output.id) ? from.get(output.id) : undefined;
          if (!start) continue;
          moveOutput(output, 'x', whole(start.x + x));
          moveOutput(output, 'y', whole(start.y + y));
        }
      },
      `move ${ids.join(' ')}`,
    );
  };

  const dragPoint = (event: React.PointerEvent<Element>, { id, points }: PixelString, k: number): void => {
    const [x, y] = points[k];
    followDrag(
      event,
      svg.current!,
      { origin, units },
      ({ by }) =>
        editString(id, (one) => (one.points[k] = [whole(x + by[0]), whole(y + by[1])]), `point ${k}`),
      endGesture,
    );
  };

  const grab = (event: React.PointerEvent<SVGElement>, { id }: Output): void => {
    const added = event.shiftKey || event.ctrlKey;
    const ids = added
      ? chosen.includes(id)
        ? chosen.filter((one) => one !== id)
        : [...chosen, id]
      : chosen.includes(id)
        ? chosen
        : [id];
    chooseOutputs(ids);
    event.currentTarget.focus();
    const from = new Map(outputs.map((output) => [output.id, partOf(output)]));
    const others = outputs
      .filter((output) => !ids.includes(output.id))
      .map((output) => boundsOf(partOf(output)));
    const box = boundsOf(from.get(id)!);
    const reach = reachPx * size;
    followDrag(
      event,
      svg.current!,
      { origin, units },
      ({ by, free }) => {
        const there = { ...box, x: box.x + by[0], y: box.y + by[1] };
        const snap = free ? [0, 0] : snapOf(there, others, canvas, reach);
        move(ids, from, [by[0] + snap[0], by[1] + snap[1]]);
      },
      endGesture,
    );
  };

  return (
    <PlanFrame
      frame={{ origin, units }}
      aspect={units[0] / units[1]}
      drawing={svg}
      label="Parts of the canvas"
      picture={<EngineCanvas source={program} className="h-full w-full" label="Program" />}
      margin={margin}
      leave={() => chooseOutputs([])}
    >
      <rect
        width={canvas.width}
        height={canvas.height}
        fill="none"
        stroke="var(--edge)"
        strokeWidth={1.5 * size}
      />
      {outputs.map((output) => {
        const part = partOf(output);
        const corners = cornersOf(part);
        const isChosen = chosen.includes(output.id);
        return (
          <g
            key={output.id}
            className={clsx('cursor-move outline-none', isChosen ? 'text-primary' : 'text-base-content')}
            role="button"
            tabIndex={0}
            aria-label={`Part of ${output.name}`}
            aria-pressed={isChosen}
            data-part={output.name}
            onPointerDown={(event) => grab(event, output)}
            onFocus={() => {
              if (!wallSession.getState().chosen.includes(output.id)) chooseOutputs([output.id]);
            }}
            onKeyDown={(event) => {
              const way = arrowOf(event);
              if (way) move(chosen, new Map(outputs.map((one) => [one.id, partOf(one)])), way);
            }}
          >
            <polygon
              points={corners.map((corner) => corner.join(',')).join(' ')}
              fill="currentColor"
              fillOpacity={isChosen ? 0.1 : 0.03}
              stroke="currentColor"
              strokeWidth={(isChosen ? 2 : 1.25) * size}
            />
            <g transform={`translate(${corners[0].join(' ')}) rotate(${part.turn})`} fill="currentColor">
              <rect
                width={Math.min(part.width, 150 * size)}
                height={20 * size}
                fill="var(--color-base-100)"
                opacity={0.8}
              />
              <text x={6 * size} y={14 * size} fontSize={12 * size} fontWeight={600}>
                {output.name}
              </text>
            </g>
            {output.type === 'led' && <Tiles led={output} size={size} />}
            {output.type === 'string' && (
              <Dots
                string={output}
                size={size}
                isChosen={isChosen && chosen.length === 1}
                drag={(event, k) => dragPoint(event, output, k)}
              />
            )}
            {isChosen &&
              output.type === 'screen' &&
              chosen.length === 1 &&
              corners.map(([x, y], k) => (
                <rect
                  key={k}
                  data-corner={k}
                  className="cursor-nwse-resize"
                  x={x - 5 * size}
                  y={y - 5 * size}
                  width={10 * size}
                  height={10 * size}
                  fill="var(--color-base-100)"
                  stroke="currentColor"
                  strokeWidth={1.5 * size}
                  onPointerDown={(event) =>
                    followDrag(
                      event,
                      svg.current!,
                      { origin, units },
                      ({ at, free }) => {
                        const snap = free
                          ? [0, 0]
                          : snapOf(
                              { x: at[0], y: at[1], width: 0, height: 0 },
                              outputs
                                .filter(({ id }) => id !== output.id)
                                .map((one) => boundsOf(partOf(one))),
                              canvas,
                              reachPx * size,
                            );
                        editScreen(
                          output.id,
                          (one) => (one.part = resized(part, k, [at[0] + snap[0], at[1] + snap[1]])),
                          'size',
                        );
                      },
                      endGesture,
                    )
                  }
                />
              ))}
          </g>
        );
      })}
    </PlanFrame>
  );
}
