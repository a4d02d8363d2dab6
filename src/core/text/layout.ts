/** Fonts that ship with the app, by the name that stands in show files. */
export const fonts = {
  sans: 'Instrument Sans',
  serif: 'Fraunces',
  poster: 'Bebas Neue',
  mono: 'JetBrains Mono',
} as const;

export type FontName = keyof typeof fonts;

export const isFont = (name: string): name is FontName => Object.hasOwn(fonts, name);

/** Letters to be set into a picture. Lengths are in picture heights, places from the middle, y up. */
export interface TextLayout {
  text: string;
  font: FontName;
  weight: 400 | 600 | 700;
  /** Height of a line of type (the em). */
  size: number;
  /** Added between letters, in ems. */
  spacing: number;
  /** From line to line, in ems. */
  leading: number;
  align: 'left' | 'middle' | 'right';
  /** Of the block's middle. */
  place: readonly [number, number];
  /** Width of the outline, centred on the edge of the letters. */
  outline: number;
}
