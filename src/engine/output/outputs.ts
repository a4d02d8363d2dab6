import type { Gpu } from '../gpu/gpu';
import type { OutputPicture, OutputSource, OutputSpec, StandIn } from '../protocol/protocol';
import { StandIns } from './stand-ins';

/** A place with what is painted there. */
interface Output extends OutputSpec {
  id: string;
  /** Null: the page paints it. */
  context: ImageBitmapRenderingContext | null;
  painted: boolean;
  /** Its canvas went with the graphics card. */
  isLost: boolean;
  /** What it shows, as it was last painted; empty: its canvas is new, and a picture may stand in for it. */
  state: string;
  /** Share of its bitmap that it fills, as it was last told. */
  share: readonly [number, number];
}

/** Of an output that could not be drawn: whatever it shows next is news, even if it stands still by then. */
const owed = 'owed';

/** Draws what an output shows into the lower left of the canvas; false: there is nothing to show yet. */
export type Draw = (output: Readonly<OutputSpec>) => boolean;

/** All that what an output shows depends on, as a text: while that stays the same, it is not painted again. */
export type StateOf = (output: Readonly<OutputSpec>) => string;

/**
 * Every place where pictures leave the engine. All are painted on the one canvas of the GPU, each in its lower left corner,
 * and handed over as bitmaps. The canvas is as large as the largest of them and changes its size only when an output comes,
 * goes or changes: a canvas that is resized waits for all that the GPU was given.
 */
export class Outputs {
  private readonly all = new Map<string, Output>();
  private readonly standIns: StandIns;
  /** Pictures painted on stage outputs since the start. */
  stageFrames = 0;

  /** Pictures that the page is to be given. */
  private readonly pictures: OutputPicture[] = [];
  /** The page has not taken the last ones: none are painted for it before. */
  isWaiting = false;

  constructor(
    private readonly tellPainted: (id: string, share: readonly [number, number]) => void,
    giveStandIn: (id: string, picture: StandIn) => void,
    private readonly give: (pictures: OutputPicture[]) => void,
  ) {
    this.standIns = new StandIns(giveStandIn);
  }

  /** `canvas` null: the page paints it. */
  add(id: string, spec: OutputSpec, canvas: OffscreenCanvas | null): void {
    const context = canvas && canvas.getContext('bitmaprenderer');
    if (canvas && !context) return;
    // One that is frozen keeps what stands in for it.
    const painted = this.all.get(id)?.isLost === true && this.standIns.has(id);
    this.all.set(id, { ...spec, id, context, painted, isLost: false, state: '', share: [0, 0] });
  }

  /**
   * The graphics card is gone with all that canvases show: gives the outputs, each of which needs another canvas. `isDark`: whether outputs of
   * a use have nothing to show until then.
   */
  lose(isDark: (use: OutputSpec['use']) => boolean): { id: string; dark: boolean }[] {
    return [...this.all.values()].map((output) => {
      output.isLost = true;
      return { id: output.id, dark: isDark(output.use) };
    });
  }

  change(id: string, change: Partial<OutputSpec>): void {
    const output = this.all.get(id);
    if (output) Object.assign(output, change);
  }

  remove(id: string): void {
    this.all.delete(id);
    this.standIns.forget(id);
  }

  get hasStage(): boolean {
    for (const { use } of this.all.values()) if (use === 'stage') return true;
    return false;
  }

  /** Whether somebody looks at the room. */
  get showsRoom(): boolean {
    for (const { source } of this.all.values()) if (source.type === 'room') return true;
    return false;
  }

  /** What somebody looks at; the same source may come more than once. */
  *sources(): Iterable<OutputSource> {
    for (const { source } of this.all.values()) yield source;
  }

  /** Pixels that the canvas has at least, for what is no output. */
  least = { width: 1, height: 1 };

  /** Pixels that hold the largest of them. */
  get size(): { width: number; height: number } {
    let { width, height } = this.least;
    for (const output of this.all.values()) {
      width = Math.max(width, output.width);
      height = Math.max(height, output.height);
    }
    return { width, height };
  }

  /** Gives the canvas the size that all need; gives that size. */
  fit(gpu: Gpu): { width: number; height: number } {
    const { size } = this;
    gpu.resize(size.width, size.height);
    return size;
  }

  /**
   * Paints all of that use. `isFrozen`: whether an output that has a picture keeps it. `isWhole`: whether all of what it shows can be drawn by
   * now, which is waited for where a picture stands in.
   */
  paint(
    gpu: Gpu,
    use: OutputSpec['use'],
    isFrozen: (output: Readonly<OutputSpec>) => boolean,
    draw: Draw,
    stateOf: StateOf,
    isWhole: (output: Readonly<OutputSpec>) => boolean,
  ): void {
    const { width, height } = this.fit(gpu);
    for (const output of this.all.values()) {
      if (output.use !== use || output.isLost || (output.painted && isFrozen(output))) continue;
      // What stands in for it is better than a part of it.
      if (output.painted && output.state === '' && !isWhole(output)) continue;
      const state = stateOf(output);
      // What stands still is neither drawn nor put together by the browser once more.
      if ((output.painted && state === output.state) || (!output.context && this.isWaiting)) continue;
      gpu.renderer.setViewport(0, 0, output.width, output.height);
      if (!draw(output)) {
        if (output.state !== '') output.state = owed;
        continue;
      }
      output.state = state;
      const share: readonly [number, number] = [output.width / width, output.height / height];
      const bitmap = gpu.canvas.transferToImageBitmap();
      if (output.context) {
        if (!output.painted || String(share) !== String(output.share)) {
          output.share = share;
          this.tellPainted(output.id, share);
        }
        output.context.transferFromImageBitmap(bitmap);
        if (use === 'stage') this.stageFrames++;
      } else this.pictures.push({ id: output.id, bitmap, share });
      output.painted = true;
    }
  }

  /** Gives the page what was painted for it, all at once. */
  handOver(): void {
    if (!this.pictures.length) return;
    this.isWaiting = true;
    this.give(this.pictures.splice(0));
  }

  /** Keeps a small picture of one of them, in turn, for when the graphics card is lost. `isFrozen` and `draw` as in `paint`. */
  keepStandIn(now: number, gpu: Gpu, isFrozen: (output: Readonly<OutputSpec>) => boolean, draw: Draw): void {
    const shown = [...this.all.values()].filter((output) => !output.isLost && !isFrozen(output));
    this.standIns.turn(now, gpu, shown, (output) => {
      this.fit(gpu);
      gpu.renderer.setViewport(0, 0, output.width, output.height);
      return draw(output);
    });
  }
}
