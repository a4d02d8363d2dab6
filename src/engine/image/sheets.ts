import { DataTexture, LinearFilter, NearestFilter, type Texture, type WebGLRenderTarget } from 'three';
import { clipTime } from '../../core/time/clip-time';
import type { ControlSpecs } from '../../core/kind/controls';
import type { DataPicture, InputSpecs, Sheet } from '../../core/kind/kind';
import type { NodeRun } from '../../core/run/node-run';
import type { Frame } from '../../core/run/frame';
import type { SceneRun } from '../../core/run/scene-run';
import type { Bits, Gpu } from '../gpu/gpu';
import type { ClipPlayer } from '../media/clip';
import type { MediaLibrary } from '../media/library';
import { longestSide } from '../media/pictures';
import { drawText, textTexture } from '../media/text';
import type { TextureView } from '../shader/shader';

type AnySheet = Sheet<ControlSpecs, InputSpecs>;

/** The cells in which a node keeps past pictures. */
export interface Past {
  target: WebGLRenderTarget;
  cell: readonly [number, number];
  columns: number;
  rows: number;
  newest: number;
  filled: number;
}

/** What one sheet of one node holds. */
interface Held {
  /** What it was made from. */
  key: string;
  view: TextureView;
  own: Texture | null;
  clip: ClipPlayer | null;
  past: Past | null;
  canvas: OffscreenCanvas | null;
  error: string | null;
}

/** How past frames of a size fit into one picture: as many as were asked for, or as go in. */
function pastCells(
  frames: number,
  width: number,
  height: number,
  longest: number = longestSide,
): { columns: number; rows: number } {
  const most = Math.max(1, Math.floor(longest / width)) * Math.max(1, Math.floor(longest / height));
  const count = Math.max(1, Math.min(frames, most));
  const columns = Math.min(Math.max(1, Math.floor(longest / width)), Math.ceil(Math.sqrt(count)));
  return { columns, rows: Math.ceil(count / columns) };
}

/** The textures of one scene's nodes that come from elsewhere than their image inputs. The one owner that frees them. */
export class Sheets {
  private readonly held = new Map<string, Held>();

  constructor(
    private readonly gpu: Gpu,
    private readonly run: SceneRun,
    private readonly media: MediaLibrary,
  ) {}

  private sheetsOf(id: string): Readonly<Record<string, AnySheet>> {
    const kind = this.run.runs.get(id)?.plan.kind;
    return kind?.output === 'image' && 'sheets' in kind.paint ? (kind.paint.sheets ?? {}) : {};
  }

  has(id: string): boolean {
    for (const name in this.sheetsOf(id)) return Boolean(name);
    return false;
  }

  /** The texture of a sheet as it stands. */
  view(id: string, name: string): TextureView {
    return this.held.get(`${id} ${name}`)?.view ?? { texture: this.gpu.empty };
  }

  /** What is wrong with a sheet of a node, or null. */
  fault(id: string): string | null {
    for (const name in this.sheetsOf(id)) {
      const error = this.held.get(`${id} ${name}`)?.error;
      if (error) return error;
    }
    return null;
  }

  private entry(id: string, name: string): Held {
    const key = `${id} ${name}`;
    let held = this.held.get(key);
    if (!held) {
      held = {
        key: '',
        view: { texture: this.gpu.empty },
        own: null,
        clip: null,
        past: null,
        canvas: null,
        error: null,
      };
      this.held.set(key, held);
    }
    return held;
  }

