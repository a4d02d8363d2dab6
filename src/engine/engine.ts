import type { Catalogue } from '../core/kind/kind';
import type { InputState } from '../core/run/inputs';
import type { Frame } from '../core/run/frame';
import { applyChanges } from '../core/show/changes';
import type { Scene, Show } from '../core/show/types';
import { momentAt } from '../core/time/clock';
import { FeedbackClock } from '../core/time/feedback-steps';
import { benchData, glanceNodes, glanceParts } from './output/glance';
import { Gpu } from './gpu/gpu';
import { GpuClock } from './gpu/gpu-clock';
import { LiveInputs } from './playback/live-inputs';
import { FeedbackWatch } from './image/feedback-watch';
import { MediaLibrary } from './media/library';
import { MediaError } from './media/pictures';
import { Pacer } from './gpu/pacer';
import { plainLook, Presenter, type Look, type Presented } from './output/presenter';
import { Previews } from './output/previews';
import {
  assertNever,
  type Ask,
  type FromEngine,
  type SurfaceRole,
  type ToEngine,
  type Watch,
} from './protocol';
import { Questions } from './questions/questions';
import { ScenePlayer } from './playback/scene-player';
import { ProgramBus } from './playback/program-bus';
import { Transport } from './playback/transport';
import { WorkSize } from './playback/work-size';

interface Surface {
  id: string;
  role: SurfaceRole;
  canvas: OffscreenCanvas;
  context: ImageBitmapRenderingContext;
  width: number;
  height: number;
  painted: boolean;
}

/** Seconds without a finished context before another is asked for, after one was lost. */
const graphicsRetryMs = 250;
/** Frames given to the card and not done at which the next one is left out. */
const mostBehind = 2;
/** Milliseconds from the start of a frame to its end above which the card counts as slow. */
const slowFrameMs = 120;
/** Milliseconds of a frame given to running up to the goal of a jump. */
const runUpMs = 12;
/** Pixels of an example. */
const exampleSize = { width: 320, height: 180 };
/** Steps of loops a frame may take where the card is quick, and where it is slow. */
const mostLoopSteps = { quick: 4, slow: 1 };
/** Most milliseconds a slow card is left to the rest of the browser after each frame. */
const longestRestMs = 200;

/** Whether any node of a show hears the sound. */
function hearsSound(show: Show, catalogue: Catalogue): boolean {
  return show.scenes.some((scene) =>
    Object.values(scene.nodes).some((node) => {
      const kind = catalogue.get(node.kind);
      return kind?.output === 'signal' && kind.hears === true;
    }),
  );
}

/**
 * The engine: owns time, the scenes that are playing and every canvas that shows them. It never waits for the interface,
 * and nothing the interface does can stop it from painting the stage.
 */
export class Engine {
  private gpu: Gpu | null = null;
  private clock: GpuClock | null = null;
  private presenter: Presenter | null = null;
  private questions: Questions | null = null;
  private previews: Previews | null = null;
  private loopWatch: FeedbackWatch | null = null;
  private readonly media: MediaLibrary;
  private readonly vectors = new Map<
    number,
    { resolve(bitmap: ImageBitmap): void; reject(error: Error): void }
  >();
  private vectorId = 0;
  private readonly loopClock = new FeedbackClock();
  private show: Show | null = null;
  private readonly players = new Map<string, ScenePlayer>();
  private without: ScenePlayer | null = null;
  private example: { scene: Scene; player: ScenePlayer | null } | null = null;
  private readonly surfaces = new Map<string, Surface>();
  private watch: Watch = { scene: null, cards: [], bench: null, inspected: null, without: null };
  private readonly inputs = new LiveInputs();
  /** The desk wants to see what is heard. */
  private hearing = false;
  /** Some scene hears the sound: it is followed all the time, as catching up when that scene comes would cost a frame. */
  private showHears = false;
  private readonly pacer = new Pacer((now) => this.tick(now));
  private readonly transport = new Transport();
  private lastNow = 0;
  private readonly program = new ProgramBus();
  private blackout = false;
  private freeze = false;
  private readonly workSize = new WorkSize();
  private frames = 0;
  private stageFrames = 0;
  private cpuMs = 0;
  private lastTold = { beat: 0, stats: 0, glance: 0, faults: 0, heard: 0 };
  private toldFaults = new Map<string, string>();
  private graphicsDownSince: number | null = null;
  private lastAttempt = 0;

