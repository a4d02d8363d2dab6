import clsx from 'clsx';
import { useRef } from 'react';

interface Handle {
  label: string;
  value: number;
  onChange(value: number): void;
}

/**
 * A slider with one end (a value) or two (the range that an arriving signal is fitted to), and a bead that shows the
 * live value of what drives the control.
 */
export function Track({
  range,
  handles,
  bead,
  band,
  onDone,
}: {
  range: readonly [number, number];
  handles: readonly Handle[];
  bead: number | null;
  /** The range that motions can move the value in. */
  band: readonly [number, number] | null;
  onDone(): void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const dragged = useRef<number | null>(null);
  const last = useRef(0);
  const [low, high] = range;
  const share = (value: number): number => Math.min(1, Math.max(0, (value - low) / (high - low || 1)));
  const valueAt = (x: number): number => {
    const bounds = box.current!.getBoundingClientRect();
    const raw = low + (high - low) * Math.min(1, Math.max(0, (x - bounds.left) / bounds.width));
    // A pixel of the slider decides how fine a value can be: no trailing digits that nobody chose.
    const step = 10 ** Math.floor(Math.log10((high - low) / Math.max(50, bounds.width)));
    return Number((Math.round(raw / step) * step).toFixed(6));
  };
  const ends = handles.map((h) => share(h.value));
  const from = handles.length === 2 ? Math.min(...ends) : share(low < 0 && high > 0 ? 0 : low);
  const to = handles.length === 2 ? Math.max(...ends) : ends[0];
  return (
    <div
      ref={box}
      // What moves in it lays out nothing around it, and moves without a transform, which would have the page put its layers together again.
      className="relative h-5 grow touch-none [contain:layout_size]"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        const x = share(valueAt(event.clientX));
        dragged.current = ends.reduce(
          (best, end, k) => (Math.abs(end - x) < Math.abs(ends[best] - x) ? k : best),
          0,
        );
        last.current = event.clientX;
        if (!event.shiftKey) handles[dragged.current].onChange(valueAt(event.clientX));
      }}
      onPointerMove={(event) => {
        if (dragged.current === null) return;
        const handle = handles[dragged.current];
        if (event.shiftKey) {
          const by = ((event.clientX - last.current) / box.current!.clientWidth) * (high - low) * 0.1;
          handle.onChange(Number((handle.value + by).toFixed(6)));
        } else handle.onChange(valueAt(event.clientX));
        last.current = event.clientX;
      }}
      onPointerUp={() => {
        dragged.current = null;
        onDone();
      }}
    >
      <div className="absolute inset-x-0 top-2 h-1 rounded-full bg-base-300" />
      <div
        className={clsx(
          'absolute top-2 h-1 rounded-full',
          handles.length === 2 ? 'bg-primary/60' : 'bg-base-content/55',
        )}
        style={{ left: `${Math.min(from, to) * 100}%`, width: `${Math.abs(to - from) * 100}%` }}
      />
      {band && (
        <div
          className="absolute top-[13px] h-0.5 rounded-full bg-primary/70"
          data-testid="band"
          style={{ left: `${share(band[0]) * 100}%`, width: `${(share(band[1]) - share(band[0])) * 100}%` }}
        />
      )}
      {handles.map((handle, k) => (
        <button
          key={handle.label}
          type="button"
          role="slider"
          aria-label={handle.label}
          aria-valuemin={low}
          aria-valuemax={high}
          aria-valuenow={handle.value}
          className="absolute top-0.5 -ml-1 h-4 w-2 cursor-ew-resize rounded-sm border border-base-100 bg-base-content hover:bg-primary"
          style={{ left: `${ends[k] * 100}%` }}
          onKeyDown={(event) => {
            const by =
              event.key === 'ArrowRight' || event.key === 'ArrowUp'
                ? 1
                : event.key === 'ArrowLeft' || event.key === 'ArrowDown'
                  ? -1
                  : 0;
            if (!by) return;
            event.preventDefault();
            handle.onChange(
              Number((handle.value + by * (high - low) * (event.shiftKey ? 0.001 : 0.01)).toFixed(6)),
            );
          }}
        />
      ))}
      {bead !== null && (
        <span
          className="pointer-events-none absolute top-[5px] -ml-[5px] h-2.5 w-2.5 rounded-full border-2 border-base-100 bg-primary"
          style={{ left: `${share(bead) * 100}%` }}
          data-testid="bead"
        />
      )}
    </div>
  );
}