  /**
   * Brings the sheets of a node up to date. `steps`: pictures that past frames go on by. `first`: what enters the node
   * first, with its bits.
   */
  update(
    id: string,
    frame: Frame,
    steps: number,
    first: () => { texture: Texture; bits: Bits } | null,
  ): void {
    const run = this.run.runs.get(id)!;
    for (const [name, sheet] of Object.entries(this.sheetsOf(id))) {
      const held = this.entry(id, name);
      switch (sheet.from) {
        case 'numbers':
          this.updateNumbers(held, sheet, run, frame);
          break;
        case 'look':
        case 'file':
          this.updateFile(held, sheet, run);
          break;
        case 'clip':
          this.updateClip(held, sheet, run, frame);
          break;
        case 'camera': {
          const { texture, error } = this.media.camera(sheet.device(run.controls), frame.moment.time);
          held.view = { texture: texture ?? this.gpu.empty };
          held.error = error;
          break;
        }
        case 'text':
          this.updateText(held, sheet, run, run.momentIn(frame.moment).time);
          break;
        case 'past':
          this.updatePast(held, sheet, run, steps, first());
          break;
      }
    }
  }

  /** Resolves when everything the node's sheets need for this frame is there. */
  async reach(id: string, frame: Frame): Promise<void> {
    const run = this.run.runs.get(id)!;
    this.update(id, frame, 0, () => null);
    await this.media.settled();
    for (const [name, sheet] of Object.entries(this.sheetsOf(id))) {
      const { clip } = this.entry(id, name);
      if (sheet.from !== 'clip' || !clip) continue;
      await clip.reach(0);
      if (clip.duration > 0)
        await clip.reach(clipTime(sheet.timing(this.run.work(run.plan.id, frame)), clip.duration));
    }
  }

  private updateNumbers(
    held: Held,
    sheet: Extract<AnySheet, { from: 'numbers' }>,
    run: NodeRun,
    frame: Frame,
  ): void {
    const signals = Object.values(run.plan.inputs).flat().length > 0 && run.changed ? frame.moment.time : 0;
    const key = `${valuesOf(run, sheet.of)} ${run.image!.width / run.image!.height} ${signals}`;
    if (key === held.key) return;
    const work = this.run.work(run.plan.id, frame);
    let waiting = false;
    const picture = sheet.fill({
      ...work,
      letters: (request) => {
        const outlines = work.letters?.(request) ?? null;
        waiting ||= outlines === null;
        return outlines;
      },
    });
    held.key = waiting ? '' : key;
    this.upload(held, picture);
  }

  private upload(held: Held, picture: DataPicture): void {
    const image = held.own?.image as { data: Float32Array; width: number; height: number } | undefined;
    if (held.own && image?.width === picture.width && image.height === picture.height) {
      image.data.set(picture.rgba);
      held.own.needsUpdate = true;
      return;
    }
    held.own?.dispose();
    held.own = this.gpu.dataTexture(picture.rgba, picture.width, picture.height, picture.smooth);
    held.view = { texture: held.own };
  }

  private updateFile(held: Held, sheet: Extract<AnySheet, { from: 'file' | 'look' }>, run: NodeRun): void {
    const id = String(run.controls[sheet.control]);
    if (!id) {
      held.view = { texture: this.gpu.empty };
      held.error = null;
      return;
    }
    const { texture, error } =
      sheet.from === 'file' ? this.media.picture(id, run.image!.height) : this.media.look(id);
    held.view = { texture: texture ?? this.gpu.empty };
    held.error = error;
  }

  private updateClip(
    held: Held,
    sheet: Extract<AnySheet, { from: 'clip' }>,
    run: NodeRun,
    frame: Frame,
  ): void {
    const id = String(run.controls[sheet.control]);
    if (id !== held.key) {
      held.clip?.dispose();
      held.clip = id ? this.media.clip(id) : null;
      held.key = id;
      held.view = { texture: this.gpu.empty };
      held.error = null;
    }
    const { clip } = held;
    if (!clip) return;
    if (clip.duration > 0)
      clip.want(clipTime(sheet.timing(this.run.work(run.plan.id, frame)), clip.duration));
    held.error = clip.error;
    if (!clip.frame) return;
    const { texture, size } = clip.frame;
    const { width, height } = run.image!;
    // Pixels that are numbers come out as they went in.
    if (texture instanceof DataTexture) asStored(texture, size, width, height);
    held.view = { texture, size };
  }

