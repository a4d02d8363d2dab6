import { perform } from '../engine/perform';
import { liveStore } from '../engine/live';

/** A step of an arrow key. */
const step = 0.05;

/** Brings the next scene on stage by hand: it comes as far as the lever is moved, and is on air at the end. */
export function Crossfader() {
  const program = liveStore((s) => s.program);
  const isBound = program.incoming !== null || (program.next !== null && program.next !== program.program);
  return (
    <input
      type="range"
      className="range w-full range-primary"
      aria-label="Crossfader"
      title="Brings the next scene on stage by hand"
      min={0}
      max={1}
      step={0.001}
      value={program.incoming === null ? 0 : program.fade}
      disabled={!isBound}
      onChange={(e) => perform({ type: 'crossfade', to: Number(e.target.value) })}
      onKeyDown={(e) => {
        const way = { ArrowRight: step, ArrowUp: step, ArrowLeft: -step, ArrowDown: -step }[e.key];
        if (way === undefined) return;
        e.preventDefault();
        e.stopPropagation();
        // From where the engine is: what the page last heard may be older than the key before.
        perform({ type: 'crossfade-by', by: way });
      }}
    />
  );
}
