import type { Command } from './command';
import { engine } from '../engine/client';
import { liveStore } from '../engine/live';

export const transportCommands: readonly Command[] = [
  {
    id: 'transport.play',
    label: 'Play or pause',
    help: 'Plays or pauses the show',
    keys: ['Ctrl+Enter'],
    isOn: () => liveStore.getState().transport.playing,
    run: () => engine().perform({ type: 'play', playing: !liveStore.getState().transport.playing }),
  },
  {
    id: 'transport.step',
    label: 'Step a frame',
    help: 'Pauses and goes on by one frame',
    keys: ['Ctrl+.'],
    run: () => engine().perform({ type: 'step' }),
  },
  {
    id: 'transport.start',
    label: 'Back to start',
    help: 'Back to the start of the show',
    keys: ['Ctrl+Home'],
    run: () => engine().perform({ type: 'seek', time: 0, exactly: true }),
  },
  {
    id: 'transport.whole',
    label: 'Play the whole show',
    help: 'Ends the range that time goes round in',
    when: () => liveStore.getState().transport.range !== null,
    run: () => engine().perform({ type: 'range', range: null }),
  },
];
