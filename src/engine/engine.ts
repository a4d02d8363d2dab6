import type { PerformanceCommand } from '../core/desk/command';
import { assertNever } from '../core/assert-never';
import { packHeard, readHeard } from '../core/audio/heard';
import { toClockAhead } from '../core/own-clock';
import type { Catalogue } from '../core/kind/kind';
import type { ShowCatalogue } from '../core/module/show-catalogue';
import { ShowApart } from '../core/module/take-apart';
import type { Frame } from '../core/run/frame';
import { applyChanges } from '../core/show/changes';
import type { OutputPart, Show } from '../core/document/types';
import { FeedbackClock, mostStepsAt } from '../core/time/feedback-steps';
import { partOf, windowOutputOf } from '../core/wall/outputs';
import { takenBoxes } from '../core/wall/taken';
import type { ShareBox } from './gpu/gpu';
import type { GpuClock } from './gpu/gpu-clock';
import { Pacer } from './gpu/pacer';
import { GraphicsKeeper, type Graphics } from './graphics';
import { MediaLibrary } from './media/library';
import { VectorRequests } from './media/vector-requests';
import { Outputs } from './output/outputs';
import { Strings } from './output/strings';
import { OutputPainter } from './output/output-painter';
import { isOnAir } from './output/seen';
import { LiveInputs } from './playback/live-inputs';
import { Performance, type Heard } from './playback/performance';
import { prerollFrames, strideAt } from './playback/preroll';
import { ScenePlayers } from './playback/scene-players';
import { WorkSize } from './playback/work-size';
import type {
  EngineRequest,
  LayerLayout,
  FromEngine,
  OutputSource,
  PerformanceReport,
  ToEngine,
  Watch,
} from './protocol/protocol';
import { Reports } from './reports';
import { Takers } from './takers';

/** Most milliseconds that a transition waits until its scene can be seen whole. */
const longestTakeWaitMs = 3000;
/** Frames given to the GPU and not done at which the next one is left out. */
const maxFramesInFlight = 2;
/** Milliseconds of a frame above which the GPU is left a moment between two, so that the page is never starved. */
const busyFrameMs = 30;
/** Milliseconds between two looks for what the GPU holds without need. */
const trimMs = 1000;
/** Milliseconds between two reports of the performance to a page that nobody sees: each makes it paint. */
const hiddenReportMs = 500;
/** Most milliseconds a busy GPU rests after each frame. */
const longestRestMs = 40;
/** What a busy GPU rests after each frame, as a share of what the frame cost. */
const restShare = 0.05;

/** Whether any node of a show listens to sound. */
function hearsSound(show: Show, catalogue: Catalogue): boolean {
  return show.scenes.some((scene) =>
    Object.values(scene.nodes).some((node) => {
      const kind = catalogue.get(node.kind);
      return kind?.output === 'signal' && kind.hears === true;
    }),
  );
}

/**
 * The engine: takes messages and keeps the order of a frame. It never waits for the interface, and nothing the interface
 * does can stop it from painting the stage.
 */
