import clsx from 'clsx';
import { ShieldCheck } from 'lucide-react';
import { mostFlashes } from '../../core/preflight/flash-meter';
import { CommandButton } from '../commands/command-button';
import { useShow } from '../data/show-store';
import { liveStore } from '../engine/live';
import { Bindable } from './bindable';

/** From where on the limiter is said to hold back, 0..1. */
const seenFrom = 0.02;

/** Whether the limiter holds anything back that can be seen. */
export const useHeldBack = (): boolean => liveStore((s) => s.flashes !== null && s.flashes.held > seenFrom);

/** The flash meter of what is on air, and the switch of the limiter. */
export function FlashRow() {
  const flashes = liveStore((s) => s.flashes);
  const isLimited = useShow((show) => show.wall.limiter);
  // Two changes are a flash; the worse of both sorts counts.
  const isRed = flashes !== null && flashes.red > flashes.general;
  const count = flashes ? Math.max(flashes.general, flashes.red) / 2 : 0;
  const holds = useHeldBack();
  return (
    <div className="flex h-9 items-center gap-2" role="group" aria-label="Flashes">
      <span className="w-14 shrink-0" title="Flashes in the last second, where most are">
        Flashes
      </span>
      <meter
        className="sr-only"
        aria-label="Flashes a second"
        min={0}
        max={2 * mostFlashes}
        value={Math.min(count, 2 * mostFlashes)}
      />
      <span className="flex min-w-0 grow gap-0.5" aria-hidden>
        {Array.from({ length: 2 * mostFlashes }, (_, k) => (
          <span
            key={k}
            className={clsx(
              'h-3 flex-1 rounded-xs border edge',
              count > k && (k < mostFlashes ? 'bg-primary' : 'bg-error'),
            )}
          />
        ))}
      </span>
      <output
        className={clsx(
          'figures w-24 shrink-0 text-right text-2xs whitespace-nowrap',
          flashes?.fails && 'text-error',
        )}
        data-testid="flash-state"
        data-held={holds}
      >
        {!flashes
          ? 'not counted'
          : holds
            ? `held back ${Math.round(100 * flashes.held)} %`
            : `${count} of ${mostFlashes}${isRed ? ', red' : ''}`}
      </output>
      <Bindable target={{ type: 'command', command: 'stage.limit' }} label="the limiter">
        <CommandButton
          id="stage.limit"
          icon={ShieldCheck}
          isOn={isLimited}
          className={clsx('h-9', isLimited && 'text-primary')}
        />
      </Bindable>
    </div>
  );
}
