/** Hours, minutes, seconds and frames as SMPTE ST 12-1 counts them. */
export interface TimeCode {
  hours: number;
  minutes: number;
  seconds: number;
  frames: number;
  /** Frames a second as they are counted: 24, 25 or 30. */
  fps: number;
  /** Drop frame: 29.97 frames a second, and numbers left out so that the count keeps to the clock. */
  drop: boolean;
}

/** Whether such a time code can stand. */
export const isTimeCode = ({ hours, minutes, seconds, frames, fps }: TimeCode): boolean =>
  hours < 24 && minutes < 60 && seconds < 60 && frames < fps;

/** Seconds from 00:00:00:00. */
export function secondsOf({ hours, minutes, seconds, frames, fps, drop }: TimeCode): number {
  const whole = (hours * 60 + minutes) * 60 + seconds;
  if (!drop) return whole + frames / fps;
  // Two numbers are left out each minute but every tenth.
  const inAll = hours * 60 + minutes;
  const dropped = 2 * (inAll - Math.floor(inAll / 10));
  return ((whole * 30 + frames - dropped) * 1001) / 30000;
}

const two = (value: number): string => String(value).padStart(2, '0');

/** `01:02:03:04` of seconds, counted at so many whole frames a second. */
export function codeText(seconds: number, fps = 25): string {
  const frames = Math.floor(Math.max(0, seconds) * fps + 1e-6);
  const whole = Math.floor(frames / fps);
  return [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60, frames % fps].map(two).join(':');
}

/** Seconds of a text: `1:02:03:04` with frames, `2:03` or `3.5` without; null if it says no time. */
export function secondsIn(text: string, fps = 25): number | null {
  const parts = text.trim().split(/[:;]/);
  if (parts.length > 4 || parts.some((part) => !/^\d+(\.\d+)?$/.test(part))) return null;
  const numbers = parts.map(Number);
  const frames = parts.length === 4 ? numbers.pop()! / fps : 0;
  return numbers.reduce((sum, part) => sum * 60 + part, 0) + frames;
}
