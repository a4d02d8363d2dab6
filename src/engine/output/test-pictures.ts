import { CanvasTexture, LinearMipmapLinearFilter, type Texture } from 'three';
import type { LedWall } from '../../core/document/types';
import { chainOf, tileBox, wallBox } from '../../core/wall/led';
import { partOf, type WindowOutput } from '../../core/wall/outputs';
import type { TestPicture } from '../protocol/protocol';

/** Longest side of a test picture, pixels. */
const mostPixels = 4096;
/** Cells along the shorter side of the grid. */
const gridCells = 8;

type Paint = (
  context: OffscreenCanvasRenderingContext2D,
  width: number,
  height: number,
  output: WindowOutput,
) => void;

const line = (c: OffscreenCanvasRenderingContext2D, ...points: readonly [number, number][]): void => {
  c.beginPath();
  for (const [x, y] of points) c.lineTo(x, y);
  c.stroke();
};

/** Cells with their numbers, both diagonals, a circle that shows the shape of pixels, and a frame of one pixel. */
const grid: Paint = (c, width, height) => {
  const cell = Math.min(width, height) / gridCells;
  const [columns, rows] = [Math.max(1, Math.round(width / cell)), Math.max(1, Math.round(height / cell))];
  c.fillStyle = '#101010';
  c.fillRect(0, 0, width, height);
  c.lineWidth = Math.max(1, cell / 60);
  c.strokeStyle = '#6a6a6a';
  for (let k = 1; k < columns; k++) line(c, [(k * width) / columns, 0], [(k * width) / columns, height]);
  for (let k = 1; k < rows; k++) line(c, [0, (k * height) / rows], [width, (k * height) / rows]);
  c.strokeStyle = '#b0b0b0';
  line(c, [0, 0], [width, height]);
  line(c, [width, 0], [0, height]);
  c.beginPath();
  c.arc(width / 2, height / 2, Math.min(width, height) * 0.47, 0, 2 * Math.PI);
  c.stroke();
  c.strokeStyle = '#ffffff';
  c.lineWidth = 2;
  c.strokeRect(0, 0, width, height);
  c.fillStyle = '#8c8c8c';
  c.font = `${cell * 0.22}px monospace`;
  c.textAlign = 'left';
  c.textBaseline = 'top';
  for (let j = 0; j < rows; j++)
    for (let k = 0; k < columns; k++)
      c.fillText(`${k + 1}.${j + 1}`, (k * width) / columns + cell * 0.06, (j * height) / rows + cell * 0.06);
};

/** White, the six full colours and black over steps of grey. */
const bars: Paint = (c, width, height) => {
  const colours = ['#fff', '#ff0', '#0ff', '#0f0', '#f0f', '#f00', '#00f', '#000'];
  colours.forEach((colour, k) => {
    c.fillStyle = colour;
    c.fillRect((k * width) / 8, 0, width / 8 + 1, height * 0.7);
  });
  for (let k = 0; k <= 10; k++) {
    const grey = Math.round((k / 10) * 255);
    c.fillStyle = `rgb(${grey} ${grey} ${grey})`;
    c.fillRect((k * width) / 11, height * 0.7, width / 11 + 1, height * 0.3);
  }
};

/** From black to white; below it the darkest and the brightest tenth, stretched. */
const greyRamp: Paint = (c, width, height) => {
  const strip = (from: number, to: number, y: number, h: number): void => {
    const colours = c.createLinearGradient(0, 0, width, 0);
    for (const [at, level] of [
      [0, from],
      [1, to],
    ])
      colours.addColorStop(at, `rgb(${level * 255} ${level * 255} ${level * 255})`);
    c.fillStyle = colours;
    c.fillRect(0, y, width, h);
  };
  strip(0, 1, 0, height * 0.6);
  strip(0, 0.1, height * 0.6, height * 0.2);
  strip(0.9, 1, height * 0.8, height * 0.2);
};

/** Lines of one, two and four pixels and small letters, in the middle and in the corners. */
const focus: Paint = (c, width, height) => {
  c.fillStyle = '#000';
  c.fillRect(0, 0, width, height);
  const side = Math.round(Math.min(width, height) * 0.26);
  const patch = (x: number, y: number): void => {
    [1, 2, 4].forEach((step, band) => {
      const top = y + Math.round((band * side) / 4);
      const tall = Math.round(side / 4);
      c.fillStyle = '#fff';
      for (let k = 0; k * 2 * step < side / 2; k++) {
        c.fillRect(x + k * 2 * step, top, step, tall);
        if (k * 2 * step < tall)
          c.fillRect(x + Math.round(side / 2), top + k * 2 * step, Math.round(side / 2), step);
      }
    });
    c.font = `${Math.max(8, side / 10)}px monospace`;
    c.textAlign = 'left';
    c.textBaseline = 'middle';
    c.fillText('sharp 0123456789', x, y + side * 0.88);
  };
  const [right, low] = [width - side, height - side];
  for (const [x, y] of [
    [0, 0],
    [right, 0],
    [0, low],
    [right, low],
    [Math.round(right / 2), Math.round(low / 2)],
  ])
    patch(x, y);
};

