import type {
  FromEngine,
  OutputMapping,
  OutputPicture,
  OutputSource,
  OutputSpec,
  StandIn,
  ToEngine,
} from '../../engine/protocol/protocol';
import { clearBehind, clearBox, putBehind, settleCanvas, stackCanvas, standIn } from './output-box';
import { sourceInEngine } from './places';

/** Milliseconds that an engine may take to hear of a lost graphics card after the page did, or before it. */
const lossMs = 5000;

/** A place that the engine paints. Every engine gets a fresh canvas, since one can be handed over only once. */
export interface OutputHost {
  source: OutputSource;
  use: OutputSpec['use'];
  /** Absent: the whole picture, between bars. */
  mapping?: OutputMapping;
  /** The element that is to show it and clips what it holds; null if it is gone. */
  box(): HTMLElement | null;
  /** Pixels that it is shown with. */
  size(): { width: number; height: number };
}

/** What outputs need of the connection to the engine. */
interface Line {
  post(message: ToEngine, transfer?: Transferable[]): void;
  /** Whether there is an engine that can be told. */
  isReady(): boolean;
  isBlackedOut(): boolean;
  /** Calls what it is given whenever this page hears that the graphics card is lost. */
  hearOfLoss(lost: () => void): void;
}

/** What a canvas is found by. */
const canvasName = ({ use, source }: OutputHost): string => (use === 'stage' ? 'stage' : source.type);

const wholePicture: OutputMapping = { part: [0, 0, 1, 1], fit: 'whole' };

/** All that engines paint in this page, and what stands in for it while there is no picture. */
export class EngineOutputs {
  private readonly hosts = new Map<string, OutputHost>();
  /** What stands in for outputs, by output. */
  private readonly standIns = new Map<string, StandIn>();
  /**
   * Where this page paints outputs of the desk, by output: in the same frame as the live layer. A canvas of the engine's own, as a stage has, is
   * put together with the page once more for each of its pictures.
   */
  private readonly painted = new Map<string, { context: ImageBitmapRenderingContext; share: string }>();
  /** When the engine last said that outputs lost their canvases. */
  private lostAt = -Infinity;
  private isWatchingCard = false;
  private count = 0;

  constructor(private readonly line: Line) {}

  /** Has the engine paint a place; gives the id that it is known by. */
  add(host: OutputHost): string {
    const id = `output-${++this.count}`;
    this.hosts.set(id, host);
    if (this.line.isReady()) this.hand(id, host);
    return id;
  }

  /** Shows another source on an output. */
  retarget(id: string, source: OutputSource): void {
    const host = this.hosts.get(id);
    if (!host) return;
    host.source = source;
    this.line.post({ type: 'output-change', id, change: { source: sourceInEngine(source) } });
  }

  resize(id: string, width: number, height: number): void {
    this.line.post({ type: 'output-change', id, change: { width, height } });
  }

  remove(id: string): void {
    const box = this.hosts.get(id)?.box();
    if (box) {
      clearBox(box);
      clearBehind(box);
    }
    this.hosts.delete(id);
    this.standIns.delete(id);
    this.painted.delete(id);
    this.line.post({ type: 'output-remove', id });
  }

  /** Gives a fresh engine all of them. */
  handAll(): void {
    for (const [id, host] of this.hosts) this.hand(id, host);
  }

  private hand(id: string, host: OutputHost): void {
    const { source, use, mapping = wholePicture } = host;
    const box = host.box();
    if (!box) return;
    const size = host.size();
    const shown = stackCanvas(box, canvasName(host));
    const spec = { source: sourceInEngine(source), use, mapping, ...size };
    if (use === 'desk') {
      this.painted.set(id, { context: shown.getContext('bitmaprenderer')!, share: '' });
      this.line.post({ type: 'output-add', id, canvas: null, spec });
    } else {
      const canvas = shown.transferControlToOffscreen();
      this.line.post({ type: 'output-add', id, canvas, spec }, [canvas]);
    }
  }

  /** Paints what the engine has drawn for outputs of the desk. */
  show(pictures: readonly OutputPicture[]): void {
    for (const { id, bitmap, share } of pictures) {
      const output = this.painted.get(id);
      output?.context.transferFromImageBitmap(bitmap);
      // One that is gone has not taken it.
      bitmap.close();
      if (output && output.share !== String(share)) {
        output.share = String(share);
        this.settle({ id, share });
      }
    }
  }

  /** The engine has painted one, which fills that share of its canvas. */
  settle({ id, share }: Pick<OutputPicture, 'id' | 'share'>): void {
    const box = this.hosts.get(id)?.box();
    if (box) settleCanvas(box, share);
  }

  /** Keeps what stands in for one when the graphics card is lost. */
  keepStandIn({ id, picture }: Extract<FromEngine, { type: 'stand-in' }>): void {
    const host = this.hosts.get(id);
    const box = host?.box();
    if (host) this.standIns.set(id, picture);
    const isWanted = (): boolean => this.hosts.get(id) === host && !this.line.isBlackedOut();
    if (box && host?.use === 'stage' && isWanted()) void putBehind(box, picture, isWanted);
    if (!this.isWatchingCard) this.line.hearOfLoss(() => this.coverAll());
    this.isWatchingCard = true;
  }

  /** The stage is dark from now on: nothing of before lies behind its canvases either. */
  darken(): void {
    for (const { use, box } of this.hosts.values()) {
      const element = use === 'stage' && box();
      if (element) clearBehind(element);
    }
  }

  /** Gives an output whose canvas is lost another, and shows what stands in for it until that has a picture. */
  replace({ id, dark }: Extract<FromEngine, { type: 'output-lost' }>): void {
    this.lostAt = performance.now();
    const host = this.hosts.get(id);
    const box = host?.box();
    if (!host || !box) return;
    const picture = this.standIns.get(id);
    if (picture && !dark) {
      clearBox(box);
      standIn(box, picture, canvasName(host));
    }
    this.hand(id, host);
  }

  /** The page heard that the graphics card is lost: shows what stands in for all outputs, unless the engine has said so already. */
  private coverAll(): void {
    if (performance.now() - this.lostAt < lossMs) return;
    for (const [id, host] of this.hosts) {
      const box = host.box();
      const picture = this.standIns.get(id);
      if (!box || !picture || (host.use === 'stage' && this.line.isBlackedOut())) continue;
      const cover = standIn(box, picture, canvasName(host));
      // If the engine has lost nothing, it goes on below.
      setTimeout(() => cover.remove(), lossMs);
    }
  }
}
