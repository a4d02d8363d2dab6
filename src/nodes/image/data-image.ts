import { choice, toggle } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';
import { laneOf } from '../../core/signal/signal';

export default imageKind({
  id: 'data-image',
  label: 'Data Image',
  summary: 'Makes a picture of numbers: a sample a pixel, a lane a channel or a row.',
  words: ['numbers to picture', 'table', 'lookup', 'texture from signal', 'strip'],
  inputs: { in: { label: 'Numbers', help: 'The signal whose samples become pixels.', carries: 'signal' } },
  controls: {
    layout: choice({
      label: 'Lanes are',
      help: 'Channels: the first four lanes are red, green, blue and alpha. Rows: each lane is a grey row, the first lowest.',
      options: { channels: 'Channels', rows: 'Rows' },
      default: 'channels',
    }),
    smooth: toggle({ label: 'Smooth', help: 'Mixes between pixels.', default: false }),
  },
  sizeFrom: ({ inputs, controls }) => [
    Math.min(8192, Math.max(1, inputs.in?.length ?? 1)),
    controls.layout === 'rows' ? Math.max(1, inputs.in?.lanes.length ?? 1) : 1,
  ],
  paint: {
    type: 'data',
    fill({ controls, inputs }) {
      const signal = inputs.in;
      const width = Math.min(8192, Math.max(1, signal?.length ?? 1));
      const lanes = signal?.lanes ?? [];
      const byRow = controls.layout === 'rows';
      const height = byRow ? Math.max(1, lanes.length) : 1;
      const rgba = new Float32Array(width * height * 4);
      for (let y = 0; y < height; y++) {
        for (let x = 0; x < width; x++) {
          const at = 4 * (y * width + x);
          rgba[at + 3] = 1;
          if (!signal || lanes.length === 0) continue;
          if (byRow || lanes.length === 1) {
            const value = (byRow ? lanes[y] : lanes[0]).samples[x];
            rgba.fill(value, at, at + 3);
          } else {
            for (let c = 0; c < Math.min(4, lanes.length); c++)
              rgba[at + c] = laneOf(signal, 'rgba'[c], c)!.samples[x];
          }
        }
      }
      return { width, height, rgba, smooth: controls.smooth };
    },
  },
});
