import { useMemo, useRef } from 'react';
import type { ScreenOutput } from '../../core/document/types';
import { editScreen } from '../actions/wall-actions';
import { endGesture } from '../data/show-store';
import { EngineCanvas } from '../engine/engine-canvas';
import { useStage } from '../data/stage-windows';
import { arrowOf, followDrag } from './drag';
import { PlanFrame } from './plan-frame';
import { wallSession } from '../data/wall-session';

/** Space around the output in which points may lie, as a share of it. */
const margin = 0.12;
/** A step of an arrow key, as a share of the output. */
const step = 0.001;

const fine = (value: number): number => Math.round(value * 1e5) / 1e5;

interface PointProps {
  label: string;
  at: readonly [number, number];
  aspect: number;
  drag(event: React.PointerEvent<Element>): void;
  nudge(by: readonly [number, number]): void;
  remove?(): void;
}

function Point({ label, at: [x, y], aspect, drag, nudge, remove }: PointProps) {
  return (
    <ellipse
      cx={x}
      cy={y}
      rx={0.009 / aspect}
      ry={0.009}
      className="cursor-move outline-none focus:fill-primary"
      fill="var(--color-base-100)"
      stroke="var(--color-primary)"
      strokeWidth={2}
      vectorEffect="non-scaling-stroke"
      role="button"
      tabIndex={0}
      aria-label={label}
      data-point={label}
      onPointerDown={(event) => {
        event.currentTarget.focus();
        drag(event);
      }}
      onKeyDown={(event) => {
        const way = arrowOf(event);
        if (way) nudge([way[0] * step, way[1] * step]);
        else if (remove && (event.key === 'Delete' || event.key === 'Backspace')) {
          event.stopPropagation();
          remove();
        }
      }}
    />
  );
}

/** One output as its surface shows it, with the points by which it is bent, or those of its masks. */
export function OutputPlan({ output }: { output: ScreenOutput }) {
  const handles = wallSession((s) => s.handles);
  const open = useStage(output.id);
  const svg = useRef<SVGSVGElement>(null);
  const source = useMemo(() => ({ type: 'screen' as const, id: output.id }), [output.id]);
  const { part, warp, masks } = output;
  const [width, height] = output.quarterTurns % 2 ? [part.height, part.width] : [part.width, part.height];
  const aspect = open ? open.width / open.height : width / height;
  const origin = [-margin, -margin] as const;
  const units = [1 + 2 * margin, 1 + 2 * margin] as const;
  const follow = (
    event: React.PointerEvent<Element>,
    start: readonly [number, number],
    set: (one: ScreenOutput, place: [number, number]) => void,
    gesture: string,
  ): void =>
    followDrag(
      event,
      svg.current!,
      { origin, units },
      ({ by }) =>
        editScreen(output.id, (one) => set(one, [fine(start[0] + by[0]), fine(start[1] + by[1])]), gesture),
      endGesture,
    );
  const nudge = (
    start: readonly [number, number],
    by: readonly [number, number],
    set: (one: ScreenOutput, place: [number, number]) => void,
    gesture: string,
  ): void =>
    editScreen(output.id, (one) => set(one, [fine(start[0] + by[0]), fine(start[1] + by[1])]), gesture);

  const lines: [number, number][][] = [
    ...Array.from({ length: warp.rows }, (_, row) =>
      warp.points.slice(row * warp.columns, (row + 1) * warp.columns),
    ),
    ...Array.from({ length: warp.columns }, (_, column) =>
      warp.points.filter((_, k) => k % warp.columns === column),
    ),
  ];
  const path = (points: readonly (readonly [number, number])[]): string =>
    points.map((point) => point.join(',')).join(' ');
  return (
    <PlanFrame
      frame={{ origin, units }}
      aspect={aspect}
      drawing={svg}
      label={handles === 'warp' ? 'Points of the warp' : 'Points of the masks'}
      picture={
        <EngineCanvas
          key={output.id}
          source={source}
          className="h-full w-full"
          label={`Picture of ${output.name}`}
        />
      }
      margin={margin}
      stretched
    >
      <g fill="none" stroke="var(--color-primary)">
        <rect width={1} height={1} stroke="var(--edge)" strokeWidth={1.5} vectorEffect="non-scaling-stroke" />
        {handles === 'warp' && (
          <>
            {lines.map((points, k) => (
              <polyline
                key={k}
                points={path(points)}
                strokeWidth={1}
                opacity={0.7}
                vectorEffect="non-scaling-stroke"
              />
            ))}
            {warp.points.map((at, k) => {
              const set = (one: ScreenOutput, place: [number, number]): void => {
                one.warp.points[k] = place;
              };
              const label = `Point ${(k % warp.columns) + 1}.${Math.floor(k / warp.columns) + 1}`;
              return (
                <Point
                  key={k}
                  label={label}
                  at={at}
                  aspect={aspect}
                  drag={(event) => follow(event, at, set, `warp ${k}`)}
                  nudge={(by) => nudge(at, by, set, `warp ${k}`)}
                />
              );
            })}
          </>
        )}
        {handles === 'masks' &&
          masks.map(({ points }, m) => (
            <g key={m}>
              <polygon
                points={path(points)}
                strokeWidth={1.5}
                fill="var(--color-primary)"
                fillOpacity={0.08}
                vectorEffect="non-scaling-stroke"
              />
              {points.map((at, k) => {
                const set = (one: ScreenOutput, place: [number, number]): void => {
                  one.masks[m].points[k] = place;
                };
                return (
                  <Point
                    key={k}
                    label={`Mask ${m + 1}, point ${k + 1}`}
                    at={at}
                    aspect={aspect}
                    drag={(event) => follow(event, at, set, `mask ${m} ${k}`)}
                    nudge={(by) => nudge(at, by, set, `mask ${m} ${k}`)}
                    remove={
                      points.length > 3
                        ? () => editScreen(output.id, (one) => void one.masks[m].points.splice(k, 1))
                        : undefined
                    }
                  />
                );
              })}
            </g>
          ))}
      </g>
    </PlanFrame>
  );
}
