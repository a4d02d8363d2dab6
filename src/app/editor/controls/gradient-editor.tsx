import {
  ClipboardPaste,
  Copy,
  CopyPlus,
  FlipHorizontal2,
  ImageDown,
  Monitor,
  Palette,
  Rows3,
} from 'lucide-react';
import clsx from 'clsx';
import type { LucideIcon } from 'lucide-react';
import { useRef, useState } from 'react';
import { fromHex, gradientAt, toHex } from '../../../core/colour';
import type { Rgba, Stop } from '../../../core/document/types';
import { FileButton } from '../../parts/file-button';
import { say } from '../../parts/notices';
import { ScrubNumber } from '../../parts/scrub-number';
import ColourTools from './colour-tools';
import { gradientOfFile, gradientOfScene } from './gradient-source';

const most = 16;
const css = (c: readonly number[]): string =>
  `rgb(${c
    .slice(0, 3)
    .map((v) => Math.round(v * 255))
    .join(' ')} / ${c[3]})`;

function Tool({
  label,
  title = label,
  icon: Icon,
  isOn,
  turned,
  disabled,
  onPress,
}: {
  label: string;
  title?: string;
  icon: LucideIcon;
  /** Whether what it opens is open. */
  isOn?: boolean;
  turned?: boolean;
  disabled?: boolean;
  onPress(): void;
}) {
  return (
    <button
      type="button"
      className={clsx('tool px-1.5', isOn && 'text-primary')}
      aria-label={label}
      aria-expanded={isOn}
      title={title}
      disabled={disabled}
      onClick={onPress}
    >
      <Icon size={13} className={turned ? 'rotate-90' : ''} />
    </button>
  );
}

/** A gradient that was copied. */
let copied: readonly Stop[] | null = null;

/** Stops on a bar: drag to move, double-click to add, drag away to remove; each with colour, alpha and place. */
export default function GradientEditor({
  label,
  stops,
  scene,
  onChange,
  onDone,
}: {
  label: string;
  /** Whose picture it can be made from. */
  scene: string;
  stops: readonly Stop[];
  onChange(stops: Stop[]): void;
  onDone(): void;
}) {
  const bar = useRef<HTMLDivElement>(null);
  const [chosen, setChosen] = useState(0);
  const at = Math.min(chosen, stops.length - 1);
  const stop = stops[at];
  const [showsTools, setShowsTools] = useState(false);
  const [, setCopies] = useState(0);
  const once = (next: Stop[]): void => {
    onChange(next);
    onDone();
  };
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
    once(
      stops.map((s) => ({
        ...s,
        at: sorted.length > 1 ? Number((order.get(s)! / (sorted.length - 1)).toFixed(3)) : 0,
      })),
    );
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
        <Tool
          label="Colours for the stop"
          title="Picks its colour from the monitor, or from those of the show"
          icon={Palette}
          isOn={showsTools}
          onPress={() => setShowsTools(!showsTools)}
        />
        <Tool
          label="Copy this stop"
          icon={CopyPlus}
          onPress={() => add(Number(Math.min(1, stop.at + 0.08).toFixed(3)))}
        />
      </div>
      {showsTools && (
        <ColourTools
          label="the stop"
          onChoose={(rgb) => {
            put(at, { colour: [...rgb, stop.colour[3]] });
            onDone();
          }}
        />
      )}
      <div className="flex items-center gap-1" role="group" aria-label={`${label}, the whole gradient`}>
        <Tool label="Spread the stops evenly" icon={Rows3} turned onPress={spread} />
        <Tool
          label="Flip the gradient"
          icon={FlipHorizontal2}
          onPress={() => once(stops.map((s) => ({ ...s, at: Number((1 - s.at).toFixed(3)) })))}
        />
        <Tool
          label="Copy the gradient"
          icon={Copy}
          onPress={() => {
            copied = structuredClone([...stops]);
            setCopies((n) => n + 1);
          }}
        />
        <Tool
          label="Paste the gradient"
          icon={ClipboardPaste}
          disabled={copied === null}
          onPress={() => once(structuredClone([...copied!]))}
        />
        <span className="grow" />
        <span className="quiet text-2xs">from</span>
        <Tool
          label="Gradient from the scene"
          title="Makes it of the colours that the scene has now"
          icon={Monitor}
          onPress={() =>
            void gradientOfScene(scene)
              .then(once)
              .catch((error: Error) => say({ tone: 'warning', text: error.message }))
          }
        />
        <FileButton
          label="Gradient from a picture"
          title="Makes it of the colours of a picture file"
          accept="image/*"
          testId="gradient-file"
          icon={ImageDown}
          read={async (file) => once(await gradientOfFile(file))}
        />
      </div>
    </div>
  );
}
