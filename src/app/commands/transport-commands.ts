import { tempoFromTaps } from '../../core/time/clock';
import type { Command } from './command';
import { editShow } from '../data/show-store';
import { perform } from '../engine/perform';
import { liveStore } from '../engine/live';

let taps: number[] = [];

/** A tap of the beat; from the second on it sets the tempo. */
function tap(): void {
  taps = [...taps.slice(-8), performance.now() / 1000];
  const tempo = tempoFromTaps(taps);
  if (tempo === null) return;
  const bpm = Math.round(tempo * 10) / 10;
  editShow((show) => void (show.tempo.bpm = bpm), 'clock');
  perform({ type: 'tempo', bpm });
}

export const transportCommands: readonly Command[] = [
  {
    id: 'transport.play',
    label: 'Play or pause',
    help: 'Plays or pauses the show',
    keys: ['Ctrl+Enter'],
    isOn: () => liveStore.getState().transport.playing,
    run: () => perform({ type: 'play', playing: !liveStore.getState().transport.playing }),
  },
  {
    id: 'transport.step',
    label: 'Step a frame',
    help: 'Pauses and goes on by one frame',
    keys: ['Ctrl+.'],
    run: () => perform({ type: 'step' }),
  },
  {
    id: 'transport.start',
    label: 'Back to start',
    help: 'Back to the start of the show',
    keys: ['Ctrl+Home'],
    run: () => perform({ type: 'seek', time: 0, exactly: true }),
  },
  {
    id: 'transport.tap',
    label: 'Tap the beat',
    help: 'Tap in time with the music: the tempo follows',
    run: tap,
  },
  {
    id: 'transport.whole',
    label: 'Play the whole show',
    help: 'Ends the range that time goes round in',
    when: () => liveStore.getState().transport.range !== null,
    run: () => perform({ type: 'range', range: null }),
  },
];
