import { registerSW } from 'virtual:pwa-register';
import { say } from '../parts/notices';
import { openHelp } from './help-session';
import { recordingStore } from './recording-store';
import { openStages, watchStageCount } from './stage-windows';

/** Milliseconds between two looks for a newer version. */
const lookMs = 60 * 60 * 1000;

/** That this page comes from an update that was taken. */
const updatedKey = 'pyrvel.updated';

/** Whether somebody may be performing: in Play, with a stage window open, or while the program is recorded. */
const isPerforming = (): boolean =>
  location.pathname.startsWith('/play') || openStages() > 0 || recordingStore.getState().recording !== null;

/**
 * Keeps the app in this browser, so that it starts without its server, and offers a newer version once nobody performs. It is
 * taken on demand only: the page reloads with it. `onMove`: has a listener called after each change of the view.
 */
export function keepOffline(onMove: (listener: () => void) => unknown): void {
  if (!('serviceWorker' in navigator)) return;
  if (sessionStorage.getItem(updatedKey)) {
    sessionStorage.removeItem(updatedKey);
    say({
      tone: 'info',
      text: 'This is the newer version.',
      action: { label: 'What’s new', run: () => openHelp('news') },
    });
  }
  let isNew = false;
  const update = registerSW({
    onNeedRefresh: () => {
      isNew = true;
      offer();
    },
    onRegisteredSW: (_address, registration) => {
      if (registration) setInterval(() => void registration.update().catch(() => undefined), lookMs);
    },
  });
  const offer = (): void => {
    if (!isNew || isPerforming()) return;
    isNew = false;
    say({
      tone: 'info',
      stays: true,
      text: 'A newer version of Pyrvel is ready. Your work is saved; the page reloads with it.',
      action: {
        label: 'Update',
        run: () => {
          sessionStorage.setItem(updatedKey, 'yes');
          void update(true);
        },
      },
    });
  };
  // What was held back is offered once the performance is over.
  watchStageCount(offer);
  recordingStore.subscribe(offer);
  onMove(offer);
}

/** Parts of the app that are gone because a newer version has taken their place: reloading brings it. */
export function offerReload(): void {
  say({
    tone: 'error',
    text: 'Pyrvel was updated meanwhile. Reload this page to open that; your work is saved.',
    action: { label: 'Reload', run: () => location.reload() },
  });
}
