export type WaveShape = 'sine' | 'triangle' | 'square' | 'ramp';

/** One cycle a turn, -1..1; sine and triangle start at 0 and rise, the ramps start at an end. `width` is the high share of the square. */
export function wave(shape: WaveShape | 'fall', turns: number, width = 0.5): number {
  const t = turns - Math.floor(turns);
  switch (shape) {
    case 'sine':
      return Math.sin(2 * Math.PI * t);
    case 'triangle':
      return t < 0.25 ? 4 * t : t < 0.75 ? 2 - 4 * t : 4 * t - 4;
    case 'square':
      return t < width ? 1 : -1;
    case 'ramp':
      return 2 * t - 1;
    case 'fall':
      return 1 - 2 * t;
  }
}