  constructor(
    private readonly catalogue: Catalogue,
    private readonly tell: (message: FromEngine, transfer?: Transferable[]) => void,
  ) {
    this.media = new MediaLibrary(
      (file, height) => this.drawVector(file, height),
      (device) => this.tell({ type: 'want-camera', device }),
    );
    this.startGraphics();
  }

  private drawVector(file: Blob, height: number): Promise<ImageBitmap> {
    return new Promise((resolve, reject) => {
      const id = ++this.vectorId;
      this.vectors.set(id, { resolve, reject });
      this.tell({ type: 'draw-vector', id, file, height });
    });
  }

  private startGraphics(): void {
    try {
      this.gpu = new Gpu();
      this.clock = new GpuClock(this.gpu.gl);
      this.presenter = new Presenter(this.gpu);
      this.questions = new Questions(
        this.gpu,
        this.catalogue,
        this.media,
        this.presenter,
        this.players,
        this.inputs,
      );
      this.previews = new Previews(this.gpu, (pixels, width, cells) =>
        this.tell({ type: 'previews', pixels, width, cells }, [pixels.buffer]),
      );
      this.loopWatch = new FeedbackWatch(this.gpu);
      for (const player of this.players.values()) player.moveTo(this.gpu);
      if (this.graphicsDownSince !== null)
        this.tell({ type: 'graphics', state: 'back', message: 'The graphics card is back.' });
      this.graphicsDownSince = null;
    } catch (error) {
      this.gpu = null;
      if (this.graphicsDownSince === null) {
        this.graphicsDownSince = performance.now();
        this.tell({
          type: 'graphics',
          state: 'none',
          message: error instanceof Error ? error.message : String(error),
        });
      }
    }
  }

  private loseGraphics(now: number): void {
    if (this.graphicsDownSince === null) {
      this.graphicsDownSince = now;
      this.tell({
        type: 'graphics',
        state: 'lost',
        message: 'The graphics card was lost. The last picture stays until it is back.',
      });
    }
    // What lived on the card is gone with it; canvases keep their last picture.
    this.without = null;
    if (this.example) this.example.player = null;
    this.questions = null;
    this.gpu = null;
  }

