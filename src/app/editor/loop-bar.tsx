import clsx from 'clsx';
import { Repeat } from 'lucide-react';
import { memo, useRef, useState } from 'react';
import type { Scene } from '../../core/document/types';
import { loopSecondsOf } from '../../core/time/clock';
import { runCommand } from '../commands/registry';
import { useShow } from '../data/show-store';
import { perform } from '../engine/perform';
import { liveStore } from '../engine/live';
import { ScrubNumber } from '../parts/scrub-number';

/** Milliseconds in which a jump is not told of yet. */
const onItsWay = 400;
let aim = { time: 0, at: -Infinity };

/** Jumps; `exactly` once the hand has let go, so that memories get there too (preroll). */
function seek(time: number, exactly: boolean): void {
  aim = { time: Math.max(0, time), at: performance.now() };
  perform({ type: 'seek', time: aim.time, exactly });
}

/** Where the show is, or is going: keys that follow each other go on from the last. */
const whereFrom = (time: number): number => (performance.now() - aim.at < onItsWay ? aim.time : time);

/** Most lines the ruler is divided by. */
const mostLines = 32;

/** One round of the scene's loop: where it is, dragged to go elsewhere, and the part of it that is played round. */
export const LoopBar = memo(function LoopBar({ loop }: { loop: Scene['loop'] }) {
  const tempo = useShow((show) => show.tempo);
  const fps = useShow((show) => show.canvas.fps);
  const time = liveStore((s) => s.transport.time);
  const done = liveStore((s) => s.transport.done);
  const range = liveStore((s) => s.transport.range);
  const bar = useRef<HTMLDivElement>(null);
  const [drag, setDrag] = useState<{ at: number; marks: boolean } | null>(null);
  const seconds = loopSecondsOf(loop, tempo.bpm, fps);
  // A round that was sought stays in sight while the hand is on it.
  const round = Math.floor((drag ? drag.at : time) / seconds + 1e-9);
  const start = round * seconds;
  const share = (at: number): number => Math.min(1, Math.max(0, (at - start) / seconds));
  const timeAt = (x: number): number => {
    const box = bar.current!.getBoundingClientRect();
    const part = Math.min(1, Math.max(0, (x - box.left) / box.width));
    return start + Math.min(part * seconds, seconds - 1 / fps);
  };
  const beats = (seconds * tempo.bpm) / 60;
  const every = 2 ** Math.max(0, Math.ceil(Math.log2(beats / mostLines)));
  const lines = Array.from({ length: Math.ceil(beats / every - 1e-6) }, (_, k) => k * every);
  const mark = (from: number, to: number): void => {
    const [low, high] = [Math.min(from, to), Math.max(from, to)];
    perform({ type: 'range', range: high - low > 2 / fps ? [low, high] : null });
  };
  return (
    <div
      className="live flex h-7 shrink-0 items-center gap-2 border-b edge px-2 contain-strict"
      data-testid="loop-bar"
    >
      <span className="quiet flex items-center gap-1" title="Rounds of the loop since the start">
        <Repeat size={12} />
        <span className="figures text-2xs">{round + 1}</span>
      </span>
      <div
        ref={bar}
        role="slider"
        tabIndex={0}
        aria-label="Place in the loop"
        aria-valuemin={0}
        aria-valuemax={seconds}
        aria-valuenow={Number((time - start).toFixed(3))}
        title="Drag to go elsewhere in the loop; with Shift, mark a part that is played round"
        className="relative h-5 grow cursor-ew-resize touch-none overflow-hidden rounded bg-base-200 focus-visible:outline focus-visible:outline-primary"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          const at = timeAt(event.clientX);
          setDrag({ at, marks: event.shiftKey });
          if (!event.shiftKey) seek(at, false);
        }}
        onPointerMove={(event) => {
          if (!drag) return;
          if (drag.marks) mark(drag.at, timeAt(event.clientX));
          else seek(timeAt(event.clientX), false);
        }}
        onPointerUp={(event) => {
          if (drag?.marks) mark(drag.at, timeAt(event.clientX));
          else seek(timeAt(event.clientX), true);
          setDrag(null);
        }}
        onKeyDown={(event) => {
          const by = { ArrowLeft: -1, ArrowRight: 1, ArrowDown: -1, ArrowUp: 1 }[event.key];
          if (event.key === 'Home') seek(start, true);
          else if (by) seek(whereFrom(time) + by * (event.shiftKey ? 60 / tempo.bpm : 1 / fps), true);
          else if (event.key === 'Escape') runCommand('transport.whole');
          else return;
          event.preventDefault();
        }}
      >
        {lines.map((beat) => (
          <span
            key={beat}
            className={clsx(
              'absolute bottom-0 w-px bg-base-content/25',
              beat % tempo.beatsPerBar === 0 ? 'h-3' : 'h-1.5',
            )}
            style={{ left: `${(beat / beats) * 100}%` }}
          />
        ))}
        {range && (
          <span
            className="absolute inset-y-0 border-x border-primary bg-primary/20"
            style={{
              left: `${share(range[0]) * 100}%`,
              width: `${(share(range[1]) - share(range[0])) * 100}%`,
            }}
            data-testid="range"
          />
        )}
        <span className="absolute inset-y-0 w-0.5 bg-primary" style={{ left: `${share(time) * 100}%` }} />
        {done < 1 && (
          <span
            className="absolute inset-x-0 bottom-0 h-1 origin-left bg-secondary"
            style={{ transform: `scaleX(${done})` }}
            role="progressbar"
            aria-label="Preroll to here"
            aria-valuenow={Math.round(done * 100)}
          />
        )}
      </div>
      {range && (
        <>
          {([0, 1] as const).map((k) => (
            <ScrubNumber
              key={k}
              label={k ? 'Range ends' : 'Range starts'}
              value={Number(range[k].toFixed(3))}
              step={0.05}
              fine={0.005}
              min={k ? range[0] + 2 / fps : 0}
              unit="s"
              className="w-16"
              onChange={(v) => mark(k ? range[0] : v, k ? v : range[1])}
            />
          ))}
          <button type="button" className="tool" onClick={() => runCommand('transport.whole')}>
            Whole show
          </button>
        </>
      )}
      <span className="figures quiet w-24 text-right text-2xs whitespace-nowrap">
        {Math.max(0, time - start).toFixed(2)} of {Number(seconds.toFixed(3))} s
      </span>
    </div>
  );
});
