import { useRef, useState } from 'react';
import { setControl } from '../../core/show/edit';
import type { Scene } from '../../core/document/types';
import { useSession } from '../data/session';
import { editScene, endGesture } from '../data/show-store';
import { dragged, dragsOf, handlesOf, placeAdder, safeAreas, snapped, type MonitorHandle } from './handles';

const round = (v: number): number => Math.round(v * 1e4) / 1e4;

function Guides({ aspect, cross, safe }: { aspect: number; cross: boolean; safe: boolean }) {
  const [w, h] = [aspect * 100, 100];
  const frame = (share: number, name: string) => (
    <rect
      data-guide={name}
      x={(w * (1 - share)) / 2}
      y={(h * (1 - share)) / 2}
      width={w * share}
      height={h * share}
    />
  );
  return (
    <svg
      className="pointer-events-none absolute inset-0 h-full w-full"
      viewBox={`0 0 ${w} ${h}`}
      fill="none"
      stroke="currentColor"
      strokeWidth={0.4}
      opacity={0.6}
      aria-hidden
    >
      {cross && <path data-guide="cross" d={`M${w / 2} 0V${h}M0 ${h / 2}H${w}`} />}
      {safe && frame(safeAreas.action, 'action')}
      {safe && <g strokeDasharray="2 1">{frame(safeAreas.title, 'title')}</g>}
    </svg>
  );
}

/**
 * What lies over the monitor and never over the stage: guides, and the handles of the chosen node. Handles go to the middle
 * and to the guides by themselves, with Alt they move freely; arrow keys move them by a hundredth.
 */
export default function MonitorOverlay({ scene, aspect }: { scene: Scene; aspect: number }) {
  const { selection, guides } = useSession();
  const box = useRef<HTMLDivElement>(null);
  const [held, setHeld] = useState<string | null>(null);
  const node = selection.length === 1 ? scene.nodes[selection[0]] : undefined;
  const handles = node && guides.handles ? handlesOf(scene, node, aspect) : [];
  const adder = node && guides.handles ? placeAdder(node) : null;
  const drags = node && guides.handles ? dragsOf(scene, node) : [];
  const grip = useRef<{ x: number; y: number; values: number[] } | null>(null);
  const placeOf = (event: { clientX: number; clientY: number }): [number, number] => {
    const frame = box.current!.getBoundingClientRect();
    return [
      ((event.clientX - frame.left) / frame.width - 0.5) * aspect,
      0.5 - (event.clientY - frame.top) / frame.height,
    ];
  };
  const set = (values: Record<string, number | number[]>, gesture: string | null): void => {
    editScene(
      scene.id,
      (draft) => {
        for (const [control, value] of Object.entries(values))
          setControl(draft, node!.id, control, Array.isArray(value) ? value.map(round) : round(value));
      },
      gesture && `${node!.id} ${gesture}`,
    );
  };
  const move = (handle: MonitorHandle, place: readonly [number, number]): void =>
    set(handle.valuesAt(place), handle.key);
  const steps: Record<string, readonly [number, number]> = {
    ArrowLeft: [-0.01, 0],
    ArrowRight: [0.01, 0],
    ArrowDown: [0, -0.01],
    ArrowUp: [0, 0.01],
  };
  const at = ([x, y]: readonly [number, number]) => ({
    left: `${(x / aspect + 0.5) * 100}%`,
    top: `${(0.5 - y) * 100}%`,
  });
  return (
    <div
      ref={box}
      className={
        adder ? 'absolute inset-0 text-primary' : 'pointer-events-none absolute inset-0 text-primary'
      }
      data-testid="monitor-overlay"
      onDoubleClick={(event) => {
        if (adder && event.target === event.currentTarget)
          set({ [adder.control]: adder.valueWith(placeOf(event)) }, null);
      }}
    >
      <Guides aspect={aspect} cross={guides.cross || held !== null} safe={guides.safe} />
      <svg
        className="pointer-events-none absolute inset-0 h-full w-full"
        viewBox={`${-aspect / 2} -0.5 ${aspect} 1`}
        stroke="currentColor"
        strokeWidth={0.003}
        opacity={0.7}
        aria-hidden
      >
        {handles.map(
          ({ key, from, place }) =>
            from && <line key={key} x1={from[0]} y1={-from[1]} x2={place[0]} y2={-place[1]} />,
        )}
      </svg>
      {drags.length > 0 && (
        <div
          className="pointer-events-auto absolute inset-0 cursor-grab touch-none active:cursor-grabbing"
          data-testid="orbit"
          title="Drag to turn, wheel to come nearer"
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            grip.current = { x: event.clientX, y: event.clientY, values: drags.map(({ value }) => value) };
          }}
          onPointerMove={(event) => {
            const from = grip.current;
            if (!from) return;
            const frame = event.currentTarget.getBoundingClientRect();
            const across = (event.clientX - from.x) / frame.width;
            const up = (from.y - event.clientY) / frame.height;
            set(
              Object.fromEntries(
                drags.flatMap((drag, k) =>
                  drag.by === 'wheel' ? [] : [[drag.control, dragged(drag, from.values[k], across, up, 0)]],
                ),
              ),
              'orbit',
            );
          }}
          onPointerUp={() => {
            grip.current = null;
            endGesture();
          }}
          onPointerCancel={() => (grip.current = null)}
          onWheel={(event) =>
            set(
              Object.fromEntries(
                drags.flatMap((drag) =>
                  drag.by === 'wheel' ? [[drag.control, dragged(drag, drag.value, 0, 0, event.deltaY)]] : [],
                ),
              ),
              'zoom',
            )
          }
        />
      )}
      {handles.map((handle) => (
        <button
          key={handle.key}
          type="button"
          data-handle={handle.key}
          aria-label={`${handle.label} on the picture`}
          title={
            handle.driven
              ? `${handle.label} is driven; its own value cannot be dragged`
              : `${handle.label}: drag, or move with the arrow keys${handle.without ? '; Delete removes it' : ''}`
          }
          disabled={handle.driven}
          className="pointer-events-auto absolute size-3 -translate-1/2 cursor-grab rounded-full border-2 border-primary bg-base-100/70 shadow-[0_0_0_1px_#000] outline-offset-2 disabled:cursor-not-allowed disabled:opacity-40"
          style={at(handle.place)}
          onPointerDown={(event) => {
            event.stopPropagation();
            event.currentTarget.setPointerCapture(event.pointerId);
            setHeld(handle.key);
          }}
          onPointerMove={(event) => {
            if (held !== handle.key || !event.currentTarget.hasPointerCapture(event.pointerId)) return;
            const place = placeOf(event);
            move(handle, event.altKey ? place : snapped(place, aspect));
          }}
          onPointerUp={() => {
            setHeld(null);
            endGesture();
          }}
          onPointerCancel={() => setHeld(null)}
          onKeyDown={(event) => {
            const step = steps[event.key];
            if (step) {
              event.preventDefault();
              event.stopPropagation();
              move(handle, [handle.place[0] + step[0], handle.place[1] + step[1]]);
            } else if ((event.key === 'Delete' || event.key === 'Backspace') && handle.without) {
              event.preventDefault();
              event.stopPropagation();
              set(handle.without(), null);
            }
          }}
          onBlur={endGesture}
        />
      ))}
    </div>
  );
}
