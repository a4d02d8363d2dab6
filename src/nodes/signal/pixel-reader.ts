import { choice, number, point, whole } from '../../core/kind/controls';
import { signalKind } from '../../core/kind/kind';

export default signalKind({
  id: 'pixel-reader',
  label: 'Pixel Reader',
  summary:
    'Pixels of a picture as numbers: a grid, a row or one place of it, a frame late and never in the way.',
  words: ['sample', 'picture to numbers', 'brightness', 'colour pick', 'probe', 'analyse', 'read back'],
  inputs: {
    picture: { label: 'Picture', help: 'What is read.', carries: 'image', reads: 'many' },
  },
  controls: {
    area: choice({
      label: 'Reads',
      help: 'A grid over the whole picture, one row of it, or one place.',
      options: { grid: 'A grid', row: 'A row', place: 'A place' },
      default: 'row',
    }),
    columns: whole({
      label: 'Columns',
      help: 'How many places from left to right.',
      default: 32,
      range: [1, 128],
      min: 1,
      max: 1024,
      shownIf: (c) => c.area !== 'place',
    }),
    rows: whole({
      label: 'Rows',
      help: 'How many places from below to above.',
      default: 4,
      range: [1, 64],
      min: 1,
      max: 256,
      shownIf: (c) => c.area === 'grid',
    }),
    height: number({
      label: 'Height',
      help: 'Where the row lies: 0 is the lower edge, 1 the upper.',
      default: 0.5,
      range: [0, 1],
      min: 0,
      max: 1,
      shownIf: (c) => c.area === 'row',
    }),
    place: point({
      label: 'Place',
      help: 'From the lower left, 0 to 1.',
      default: [0.5, 0.5],
      range: [0, 1],
      min: 0,
      max: 1,
      shownIf: (c) => c.area === 'place',
    }),
    takes: choice({
      label: 'Takes',
      help: 'The very pixel there, or the mean of the part of the picture that falls to it.',
      options: { pixel: 'The pixel', mean: 'The mean around' },
      default: 'pixel',
    }),
    gives: choice({
      label: 'Gives',
      help: 'Brightness, or red, green, blue and alpha as lanes.',
      options: { brightness: 'Brightness', colour: 'Colour' },
      default: 'brightness',
    }),
  },
  naturalRange: () => [0, 1],
  moves: () => true,
  each: () => false,
  pixels(c) {
    const average = c.takes === 'mean';
    if (c.area === 'grid') return { columns: c.columns, rows: c.rows, region: [0, 0, 1, 1], average };
    // A row and a place are as high as a tenth of the picture where their mean is asked for.
    const size = average ? 0.1 : 1e-6;
    if (c.area === 'row')
      return { columns: c.columns, rows: 1, region: [0, c.height - size / 2, 1, size], average };
    const [x, y] = c.place;
    return { columns: 1, rows: 1, region: [x - size / 2, y - size / 2, size, size], average };
  },
  // ITU-R BT.709 luma of the values as they are.
  compute({ controls: c, pixels, out }) {
    const n = Math.max(1, (pixels?.length ?? 0) / 4);
    if (c.gives === 'colour') {
      out.layout(['r', 'g', 'b', 'a'], n).forEach((into, channel) => {
        for (let i = 0; i < n; i++) into[i] = pixels?.[4 * i + channel] ?? 0;
      });
      return;
    }
    const [into] = out.layout(['value'], n);
    for (let i = 0; i < n; i++)
      into[i] = pixels ? 0.2126 * pixels[4 * i] + 0.7152 * pixels[4 * i + 1] + 0.0722 * pixels[4 * i + 2] : 0;
  },
});
