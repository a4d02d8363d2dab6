import { transitionSeconds } from '../../core/show/transition';
import type { Command } from './command';
import { perform } from '../engine/perform';
import { setLocked, lockStore } from '../data/lock';
import { playSession } from '../data/play-session';
import { showStore } from '../data/show-store';
import { liveStore } from '../engine/live';
import { scenesShown } from '../actions/play-actions';

const isPlay = (): boolean => location.pathname.startsWith('/play');
const hasCues = (): boolean => showStore.getState().show.cues.length > 0;
const isHeld = (): boolean => liveStore.getState().cues.held !== null;

/** Digits take the scenes whose buttons are shown, in their order. */
const digits = Array.from({ length: 9 }, (_, k): Command => ({
  id: `play.scene-${k + 1}`,
  label: `Take scene ${k + 1}`,
  help: `Takes the scene of button ${k + 1} in Play`,
  keys: [String(k + 1)],
  when: () => isPlay() && scenesShown().length > k,
  run: () =>
    perform({
      type: 'take',
      scene: scenesShown()[k].id,
      seconds: transitionSeconds(showStore.getState().show),
    }),
}));

export const playCommands: readonly Command[] = [
  {
    id: 'play.panic',
    label: 'Panic',
    help: 'The home picture at once: desk home, no layer, no blackout, nothing under way',
    keys: ['F10'],
    everywhere: true,
    run: () => perform({ type: 'panic' }),
  },
  {
    id: 'play.go',
    label: 'Go',
    help: 'Begins the next cue of the running order',
    keys: ['F4'],
    everywhere: true,
    when: hasCues,
    run: () => perform({ type: 'cue', do: 'go' }),
  },
  {
    id: 'play.back',
    label: 'Back a cue',
    help: 'Begins the cue before this one',
    keys: ['Shift+F4'],
    when: hasCues,
    run: () => perform({ type: 'cue', do: 'back' }),
  },
  {
    id: 'play.hold',
    label: 'Hold the running order',
    help: 'Stops what would come by itself; again: goes on from there',
    keys: ['F2'],
    when: hasCues,
    isOn: isHeld,
    run: () => perform({ type: 'cue', do: isHeld() ? 'resume' : 'hold' }),
  },
  {
    id: 'play.leave',
    label: 'Leave the loop of cues',
    help: 'Begins the cue after this one in the list, whatever it goes back to',
    when: hasCues,
    run: () => perform({ type: 'cue', do: 'leave' }),
  },
  {
    id: 'play.undo',
    label: 'Undo on the desk',
    help: 'Brings the desk back to how it stood before the last action on it',
    keys: ['Ctrl+Backspace'],
    when: () => liveStore.getState().desk.canUndo,
    run: () => perform({ type: 'desk-undo' }),
  },
  {
    id: 'play.home',
    label: 'Desk home',
    help: 'Sends all controls of the desk home',
    run: () => perform({ type: 'desk-home', control: null }),
  },
  {
    id: 'play.record',
    label: 'Record moves',
    help: 'Records what hands do against the time of the show; again: keeps it',
    isOn: () => liveStore.getState().moves.recording,
    run: () => perform({ type: 'record', on: !liveStore.getState().moves.recording }),
  },
  {
    id: 'play.replay',
    label: 'Play moves',
    help: 'Plays the recorded moves again as the show’s time comes to them',
    isOn: () => liveStore.getState().moves.replaying,
    run: () => perform({ type: 'replay', on: !liveStore.getState().moves.replaying }),
  },
  {
    id: 'play.lock',
    label: 'Lock the show',
    help: 'Nothing of the show can be edited while it is locked; playing goes on',
    keys: ['Ctrl+Shift+K'],
    isOn: () => lockStore.getState().locked,
    run: () => setLocked(!lockStore.getState().locked),
  },
  {
    id: 'play.bind',
    label: 'Bind by moving',
    help: 'Click a control, a scene or a button of Play, then move the dial or press the key that is to move it',
    when: isPlay,
    isOn: () => playSession.getState().binding,
    run: () => playSession.setState((s) => ({ binding: !s.binding, arranging: false })),
  },
  {
    id: 'play.invite',
    label: 'Let a remote desk in',
    help: 'The address and the codes by which a phone or tablet plays this desk',
    words: ['tablet', 'phone', 'ipad', 'network', 'qr', 'wireless'],
    when: isPlay,
    run: () => playSession.setState({ inviting: true }),
  },
  ...digits,
];