export class Engine {
  private readonly graphics: GraphicsKeeper;
  private readonly takers: Takers;
  private readonly vectors = new VectorRequests((id, file, height) =>
    this.tell({ type: 'draw-vector', id, file, height }),
  );
  private readonly media = new MediaLibrary(
    (file, height) => this.vectors.draw(file, height),
    (device) => this.tell({ type: 'want-camera', device }),
  );
  private readonly players: ScenePlayers;
  private readonly outputs = new Outputs(
    (id, share) => this.tell({ type: 'output-painted', id, share }),
    (id, picture) => this.tell({ type: 'stand-in', id, picture }, [picture.rgba.buffer as ArrayBuffer]),
    (pictures) =>
      this.tell(
        { type: 'pictures', pictures },
        pictures.map(({ bitmap }) => bitmap),
      ),
  );
  private readonly inputs = new LiveInputs();
  private readonly performance: Performance;
  private readonly painter: OutputPainter;
  private readonly reports: Reports;
  private readonly strings = new Strings(`${self.location.origin.replace(/^http/, 'ws')}/pixels`);
  private readonly pacer = new Pacer((now) => this.tick(now));
  private readonly feedbackClock = new FeedbackClock();
  private readonly workSize = new WorkSize();
  /** The show as it was written, and as it runs: its modules taken apart. */
  private written: Show | null = null;
  private show: Show | null = null;
  private readonly apart: ShowApart;
  private watch: Watch = { scene: null, cards: [], bench: null, inspected: null };
  /** What of the patch is in sight; null: nothing. */
  private layout: LayerLayout | null = null;
  /** No picture was made of it yet. */
  private layoutIsNew = false;
  /** A picture of the live layer is on its way to the page. */
  private layerIsOut = false;
  /** The editor's window is out of sight: only a stage window needs pictures. */
  private deskIsHidden = false;
  /** Scenes were drawn for a frame whose outputs are painted once the GPU is done with them. */
  private isUnpainted = false;
  /** The frame in which shaders came into use last, and whether the page was told that there are some. */
  private freshIn = -1;
  private isMaking = false;
  /** Requests under way that time frames at full size: each of these may take seconds, as one with new shaders does. */
  private timings = 0;
  /** Values for work count while only the desk looks on. */
  private usesDrafts = true;
  /** The editor wants to see what is heard. */
  private hearing = false;
  /** Some scene listens to sound: it is analysed all the time, as catching up when that scene comes would cost a frame. */
  private showHears = false;
  private sharesSound = false;
  /** How often it was told what is heard. */
  private soundNumber = 0;
  private lastNow = 0;
  /** From the clock of this worker to that of its page: the clock of the machine may have been set between their beginnings. */
  private clockShift = 0;
  private frames = 0;
  private cpuMs = 0;
  /** The scene whose transition waits until it can be seen whole, and since when. */
  private waitedFor = { scene: null as string | null, since: 0 };
  /** Commands so far. */
  private performed = 0;
  private trimmedAt = 0;
  constructor(
    private readonly catalogue: ShowCatalogue,
    private readonly tell: (message: FromEngine, transfer?: Transferable[]) => void,
  ) {
    this.apart = new ShowApart(catalogue);
    this.performance = new Performance(catalogue);
    this.players = new ScenePlayers(catalogue, this.media, this.performance.desk);
    this.performance.program.isReady = (scene) => this.isReady(scene);
    this.painter = new OutputPainter(
      this.outputs,
      this.players,
      this.performance,
      (file, height) => this.media.picture(file, height).texture,
    );
    this.reports = new Reports(tell);
    const { media, inputs, players, strings } = this;
    this.takers = new Takers(media, inputs, tell);
    this.graphics = new GraphicsKeeper({
      catalogue,
      media,
      inputs,
      players,
      strings,
      onFresh: () => {
        this.freshIn = this.frames;
        this.setMaking(true);
      },
      tell,
    });
  }

  private loseGraphics(): void {
    this.isUnpainted = false;
    this.setMaking(false);
    for (const lost of this.painter.lose()) this.tell({ type: 'output-lost', ...lost });
  }

  receive(message: ToEngine): void {
    switch (message.type) {
      case 'clock':
        this.clockShift = toClockAhead(message.ahead);
        break;
      case 'open':
        this.open(message);
        break;
      case 'change':
        if (this.written) this.changeShow(applyChanges(this.written, message.changes));
        break;
      case 'perform':
        this.perform(message.command);
        break;
      case 'follow':
        this.performance.follow(message.state, this.clockAt(this.lastNow));
        break;
      case 'lead':
        this.performance.lead();
        break;
      case 'watch':
        if (message.watch.scene !== this.watch.scene) this.graphics.now?.clock.forgetNodes();
        this.watch = message.watch;
        break;
      case 'output-add':
        this.outputs.add(message.id, message.spec, message.canvas);
        break;
      case 'output-change':
        this.outputs.change(message.id, message.change);
        break;
      case 'output-remove':
        this.outputs.remove(message.id);
        break;
      case 'controllers':
        this.inputs.controllers = message.controllers;
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
      case 'share-sound':
        this.sharesSound = message.on;
        break;
      case 'sound-heard': {
        const heard = readHeard(message.packed);
        if (heard) this.inputs.hearElsewhere(heard.state);
        break;
      }
      case 'hear':
        this.hearing = message.on;
        break;
      case 'drafts':
        this.usesDrafts = message.on;
        break;
      case 'work-scale':
        this.workSize.scale = message.scale;
        break;
      case 'test-pictures':
        this.painter.tests = message.shown;
        break;
      case 'desk-hidden':
        this.deskIsHidden = message.hidden;
        break;
      case 'layer':
        this.layout = message.layout;
        this.layoutIsNew = true;
        if (!message.layout) this.outputs.least = { width: 1, height: 1 };
        break;
      case 'look':
        void this.takers.lookAt(message.look);
        break;
      case 'taken':
        if (message.what === 'layer') this.layerIsOut = false;
        else this.outputs.isWaiting = false;
        break;
      case 'export':
        void this.takers.export(message.order, this.show, this.graphics.usable, this.catalogue);
        break;
      case 'live-recording':
        void this.takers.record(message.order, this.graphics.now);
        break;
      case 'export-share':
        this.takers.setExportShare(message.share);
        break;
      case 'clear-return':
        this.players.playing.get(message.scene)?.run.clearReturn(message.wire);
        break;
      case 'request':
        void this.answer(message.id, message.request);
        break;
      case 'file':
        if (message.blob) this.media.addFile(message.id, message.name, message.blob);
        else this.media.missFile(message.id, message.name);
        break;
      case 'vector':
        this.vectors.answer(message.id, message.bitmap, message.message);
        break;
      case 'camera-frame':
        this.media.cameraFrame(message.device, message.bitmap);
        break;
      case 'camera-fault':
        this.media.cameraFault(message.device, message.message);
        break;
      case 'inject-fault':
        if (message.fault === 'context-loss')
          this.graphics.now?.gpu.gl.getExtension('WEBGL_lose_context')?.loseContext();
        else if (message.fault === 'server-away') void this.strings.cut();
        break;
      default:
        assertNever(message);
    }
  }

