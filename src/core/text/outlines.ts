/** Letters to be drawn as lines: one line of text, capital height 1, the middle at 0, 0. */
export interface LetterRequest {
  text: string;
  font: string;
  /** Added between letters, in capital heights. */
  spacing: number;
}

/** A closed run of points, x and y in turn. */
export type Outline = readonly number[];

/** One step of a glyph's path, as font libraries give it; y up. */
export interface PathCommand {
  type: 'M' | 'L' | 'Q' | 'C' | 'Z';
  x?: number;
  y?: number;
  x1?: number;
  y1?: number;
  x2?: number;
  y2?: number;
}

/** What has to be known of a font to draw its letters as lines. */
export interface OutlineFont {
  unitsPerEm: number;
  charToGlyph(letter: string): { advanceWidth?: number; path: { commands: PathCommand[] } };
}

/** Straight pieces a curve is drawn with: enough for letters as high as a screen. */
const curvePieces = 6;

function flatten(commands: readonly PathCommand[], shift: number): Outline[] {
  const outlines: number[][] = [];
  let run: number[] = [];
  let [x, y] = [0, 0];
  const to = (nx: number, ny: number): void => {
    run.push(nx + shift, ny);
    [x, y] = [nx, ny];
  };
  for (const c of commands) {
    const [fromX, fromY] = [x, y];
    if (c.type === 'M') {
      run = [];
      outlines.push(run);
      to(c.x!, c.y!);
    } else if (c.type === 'L') to(c.x!, c.y!);
    else if (c.type === 'Q' || c.type === 'C') {
      for (let k = 1; k <= curvePieces; k++) {
        const t = k / curvePieces;
        const s = 1 - t;
        const along = (a: number, b: number, d: number, e: number): number =>
          c.type === 'Q'
            ? s * s * a + 2 * s * t * b + t * t * e
            : s * s * s * a + 3 * s * s * t * b + 3 * s * t * t * d + t * t * t * e;
        to(along(fromX, c.x1!, c.x2 ?? 0, c.x!), along(fromY, c.y1!, c.y2 ?? 0, c.y!));
      }
    }
  }
  return outlines.filter((outline) => outline.length >= 6);
}

/** Outlines of a line of text: capital height 1, its middle at 0, 0. `spacing` is added between letters. */
export function outlinesOf(font: OutlineFont, text: string, spacing: number): Outline[] {
  const capital = font.charToGlyph('H').path.commands;
  const high = Math.max(...capital.map((c) => Math.abs(c.y ?? 0)), font.unitsPerEm * 0.5);
  const scale = 1 / high;
  const found: Outline[] = [];
  let pen = 0;
  let end = 0;
  for (const letter of text) {
    const glyph = font.charToGlyph(letter);
    found.push(...flatten(glyph.path.commands, pen));
    end = pen + (glyph.advanceWidth ?? 0);
    pen = end + spacing * high;
  }
  return found.map((outline) =>
    outline.map((v, k) => (k % 2 === 0 ? (v - end / 2) * scale : v * scale - 0.5)),
  );
}
