import type { WebGLRenderTarget } from 'three';
import type { Catalogue } from '../core/kind/kind';
import type { Show } from '../core/document/types';
import type { Graphics } from './graphics';
import type { MediaLibrary } from './media/library';
import type { ProgramLook } from './output/program-look';
import type { LiveInputs } from './playback/live-inputs';
import type { ExportEvent, ExportOrder, LiveOrder } from './protocol/export';
import type { FromEngine, LookOrder } from './protocol/protocol';
import type { Exporter } from './record/exporter';
import type { LiveRecorder } from './record/live-recorder';

/** Draws what is on air into a target; false: it stands as it is. */
type DrawProgram = (target: WebGLRenderTarget) => boolean;

/**
 * Those who take pictures beside the outputs: exports, the recording, and the small look of what is on air. Each is loaded when it is first
 * asked for: most performances have none.
 */
export class Takers {
  private exporter: Exporter | null = null;
  private exportShare = 1;
  private recorder: LiveRecorder | null = null;
  private look: ProgramLook | null = null;
  private lookOrder: LookOrder | null = null;

  constructor(
    private readonly media: MediaLibrary,
    private readonly inputs: LiveInputs,
    private readonly tell: (message: FromEngine, transfer?: Transferable[]) => void,
  ) {}

  get isRecording(): boolean {
    return this.recorder !== null;
  }

  /** Whether somebody takes what is on air. */
  get takesProgram(): boolean {
    return this.recorder !== null || this.look !== null;
  }

  setExportShare(share: number): void {
    this.exportShare = share;
    if (this.exporter) this.exporter.share = share;
  }

  async export(
    order: ExportOrder,
    show: Show | null,
    graphics: Graphics | null,
    catalogue: Catalogue,
  ): Promise<void> {
    const { Exporter } = await import('./record/exporter');
    const { media } = this;
    this.exporter ??= new Exporter(this.tellExport, media);
    this.exporter.share = this.exportShare;
    if (!show || !graphics) {
      const message = 'The graphics card is away. Go on in a moment.';
      this.tellExport(order.job, { what: 'failed', message, frame: null });
      return;
    }
    const { gpu, presenter, mix, wall } = graphics;
    const inputs = this.inputs.exact();
    this.exporter.take(order, show, { gpu, presenter, mix, wall, media, catalogue, inputs });
  }

  private readonly tellExport = (job: string, event: ExportEvent): void =>
    this.tell({ type: 'export', job, event }, event.what === 'picture' ? [event.rgba.buffer] : []);

  /** Begins a recording; null: ends it. */
  async record(order: LiveOrder | null, graphics: Graphics | null): Promise<void> {
    const { LiveRecorder } = await import('./record/live-recorder');
    void this.recorder?.stop();
    if (order && !graphics) {
      const message = 'The graphics card is away. Begin again in a moment.';
      this.tellExport(order.job, { what: 'failed', message, frame: null });
    }
    this.recorder =
      order && graphics
        ? new LiveRecorder(graphics.gpu, order, this.inputs, this.tellExport, performance.now())
        : null;
  }

  async lookAt(order: LookOrder | null): Promise<void> {
    this.look = null;
    this.lookOrder = order;
    if (!order) return;
    const { ProgramLook } = await import('./output/program-look');
    if (this.lookOrder === order)
      this.look = new ProgramLook(order, (jpeg) => this.tell({ type: 'look', jpeg }, [jpeg]));
  }

  /** Gives each its frame, once the stage has its own. `time`: that of the show; null: it stands. `isEasy`: there is time left. */
  frame(now: number, { gpu }: Graphics, time: number | null, isEasy: boolean, draw: DrawProgram): void {
    if (this.recorder && (!this.recorder.isFor(gpu) || this.recorder.hasFailed)) {
      void this.recorder.stop();
      this.recorder = null;
    }
    this.recorder?.frame(now, time, isEasy, draw);
    this.look?.turn(now, gpu, draw);
  }
}
