import { choice, toggle } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { laneOf, type Lane, type Signal } from '../../core/signal/signal';
import { spreadInto } from '../../core/signal/spread';

export default imageKind({
  id: 'data-image',
  label: 'Data Image',
  summary: 'Makes a picture of numbers: a sample a pixel, a lane a channel or a row.',
  words: ['numbers to picture', 'table', 'lookup', 'texture from signal', 'strip'],
  inputs: {
    in: {
      label: 'Numbers',
      help: 'The signals whose samples become pixels. Of several, each is a row, the first lowest.',
      carries: 'signal',
      many: true,
    },
  },
  controls: {
    layout: choice({
      label: 'Lanes are',
      help: 'Channels: the first four lanes of each signal are red, green, blue and alpha. Rows: each lane is a grey row, the first lowest.',
      options: { channels: 'Channels', rows: 'Rows' },
      default: 'channels',
    }),
    smooth: toggle({ label: 'Smooth', help: 'Mixes between pixels.', default: false }),
  },
  sizeFrom: ({ inputs, controls }) => {
    const rows = rowsOf(inputs.in, controls.layout === 'rows');
    return [widthOf(inputs.in), Math.max(1, rows.length)];
  },
  paint: {
    type: 'data',
    fill({ controls, inputs }) {
      const width = widthOf(inputs.in);
      const rows = rowsOf(inputs.in, controls.layout === 'rows');
      const height = Math.max(1, rows.length);
      const rgba = new Float32Array(width * height * 4);
      for (let at = 3; at < rgba.length; at += 4) rgba[at] = 1;
      const samples = new Float32Array(width);
      rows.forEach((channels, y) => {
        channels.forEach((lane, c) => {
          // A shorter signal is stretched to the others.
          spreadInto(samples, lane, 'stretch');
          for (let x = 0; x < width; x++) rgba[4 * (y * width + x) + c] = samples[x];
        });
      });
      return { width, height, rgba, smooth: controls.smooth };
    },
  },
});

const widthOf = (signals: readonly Signal[]): number =>
  Math.min(
    8192,
    signals.reduce((longest, { length }) => Math.max(longest, length), 1),
  );

/** Channels of each row of pixels, the lowest first; one lane is grey. */
function rowsOf(signals: readonly Signal[], byLane: boolean): Float32Array[][] {
  const grey = ({ samples }: Lane): Float32Array[] => [samples, samples, samples];
  if (byLane) return signals.flatMap(({ lanes }) => lanes.map(grey)).slice(0, 8192);
  return signals.map((signal) => {
    const { lanes } = signal;
    if (lanes.length === 1) return grey(lanes[0]);
    return lanes.slice(0, 4).map((_, c) => laneOf(signal, 'rgba'[c], c)!.samples);
  });
}
