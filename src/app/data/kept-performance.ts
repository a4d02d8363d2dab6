import { performanceAt, type PerformanceState } from '../../core/desk/performance-state';
import type { PerformanceCommand } from '../../core/desk/command';
import { byMachine, fromMachine } from '../../core/own-clock';
import { engine } from '../engine/client';

const key = 'pyrvel.performance';
/** Milliseconds after which the time is kept at the latest. */
const keptEveryMs = 5000;

/** How a performance stood, and what the performer did after that. */
export interface Standing {
  resume: PerformanceState;
  due: readonly PerformanceCommand[];
}

/** How the engine's performance stands; null: it has not spoken of it yet. */
export function standing(): Standing | null {
  const { lastReport, dueCommands } = engine();
  return lastReport && { resume: lastReport, due: dueCommands };
}

interface Kept {
  showId: string;
  state: PerformanceState;
  due?: readonly PerformanceCommand[];
}

/**
 * Keeps the performance of this tab through a reload: blackout, freeze, range, next and time. Another tab, and a tab that
 * is opened later, start afresh. Called once; `openShow` says which show is open.
 */
export function keepPerformance(openShow: () => string): void {
  const keep = (): void => {
    const now = standing();
    const showId = openShow();
    if (!now || !showId) return;
    const { resume: state, due } = now;
    // By the clock of the machine, as it is now: that of this page ends with it.
    const kept: Kept = { showId, state: { ...state, at: state.at && byMachine(state.at) }, due };
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
export function keptPerformance(showId: string): Standing | null {
  try {
    const kept = JSON.parse(sessionStorage.getItem(key) ?? 'null') as Kept | null;
    // What an older Pyrvel kept lacks what is newer.
    if (kept?.showId !== showId) return null;
    const { at } = kept.state;
    return {
      resume: { ...performanceAt(''), ...kept.state, at: at && fromMachine(at) },
      due: kept.due ?? [],
    };
  } catch {
    return null;
  }
}
