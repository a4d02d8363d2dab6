import type { ShowInputs } from '../../core/document/types';
import { editShow, showStore } from '../data/show-store';

/** Less than this is no change of tempo but unrest of the measuring. */
const leastChange = 0.4;

/** Lets the tempo of the show follow a source, if it is told to follow that one. */
export function followTempo(source: ShowInputs['clock'], bpm: number): void {
  const { show } = showStore.getState();
  const wanted = Math.round(Math.min(400, Math.max(10, bpm)) * 10) / 10;
  if (show.inputs.clock !== source || Math.abs(wanted - show.tempo.bpm) < leastChange) return;
  editShow((draft) => void (draft.tempo.bpm = wanted), 'clock');
}