  private updateText(
    held: Held,
    sheet: Extract<AnySheet, { from: 'text' }>,
    run: NodeRun,
    seconds: number,
  ): void {
    const { width, height } = run.image!;
    if (!this.media.fontsReady) return;
    const laid = sheet.lay(run.controls, seconds);
    const key = `${JSON.stringify(laid)} ${width}x${height}`;
    if (key === held.key) return;
    held.key = key;
    if (held.canvas?.width !== width || held.canvas.height !== height) {
      held.own?.dispose();
      held.canvas = new OffscreenCanvas(width, height);
      held.own = textTexture(held.canvas);
      held.view = { texture: held.own };
    }
    drawText(held.canvas, laid);
    held.own!.needsUpdate = true;
  }

  private updatePast(
    held: Held,
    sheet: Extract<AnySheet, { from: 'past' }>,
    run: NodeRun,
    steps: number,
    first: { texture: Texture; bits: Bits } | null,
  ): void {
    const { frames, scale } = sheet.keep(run.controls);
    const width = Math.max(1, Math.round(run.image!.width * scale));
    const height = Math.max(1, Math.round(run.image!.height * scale));
    const { columns, rows } = pastCells(frames, width, height);
    const { past } = held;
    const bits = first?.bits ?? '8';
    if (
      first &&
      (!past ||
        past.columns !== columns ||
        past.rows !== rows ||
        !this.gpu.fits(past.target, columns * width, rows * height, bits))
    ) {
      if (past) this.gpu.release(past.target);
      const target = this.gpu.acquire(columns * width, rows * height, bits);
      held.past = { target, cell: [width, height], columns, rows, newest: -1, filled: 0 };
    }
    if (!held.past || !first) return;
    // What was never kept would be left over from another picture: the first frame fills its place until then.
    const go = held.past.filled === 0 ? Math.max(1, steps) : steps;
    for (let k = 0; k < go; k++) this.keepFrame(held.past, first.texture);
    this.showPast(held, held.past);
  }

  private keepFrame(past: Past, picture: Texture): void {
    const count = past.columns * past.rows;
    past.newest = (past.newest + 1) % count;
    past.filled = Math.min(count, past.filled + 1);
    const [width, height] = past.cell;
    past.target.viewport.set(
      (past.newest % past.columns) * width,
      Math.floor(past.newest / past.columns) * height,
      width,
      height,
    );
    this.gpu.copy(picture, past.target);
    past.target.viewport.set(0, 0, past.target.width, past.target.height);
  }

  /** What holds past pictures, by node and sheet. */
  pasts(): [string, Past][] {
    return [...this.held].flatMap(([key, { past }]) => (past ? [[key, past] as [string, Past]] : []));
  }

  /** Goes on from past pictures that were put into the cells of a sheet. */
  goOnFrom(key: string, newest: number, filled: number): void {
    const held = this.held.get(key);
    if (!held?.past) return;
    Object.assign(held.past, { newest, filled });
    this.showPast(held, held.past);
  }

  private showPast(held: Held, { target, columns, rows, newest, filled }: Past): void {
    held.view = { texture: target.texture, cells: [columns, rows, Math.max(0, newest), Math.max(1, filled)] };
  }

  /** Frees what belongs to nodes that are gone. */
  keepOnly(ids: (id: string) => boolean): void {
    for (const [key, held] of this.held) {
      if (ids(key.split(' ')[0])) continue;
      held.own?.dispose();
      held.clip?.dispose();
      if (held.past) this.gpu.release(held.past.target);
      this.held.delete(key);
    }
  }

  dispose(): void {
    this.keepOnly(() => false);
  }
}

function valuesOf(run: NodeRun, names: readonly string[]): string {
  return JSON.stringify(names.map((name) => run.controls[name]));
}

/** Reads a picture pixel for pixel where it is shown at its own size, and smoothly else. */
function asStored(
  texture: DataTexture,
  [w, h]: readonly [number, number],
  width: number,
  height: number,
): void {
  const filter = w === width && h === height ? NearestFilter : LinearFilter;
  if (texture.magFilter === filter) return;
  texture.minFilter = texture.magFilter = filter;
  texture.needsUpdate = true;
}
