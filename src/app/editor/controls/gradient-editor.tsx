import { Copy, Rows3 } from 'lucide-react';
import { useRef, useState } from 'react';
import { fromHex, gradientAt, toHex } from '../../../core/colour';
import type { Rgba, Stop } from '../../../core/document/types';
import { ScrubNumber } from '../../parts/scrub-number';

const most = 16;
const css = (c: readonly number[]): string =>
  `rgb(${c
    .slice(0, 3)
    .map((v) => Math.round(v * 255))
    .join(' ')} / ${c[3]})`;

/** Stops on a bar: drag to move, double-click to add, drag away to remove; each with colour, alpha and place. */
export default function GradientEditor({
  label,
  stops,
  onChange,
  onDone,
}: {
  label: string;
  stops: readonly Stop[];
  onChange(stops: Stop[]): void;
  onDone(): void;
}) {
  const bar = useRef<HTMLDivElement>(null);
  const [chosen, setChosen] = useState(0);
  const at = Math.min(chosen, stops.length - 1);
  const stop = stops[at];
  const put = (k: number, change: Partial<Stop>): void =>
    onChange(stops.map((s, j) => (j === k ? { ...s, ...change } : s)));
  const placeOf = (x: number): number => {
    const box = bar.current!.getBoundingClientRect();
    return Number(Math.min(1, Math.max(0, (x - box.left) / box.width)).toFixed(3));
  };
  const add = (place: number): void => {
    if (stops.length >= most) return;
    onChange([...stops, { at: place, colour: gradientAt(stops, place) }]);
    setChosen(stops.length);
    onDone();
  };
  const sorted = [...stops].sort((a, b) => a.at - b.at);
  const spread = (): void => {
    const order = new Map(sorted.map((s, k) => [s, k]));
    onChange(
      stops.map((s) => ({
        ...s,
        at: sorted.length > 1 ? Number((order.get(s)! / (sorted.length - 1)).toFixed(3)) : 0,
      })),
    );
    onDone();
  };
  return (
    <div className="flex flex-col gap-2 py-1">
      <div
        ref={bar}
        role="group"
        aria-label={label}
        className="relative h-7 rounded border edge"
        style={{
          background: `linear-gradient(to right, ${sorted.map((s) => `${css(s.colour)} ${s.at * 100}%`).join(', ')})`,
        }}
        onDoubleClick={(event) => add(placeOf(event.clientX))}
      >
        {stops.map((s, k) => (
          <button
            key={k}
            type="button"
            aria-label={`Stop at ${s.at}`}
            className={`absolute -bottom-1.5 h-4 w-3 -translate-x-1/2 touch-none rounded-sm border-2 ${k === at ? 'border-primary' : 'border-base-content'}`}
            style={{ left: `${s.at * 100}%`, background: css(s.colour) }}
            onDoubleClick={(event) => event.stopPropagation()}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              setChosen(k);
            }}
            onPointerMove={(event) => {
              if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
              const box = bar.current!.getBoundingClientRect();
              if (Math.abs(event.clientY - box.top - box.height / 2) > 60 && stops.length > 1) {
                event.currentTarget.releasePointerCapture(event.pointerId);
                onChange(stops.filter((_, j) => j !== k));
                setChosen(0);
              } else put(k, { at: placeOf(event.clientX) });
            }}
            onPointerUp={onDone}
            onKeyDown={(event) => {
              if (event.key === 'ArrowLeft') put(k, { at: Math.max(0, Number((s.at - 0.01).toFixed(3))) });
              if (event.key === 'ArrowRight') put(k, { at: Math.min(1, Number((s.at + 0.01).toFixed(3))) });
              if ((event.key === 'Delete' || event.key === 'Backspace') && stops.length > 1) {
                event.stopPropagation();
                event.preventDefault();
                onChange(stops.filter((_, j) => j !== k));
                setChosen(0);
              }
            }}
          />
        ))}
      </div>
      <div className="flex items-center gap-1.5">
        <input
          type="color"
          aria-label="Colour of the stop"
          className="h-6 w-9 cursor-pointer rounded border edge bg-transparent"
          value={toHex(stop.colour)}
          onChange={(event) => put(at, { colour: [...fromHex(event.target.value)!, stop.colour[3]] as Rgba })}
          onBlur={onDone}
        />
        <span className="quiet text-2xs">alpha</span>
        <ScrubNumber
          label="Alpha of the stop"
          value={stop.colour[3]}
          step={0.01}
          fine={0.001}
          min={0}
          max={1}
          className="w-12"
          onChange={(a) => put(at, { colour: [stop.colour[0], stop.colour[1], stop.colour[2], a] })}
          onDone={onDone}
        />
        <span className="quiet text-2xs">at</span>
        <ScrubNumber
          label="Place of the stop"
          value={stop.at}
          step={0.005}
          fine={0.0005}
          min={0}
          max={1}
          className="w-14"
          onChange={(v) => put(at, { at: v })}
          onDone={onDone}
        />
        <span className="grow" />
        <button
          type="button"
          className="tool"
          title="Copy this stop"
          aria-label="Copy this stop"
          onClick={() => add(Number(Math.min(1, stop.at + 0.08).toFixed(3)))}
        >
          <Copy size={13} />
        </button>
        <button
          type="button"
          className="tool"
          title="Spread the stops evenly"
          aria-label="Spread the stops evenly"
          onClick={spread}
        >
          <Rows3 size={13} className="rotate-90" />
        </button>
      </div>
    </div>
  );
}
