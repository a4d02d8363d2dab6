/** What decides which moment of a video is shown. */
export interface ClipTiming {
  /** Seconds since the video started. */
  time: number;
  speed: number;
  /** Seconds of the video at which it begins and ends; an `out` of 0 or past the end means the end. */
  in: number;
  out: number;
  after: 'loop' | 'hold' | 'turn';
  /** 0..1 between in and out where a control says so; null: it plays by itself. */
  position: number | null;
}

/** The second of a video of `duration` seconds that is to be seen: never the very end, which has no frame. */
export function clipTime(timing: ClipTiming, duration: number): number {
  const end = timing.out > 0 ? Math.min(timing.out, duration) : duration;
  const start = Math.min(Math.max(0, timing.in), Math.max(0, end - 1e-3));
  const length = Math.max(1e-3, end - start);
  const last = length - 1e-4;
  if (timing.position !== null) return start + Math.min(last, Math.max(0, timing.position) * length);
  const run = timing.time * timing.speed;
  if (timing.after === 'hold') return start + Math.min(last, run < 0 ? Math.max(0, length + run) : run);
  if (timing.after === 'loop') return start + Math.min(last, run - Math.floor(run / length) * length);
  const turn = run - Math.floor(run / (2 * length)) * 2 * length;
  return start + Math.min(last, turn <= length ? turn : 2 * length - turn);
}