  receive(message: ToEngine): void {
    switch (message.type) {
      case 'open':
        this.open(message.show, message.program, message.time, message.playing);
        break;
      case 'change':
        if (this.show) this.setShow(applyChanges(this.show, message.changes));
        break;
      case 'watch':
        if (message.watch.scene !== this.watch.scene) this.clock?.forgetNodes();
        this.watch = message.watch;
        break;
      case 'example':
        this.example?.player?.dispose();
        this.example = message.scene && { scene: message.scene, player: null };
        break;
      case 'surface':
        this.addSurface(message.id, message.role, message.canvas, message.width, message.height);
        break;
      case 'surface-size': {
        const surface = this.surfaces.get(message.id);
        if (surface) Object.assign(surface, { width: message.width, height: message.height });
        break;
      }
      case 'surface-gone':
        this.surfaces.delete(message.id);
        break;
      case 'transport':
        this.transport.playing = message.playing;
        break;
      case 'seek':
        if (message.exactly && this.show) this.transport.jumpExactly(message.time, this.show.canvas.fps);
        else this.transport.jump(message.time);
        this.loopClock.restart();
        if (message.exactly) for (const player of this.players.values()) player.run.restart();
        break;
      case 'range':
        this.transport.range = message.range;
        break;
      case 'step':
        this.transport.step();
        break;
      case 'hand':
        this.inputs.controllers = message.hand;
        break;
      case 'sound-file':
        this.inputs.addFile(message.file, message.rate, message.samples);
        break;
      case 'sound-stream':
        this.inputs.setStream(message.rate, message.port);
        break;
      case 'midi-file':
        this.inputs.setMidiFile(message.file, message.roundSeconds);
        break;
      case 'hear':
        this.hearing = message.on;
        break;
      case 'take':
        if (this.show?.scenes.some((scene) => scene.id === message.scene))
          this.program.take(message.scene, message.seconds);
        break;
      case 'next':
        this.program.setNext(message.scene);
        break;
      case 'stage':
        this.blackout = message.blackout;
        this.freeze = message.freeze;
        break;
      case 'work-scale':
        this.workSize.scale = message.scale;
        break;
      case 'clear-return':
        this.players.get(message.scene)?.run.clearReturn(message.wire);
        break;
      case 'ask':
        void this.answer(message.id, message.ask);
        break;
      case 'file':
        if (message.blob) this.media.addFile(message.id, message.name, message.blob);
        else this.media.missFile(message.id, message.name);
        break;
      case 'vector': {
        const waiting = this.vectors.get(message.id);
        this.vectors.delete(message.id);
        if (message.bitmap) waiting?.resolve(message.bitmap);
        else waiting?.reject(new MediaError(message.message));
        break;
      }
      case 'camera-frame':
        this.media.cameraFrame(message.device, message.bitmap);
        break;
      case 'camera-fault':
        this.media.cameraFault(message.device, message.message);
        break;
      case 'rehearse':
        if (message.fault === 'context-loss') this.gpu?.gl.getExtension('WEBGL_lose_context')?.loseContext();
        break;
      default:
        assertNever(message);
    }
  }

  private open(show: Show, program: string, time: number, playing: boolean): void {
    this.show = show;
    for (const player of this.players.values()) player.dispose();
    this.players.clear();
    this.inputs.setShow(show.inputs);
    this.media.expect(Object.keys(show.files));
    this.showHears = hearsSound(show, this.catalogue);
    this.transport.open(time, playing);
    this.program.open(
      program,
      show.scenes.map((scene) => scene.id),
    );
    this.toldFaults.clear();
    this.pacer.interval = 1000 / show.canvas.fps;
    this.tell({ type: 'opened' });
    this.pacer.start();
  }

  private setShow(show: Show): void {
    const before = this.show;
    this.show = show;
    this.inputs.setShow(show.inputs);
    this.media.expect(Object.keys(show.files));
    this.showHears = hearsSound(show, this.catalogue);
    if (before && before.tempo.bpm !== show.tempo.bpm) this.transport.changeTempo(before.tempo);
    this.pacer.interval = 1000 / show.canvas.fps;
    const ids = new Set(show.scenes.map((scene) => scene.id));
    for (const [id, player] of this.players) {
      if (ids.has(id)) continue;
      player.dispose();
      this.players.delete(id);
    }
    this.program.keepTo([...ids]);
  }

  private addSurface(
    id: string,
    role: SurfaceRole,
    canvas: OffscreenCanvas,
    width: number,
    height: number,
  ): void {
    const context = canvas.getContext('bitmaprenderer');
    if (!context) return;
    this.surfaces.set(id, { id, role, canvas, context, width, height, painted: false });
  }

  private tick(now: number): void {
    if (!this.show) return;
    if (!this.gpu || this.gpu.isLost) {
      if (this.gpu) this.loseGraphics(now);
      if (now - this.lastAttempt > graphicsRetryMs) {
        this.lastAttempt = now;
        this.startGraphics();
      }
      this.lastNow = now;
      this.tellBeat(now);
      return;
    }
    const clock = this.clock!;
    clock.poll(now);
    this.tellBeat(now);
    const real = this.lastNow === 0 ? 0 : (now - this.lastNow) / 1000;
    if (this.mustWait(now)) return;
    this.lastNow = now;
    this.program.advance(real);
    this.workSize.choose(now, this.hasStage(), this.clock!.frameMs, 1000 / this.show.canvas.fps);
    if (this.transport.preroll) this.runUp();
    else this.drawFrame(now, this.transport.advance(real, this.show.canvas.fps));
    this.report(now);
  }

