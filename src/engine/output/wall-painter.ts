import type { WebGLRenderTarget } from 'three';
import type { Show, Wall } from '../../core/document/types';
import type { RoomView } from '../../core/wall/room';
import type { WindowOutput } from '../../core/wall/outputs';
import type { Gpu } from '../gpu/gpu';
import { plainLook } from '../image/look';
import type { MediaLibrary } from '../media/library';
import type { TestPicture } from '../protocol/protocol';
import type { Presented } from './presenter';
import type { RoomPainter } from './room/room-painter';
import { ScreenPainter, type PaintedFor } from './screen-painter';
import type { Strings } from './strings';
import type { TestPictures } from './test-pictures';

interface Size {
  width: number;
  height: number;
}

/** All that the outputs of a wall are painted with. */
export class WallPainter {
  private readonly screens: ScreenPainter;
  /** Loaded when the first is shown. */
  private testPictures: TestPictures | null = null;
  private testsComing: Promise<void> | null = null;
  /** Loaded when somebody first looks at the room. */
  private room: RoomPainter | null = null;
  private coming: Promise<void> | null = null;

  constructor(
    private readonly gpu: Gpu,
    private readonly media: MediaLibrary,
    private readonly strings: Strings,
  ) {
    this.screens = new ScreenPainter(gpu);
  }

  /** Forgets outputs that are no more. */
  keepTo({ outputs }: Wall): void {
    const ids = new Set(outputs.map(({ id }) => id));
    this.screens.keepTo(ids);
    this.testPictures?.keepTo(ids);
  }

  /** Draws what an output shows into a target (null: the canvas). Test pictures are seen whatever the performance does: somebody stands on a ladder. */
  draw(
    output: WindowOutput,
    now: Presented,
    { place, into, canvas }: { place: PaintedFor; into: Size; canvas: Size },
    test: TestPicture | undefined,
    target: WebGLRenderTarget | null = null,
  ): void {
    if (test && !this.testPictures) this.testsComing ??= this.loadTests();
    if (!test || !this.testPictures) {
      this.screens.draw(output, place, now, into, canvas, target);
      return;
    }
    const first = plainLook(this.testPictures.of(output, test));
    const shown = { first, second: plainLook(this.gpu.empty), fade: 0, level: 1 };
    this.screens.draw(output, place, shown, into, null, target);
  }

  private async loadTests(): Promise<void> {
    const { TestPictures } = await import('./test-pictures');
    this.testPictures = new TestPictures();
  }

  /** Whether test pictures can be drawn: until then outputs show what is on air. */
  get hasTests(): boolean {
    return this.testPictures !== null;
  }

  private async loadRoom(): Promise<void> {
    const { RoomPainter } = await import('./room/room-painter');
    const { receiver } = await this.strings.traffic();
    this.room = new RoomPainter(this.gpu, this.media, receiver);
  }

  /** Draws the room onto the canvas; false: it cannot be drawn yet. `isFrozen`: what its outputs showed stays. */
  drawRoom(
    { wall, canvas }: Show,
    view: RoomView,
    into: Size,
    now: Presented,
    tests: Readonly<Record<string, TestPicture>>,
    isFrozen: boolean,
  ): boolean {
    if (!this.room) {
      this.coming ??= this.loadRoom();
      return false;
    }
    this.room.draw(wall, canvas, view, into, (output, size, target, isNew) => {
      if (isFrozen && !isNew && !tests[output.id]) return;
      this.draw(output, now, { place: 'room', into: size, canvas }, tests[output.id], target);
    });
    return true;
  }

  /** Changes whenever the room looks otherwise for other reasons than what is on air. */
  get roomVersion(): string {
    return this.room?.version ?? 'coming';
  }
}
