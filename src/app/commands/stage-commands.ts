import { transitionSeconds } from '../../core/show/transition';
import { sceneAtHand } from './at-hand';
import type { Command } from './command';
import { editShow, showStore } from '../data/show-store';
import { perform } from '../engine/perform';
import { liveStore } from '../engine/live';
import { openStage } from '../actions/open-stage';

const program = () => liveStore.getState().program;
const seconds = (): number => transitionSeconds(showStore.getState().show);

export const stageCommands: readonly Command[] = [
  {
    id: 'stage.open',
    label: 'Open a stage window',
    help: 'Opens a clean window for the stage; F there fills the screen',
    run: openStage,
  },
  {
    id: 'stage.blackout',
    label: 'Blackout',
    help: 'Black on all stage windows',
    keys: ['F9'],
    everywhere: true,
    isOn: () => liveStore.getState().blackout,
    run: () => perform({ type: 'blackout' }),
  },
  {
    id: 'stage.freeze',
    label: 'Freeze',
    help: 'Holds the picture on all stage windows',
    keys: ['F8'],
    everywhere: true,
    isOn: () => liveStore.getState().freeze,
    run: () => perform({ type: 'freeze' }),
  },
  {
    id: 'stage.limit',
    label: 'Limit flashes',
    help: 'Holds flashes of what is on air within three a second; the show keeps it',
    words: ['limiter', 'strobe safety', 'epilepsy', 'flicker'],
    isOn: () => showStore.getState().show.wall.limiter,
    run: () => editShow((show) => void (show.wall.limiter = !show.wall.limiter)),
  },
  {
    id: 'stage.take',
    label: 'Take the open scene to the stage',
    help: 'Brings the scene that is open in Build on stage, by the transition of the show',
    keys: ['Ctrl+Shift+Enter'],
    when: () => {
      const scene = sceneAtHand();
      return scene !== null && (program().incoming ?? program().program) !== scene.id;
    },
    run: () => perform({ type: 'take', scene: sceneAtHand()!.id, seconds: seconds() }),
  },
  {
    id: 'stage.take-next',
    label: 'Take the next scene',
    help: 'Brings the scene that was set as next on stage, by the transition of the show',
    keys: ['F7'],
    // A transition that a hand holds goes on by itself.
    when: () => (program().next !== null && program().incoming === null) || program().byHand,
    run: () => perform({ type: 'take-next', seconds: seconds() }),
  },
];
