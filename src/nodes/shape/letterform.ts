import { choice, number, text } from '../../core/kind/controls';
import { shapeKind } from '../../core/kind/kind';
import { anchor, anchored } from '../shared/anchor';
import { solidLetters } from '../../core/shape/letters';
import { middleOf } from '../../core/shape/measure';
import { emptyShape, placeShape } from '../../core/shape/shape';
import { fonts } from '../../core/text/layout';

export default shapeKind({
  id: 'letterform',
  label: 'Letterform',
  summary: 'Letters as solids, with depth and a bevel.',
  words: ['text', 'type', 'title', 'word', '3d text', 'name', 'logo', 'font'],
  inputs: {},
  awaits: true,
  controls: {
    text: text({ label: 'Text', help: 'One line of letters.', default: 'COMB' }),
    font: choice({
      label: 'Font',
      help: 'One of the fonts that ship with the app, in its boldest weight.',
      options: Object.fromEntries(
        Object.keys(fonts).map((name) => [name, name[0].toUpperCase() + name.slice(1)]),
      ),
      default: 'poster',
    }),
    size: number({ label: 'Size', help: 'Height of a capital.', default: 0.4, range: [0, 1], min: 0 }),
    spacing: number({
      label: 'Letter spacing',
      help: 'Added between letters, in heights of a capital.',
      default: 0.04,
      range: [-0.2, 1],
    }),
    depth: number({
      label: 'Depth',
      help: 'From front to back; 0 leaves the front alone.',
      default: 0.12,
      range: [0, 0.6],
      min: 0,
    }),
    bevel: number({
      label: 'Bevel',
      help: 'How far its rims are cut off.',
      default: 0.01,
      range: [0, 0.05],
      min: 0,
      max: 0.5,
    }),
    anchor,
  },
  make({ controls: c, letters }) {
    const outlines = letters?.({ text: c.text, font: c.font, spacing: c.spacing });
    if (!outlines) return null;
    if (!outlines.length) return emptyShape;
    const scaled = outlines.map((outline) => outline.map((v) => v * c.size));
    const shape = solidLetters(scaled, c.depth, c.bevel);
    const centred = placeShape(
      shape,
      middleOf(shape).map((v) => -v),
      [0, 0, 0],
      [1, 1, 1],
    );
    return anchored(centred, c.anchor);
  },
});