  private open({ show: written, program, resume }: Extract<ToEngine, { type: 'open' }>): void {
    this.written = written;
    const show = this.apart.of(written);
    this.players.clear();
    // Whoever still shows what an engine that is gone has painted keeps it until this one has whole pictures.
    if (resume) this.graphics.beginReturn(performance.now());
    // It is that time now, whenever the first frame comes.
    this.lastNow = performance.now();
    this.performance.open(show, program, resume, this.clockAt(this.lastNow));
    this.reports.forget();
    this.takeShow(show);
    this.tell({ type: 'opened' });
    this.reportPerformance(performance.now(), true);
    this.pacer.start();
  }

  private changeShow(written: Show): void {
    const before = this.show!;
    this.written = written;
    const show = this.apart.of(written);
    this.performance.changeShow(before, show);
    this.players.keepTo(new Set(show.scenes.map((scene) => scene.id)));
    this.takeShow(show);
  }

  private takeShow(show: Show): void {
    this.show = show;
    this.inputs.setShow(show.inputs);
    this.media.expect(Object.keys(show.files));
    this.graphics.now?.wall.keepTo(show.wall);
    this.showHears = hearsSound(show, this.catalogue);
    this.pacer.interval = 1000 / show.canvas.fps;
  }

  private perform(command: PerformanceCommand): void {
    this.performed++;
    if (!this.show) return;
    this.performance.apply(command, this.show);
    if (command.type === 'seek') {
      this.feedbackClock.restart();
      if (command.exactly) this.players.restart();
    }
    this.reportPerformance(performance.now(), true);
  }

  private reportPerformance(now: number, isNews = false): void {
    const leastMs = this.deskIsHidden ? hiddenReportMs : 0;
    const report = (): PerformanceReport => ({
      state: this.performance.report(this.clockAt(this.lastNow)),
      performed: this.performed,
    });
    this.reports.performance(now, report, isNews, leastMs);
    const recorded = this.performance.takeRecorded();
    if (recorded) this.tell({ type: 'recorded', ...recorded });
  }

  /** Milliseconds of the clock of the page at a moment of this worker. */
  private clockAt(now: number): number {
    return performance.timeOrigin + now + this.clockShift;
  }

  /** Gives whether it waits for the GPU. */
  private tick(now: number): boolean {
    const { show } = this;
    if (!show) return false;
    const graphics = this.graphics.usable;
    if (!graphics) {
      this.graphics.retry(now, () => this.loseGraphics());
      this.advance(now, show);
      this.reportPerformance(now);
      return false;
    }
    const { performance: played } = this;
    if (this.reports.hasNews) this.reportPerformance(now);
    graphics.clock.poll(now);
    if (this.isUnpainted && graphics.clock.behind === 0) {
      this.isUnpainted = false;
      this.paint(now, show, graphics);
      this.report(now, show, graphics);
    }
    if (this.mustWait(now, graphics.clock)) {
      // A patch that is moved must not wait for the next frame of a heavy scene.
      if (this.layoutIsNew && graphics.clock.behind === 0) this.paintLayer(now, graphics, false);
      // Who only waits is not taken for one that hangs.
      this.reportStats(now, show, graphics);
      return true;
    }
    this.workSize.choose(now, this.outputs.hasStage, graphics.clock.costMs, 1000 / show.canvas.fps);
    const dt = this.advance(now, show);
    if (played.transport.preroll) this.preroll(show, graphics);
    else {
      if (!this.deskIsHidden || this.outputs.hasStage || this.isTaken(show))
        this.drawFrame(now, dt, show, graphics);
    }
    this.shareSound();
    if (!this.isUnpainted) this.report(now, show, graphics);
    return false;
  }