  /**
   * Whether the card has enough to do. A card that cannot keep up would be given new work the moment it is done, and the
   * browser, which paints the desk with the same card, would never have its turn: it gets a third of the time, or a
   * tenth while the stage is on.
   */
  private mustWait(now: number): boolean {
    const clock = this.clock!;
    const slow = clock.frameMs > slowFrameMs;
    if (!slow) return clock.behind >= mostBehind;
    const rest = Math.min(longestRestMs, clock.frameMs * (this.hasStage() ? 0.1 : 0.5));
    return clock.behind > 0 || now - clock.lastDone < rest;
  }

  /**
   * Runs what has a memory up to the goal of a jump, for as long as one frame may take; the last picture stays. Pictures
   * that come back around a circle are drawn for the last second of the way.
   */
  private runUp(): void {
    const show = this.show!;
    const way = this.transport.preroll!;
    const { fps } = show.canvas;
    const start = performance.now();
    while (way.next <= way.last && performance.now() - start < runUpMs) {
      const moment = momentAt(way.next / fps, way.next === 0 ? 0 : 1 / fps, fps, show.tempo);
      const isNear = way.last - way.next < fps;
      const frame: Frame = {
        moment,
        live: this.liveAt(moment.time),
        canvas: this.canvasSize(),
        feedback: this.loopClock.next(moment.dt, 1),
      };
      let drew = false;
      for (const [id, player] of this.players) {
        const scene = this.scene(id);
        if (!scene || !player.run.remembers) continue;
        if (isNear && player.run.returns.size > 0) {
          player.play(scene, frame, [], show.canvas.height);
          drew = true;
        } else player.runFrame(scene, frame, []);
      }
      way.next++;
      // Work must not pile up on the card.
      if (drew) {
        this.clock!.mark(start);
        break;
      }
    }
    if (way.next > way.last) this.transport.preroll = null;
  }

  private hasStage(): boolean {
    for (const surface of this.surfaces.values()) if (surface.role === 'stage') return true;
    return false;
  }

  private canvasSize(): { width: number; height: number } {
    return this.workSize.of(this.show!.canvas);
  }

  private scene(id: string | null): Scene | null {
    return this.show!.scenes.find((scene) => scene.id === id) ?? null;
  }

  /** Scenes somebody looks at, with the nodes whose output is wanted beside the picture. */
  private wanted(): Map<string, string[]> {
    const wanted = new Map<string, string[]>();
    const has = (role: SurfaceRole): boolean =>
      [...this.surfaces.values()].some((surface) => surface.role === role);
    if (has('stage') || has('program')) {
      wanted.set(this.program.state.program, []);
      if (this.program.state.incoming) wanted.set(this.program.state.incoming, []);
    }
    if (this.program.state.next && has('next')) wanted.set(this.program.state.next, []);
    const { scene, cards, bench, inspected } = this.watch;
    if (scene && this.scene(scene)) {
      const nodes = new Set(cards);
      if (bench) nodes.add(bench);
      if (inspected) nodes.add(inspected);
      wanted.set(scene, [...nodes]);
    }
    return wanted;
  }

  private drawFrame(now: number, dt: number): void {
    const gpu = this.gpu!;
    const show = this.show!;
    const start = performance.now();
    gpu.passes = 0;
    const moment = this.transport.moment(dt, show);
    const slow = this.clock!.frameMs > slowFrameMs;
    const loop = this.loopClock.next(dt, slow ? mostLoopSteps.slow : mostLoopSteps.quick);
    const frame: Frame = {
      moment,
      live: this.liveAt(moment.time),
      canvas: this.canvasSize(),
      feedback: loop,
    };
    const wanted = this.wanted();
    for (const [id, player] of this.players) {
      if (wanted.has(id)) continue;
      player.dispose();
      this.players.delete(id);
    }
    // A canvas that changes its size waits for all that was given to the card. So the desk, which has another size, is
    // painted before the work of this frame and shows the one before; the stage shows this one.
    const stageOn = this.hasStage();
    if (stageOn) this.paintDesk(now);
    const measuring = this.clock!.canMeasure && this.frames % 20 === 5;
    for (const [id, nodes] of wanted) {
      const scene = this.scene(id);
      if (!scene) continue;
      let player = this.players.get(id);
      if (!player) this.players.set(id, (player = new ScenePlayer(gpu, this.catalogue, this.media, scene)));
      player.renderer.measure =
        measuring && id === this.watch.scene ? (node, draw) => this.clock!.measure(node, draw) : null;
      player.play(scene, frame, nodes, show.canvas.height);
    }
    this.playWithout(frame);
    this.playExample(frame);
    if (stageOn) this.paintStage();
    else this.paintDesk(now);
    this.cpuMs = this.cpuMs * 0.9 + (performance.now() - start) * 0.1;
    this.frames++;
    this.clock!.mark(now);
  }

