import { amount, choice, point } from '../../core/kind/controls';
import { imageKind } from '../../core/kind/kind';

export default imageKind({
  id: 'mosaic',
  label: 'Mosaic',
  summary: 'Large square pixels, by count or by size.',
  words: ['pixelate', 'blocks', 'tiles', 'low resolution', 'squares', 'coarse'],
  inputs: { picture: { label: 'Picture', help: 'What is made coarse.', carries: 'image', reads: 'moved' } },
  controls: {
    by: choice({
      label: 'By',
      help: 'A number of blocks in the height, or the size of a block.',
      options: { count: 'Blocks in the height', size: 'Pixels a block' },
      default: 'count',
    }),
    blocks: point({
      label: 'Blocks',
      help: 'In the height: their width is judged by the first, their height by the second.',
      default: [24, 24],
      range: [2, 120],
      min: 1,
      max: 4096,
      shownIf: (c) => c.by === 'count',
    }),
    size: point({
      label: 'Block size',
      help: 'Width and height of a block, in pixels of this picture.',
      default: [20, 20],
      range: [2, 120],
      min: 1,
      max: 4096,
      unit: 'px',
      shownIf: (c) => c.by === 'size',
    }),
    origin: choice({
      label: 'Begins',
      help: 'Where the corner of a block stands.',
      options: { middle: 'In the middle', half: 'Half a block off the middle', corner: 'At the lower left' },
      default: 'middle',
    }),
    amount,
  },
  paint: {
    type: 'shader',
    wet: true,
    // A block takes the pixel of its own middle: the mean would need a read of every pixel it covers.
    body: `
      vec2 block = $by == 0 ? vec2(1.0 / aspect, 1.0) / max($blocks, 1.0) : max($size, 1.0) * pixel;
      vec2 from = $origin == 2 ? vec2(0.0) : vec2(0.5) + ($origin == 1 ? block * 0.5 : vec2(0.0));
      vec2 at = (floor((p - from) / block) + 0.5) * block + from;
      return @picture(clamp(at, pixel * 0.5, 1.0 - pixel * 0.5));
    `,
  },
});