/** An even grey, on which an overlap must not be seen, and the edges of the overlaps as lines. */
const blend: Paint = (c, width, height, output) => {
  c.fillStyle = '#b4b4b4';
  c.fillRect(0, 0, width, height);
  c.lineWidth = 2;
  c.strokeStyle = '#d04a2a';
  if (output.type !== 'screen') return;
  const sides = output.blend;
  for (const x of [sides.left && sides.left * width, sides.right && (1 - sides.right) * width])
    if (x) line(c, [x, 0], [x, height]);
  for (const y of [sides.top && sides.top * height, sides.bottom && (1 - sides.bottom) * height])
    if (y) line(c, [0, y], [width, y]);
};

const paints: Record<TestPicture, Paint> = { grid, bars, ramp: greyRamp, focus, blend };

/** Tiles with their numbers in the order of the chain, their upper left marked as they are mounted. */
function tileGrid(c: OffscreenCanvasRenderingContext2D, width: number, height: number, led: LedWall): void {
  const [left, top, wide, tall] = wallBox(led);
  const [sx, sy] = [width / wide, height / tall];
  c.fillStyle = '#000';
  c.fillRect(0, 0, width, height);
  c.textAlign = 'center';
  c.textBaseline = 'middle';
  chainOf(led).forEach((k, n) => {
    const [x, y, w, h] = tileBox(led, k);
    const [px, py, pw, ph] = [(x - left) * sx, (y - top) * sy, w * sx, h * sy];
    const small = Math.min(pw, ph);
    c.fillStyle = n % 2 ? '#1c2a2a' : '#2a2418';
    c.fillRect(px, py, pw, ph);
    c.strokeStyle = '#fff';
    c.lineWidth = 1;
    c.strokeRect(px + 0.5, py + 0.5, pw - 1, ph - 1);
    c.save();
    c.translate(px + pw / 2, py + ph / 2);
    c.fillStyle = '#fff';
    c.font = `600 ${small * 0.4}px sans-serif`;
    c.fillText(String(n + 1), 0, 0);
    c.rotate((led.tiles[k].turn * Math.PI) / 2);
    const [tw, th] = led.tiles[k].turn % 2 ? [ph, pw] : [pw, ph];
    c.fillStyle = '#d04a2a';
    c.fillRect(-tw / 2 + 1, -th / 2 + 1, small * 0.14, small * 0.14);
    c.restore();
  });
}

/** The name of the output, on a plate of its own so that it can be read on everything. */
function label(c: OffscreenCanvasRenderingContext2D, width: number, height: number, text: string): void {
  const size = Math.min(width, height) * 0.07;
  c.font = `600 ${size}px sans-serif`;
  c.textAlign = 'center';
  c.textBaseline = 'middle';
  const wide = c.measureText(text).width + size;
  c.fillStyle = '#000';
  c.fillRect((width - wide) / 2, height / 2 - size * 0.8, wide, size * 1.6);
  c.fillStyle = '#fff';
  c.fillText(text, width / 2, height / 2 + size * 0.04);
}

/** Test pictures of outputs, drawn when they change and kept as textures. */
export class TestPictures {
  private readonly made = new Map<string, { state: string; texture: Texture }>();

  /** The picture for an output, as large as its part of the canvas, or its LED pixels. */
  of(output: WindowOutput, kind: TestPicture): Texture {
    const { name } = output;
    const [, , ledWidth, ledHeight] = output.type === 'led' ? wallBox(output) : [0, 0, 0, 0];
    const part = output.type === 'led' ? { width: ledWidth, height: ledHeight } : partOf(output);
    const scale = Math.min(1, mostPixels / Math.max(part.width, part.height));
    const width = Math.max(16, Math.round(part.width * scale));
    const height = Math.max(16, Math.round(part.height * scale));
    const own = output.type === 'led' ? [output.tile, output.tiles, output.raster] : output.blend;
    const state = JSON.stringify([kind, name, width, height, own]);
    const before = this.made.get(output.id);
    if (before?.state === state) return before.texture;
    before?.texture.dispose();
    const canvas = new OffscreenCanvas(width, height);
    const context = canvas.getContext('2d')!;
    if (kind === 'grid' && output.type === 'led') tileGrid(context, width, height, output);
    else {
      paints[kind](context, width, height, output);
      label(context, width, height, name);
    }
    const texture = new CanvasTexture(canvas);
    // Letters are read on small monitors too.
    texture.generateMipmaps = true;
    texture.minFilter = LinearMipmapLinearFilter;
    this.made.set(output.id, { state, texture });
    return texture;
  }

  keepTo(ids: ReadonlySet<string>): void {
    for (const [id, { texture }] of this.made) {
      if (ids.has(id)) continue;
      texture.dispose();
      this.made.delete(id);
    }
  }
}
