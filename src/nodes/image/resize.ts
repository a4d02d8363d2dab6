import { choice, number, whole } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';

export default imageKind({
  id: 'resize',
  label: 'Resize',
  summary: 'Gives the picture other pixels from here on: fewer for speed or for their look, or more.',
  words: ['resolution', 'scale down', 'pixels', 'low resolution', 'moire', 'size', 'downsample'],
  example: { controls: { share: 0.06, reading: 'crisp' } },
  inputs: {
    picture: { label: 'Picture', help: 'What is given another size.', carries: 'image', reads: 'many' },
  },
  controls: {
    by: choice({
      label: 'By',
      help: 'A share of the size that comes in, or pixels.',
      options: { share: 'Share', pixels: 'Pixels' },
      default: 'share',
    }),
    share: number({
      label: 'Share',
      help: 'Of the width and height that come in.',
      default: 0.25,
      range: [0.02, 2],
      min: 0.001,
      max: 8,
      shownIf: (c) => c.by === 'share',
    }),
    width: whole({
      label: 'Width',
      help: 'In pixels.',
      default: 320,
      range: [16, 1920],
      min: 1,
      max: 8192,
      unit: 'px',
      shownIf: (c) => c.by === 'pixels',
    }),
    height: whole({
      label: 'Height',
      help: 'In pixels.',
      default: 180,
      range: [16, 1080],
      min: 1,
      max: 8192,
      unit: 'px',
      shownIf: (c) => c.by === 'pixels',
    }),
    reading: choice({
      label: 'Reading',
      help: 'Smooth averages what falls into a pixel; crisp takes one, so that fine patterns beat.',
      options: { smooth: 'Smooth', crisp: 'Crisp' },
      default: 'smooth',
    }),
  },
  sizeFrom: ({ inputs, controls: c, canvas }) => {
    const { width, height } = inputs.picture ?? canvas;
    const held = (pixels: number): number => Math.min(8192, Math.max(1, Math.round(pixels)));
    return c.by === 'pixels'
      ? [held(c.width), held(c.height)]
      : [held(width * c.share), held(height * c.share)];
  },
  paint: {
    type: 'shader',
    // Up to 8 x 8 readings a pixel, each between four: a shrink to a 32nd still counts every pixel that comes in somewhere.
    body: `
      vec2 size = @picture.size;
      if ($reading == 1) return @picture((floor(p * size) + 0.5) / size);
      vec2 n = clamp(ceil(size * pixel * 0.5), 1.0, 8.0);
      vec4 sum = vec4(0.0);
      float k = 0.0;
      do {
        float row = floor((k + 0.5) / n.x);
        sum += @picture(p + (vec2(k - row * n.x, row) / n + 0.5 / n - 0.5) * pixel);
      } while (++k < n.x * n.y);
      return sum / (n.x * n.y);
    `,
  },
});
