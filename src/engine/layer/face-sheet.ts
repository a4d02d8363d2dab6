import type { RawShaderMaterial, Texture, WebGLRenderTarget } from 'three';
import type { Gpu } from '../gpu/gpu';
import type { ScenePlayer } from '../playback/scene-player';
import type { Cell } from './ink';

const columns = 8;
/** Faces of pictures that are part of another shader, and so have to be worked out, in a frame of a busy GPU. */
const mostWorkedOut = 3;
/** Rows of faces that there is place for at most. */
const mostRows = 16;

/**
 * Looks at 8 x 8 places of each face. Pictures that are nearly grey or black keep the colour of image wires, and others
 * are lifted, so that wires can be seen on the dark ground.
 */
const meanText = `#version 300 es
precision highp float;
uniform sampler2D faces;
uniform vec2 cells;
uniform vec3 usual;
out vec4 result;
void main() {
  float index = floor(gl_FragCoord.x);
  vec2 corner = vec2(mod(index, cells.x), floor(index / cells.x));
  vec3 sum = vec3(0.0);
  for (int k = 0; k < 64; k++)
    sum += texture(faces, (corner + (vec2(float(k % 8), float(k / 8)) + 0.5) / 8.0) / cells).rgb;
  vec3 mean = sum / 64.0;
  float most = max(mean.r, max(mean.g, mean.b));
  vec3 lifted = min(vec3(1.0), mean * max(1.0, 150.0 / 255.0 / max(most, 1.0 / 255.0)) + 20.0 / 255.0);
  result = vec4(most < 12.0 / 255.0 ? usual : lifted, 1.0);
}`;

/** Small pictures of nodes side by side in one texture, and the mean colour of each in another. */
export class FaceSheet {
  private target: WebGLRenderTarget | null = null;
  private meanTarget: WebGLRenderTarget | null = null;
  private mean: RawShaderMaterial | null = null;
  private readonly uniforms = {
    faces: { value: null as Texture | null },
    cells: { value: [columns, 1] },
    usual: { value: [0, 0, 0] as readonly number[] },
  };
  private cells = new Map<string, { index: number; stale: boolean; drawn: boolean }>();
  private key = '';
  private turn = 0;
  /** Faces drawn since the start. */
  count = 0;

  constructor(private readonly gpu: Gpu) {}

  private get rows(): number {
    return Math.max(1, Math.min(mostRows, Math.ceil(this.cells.size / columns)));
  }

  /** Makes place for the faces of these nodes at that size in pixels; those that were there before have to be drawn anew. */
  fit(nodes: readonly string[], width: number, height: number): void {
    const key = `${width}x${height} ${nodes.join(' ')}`;
    if (key === this.key) return;
    this.key = key;
    this.release();
    this.cells = new Map(
      nodes.slice(0, columns * mostRows).map((node, index) => [node, { index, stale: true, drawn: false }]),
    );
    this.target = this.gpu.acquire(columns * width, this.rows * height, '8');
    this.meanTarget = this.gpu.acquire(columns * this.rows, 1, '8');
    this.gpu.clear(this.target);
    this.gpu.clear(this.meanTarget);
  }

  /** A frame was drawn: what changed in it has to be shown. */
  note(player: ScenePlayer): void {
    for (const [node, cell] of this.cells) if (player.run.runs.get(node)?.changed) cell.stale = true;
  }

  /** Draws faces that are no longer true: all, or while the GPU is `busy` those that are only copied and a few others in turn. */
  refresh(player: ScenePlayer, busy: boolean): void {
    const { target, gpu } = this;
    if (!target) return;
    const [width, height] = [target.width / columns, target.height / this.rows];
    const stale = [...this.cells].filter(([, cell]) => cell.stale);
    let left = busy ? mostWorkedOut : Infinity;
    const start = stale.length ? this.turn++ % stale.length : 0;
    for (let k = 0; k < stale.length; k++) {
      const [node, cell] = stale[(start + k) % stale.length];
      const isCopied = player.renderer.isDrawn(node);
      if (!isCopied && left <= 0) continue;
      if (!isCopied) left--;
      const [x, y] = [(cell.index % columns) * width, Math.floor(cell.index / columns) * height];
      target.viewport.set(x, y, width, height);
      if (!player.peek(node, target)) continue;
      this.count++;
      cell.stale = false;
      cell.drawn = true;
    }
    target.viewport.set(0, 0, target.width, target.height);
    if (stale.length === 0) return;
    this.mean ??= gpu.material(meanText, this.uniforms);
    this.uniforms.faces.value = target.texture;
    this.uniforms.cells.value = [columns, this.rows];
    gpu.pass(this.mean, this.meanTarget);
  }

  set usualColour(colour: readonly number[]) {
    this.uniforms.usual.value = colour;
  }

  /** Number of the cell of a node, for its mean colour; null: it has none. */
  indexOf(node: string): number | null {
    return this.cells.get(node)?.index ?? null;
  }

  /** Where the picture of a node lies, its upper edge first; null: there is none yet. */
  cellOf(node: string): Cell | null {
    const cell = this.cells.get(node);
    if (!cell?.drawn) return null;
    const [width, height] = [1 / columns, 1 / this.rows];
    const row = Math.floor(cell.index / columns);
    return [(cell.index % columns) * width, (row + 1) * height, width, -height];
  }

  get isStale(): boolean {
    for (const { stale } of this.cells.values()) if (stale) return true;
    return false;
  }

  get faces(): Texture {
    return this.target?.texture ?? this.gpu.empty;
  }

  get means(): Texture {
    return this.meanTarget?.texture ?? this.gpu.empty;
  }

  private release(): void {
    if (this.target) this.gpu.release(this.target);
    if (this.meanTarget) this.gpu.release(this.meanTarget);
    this.target = this.meanTarget = null;
  }
}
