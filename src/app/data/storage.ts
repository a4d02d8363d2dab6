import { isNearlyFull } from '../../core/preflight/machine-check';
import { showStore } from './show-store';
import { say } from '../parts/notices';

/** Milliseconds between two looks at how full the storage is. */
const lookMs = 60000;

let hasWarned = false;

async function look(): Promise<void> {
  const { usage = 0, quota = 0 } = await navigator.storage.estimate();
  const isFull = isNearlyFull({ used: usage, quota });
  if (isFull && !hasWarned)
    say({
      tone: 'warning',
      text: 'The storage of this browser is nearly full. Export shows under Shows, which always works, and delete those that are not needed.',
      stays: true,
    });
  hasWarned = isFull;
}

/**
 * Asks the browser to keep what is stored as soon as something is edited, since it may else clear it when space is short; and warns before there is
 * none left, once until there is room again. Called once.
 */
export function keepStorage(): void {
  const { storage } = navigator as { storage?: StorageManager };
  if (!storage) return;
  const stop = showStore.subscribe((now, before) => {
    if (now.id !== before.id || now.show === before.show) return;
    stop();
    void storage.persist().catch(() => undefined);
  });
  const watch = (): void => void look().catch(() => undefined);
  watch();
  setInterval(watch, lookMs);
}