  private liveAt(time: number): InputState {
    return this.inputs.at(time, this.hearing || this.showHears);
  }

  /** The scene as it would be without one node runs beside the real one, only while somebody asks for it. */
  private playWithout(frame: Frame): void {
    const scene = this.scene(this.watch.scene);
    const { without } = this.watch;
    if (!without || !scene?.nodes[without]) {
      this.without?.dispose();
      this.without = null;
      return;
    }
    if (this.without?.without !== without) {
      this.without?.dispose();
      this.without = new ScenePlayer(this.gpu!, this.catalogue, this.media, scene, { waits: true }, without);
      const player = this.players.get(scene.id);
      if (player) {
        this.without.play(scene, frame, [], this.show!.canvas.height);
        this.without.renderer.adoptFeedback(player.renderer);
      }
    }
    this.without.play(scene, frame, [], this.show!.canvas.height);
  }

  /** An example is small and stands beside the show: nothing of the show depends on it. */
  private playExample(frame: Frame): void {
    if (!this.example || ![...this.surfaces.values()].some(({ role }) => role === 'example')) return;
    const { scene } = this.example;
    this.example.player ??= new ScenePlayer(this.gpu!, this.catalogue, this.media, scene);
    this.example.player.play(scene, { ...frame, canvas: exampleSize }, [], exampleSize.height);
  }

  private pictureFor(role: SurfaceRole): Presented {
    const nothing = plainLook(this.gpu!.empty);
    const of = (id: string | null): Look => (id ? this.players.get(id)?.look : undefined) ?? nothing;
    const { program, incoming, fade, next } = this.program.state;
    switch (role) {
      case 'monitor':
        return {
          first: this.without?.look ?? of(this.watch.scene),
          second: nothing,
          fade: 0,
          level: 1,
        };
      case 'next':
        return { first: of(next), second: nothing, fade: 0, level: 1 };
      case 'program':
      case 'stage':
        // Eased at both ends, so that a fade neither starts nor stops with a jerk.
        return {
          first: of(program),
          second: of(incoming),
          fade: incoming ? fade * fade * (3 - 2 * fade) : 0,
          level: this.blackout ? 0 : 1,
        };
      case 'example':
        return {
          first: this.example?.player?.look ?? nothing,
          second: nothing,
          fade: 0,
          level: 1,
        };
      case 'bench':
        return { first: nothing, second: nothing, fade: 0, level: 1 };
    }
  }

  private paintStage(): void {
    for (const surface of this.surfaces.values()) {
      const { role, width, height, painted } = surface;
      // A frozen stage keeps what it shows; one that was opened while frozen gets one picture first.
      if (role !== 'stage' || (this.freeze && !this.blackout && painted)) continue;
      this.gpu!.resize(width, height);
      this.paint(surface);
    }
  }

  /** Everything on the desk is painted at one size, which the page stretches, since changing it in every frame would wait. */
  private paintDesk(now: number): void {
    const desk = [...this.surfaces.values()].filter((surface) => surface.role !== 'stage');
    if (desk.length) {
      const width = Math.max(...desk.map((surface) => surface.width));
      const height = Math.max(...desk.map((surface) => surface.height));
      this.gpu!.resize(width, height);
      for (const surface of desk) this.paint(surface);
    }
    const watched = this.watch.scene ? this.players.get(this.watch.scene) : undefined;
    const easy = this.clock!.frameMs < 500 / this.show!.canvas.fps;
    if (watched) {
      this.previews!.turn(now, watched, this.watch.cards, easy);
      this.loopWatch!.turn(now, watched, easy);
    }
  }

