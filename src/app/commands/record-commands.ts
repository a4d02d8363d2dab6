import { recordingStore } from '../data/recording-store';
import type { Command } from './command';

export const recordCommands: readonly Command[] = [
  {
    id: 'record.live',
    label: 'Record the program',
    help: 'Records what is on air, beside playing; again to end it',
    keys: ['Alt+R'],
    isOn: () => recordingStore.getState().recording !== null,
    run: () =>
      void import('../exports/live-recording').then(({ startRecording, stopRecording }) =>
        recordingStore.getState().recording ? stopRecording() : startRecording(),
      ),
  },
];
