import clsx from 'clsx';
import { useState } from 'react';
import { playSurface } from './midi';
import { useDragValue } from './drag-value';
import { controllers, useHand } from './controllers';
import { inputStore } from './input-store';

/** What the surface on the screen sends, all on channel 1. */
const channel = 1;
const firstDial = 21;
const firstFader = 41;
const firstPad = 36;
const eight = Array.from({ length: 8 }, (_, k) => k);

function useControl(control: number): { value: number; set(value: number): void; now(): number } {
  const key = `${channel}/${control}`;
  const stood = inputStore((s) => s.surface[key]);
  const kept = useHand(({ midi }) => midi.controls[key] ?? 0);
  const now = (): number => inputStore.getState().surface[key] ?? controllers.midi.controls[key] ?? 0;
  return {
    value: stood ?? kept,
    now,
    set(next) {
      const whole = Math.round(next * 127);
      if (whole !== Math.round(now() * 127)) playSurface({ type: 'control', channel, control, value: whole });
    },
  };
}

function Dial({ control, name }: { control: number; name: string }) {
  const { value, set, now } = useControl(control);
  const drag = useDragValue(value, set, now);
  const turn = (value - 0.5) * 270;
  return (
    <div className="flex flex-col items-center gap-0.5">
      <svg
        viewBox="-20 -20 40 40"
        className="h-10 w-10 cursor-ns-resize touch-none rounded-full"
        aria-label={`${name}, control ${control}`}
        data-dial={control}
        {...drag}
      >
        <circle r={17} className="fill-base-100 stroke-base-content/30" />
        <path d={arc(value)} fill="none" strokeWidth={3} className="stroke-primary" strokeLinecap="round" />
        <line
          x1={0}
          y1={-5}
          x2={0}
          y2={-13}
          strokeWidth={2.5}
          className="stroke-base-content"
          transform={`rotate(${turn})`}
        />
      </svg>
      <span className="figures quiet text-2xs">{Math.round(value * 127)}</span>
    </div>
  );
}

/** The way a dial was turned, from the lower left. */
function arc(value: number): string {
  const at = (share: number): string => {
    const angle = ((-225 + share * 270) * Math.PI) / 180;
    return `${(17 * Math.cos(angle)).toFixed(2)} ${(17 * Math.sin(angle)).toFixed(2)}`;
  };
  return value <= 0 ? '' : `M ${at(0)} A 17 17 0 ${value * 270 > 180 ? 1 : 0} 1 ${at(value)}`;
}

function Fader({ control, name }: { control: number; name: string }) {
  const { value, set, now } = useControl(control);
  const drag = useDragValue(value, set, now, (event) => {
    const box = event.currentTarget.getBoundingClientRect();
    return 1 - (event.clientY - box.top - 8) / (box.height - 16);
  });
  return (
    <div className="flex flex-col items-center gap-0.5">
      <div
        className="relative h-24 w-8 cursor-ns-resize touch-none rounded bg-base-100"
        aria-label={`${name}, control ${control}`}
        data-fader={control}
        {...drag}
      >
        <span className="absolute inset-y-2 left-1/2 w-0.5 -translate-x-1/2 bg-base-300" />
        <span
          className="absolute bottom-2 left-1/2 w-0.5 -translate-x-1/2 bg-primary"
          style={{ height: `calc((100% - 1rem) * ${value})` }}
        />
        <span
          className="absolute left-1 h-3 w-6 rounded-sm border border-base-100 bg-base-content"
          style={{ bottom: `calc(2px + (100% - 1rem) * ${value})` }}
        />
      </div>
      <span className="figures quiet text-2xs">{Math.round(value * 127)}</span>
    </div>
  );
}

function Pad({ note }: { note: number }) {
  const down = useHand(({ midi }) => midi.notes[`${channel}/${note}`]?.down ?? false);
  const lit = inputStore((s) => (s.surface[`note ${channel}/${note}`] ?? 0) > 0);
  const [held, setHeld] = useState(false);
  const hit = (velocity: number): void => {
    setHeld(true);
    playSurface({ type: 'note', channel, note, velocity: Math.max(1, Math.round(velocity * 127)), on: true });
  };
  const lift = (): void => {
    if (!held) return;
    setHeld(false);
    playSurface({ type: 'note', channel, note, velocity: 0, on: false });
  };
  return (
    <button
      type="button"
      aria-label={`Pad, note ${note}`}
      aria-pressed={down}
      data-pad={note}
      title={`Note ${note}: harder toward the lower edge`}
      className={clsx(
        'figures h-full min-h-9 touch-none rounded border text-2xs',
        down
          ? 'border-primary bg-primary text-primary-content'
          : lit
            ? 'border-primary bg-primary/30'
            : 'quiet edge bg-base-100 hover:border-primary',
      )}
      data-lit={lit}
      onPointerDown={(event) => {
        const box = event.currentTarget.getBoundingClientRect();
        event.currentTarget.setPointerCapture(event.pointerId);
        hit(0.4 + 0.6 * Math.min(1, (event.clientY - box.top) / box.height));
      }}
      onPointerUp={lift}
      onPointerCancel={lift}
      onKeyDown={(event) => {
        if ((event.key === 'Enter' || event.key === ' ') && !event.repeat) {
          event.preventDefault();
          hit(0.8);
        }
      }}
      onKeyUp={lift}
      onBlur={lift}
    >
      {note}
    </button>
  );
}

/** The control surface that stands in for a real one: 16 pads, 8 dials and 8 faders that send MIDI messages. */
export function MidiSurface() {
  return (
    <div className="flex min-h-0 grow gap-4" data-testid="midi-surface">
      <div className="grid w-56 shrink-0 grid-cols-4 grid-rows-4 gap-1.5" aria-label="Pads" role="group">
        {Array.from({ length: 16 }, (_, k) => (
          // The lowest note lies at the lower left, as on most surfaces.
          <Pad key={k} note={firstPad + (3 - Math.floor(k / 4)) * 4 + (k % 4)} />
        ))}
      </div>
      <div className="grid min-w-88 grow grid-cols-8 content-between justify-items-center gap-y-1">
        {eight.map((k) => (
          <Dial key={k} control={firstDial + k} name={`Dial ${k + 1}`} />
        ))}
        {eight.map((k) => (
          <Fader key={k} control={firstFader + k} name={`Fader ${k + 1}`} />
        ))}
      </div>
    </div>
  );
}
