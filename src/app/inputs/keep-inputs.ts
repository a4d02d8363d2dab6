import { showStore } from '../data/show-store';
import { engine } from '../engine/client';
import { listenToGamepads } from './gamepads';
import { keepHand } from './kept-controllers';
import { listenToKeys } from './keys-pointer';
import { openMidiIfAllowed, playMidiFile } from './midi';
import { listenToOsc } from './osc';
import { keepSound } from './sound';

let isShown = false;

/** Lets the engine tell what is heard only while the desk shows or follows it. */
function hear(): void {
  engine().set({ type: 'hear', on: isShown || showStore.getState().show.inputs.clock === 'sound' });
}

/** Whether a view shows what is heard. */
export function showHearing(on: boolean): void {
  isShown = on;
  hear();
}

/** Opens what drives the show, and keeps it as the show wants it; called once when the app starts. */
export function keepInputs(): void {
  keepHand();
  listenToKeys(window);
  listenToGamepads();
  keepSound();
  void openMidiIfAllowed();
  let midi: unknown = null;
  const follow = (): void => {
    const { show, id } = showStore.getState();
    if (!id) return;
    listenToOsc(show.inputs.osc.port);
    hear();
    if (show.inputs.midi === midi) return;
    midi = show.inputs.midi;
    const { file, rounds } = show.inputs.midi;
    void playMidiFile(file, show.files[file]?.name ?? 'The MIDI file', rounds);
  };
  let seen: unknown = null;
  showStore.subscribe(({ show }) => {
    if (show.inputs === seen) return;
    seen = show.inputs;
    follow();
  });
}
