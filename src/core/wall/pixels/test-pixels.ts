/** White, yellow, cyan, green, magenta, red, blue and black, as on screens. */
const bars = [
  [1, 1, 1],
  [1, 1, 0],
  [0, 1, 1],
  [0, 1, 0],
  [1, 0, 1],
  [1, 0, 0],
  [0, 0, 1],
  [0, 0, 0],
] as const;

type Colour = readonly [number, number, number];
const grey = (v: number): Colour => [v, v, v];

/**
 * The pixels of a string under a test picture: red, green, blue and alpha of each, 0..1. grid: every tenth is white, the first green, the
 * last red; bars: eight colours; ramp: black to white; focus: every other pixel; blend: an even grey.
 */
export function testPixels(
  picture: 'grid' | 'bars' | 'ramp' | 'focus' | 'blend',
  count: number,
): Float32Array {
  const colourOf = (k: number): Colour => {
    switch (picture) {
      case 'grid':
        return k === 0 ? [0, 1, 0] : k === count - 1 ? [1, 0, 0] : (k + 1) % 10 === 0 ? grey(1) : [0, 0, 0.3];
      case 'bars':
        return bars[Math.floor((k / count) * bars.length)];
      case 'ramp':
        return grey(count > 1 ? k / (count - 1) : 1);
      case 'focus':
        return grey(k % 2 ? 0 : 1);
      case 'blend':
        return grey(0.5);
    }
  };
  const pixels = new Float32Array(4 * count);
  for (let k = 0; k < count; k++) pixels.set([...colourOf(k), 1], 4 * k);
  return pixels;
}
