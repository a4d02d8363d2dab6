/** Red, green, blue, 0..1. */
export type Colour = readonly [number, number, number];

/** Part of a texture: left, top, width and height as shares of it. */
export type Cell = readonly [number, number, number, number];

/** Numbers of one corner: place, place in the shape, form, colour. */
export const cornerNumbers = 12;

/** What is drawn; the shader of the layer knows them by these numbers. */
export const forms = { line: 0, box: 1, glyph: 2, picture: 3, wire: 4 } as const;

/** Pixels around a line in which its edge fades. */
const soft = 1;

/**
 * Everything the live layer draws in one frame, as corners of quads in the order in which they lie on each other. Places are
 * pixels from the upper left. Knows nothing of the GPU.
 */
export class Ink {
  corners = new Float32Array(cornerNumbers * 4 * 256);
  quads = 0;

  clear(): void {
    this.quads = 0;
  }

  private quad(
    at: readonly [number, number, number, number, number, number, number, number],
    local: readonly [number, number, number, number, number, number, number, number],
    form: readonly [number, number, number, number],
    colour: readonly [number, number, number, number],
  ): void {
    const start = this.quads++ * 4 * cornerNumbers;
    if (start + 4 * cornerNumbers > this.corners.length) {
      const larger = new Float32Array(this.corners.length * 2);
      larger.set(this.corners);
      this.corners = larger;
    }
    for (let k = 0; k < 4; k++) {
      const to = start + k * cornerNumbers;
      this.corners[to] = at[2 * k];
      this.corners[to + 1] = at[2 * k + 1];
      this.corners[to + 2] = local[2 * k];
      this.corners[to + 3] = local[2 * k + 1];
      this.corners.set(form, to + 4);
      this.corners.set(colour, to + 8);
    }
  }

  private upright(
    x: number,
    y: number,
    width: number,
    height: number,
    local: Cell,
    form: readonly [number, number, number, number],
    colour: readonly [number, number, number, number],
  ): void {
    const [u, v, du, dv] = local;
    this.quad(
      [x, y, x + width, y, x, y + height, x + width, y + height],
      [u, v, u + du, v, u, v + dv, u + du, v + dv],
      form,
      colour,
    );
  }

  /** A line with round ends. `dashAt`: pixels along a dashed line at which it starts; absent: it is not dashed. */
  line(
    ax: number,
    ay: number,
    bx: number,
    by: number,
    halfWidth: number,
    colour: readonly [number, number, number, number],
    dashAt = -1,
    form: typeof forms.line | typeof forms.wire = forms.line,
  ): void {
    const length = Math.hypot(bx - ax, by - ay);
    const [ex, ey] = length > 0 ? [(bx - ax) / length, (by - ay) / length] : [1, 0];
    const out = halfWidth + soft;
    const [px, py] = [ex * out, ey * out];
    const [qx, qy] = [-ey * out, ex * out];
    this.quad(
      [
        ax - px - qx,
        ay - py - qy,
        bx + px - qx,
        by + py - qy,
        ax - px + qx,
        ay - py + qy,
        bx + px + qx,
        by + py + qy,
      ],
      [-out, -out, length + out, -out, -out, out, length + out, out],
      [form, length, halfWidth, dashAt],
      colour,
    );
  }

  disc(x: number, y: number, radius: number, [r, g, b]: Colour): void {
    this.line(x, y, x, y, radius, [r, g, b, 1]);
  }

  /** A piece of a wire that has the mean colour of a picture: that of the cell with that number. */
  wire(ax: number, ay: number, bx: number, by: number, halfWidth: number, cell: number, dashAt = -1): void {
    this.line(ax, ay, bx, by, halfWidth, [cell, 0, 0, 1], dashAt, forms.wire);
  }

  /** `round`: radius of its upper corners. */
  box(x: number, y: number, width: number, height: number, [r, g, b]: Colour, alpha = 1, round = 0): void {
    this.upright(
      x,
      y,
      width,
      height,
      [0, 0, width, height],
      [forms.box, width, height, round],
      [r, g, b, alpha],
    );
  }

  /** A letter, from its place in the texture of glyphs in pixels. */
  glyph(x: number, y: number, texels: Cell, [r, g, b]: Colour): void {
    this.upright(x, y, texels[2], texels[3], texels, [forms.glyph, 0, 0, 0], [r, g, b, 1]);
  }

  /** A picture from the sheet of faces. */
  picture(x: number, y: number, width: number, height: number, cell: Cell, round: number): void {
    this.upright(x, y, width, height, [0, 0, width, height], [forms.picture, width, height, round], cell);
  }
}
