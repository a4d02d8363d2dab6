import { performanceAt, type PerformanceState } from '../../core/desk/performance-state';
import { aheadOfMachine } from '../../core/own-clock';
import { engine } from '../engine/client';

const key = 'pyrvel.performance';
/** Milliseconds after which the time is kept at the latest. */
const keptEveryMs = 5000;

interface Kept {
  showId: string;
  state: PerformanceState;
}

/**
 * Keeps the performance of this tab through a reload: blackout, freeze, range, next and time. Another tab, and a tab that
 * is opened later, start afresh. Called once; `openShow` says which show is open.
 */
export function keepPerformance(openShow: () => string): void {
  const keep = (): void => {
    const state = engine().lastReport;
    const showId = openShow();
    if (!state || !showId) return;
    // By the clock of the machine, as it is now: the page that comes goes by that.
    const kept: Kept = { showId, state: { ...state, at: state.at && state.at - aheadOfMachine() } };
    sessionStorage.setItem(key, JSON.stringify(kept));
  };
  let before = '';
  engine().on('performance', ({ state }) => {
    const { transport, program, blackout, freeze, desk, cues, masters, layer, moves } = state;
    // Time alone is written now and then, and when the page goes: one that is killed or discarded is not asked.
    const now = JSON.stringify([
      transport.playing,
      transport.range,
      { ...program, fade: 0 },
      blackout,
      freeze,
      desk.version,
      cues,
      masters,
      layer,
      moves.replaying,
    ]);
    if (now === before) return;
    before = now;
    keep();
  });
  window.addEventListener('pagehide', keep);
  setInterval(keep, keptEveryMs);
}

/** How the performance of a show stood in this tab before the reload; null if it was not played here, or can't be read. */
export function keptPerformance(showId: string): PerformanceState | null {
  try {
    const kept = JSON.parse(sessionStorage.getItem(key) ?? 'null') as Kept | null;
    // What an older Pyrvel kept lacks what is newer.
    return kept?.showId === showId ? { ...performanceAt(''), ...kept.state } : null;
  } catch {
    return null;
  }
}
