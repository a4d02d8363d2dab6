import { CanvasTexture, NearestFilter } from 'three';
import type { Cell, Colour, Ink } from './ink';

const columns = 16;
const rows = 16;

/** The letters of captions, drawn once at the size they are needed in. All are equally wide. */
export class Glyphs {
  readonly canvas = new OffscreenCanvas(1, 1);
  readonly texture = new CanvasTexture(this.canvas as unknown as HTMLCanvasElement);
  private readonly known = new Map<string, number>();
  private size = 0;
  private cell = { width: 1, height: 1 };
  private advance = 1;

  constructor() {
    this.texture.minFilter = this.texture.magFilter = NearestFilter;
    this.texture.generateMipmaps = false;
    this.texture.flipY = false;
  }

  /** Takes letters of that height in pixels; those of another are forgotten. */
  begin(size: number): void {
    if (size === this.size) return;
    this.size = size;
    this.known.clear();
    const context = this.context();
    context.font = this.font;
    this.advance = context.measureText('0').width;
    this.cell = { width: Math.ceil(this.advance) + 2, height: Math.ceil(size * 1.5) };
    this.canvas.width = columns * this.cell.width;
    this.canvas.height = rows * this.cell.height;
    // The size of a texture is settled when it is made.
    this.texture.dispose();
    this.texture.needsUpdate = true;
  }

  private get font(): string {
    return `${this.size}px "JetBrains Mono", monospace`;
  }

  private context(): OffscreenCanvasRenderingContext2D {
    return this.canvas.getContext('2d', { willReadFrequently: true })!;
  }

  private place(letter: string): Cell {
    let index = this.known.get(letter);
    const { width, height } = this.cell;
    if (index === undefined) {
      // A caption that speaks more letters than there is place for shows the rest as the first.
      index = Math.min(this.known.size, columns * rows - 1);
      this.known.set(letter, index);
      const context = this.context();
      context.font = this.font;
      context.fillStyle = '#fff';
      context.textBaseline = 'alphabetic';
      context.fillText(
        letter,
        (index % columns) * width + 1,
        Math.floor(index / columns) * height + this.size * 1.1,
      );
      this.texture.needsUpdate = true;
    }
    return [(index % columns) * width, Math.floor(index / columns) * height, width, height];
  }

  /** Writes a line that ends at `right`; what has no place in `most` pixels is cut at its end. `base`: where letters stand. */
  write(ink: Ink, text: string, right: number, base: number, most: number, colour: Colour): void {
    const count = Math.max(0, Math.floor(most / this.advance));
    const letters = [...text];
    const shown = letters.length <= count ? letters : [...letters.slice(0, Math.max(0, count - 1)), '…'];
    let x = right - shown.length * this.advance;
    for (const letter of shown) {
      if (letter !== ' ')
        ink.glyph(Math.round(x) - 1, Math.round(base - this.size * 1.1), this.place(letter), colour);
      x += this.advance;
    }
  }

  dispose(): void {
    this.texture.dispose();
  }
}
