import clsx from 'clsx';
import { useMemo, useRef } from 'react';
import { placeInRaster, removeTile } from '../../core/show/edit-wall';
import {
  chainOf,
  cornersOnWall,
  litCorners,
  rasterFaults,
  rasterPlaces,
  tileBox,
  wallBox,
} from '../../core/wall/led';
import { snapOf } from '../../core/wall/parts';
import type { LedWall } from '../../core/document/types';
import { editLed } from '../actions/wall-actions';
import { endGesture } from '../data/show-store';
import { wallSession } from '../data/wall-session';
import { EngineCanvas } from '../engine/engine-canvas';
import { arrowOf, followDrag } from './drag';
import { PlanFrame } from './plan-frame';

/** Within how much of a tile edges meet. */
const reachShare = 0.12;

/** An LED wall: its tiles as they hang, or as they lie in the raster that its processor reads. */
export function LedPlan({ led }: { led: LedWall }) {
  const plan = wallSession((s) => s.ledPlan);
  const chosen = wallSession((s) => s.tile);
  const svg = useRef<SVGSVGElement>(null);
  const source = useMemo(() => ({ type: 'screen' as const, id: led.id }), [led.id]);
  const numbers = useMemo(() => new Map(chainOf(led).map((tile, n) => [tile, n + 1])), [led]);
  const isTested = wallSession((s) => s.tests[led.id] !== undefined);
  const isRaster = plan === 'raster';
  const faulty = useMemo(() => {
    const { outside, overlaps } = rasterFaults(led);
    return new Set([...outside, ...overlaps.flat()]);
  }, [led]);
  const [w, h] = led.tile;
  const places = rasterPlaces(led);
  const boxes = led.tiles.map((_, k): [number, number, number, number] =>
    isRaster ? [places[k][0], places[k][1], w, h] : tileBox(led, k),
  );
  const [left, top, width, height] = isRaster ? [0, 0, led.raster.width, led.raster.height] : wallBox(led);
  const space = isRaster ? 0 : 0.06 * Math.max(width, height);
  const origin = [left - space, top - space] as const;
  const units = [width + 2 * space, height + 2 * space] as const;

  const corners = (k: number): string =>
    (isRaster
      ? litCorners(led.tiles[k]).map(([a, b]) => [places[k][0] + a * w, places[k][1] + b * h])
      : cornersOnWall(led, k)
    )
      .map((corner) => corner.join(','))
      .join(' ');
  const put = (k: number, x: number, y: number): void =>
    editLed(
      led.id,
      (one) => {
        if (isRaster) placeInRaster(one, k, x, y);
        else Object.assign(one.tiles[k], { x: Math.round(x), y: Math.round(y) });
      },
      `${plan} ${k}`,
    );
  const drag = (event: React.PointerEvent<Element>, k: number): void => {
    wallSession.setState({ tile: k });
    const [x, y, tw, th] = boxes[k];
    const others = boxes
      .filter((_, n) => n !== k)
      .map(([bx, by, bw, bh]) => ({ x: bx, y: by, width: bw, height: bh }));
    const frame = isRaster ? led.raster : { width: 0, height: 0 };
    const reach = reachShare * Math.min(w, h);
    followDrag(
      event,
      svg.current!,
      { origin, units },
      ({ by, free }) => {
        const at = { x: x + by[0], y: y + by[1], width: tw, height: th };
        const snap = free ? [0, 0] : snapOf(at, others, frame, reach);
        put(k, at.x + snap[0], at.y + snap[1]);
      },
      endGesture,
    );
  };

  return (
    <PlanFrame
      frame={{ origin, units }}
      aspect={units[0] / units[1]}
      drawing={svg}
      label={isRaster ? 'Tiles in the raster' : 'Tiles of the wall'}
      picture={
        isRaster && (
          <EngineCanvas
            key={led.id}
            source={source}
            className="h-full w-full"
            label={`Raster of ${led.name}`}
          />
        )
      }
      margin={0}
      leave={() => wallSession.setState({ tile: null })}
    >
      {boxes.map(([x, y, tw, th], k) => (
        <g
          key={k}
          className={clsx(
            'cursor-move outline-none',
            isRaster && faulty.has(k) ? 'text-error' : chosen === k ? 'text-primary' : 'text-base-content',
          )}
          role="button"
          tabIndex={0}
          aria-label={`Tile ${numbers.get(k)}`}
          aria-pressed={chosen === k}
          data-tile={numbers.get(k)}
          onFocus={() => wallSession.setState({ tile: k })}
          onPointerDown={(event) => {
            event.currentTarget.focus();
            drag(event, k);
          }}
          onKeyDown={(event) => {
            const way = arrowOf(event);
            if (way) put(k, x + way[0], y + way[1]);
            else if (event.key === 'Delete' || event.key === 'Backspace') {
              event.stopPropagation();
              editLed(led.id, (one) => removeTile(one, k));
              wallSession.setState({ tile: null });
            }
          }}
        >
          <polygon
            points={corners(k)}
            fill="currentColor"
            fillOpacity={chosen === k ? 0.16 : isRaster ? 0 : 0.05}
            stroke="currentColor"
            strokeOpacity={chosen === k ? 1 : 0.6}
            strokeWidth={chosen === k ? 2 : 1}
            vectorEffect="non-scaling-stroke"
          />
          {/* The test picture says them too. */}
          {!(isRaster && isTested) && (
            <text
              x={x + tw / 2}
              y={y + th / 2}
              fontSize={Math.min(w, h) * 0.26}
              fill="currentColor"
              textAnchor="middle"
              dominantBaseline="central"
              style={{ paintOrder: 'stroke', stroke: isRaster ? '#000' : 'none', strokeWidth: w * 0.03 }}
            >
              {numbers.get(k)}
            </text>
          )}
          {!isRaster && !led.tiles[k].outline && (
            // The upper left of the tile, as it was made.
            <rect
              width={Math.min(w, h) * 0.1}
              height={Math.min(w, h) * 0.1}
              fill="currentColor"
              opacity={0.7}
              transform={`translate(${x + tw / 2} ${y + th / 2}) rotate(${led.tiles[k].turn * 90}) translate(${-w / 2} ${-h / 2})`}
            />
          )}
        </g>
      ))}
    </PlanFrame>
  );
}
