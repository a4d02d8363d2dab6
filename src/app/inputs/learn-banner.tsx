import { Radio } from 'lucide-react';
import { useEffect } from 'react';
import { learnStore, stopLearning } from './learn-store';

/** Says what waits to learn, in every view, until something is moved. */
export function LearnBanner() {
  const waiting = learnStore((s) => s.waiting);
  useEffect(() => {
    if (!waiting) return;
    const leave = (event: KeyboardEvent): void => {
      if (event.key === 'Escape') stopLearning();
    };
    window.addEventListener('keydown', leave);
    return () => window.removeEventListener('keydown', leave);
  }, [waiting]);
  if (!waiting) return null;
  return (
    <div
      className="flex h-8 shrink-0 items-center gap-2 bg-primary px-3 text-primary-content"
      role="status"
      data-testid="learning"
    >
      <Radio size={14} className="animate-pulse" />
      <span>
        Learning <strong>{waiting.label}</strong>: turn a dial, press a key or a pad, send a message, or use
        the on-screen controls under Inputs.
      </span>
      <span className="grow" />
      <button type="button" className="btn btn-xs" onClick={stopLearning}>
        Stop (Esc)
      </button>
    </div>
  );
}
