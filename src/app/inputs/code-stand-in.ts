import { create } from 'zustand';
import { quarterFrames } from '../../core/time-code/mtc';
import { playCode } from './midi';

/** Frames a second of the time code that the stand-in sends. */
export const codeFps = 25;
/** A time takes two frames to be sent. */
const everyMs = 2000 / codeFps;

/** The machine on the screen that sends MIDI time code. It runs in every view. */
export const codeStandIn = create<{ start: number; runs: boolean }>()(() => ({ start: 0, runs: false }));

let timer: ReturnType<typeof setInterval> | undefined;

/** Sends time code from its start on, or stops. */
export function runCode(runs: boolean): void {
  clearInterval(timer);
  codeStandIn.setState({ runs });
  if (!runs) return;
  const { start } = codeStandIn.getState();
  const begun = performance.now();
  timer = setInterval(() => {
    const frame = Math.floor((start + (performance.now() - begun) / 1000) * codeFps);
    const whole = Math.floor(frame / codeFps);
    playCode(
      quarterFrames({
        hours: Math.floor(whole / 3600) % 24,
        minutes: Math.floor(whole / 60) % 60,
        seconds: whole % 60,
        frames: frame % codeFps,
        fps: codeFps,
        drop: false,
      }),
    );
  }, everyMs);
}
