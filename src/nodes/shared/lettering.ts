import { choice, colour, number, point } from '../../core/kind/controls';
import { fonts, type TextLayout } from '../../core/text/layout';
import { alphaGlsl } from '../glsl/colour';

const weights = { regular: 400, strong: 600, bold: 700 } as const;

/** How letters look and where they stand, for every kind that writes words flat. */
export const lettering = {
  font: choice({ label: 'Font', help: 'One of the shipped typefaces.', options: fonts, default: 'sans' }),
  weight: choice({
    label: 'Weight',
    help: 'How heavy the letters are; the poster font has only one.',
    options: { regular: 'Regular', strong: 'Strong', bold: 'Bold' },
    default: 'bold',
  }),
  size: number({
    label: 'Size',
    help: 'Height of a line of type, in picture heights.',
    default: 0.2,
    range: [0.02, 0.8],
    min: 0.002,
    max: 4,
  }),
  spacing: number({
    label: 'Letter spacing',
    help: 'Added between letters, as a share of the size.',
    default: 0,
    range: [-0.1, 1],
    min: -0.5,
    max: 8,
  }),
  leading: number({
    label: 'Line spacing',
    help: 'From line to line, as a share of the size.',
    default: 1.1,
    range: [0.6, 2],
    min: 0,
    max: 8,
  }),
  align: choice({
    label: 'Alignment',
    help: 'Which side the lines keep to.',
    options: { left: 'Left', middle: 'Middle', right: 'Right' },
    default: 'middle',
  }),
  place: point({
    label: 'Place',
    help: 'Middle of the text, in heights from the middle of the picture.',
    default: [0, 0],
    range: [-1, 1],
    handle: { as: 'place' },
  }),
  fill: colour({ label: 'Fill', help: 'Colour of the letters.', default: [1, 0.9, 0.72, 1] }),
  line: colour({ label: 'Outline', help: 'Colour of their edge.', default: [1, 0.6, 0.2, 1] }),
  lineWidth: number({
    label: 'Outline width',
    help: 'In picture heights; 0 draws none.',
    default: 0,
    range: [0, 0.03],
    min: 0,
    max: 0.5,
  }),
};

/** Words as they are laid. */
export const laid = (
  text: string,
  c: {
    font: TextLayout['font'];
    weight: keyof typeof weights;
    size: number;
    spacing: number;
    leading: number;
    align: TextLayout['align'];
    place: TextLayout['place'];
    lineWidth: number;
  },
): TextLayout => ({
  text,
  font: c.font,
  weight: weights[c.weight],
  size: c.size,
  spacing: c.spacing,
  leading: c.leading,
  align: c.align,
  place: c.place,
  outline: c.lineWidth,
});

/** Fills letters of the sheet `letters`, and draws their outline over. */
export const letteringPaint = {
  helpers: [alphaGlsl],
  body: `
      vec2 cover = @letters(p).rg;
      vec4 line = premultiplied($line) * cover.g;
      return line + premultiplied($fill) * cover.r * (1.0 - line.a);
    `,
};