  private shareSound(): void {
    const state = this.sharesSound && this.showHears ? this.inputs.heardFromDevice : null;
    if (state) this.tell({ type: 'sound-shared', packed: packHeard({ number: ++this.soundNumber, state }) });
  }

  /** Brings the performance to a moment of the clock; gives the seconds that what has a memory goes on by. */
  private advance(now: number, show: Show): number {
    const { performance: played } = this;
    const real = (now - this.lastNow) / 1000;
    this.lastNow = now;
    const dt = played.transport.preroll ? 0 : played.transport.advance(real, show.canvas.fps);
    played.advance(real, this.heard());
    return dt;
  }

  /** What the running order hears of the outside. */
  private heard(): Heard {
    const { inputs } = this;
    const { time } = this.performance.transport;
    return { controllers: inputs.controllers, sound: inputs.soundPlace(time), code: inputs.codeAt(time) };
  }

  /** Whether a scene can be seen whole, so that its transition may begin. Where nobody sees the program, it need not wait. */
  private isReady(scene: string): boolean {
    for (const source of this.outputs.sources())
      if (isOnAir(source)) {
        const { incoming } = this.performance.program.state;
        if (incoming !== this.waitedFor.scene) this.waitedFor = { scene: incoming, since: performance.now() };
        const isLate = incoming !== null && performance.now() - this.waitedFor.since > longestTakeWaitMs;
        return isLate || this.players.isComplete(scene);
      }
    return true;
  }

  /**
   * Whether a frame must wait: for its time, or for a GPU that has enough to do. One that can't keep up would be given new work
   * the moment it is done, and the browser, which may paint the page with the same GPU, would never have its turn.
   */
  private mustWait(now: number, clock: GpuClock): boolean {
    const { costMs } = clock;
    if (this.isUnpainted) return true;
    if (costMs <= busyFrameMs) return clock.behind >= maxFramesInFlight;
    const rest = Math.min(longestRestMs, costMs * restShare);
    return clock.behind > 0 || now - Math.max(clock.lastDone, this.lastNow) < rest;
  }

  private preroll(show: Show, { gpu, clock }: Graphics): void {
    const { transport } = this.performance;
    this.players.bring(gpu, show, this.wantedScenes(show, [...this.outputs.sources()]).keys());
    const start = performance.now();
    // Who asks for a moment of his own gets each frame on the way; who joins a performance is waited for.
    const stride = this.performance.isFollowing ? strideAt(clock.costMs, show.canvas.fps) : 1;
    const mostSteps = stride > 1 ? mostStepsAt(clock.costMs) : undefined;
    const isDrawn = prerollFrames(transport.preroll!, show, this.players.playing, stride, (moment) => ({
      moment,
      live: this.inputs.at(moment.time, this.hearing || this.showHears),
      canvas: this.workSize.of(show.canvas),
      feedback: this.feedbackClock.next(moment.dt, mostSteps),
    }));
    if (isDrawn) clock.mark(start);
    if (transport.preroll!.next > transport.preroll!.last)
      this.performance.endPreroll(this.clockAt(this.lastNow));
  }

  /** Whether any string is fed. */
  private feedsStrings(show: Show): boolean {
    return this.strings.isFed(show, this.outputs.showsRoom);
  }

  /** Whether what is on air goes anywhere beside its outputs. */
  private isTaken(show: Show): boolean {
    return this.takers.takesProgram || this.feedsStrings(show);
  }