  /** Paints a surface with the canvas as large as it is. */
  private paint(surface: Surface): void {
    const gpu = this.gpu!;
    const { role, width, height } = surface;
    if (role === 'bench') {
      const player = this.watch.scene ? this.players.get(this.watch.scene) : undefined;
      const { bench } = this.watch;
      if (!player || !bench || !player.peek(bench, null)) return;
    } else {
      const shape = this.show!.canvas.width / this.show!.canvas.height / (width / height);
      this.presenter!.draw(this.pictureFor(role), shape);
    }
    surface.context.transferFromImageBitmap(gpu.canvas.transferToImageBitmap());
    if (role === 'stage') this.stageFrames++;
    if (!surface.painted) {
      surface.painted = true;
      this.tell({ type: 'surface-painted', id: surface.id });
    }
  }

  private tellBeat(now: number): void {
    if (now - this.lastTold.beat < 40) return;
    this.lastTold.beat = now;
    const { playing, preroll: runUp } = this.transport;
    const moment = this.transport.moment(0, this.show!);
    const done = runUp ? (runUp.next - runUp.first) / (runUp.last + 1 - runUp.first) : 1;
    const transport = { playing, time: moment.time, frame: moment.frame, beat: moment.beat, done };
    this.tell({ type: 'beat', transport, program: this.program.state });
  }

  private report(now: number): void {
    const { scene, cards, inspected, bench } = this.watch;
    const player = scene ? this.players.get(scene) : undefined;
    // Each telling makes the page paint anew: less often where the card is busy.
    if (player && now - this.lastTold.glance > Math.max(50, this.clock!.frameMs / 2)) {
      this.lastTold.glance = now;
      const nodes = glanceNodes(player.run, cards);
      const parts = inspected ? glanceParts(player.run, inspected) : [];
      this.tell({ type: 'glance', nodes, parts, bench: bench ? benchData(player.run, bench) : null });
    }
    if (this.hearing && now - this.lastTold.heard > 50) {
      this.lastTold.heard = now;
      this.tell({ type: 'heard', ...this.inputs.meter() });
    }
    if (now - this.lastTold.faults > 100) {
      this.lastTold.faults = now;
      for (const [id, running] of this.players) {
        const faults = running.faults();
        const notes = running.notes();
        const loops = id === this.watch.scene ? this.loopWatch!.notes(running) : {};
        const key = JSON.stringify([faults, notes, loops]);
        if (this.toldFaults.get(id) === key) continue;
        this.toldFaults.set(id, key);
        this.tell({ type: 'faults', scene: id, faults, notes, loops });
      }
    }
    if (now - this.lastTold.stats > 250) {
      this.lastTold.stats = now;
      const clock = this.clock!;
      const { width, height } = this.canvasSize();
      this.tell({
        type: 'stats',
        stats: {
          framesPerSecond: clock.perSecond,
          stageFrames: this.stageFrames,
          frames: this.frames,
          frameMs: clock.frameMs,
          cpuMs: this.cpuMs,
          passes: this.gpu!.passes,
          targets: this.gpu!.targetCount,
          programs: this.gpu!.shaderCount,
          width,
          height,
          nodeMs: { ...clock.nodeMs },
        },
      });
    }
  }

  private async answer(id: number, ask: Ask): Promise<void> {
    try {
      if (!this.questions || !this.gpu || this.gpu.isLost)
        throw new Error('The graphics card is away. Try again in a moment.');
      const answer = await this.questions.answer(ask, this.show!);
      const transfer = 'png' in answer ? [answer.png] : [];
      this.tell({ type: 'answer', id, answer }, transfer);
    } catch (error) {
      this.tell({ type: 'refusal', id, message: error instanceof Error ? error.message : String(error) });
    }
  }
}
