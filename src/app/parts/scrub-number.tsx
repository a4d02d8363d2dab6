import clsx from 'clsx';
import { useRef, useState } from 'react';
import { say } from './notices';
import { numberOf } from '../../core/formula/constant';
import { shortNumber } from '../../core/text/short-number';

interface Props {
  label: string;
  value: number;
  /** Change a pixel of drag, and a press of an arrow key times ten. */
  step: number;
  /** The same with Shift held. */
  fine: number;
  digits?: number;
  min?: number;
  max?: number;
  unit?: string;
  className?: string;
  disabled?: boolean;
  onChange(value: number): void;
  /** Called when a drag or typing ends. */
  onDone?(): void;
}

/** A number that is dragged (Shift: fine), typed after a click (sums too), or stepped with the arrow keys. */
export function ScrubNumber({
  label,
  value,
  step,
  fine,
  digits = 3,
  min,
  max,
  unit,
  className,
  disabled,
  onChange,
  onDone,
}: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const drag = useRef<{ x: number; value: number; moved: boolean } | null>(null);
  const held = (next: number): number => Math.min(max ?? Infinity, Math.max(min ?? -Infinity, next));
  const finish = (): void => {
    if (draft === null) return;
    const typed = numberOf(draft, value);
    if (typed === null) {
      if (draft.trim() !== '')
        say({ tone: 'warning', text: `“${draft}” is no number. Type one, or a sum such as 1/3 or value*2.` });
    } else {
      if (held(typed) !== typed)
        say({
          tone: 'warning',
          text: `${label} goes ${typed > held(typed) ? 'up' : 'down'} to ${held(typed)}; ${typed} is beyond it.`,
        });
      onChange(held(typed));
    }
    setDraft(null);
    onDone?.();
  };
  if (draft !== null) {
    return (
      <input
        autoFocus
        aria-label={label}
        className={clsx(
          'figures h-6 rounded border border-primary bg-base-100 px-1.5 text-right outline-none',
          className,
        )}
        value={draft}
        onFocus={(event) => event.target.select()}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={finish}
        onKeyDown={(event) => {
          if (event.key === 'Enter') finish();
          else if (event.key === 'Escape') setDraft(null);
          event.stopPropagation();
        }}
      />
    );
  }
  return (
    <button
      type="button"
      role="spinbutton"
      aria-label={label}
      aria-valuenow={value}
      aria-valuemin={min}
      aria-valuemax={max}
      disabled={disabled}
      className={clsx(
        'figures h-6 cursor-ew-resize touch-none rounded border edge bg-base-100 px-1.5 text-right select-none hover:border-primary',
        className,
      )}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        drag.current = { x: event.clientX, value, moved: false };
      }}
      onPointerMove={(event) => {
        const from = drag.current;
        if (!from) return;
        const by = event.clientX - from.x;
        if (!from.moved && Math.abs(by) < 3) return;
        from.moved = true;
        from.x = event.clientX;
        from.value += by * (event.shiftKey ? fine : step);
        const places = Math.max(0, Math.ceil(-Math.log10(event.shiftKey ? fine : step)));
        onChange(held(Number(from.value.toFixed(Math.min(6, places + 1)))));
      }}
      onPointerUp={() => {
        const from = drag.current;
        drag.current = null;
        if (from && !from.moved) setDraft(shortNumber(value, 5));
        else onDone?.();
      }}
      onKeyDown={(event) => {
        const by =
          event.key === 'ArrowUp' || event.key === 'ArrowRight'
            ? 1
            : event.key === 'ArrowDown' || event.key === 'ArrowLeft'
              ? -1
              : 0;
        if (by) {
          event.preventDefault();
          onChange(held(Number((value + by * 10 * (event.shiftKey ? fine : step)).toFixed(6))));
        } else if (event.key === 'Enter' || /^[-\d.]$/.test(event.key)) {
          event.preventDefault();
          setDraft(event.key === 'Enter' ? shortNumber(value, 5) : event.key);
        }
      }}
    >
      {shortNumber(value, digits)}
      {unit && <span className="quiet">{unit}</span>}
    </button>
  );
}