  private drawFrame(now: number, dt: number, show: Show, graphics: Graphics): void {
    const { gpu, clock } = graphics;
    const start = performance.now();
    gpu.passes = 0;
    // The frame after that has been painted too.
    if (this.freshIn < this.frames - 1) this.setMaking(false);
    const moment = this.performance.moment(dt);
    const { transport } = this.performance;
    const frame: Frame = {
      moment,
      live: this.inputs.at(transport.time, this.hearing || this.showHears),
      canvas: this.workSize.of(show.canvas),
      // Whoever steps by hand looks at what a frame does: it is exact, and nothing has to move.
      feedback: this.feedbackClock.next(dt, transport.playing ? mostStepsAt(clock.costMs) : undefined),
    };
    const measuring = clock.canMeasure && this.frames % 20 === 5;
    const sources: OutputSource[] = [...this.outputs.sources()];
    const isTaken = this.isTaken(show);
    clock.beginFrame(measuring);
    const taken = this.taken(show, sources);
    this.players.play(
      gpu,
      show,
      frame,
      {
        scenes: this.wantedScenes(show, isTaken ? [...sources, { type: 'program' }] : sources),
        sources,
        ready: this.isPlayed() ? this.performance.ready : [],
        isEasy: clock.costMs <= busyFrameMs,
        isDeskAlone: !this.outputs.hasStage && !this.takers.isRecording,
        first: this.returningScenes(now),
        isDraft: this.usesDrafts && !this.outputs.hasStage && !isTaken,
      },
      (player, scene) => {
        player.taken = taken;
        player.renderer.measure =
          measuring && scene === this.watch.scene ? (node, draw) => clock.measure(node, draw) : null;
      },
    );
    // A picture is handed over by a wait for all that was drawn before it. In software, everybody else who draws would wait too,
    // the page above all: what takes long is handed over once it is done.
    const takesLong = clock.costMs > busyFrameMs || this.freshIn === this.frames;
    this.isUnpainted = takesLong && gpu.passes > 0;
    if (!this.isUnpainted) this.paint(now, show, graphics);
    clock.endFrame();
    this.cpuMs = this.cpuMs * 0.9 + (performance.now() - start) * 0.1;
    this.frames++;
    if (now - this.trimmedAt >= trimMs) {
      this.trimmedAt = now;
      gpu.trim();
    }
    if (gpu.passes > 0) clock.mark(now);
    else clock.markStill(now);
  }

  private setMaking(isMaking: boolean): void {
    if (isMaking === this.isMaking) return;
    this.isMaking = isMaking;
    if (this.timings === 0) this.tell({ type: 'making', on: isMaking });
  }

  /** Whether a show is being played, and not only built: then what may come next is kept ready. */
  private isPlayed(): boolean {
    const { outputs, takers } = this;
    return (
      outputs.hasStage || takers.isRecording || [...outputs.sources()].some(({ type }) => type === 'next')
    );
  }

  /**
   * The only parts of the canvas that somebody looks at: those of screens and strings. Null: all of it, where the desk or the room shows
   * it, or where what lies on the program looks beyond a place.
   */
  private taken(show: Show, sources: readonly OutputSource[]): readonly ShareBox[] | null {
    if (this.watch.scene || this.takers.takesProgram || this.painter.looksAround(show)) return null;
    const parts: OutputPart[] = [];
    for (const source of sources) {
      const output = source.type === 'screen' && windowOutputOf(show, source.id);
      if (output) parts.push(partOf(output));
      else return null;
    }
    for (const output of show.wall.outputs) if (output.type === 'string') parts.push(partOf(output));
    return takenBoxes(parts, show.canvas);
  }

  /** Scenes somebody looks at, with the nodes whose output is wanted beside the picture. */
  private wantedScenes(show: Show, sources: readonly OutputSource[]): Map<string, string[]> {
    const wanted = new Map<string, string[]>();
    const want = (scene: string | null, ...nodes: readonly (string | null)[]): void => {
      if (!scene || !show.scenes.some(({ id }) => id === scene)) return;
      const list = wanted.get(scene) ?? [];
      wanted.set(scene, list);
      for (const node of nodes) if (node && !list.includes(node)) list.push(node);
    };
    const { next } = this.performance.program.state;
    const { onAir } = this.performance;
    for (const source of sources) {
      if (isOnAir(source)) for (const scene of onAir) want(scene);
      else if (source.type === 'next') want(next);
      else if (source.type === 'node') want(source.scene, source.node);
      else if (source.type === 'scene') want(source.scene);
    }
    const { scene, cards, bench, inspected } = this.watch;
    want(scene, ...cards, bench, inspected);
    return wanted;
  }

