import clsx from 'clsx';
import { useRef } from 'react';
import type { DeskControl } from '../../../core/document/types';
import { shortNumber } from '../../../core/text/short-number';
import { numberAt, sendHome, shareOf, turnByKey, useNumbers } from './use-desk';

/** Pixels that go through the whole range of a dial. */
const wholeWay = 180;

const aria = (control: DeskControl, value: number) =>
  ({
    role: 'slider',
    tabIndex: 0,
    'aria-label': control.name,
    'aria-valuemin': control.range[0],
    'aria-valuemax': control.range[1],
    'aria-valuenow': value,
    'aria-valuetext': `${shortNumber(value)}${control.unit}`,
    'data-desk': control.id,
  }) as const;

/** A fader: it goes to where it is touched, and follows each finger by itself. */
export function Fader({ control }: { control: DeskControl }) {
  const { numbers, move, take, letGo } = useNumbers(control);
  const value = numbers[0] ?? control.range[0];
  const share = shareOf(control, value);
  const isWide = control.size[0] > control.size[1];
  const box = useRef<HTMLDivElement>(null);
  const at = (event: React.PointerEvent): void => {
    const { left, top, width, height } = box.current!.getBoundingClientRect();
    move([
      numberAt(
        control,
        isWide ? (event.clientX - left - 10) / (width - 20) : 1 - (event.clientY - top - 10) / (height - 20),
      ),
    ]);
  };
  return (
    <div
      ref={box}
      {...aria(control, value)}
      aria-orientation={isWide ? 'horizontal' : 'vertical'}
      className={clsx(
        'relative min-h-0 grow touch-none rounded border edge bg-base-100 outline-offset-2',
        isWide ? 'cursor-ew-resize' : 'cursor-ns-resize',
      )}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        take();
        at(event);
      }}
      onPointerMove={(event) => event.currentTarget.hasPointerCapture(event.pointerId) && at(event)}
      onPointerUp={letGo}
      onPointerCancel={letGo}
      onDoubleClick={() => sendHome(control)}
      onKeyDown={(event) => turnByKey(control, 0, event)}
    >
      <span
        className={clsx(
          'absolute rounded-[3px] bg-primary/25',
          isWide ? 'inset-y-0 left-0' : 'inset-x-0 bottom-0',
        )}
        style={isWide ? { width: `${share * 100}%` } : { height: `${share * 100}%` }}
      />
      <span
        className={clsx('absolute rounded-sm bg-primary', isWide ? 'inset-y-1 w-2' : 'inset-x-1 h-2')}
        style={
          isWide
            ? { left: `calc(${share} * (100% - 0.5rem))` }
            : { bottom: `calc(${share} * (100% - 0.5rem))` }
        }
      />
    </div>
  );
}

/** The way a dial was turned, from the lower left. */
function arc(share: number, radius: number): string {
  const at = (s: number): string => {
    const angle = ((-225 + s * 270) * Math.PI) / 180;
    return `${(radius * Math.cos(angle)).toFixed(2)} ${(radius * Math.sin(angle)).toFixed(2)}`;
  };
  return share <= 0 ? '' : `M ${at(0)} A ${radius} ${radius} 0 ${share * 270 > 180 ? 1 : 0} 1 ${at(share)}`;
}

/** A dial: it is turned by moving up and down, finely with Shift. */
export function Dial({ control }: { control: DeskControl }) {
  const { numbers, move, take, letGo } = useNumbers(control);
  const value = numbers[0] ?? control.range[0];
  const share = shareOf(control, value);
  const from = useRef<{ y: number; share: number } | null>(null);
  const end = (): void => {
    from.current = null;
    letGo();
  };
  return (
    <svg
      viewBox="-20 -20 40 40"
      {...aria(control, value)}
      className="min-h-0 w-full grow cursor-ns-resize touch-none rounded outline-offset-2"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        take();
        from.current = { y: event.clientY, share };
      }}
      onPointerMove={(event) => {
        const start = from.current;
        if (!start) return;
        const fine = event.shiftKey ? 0.1 : 1;
        move([numberAt(control, start.share + ((start.y - event.clientY) / wholeWay) * fine)]);
      }}
      onPointerUp={end}
      onPointerCancel={end}
      onDoubleClick={() => sendHome(control)}
      onKeyDown={(event) => turnByKey(control, 0, event)}
    >
      <path d={arc(1, 16)} fill="none" strokeWidth={3} strokeLinecap="round" className="stroke-base-300" />
      <path d={arc(share, 16)} fill="none" strokeWidth={3} strokeLinecap="round" className="stroke-primary" />
      <circle r={11} className="fill-base-100 stroke-base-content/25" strokeWidth={1} />
      <line
        y1={-4}
        y2={-9.5}
        strokeWidth={2.2}
        strokeLinecap="round"
        className="stroke-base-content"
        transform={`rotate(${(share - 0.5) * 270})`}
      />
    </svg>
  );
}

/** A pad x/y: the point is where the finger is. */
export function XyPad({ control }: { control: DeskControl }) {
  const { numbers, move, take, letGo } = useNumbers(control);
  const [x, y] = [numbers[0] ?? 0, numbers[1] ?? 0];
  const box = useRef<HTMLDivElement>(null);
  const at = (event: React.PointerEvent): void => {
    const { left, top, width, height } = box.current!.getBoundingClientRect();
    move([
      numberAt(control, (event.clientX - left) / width),
      numberAt(control, 1 - (event.clientY - top) / height),
    ]);
  };
  return (
    <div
      ref={box}
      role="slider"
      tabIndex={0}
      aria-label={control.name}
      aria-roledescription="pad x/y"
      aria-valuemin={control.range[0]}
      aria-valuemax={control.range[1]}
      aria-valuenow={x}
      aria-valuetext={`${shortNumber(x)}, ${shortNumber(y)}`}
      data-desk={control.id}
      className="relative min-h-0 grow cursor-crosshair touch-none overflow-hidden rounded border edge bg-base-100 outline-offset-2"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        take();
        at(event);
      }}
      onPointerMove={(event) => event.currentTarget.hasPointerCapture(event.pointerId) && at(event)}
      onPointerUp={letGo}
      onPointerCancel={letGo}
      onDoubleClick={() => sendHome(control)}
      onKeyDown={(event) => {
        const isUp = event.key === 'ArrowUp' || event.key === 'ArrowDown' || event.key.startsWith('Page');
        turnByKey(control, isUp ? 1 : 0, event);
      }}
    >
      <span className="absolute inset-y-0 left-1/2 w-px bg-base-300" />
      <span className="absolute inset-x-0 top-1/2 h-px bg-base-300" />
      <span
        className="absolute size-4 -translate-x-1/2 translate-y-1/2 rounded-full border-2 border-primary bg-primary/30"
        style={{ left: `${shareOf(control, x) * 100}%`, bottom: `${shareOf(control, y) * 100}%` }}
      />
    </div>
  );
}