  /**
   * Scenes that have to be seen whole since the graphics came back: the last pictures before stay until then, and nothing else is made, so that
   * they are soon. Null: they are there, or have taken too long.
   */
  private returningScenes(now: number): ReadonlySet<string> | null {
    let scenes: readonly string[] = [];
    const isReturning = this.graphics.isReturning(now, () => {
      const isSeen = [...this.outputs.sources()].some(isOnAir);
      scenes = isSeen || !this.watch.scene ? this.performance.onAir : [this.watch.scene];
      return scenes.every((id) => this.players.isComplete(id));
    });
    return isReturning ? new Set(scenes) : null;
  }

  /** The stage is painted last, and stands as it is while it is frozen. */
  private paint(now: number, show: Show, graphics: Graphics): void {
    if (this.returningScenes(now)) return;
    const { layer, feedbackWatch, darkWatch, clock } = graphics;
    this.painter.begin(this.frames, now / 1000);
    this.painter.paint('desk', show, graphics);
    const { scene } = this.watch;
    const watched = scene ? this.players.playing.get(scene) : undefined;
    const easy = clock.frameMs < 500 / show.canvas.fps;
    if (scene && watched) {
      layer.note(watched);
      this.paintLayer(now, graphics, easy);
      feedbackWatch.turn(now, watched, easy);
      darkWatch.turn(now, scene, watched, easy);
    }
    this.outputs.handOver();
    this.painter.paint('stage', show, graphics);
    this.painter.feedStrings(now, show, this.strings, graphics);
    if (this.isPlayed()) this.painter.countFlashes(now, show, graphics);
    const { time, playing } = this.performance.transport;
    // A frame of the show has half of its time left.
    const isEasy = clock.costMs < 500 / show.canvas.fps;
    this.takers.frame(now, graphics, playing ? time : null, isEasy, (target) =>
      this.painter.drawProgram(show, graphics, target),
    );
    this.painter.keepStandIn(now, show, graphics);
  }

  /** Paints the live layer of the patch, unless the page has not taken the last one. */
  private paintLayer(now: number, { gpu, layer }: Graphics, easy: boolean): void {
    const { layout } = this;
    const player = layout && this.players.playing.get(layout.scene);
    if (!layout || !player || this.layerIsOut || !layer.hasNews(layout, player)) return;
    const { width, height, ratio, view, scene } = layout;
    this.outputs.least = { width, height };
    const size = this.outputs.fit(gpu);
    layer.paint(layout, player, now, !easy);
    this.layerIsOut = true;
    this.layoutIsNew = false;
    const bitmap = gpu.canvas.transferToImageBitmap();
    const share: [number, number] = [width / size.width, height / size.height];
    this.tell({ type: 'layer-painted', bitmap, share, layout: { scene, width, height, ratio, view } }, [
      bitmap,
    ]);
  }

  /** Comes with the pictures that show it: whatever the page is told apart, it puts together by itself, and paints, apart. */
  private report(now: number, show: Show, graphics: Graphics): void {
    this.reportPerformance(now);
    const { clock, feedbackWatch, flashes } = graphics;
    const { reports, players, watch } = this;
    const player = watch.scene ? players.playing.get(watch.scene) : undefined;
    if (player) reports.glance(now, player, watch, clock.frameMs);
    if (this.hearing) reports.heard(now, () => this.inputs.meter());
    reports.faults(now, players.playing, watch.scene, feedbackWatch);
    reports.pixels(now, () => (this.feedsStrings(show) ? this.strings.report(now) : null));
    reports.flashes(now, () => (this.isPlayed() ? flashes.report() : null));
    this.reportStats(now, show, graphics);
  }

  private reportStats(now: number, show: Show, { gpu, clock }: Graphics): void {
    this.reports.stats(now, gpu, clock, {
      stageFrames: this.outputs.stageFrames,
      frames: this.frames,
      cpuMs: this.cpuMs,
      ...this.workSize.of(show.canvas),
    });
  }

  private async answer(id: number, request: EngineRequest): Promise<void> {
    const isTiming = request.type === 'cost';
    if (isTiming && this.timings++ === 0) this.tell({ type: 'making', on: true });
    try {
      const graphics = this.graphics.usable;
      if (!graphics) throw new Error('The graphics card is away. Try again.');
      const answer = await graphics.questions.answer(request, this.show!);
      const transfer = 'png' in answer ? [answer.png] : [];
      this.tell({ type: 'answer', id, answer }, transfer);
    } catch (error) {
      this.tell({ type: 'refusal', id, message: error instanceof Error ? error.message : String(error) });
    } finally {
      if (isTiming && --this.timings === 0) this.tell({ type: 'making', on: this.isMaking });
    }
  }
}
