import { timeAt, type PerformanceState } from '../../core/desk/performance-state';
import { transitionSeconds, transitionStart } from '../../core/show/transition';
import type { Cue, Move, Show, Snapshot, Transition } from '../../core/document/types';
import { assertNever } from '../../core/assert-never';
import { CueRun, beforeCues, type CueClock } from '../../core/desk/cue-run';
import type { PerformanceCommand } from '../../core/desk/command';
import { DeskRun } from '../../core/desk/desk-run';
import { MovePlayer, MoveRecorder } from '../../core/desk/moves';
import type { Catalogue } from '../../core/kind/kind';
import type { ControllerState } from '../../core/inputs/inputs';
import type { Moment } from '../../core/time/clock';
import { DeskHands } from './desk-hands';
import { Hits } from './hits';
import { ProgramBus } from './program-bus';
import { Transport } from './transport';

/** What a running order hears and sees of the outside. */
export interface Heard {
  controllers: ControllerState;
  /** Second of the sound; null: there is none that has places. */
  sound: number | null;
  /** Seconds of time code; null: none comes. */
  code: number | null;
}

/** Shows as they are played: at the tempo of the moment. */
type Played = Pick<Show, 'canvas' | 'tempo'>;

/** Owns all of a performance that is not in the show: time, what is on air, the desk, cues, moves, blackout and freeze. */
export class Performance {
  readonly transport = new Transport();
  readonly program = new ProgramBus();
  readonly desk: DeskRun;
  readonly cues = new CueRun();
  readonly hits = new Hits();
  private readonly hands: DeskHands;
  private readonly recorder = new MoveRecorder();
  private readonly replayer = new MovePlayer();
  private isRecording = false;
  private isReplaying = false;
  /** How the performance on another machine stood, while that is followed. */
  private followed: PerformanceState | null = null;
  /** What is done now is part of something that is noted as a whole, or is played again: it is not noted itself. */
  private isQuiet = false;
  /** What a cue was doing when a hand interrupted it. */
  private interrupted: ReturnType<DeskRun['stopWays']> | null = null;
  /** The scene that the running order has made ready. */
  private nextByCue: string | null = null;
  /** A snapshot that is recalled when a beat has come. */
  private waitingRecall: { snapshot: string; seconds: number; beat: number } | null = null;
  private layer: PerformanceState['layer'] = null;
  private motion = 1;
  private bpm: number | null = null;
  blackout = false;
  freeze = false;
  private reports = 0;
  private show: Show | null = null;
  private played: Played | null = null;

  constructor(
    catalogue: Catalogue,
    /** Seconds of a clock that does not stop: flashes are counted by it. */
    private readonly seconds: () => number = () => performance.now() / 1000,
  ) {
    this.desk = new DeskRun(catalogue);
    this.hands = new DeskHands(this.desk);
  }

  /**
   * Begins at a scene; or goes on from what an engine that is gone last reported, by as much later as it is now. `now`: milliseconds of the
   * clock of this machine.
   */
  open(show: Show, program: string, resume: PerformanceState | null, now = 0): void {
    const scenes = show.scenes.map((scene) => scene.id);
    this.show = show;
    this.bpm = resume?.bpm ?? null;
    this.played = null;
    this.transport.open(resume ? timeAt(resume, now) : 0, resume?.transport.playing ?? true);
    this.transport.range = resume?.transport.range ?? null;
    this.transport.speed = resume?.masters.speed ?? 1;
    this.transport.ahead = resume?.transport.ahead ?? 0;
    this.motion = resume?.masters.motion ?? 1;
    if (resume) this.program.resume(resume.program, scenes);
    else this.program.open(program, scenes);
    this.desk.open(show, resume?.desk.values);
    this.cues.open(resume?.cues ?? beforeCues);
    this.cues.keepTo(show.cues);
    this.layer = resume?.layer && scenes.includes(resume.layer.scene) ? resume.layer : null;
    this.isReplaying = resume?.moves.replaying ?? false;
    this.isRecording = false;
    this.followed = null;
    this.recorder.take();
    this.replayer.stop();
    this.hits.clear();
    this.hands.forget();
    this.interrupted = null;
    this.waitingRecall = null;
    this.blackout = resume?.blackout ?? false;
    this.freeze = resume?.freeze ?? false;
  }

  /**
   * Stands as a performance on another machine does, and from then on does nothing by itself but go on. `now`: milliseconds of the clock of
   * this machine, as `state.at` is.
   */
  follow(state: PerformanceState, now: number): void {
    const { show, transport, hits } = this;
    if (!show) return;
    this.followed = state;
    const { bpm, speed, motion } = { bpm: state.bpm, ...state.masters };
    if (bpm !== this.bpm) this.played = null;
    Object.assign(this, { bpm, motion, blackout: state.blackout, freeze: state.freeze });
    transport.playing = state.transport.playing;
    transport.range = state.transport.range;
    transport.speed = speed;
    const time = timeAt(state, now);
    transport.ahead = state.transport.ahead + (time - state.transport.time) * (speed - 1);
    transport.follow(time, state.transport.beat + ((time - state.transport.time) * state.transport.bpm) / 60);
    const scenes = show.scenes.map(({ id }) => id);
    this.program.resume(state.program, scenes);
    // A transition goes on by the clock on the wall, also while the show stands.
    if (state.at > 0) this.program.advance(Math.max(0, now - state.at) / 1000);
    this.layer = state.layer && scenes.includes(state.layer.scene) ? state.layer : null;
    this.desk.follow(state.desk.values);
    for (const hit of ['strobe', 'invert', 'flash'] as const)
      if (state.hits.includes(hit) !== hits.active.includes(hit))
        hits.press(hit, state.hits.includes(hit), this.seconds());
  }

  get isFollowing(): boolean {
    return this.followed !== null;
  }

  /** The way to the goal of a jump was run: what is followed has gone on meanwhile, and what passed there comes next. `now`: by the page's clock. */
  endPreroll(now: number): void {
    const { transport, followed, show } = this;
    if (followed && show) {
      transport.catchUp(timeAt(followed, now), show.canvas.fps);
      this.follow(followed, now);
    } else transport.preroll = null;
  }

  /** Goes on by itself from where the performance that was followed stood: its running order, and what was played again. */
  lead(): void {
    const { show, followed } = this;
    if (!show || !followed) return;
    this.followed = null;
    this.cues.open(followed.cues);
    this.cues.keepTo(show.cues);
    this.isReplaying = followed.moves.replaying;
  }

  /** Takes an edited show: scenes that are gone leave the air, and beats go on from where they are. */
  changeShow(before: Show, show: Show): void {
    if (before.tempo.bpm !== show.tempo.bpm) {
      this.transport.changeTempo(this.tempoOf(before));
      this.bpm = null;
    }
    this.show = show;
    this.played = null;
    const scenes = show.scenes.map((scene) => scene.id);
    this.program.keepTo(scenes);
    this.desk.takeShow(show);
    this.cues.keepTo(show.cues);
    if (this.layer && !scenes.includes(this.layer.scene)) this.layer = null;
  }

  private tempoOf(show: Show): Show['tempo'] {
    return this.bpm === null ? show.tempo : { ...show.tempo, bpm: this.bpm };
  }

  /** The show at the tempo of the moment. */
  private get now(): Played {
    return (this.played ??= { canvas: this.show!.canvas, tempo: this.tempoOf(this.show!) });
  }

  /** The moment of the picture, with what masters make of it. */
  moment(dt: number): Moment {
    const moment = this.transport.moment(dt, this.now);
    return this.motion === 1 ? moment : { ...moment, motion: this.motion };
  }

  private get beat(): number {
    return this.transport.moment(0, this.now).beat;
  }

  /** Scene that lies over the program, and how. */
  get overlay(): PerformanceState['layer'] {
    return this.layer;
  }

  /** Scenes whose pictures make up what is on air. */
  get onAir(): string[] {
    const { program, incoming, look } = this.program.state;
    const mask = (look ?? this.show?.transition)?.mask;
    const masks = incoming && mask?.from === 'scene' ? mask.id : null;
    const ids = [program, incoming, this.overlay?.scene, masks];
    return [...new Set(ids.filter((id): id is string => Boolean(id)))];
  }

  /** Scenes that may go on air at any moment: they are kept ready. */
  get ready(): string[] {
    const { show } = this;
    if (!show) return [];
    const cue = this.upcoming(show);
    const home = show.home.scene ?? show.scenes[0]?.id;
    return [this.program.state.next, cue?.scene, home].filter((id): id is string => Boolean(id));
  }

  private upcoming(show: Show): Cue | null {
    const at = show.cues.findIndex(({ id }) => id === this.cues.state.at);
    for (const cue of show.cues.slice(at + 1)) if (cue.scene) return cue;
    return null;
  }

  private note(move: Move): void {
    if (this.isRecording && !this.isQuiet) this.recorder.note(move);
  }

  private get at(): number {
    return Math.round(this.transport.time * 1e4) / 1e4;
  }

  private recall({ id, values }: Snapshot, seconds: number): void {
    this.waitingRecall = null;
    this.desk.moveTo(values, seconds, this.transport.time);
    this.note({ type: 'recall', at: this.at, snapshot: id, seconds });
  }

  /** A recall that waited for a beat begins. */
  private recallWaiting(show: Show): void {
    const { waitingRecall } = this;
    if (!waitingRecall || this.beat < waitingRecall.beat) return;
    const snapshot = show.snapshots.find(({ id }) => id === waitingRecall.snapshot);
    this.waitingRecall = null;
    if (snapshot) this.recall(snapshot, waitingRecall.seconds);
  }

  private setTempo(bpm: number): void {
    if (!this.show || !(bpm >= 10 && bpm <= 400)) return;
    this.transport.changeTempo(this.tempoOf(this.show));
    this.bpm = bpm;
    this.played = null;
    this.note({ type: 'tempo', at: this.at, bpm });
  }

  /** Brings a scene on air, when its transition begins. */
  private take(show: Show, scene: string, seconds: number, look: Transition | null = null): void {
    if (!show.scenes.some(({ id }) => id === scene)) return;
    this.note({ type: 'take', at: this.at, scene, seconds });
    const beat = transitionStart({ ...this.now, transition: look ?? show.transition }, this.beat);
    // A show that stands would never come to its next beat.
    if (beat === null || !this.transport.playing) this.program.take(scene, seconds, look);
    else this.program.wait(scene, seconds, beat, look);
  }

  /** A hand has the program: what the running order would do by itself waits. */
  private interrupt(): void {
    if (!this.cues.state.held && this.cues.state.at !== null)
      this.interrupted = this.desk.stopWays(this.transport.time);
    this.cues.hold(this.clock());
  }

  private clock(heard?: Heard): CueClock {
    const notes: Record<string, number> = {};
    for (const [key, { presses }] of Object.entries(heard?.controllers.midi.notes ?? {}))
      notes[key] = presses;
    return {
      time: this.transport.time,
      beat: this.beat,
      sound: heard?.sound ?? null,
      notes,
      code: heard?.code ?? null,
    };
  }

  private quietly(work: () => void): void {
    const was = this.isQuiet;
    this.isQuiet = true;
    try {
      work();
    } finally {
      this.isQuiet = was;
    }
  }

  /** A cue begins. */
  private begin(show: Show, cue: Cue): void {
    this.note({ type: 'cue', at: this.at, cue: cue.id });
    this.quietly(() => this.carryOut(show, cue));
  }

  private carryOut(show: Show, cue: Cue): void {
    this.interrupted = null;
    if (cue.bpm !== null) this.setTempo(cue.bpm);
    const look = cue.transition;
    const { incoming, program } = this.program.state;
    if (cue.scene && (incoming ?? program) !== cue.scene)
      this.take(
        show,
        cue.scene,
        transitionSeconds({ ...this.now, transition: look ?? show.transition }),
        look,
      );
    const snapshot = show.snapshots.find(({ id }) => id === cue.snapshot);
    if (snapshot) this.desk.moveTo(snapshot.values, cue.seconds, this.transport.time);
    for (const { control, value, seconds } of cue.moves)
      this.desk.moveTo({ [control]: value }, seconds, this.transport.time, false);
    // What a hand has made ready stays ready.
    const { next } = this.program.state;
    if (next === null || next === this.nextByCue || next === cue.scene) {
      this.nextByCue = this.upcoming(show)?.scene ?? null;
      this.program.setNext(this.nextByCue);
    }
  }

  private cue(show: Show, what: Extract<PerformanceCommand, { type: 'cue' }>['do']): void {
    const { cues } = this;
    const now = this.clock();
    switch (what) {
      case 'go':
      case 'leave':
      case 'back': {
        const cue = what === 'back' ? cues.back(show.cues, now) : cues.go(show.cues, now, what === 'leave');
        if (cue) this.begin(show, cue);
        break;
      }
      case 'hold':
        this.interrupt();
        break;
      case 'resume': {
        cues.resume(now);
        const cue = show.cues.find(({ id }) => id === cues.state.at);
        const left = this.interrupted;
        this.interrupted = null;
        if (left) this.desk.moveTo(left.values, left.seconds, this.transport.time);
        const { incoming, program } = this.program.state;
        if (cue?.scene && (incoming ?? program) !== cue.scene)
          this.take(
            show,
            cue.scene,
            transitionSeconds({ ...this.now, transition: cue.transition ?? show.transition }),
            cue.transition,
          );
        break;
      }
      default:
        assertNever(what);
    }
  }

  /** Home at once: what is on stage is safe whatever was done before. */
  private panic(show: Show): void {
    const scene = show.home.scene ?? show.scenes[0]?.id;
    const snapshot = show.snapshots.find(({ id }) => id === show.home.snapshot);
    this.interrupt();
    this.hits.clear();
    this.layer = null;
    this.blackout = false;
    this.freeze = false;
    this.motion = 1;
    this.transport.speed = 1;
    this.isReplaying = false;
    this.transport.playing = true;
    const moved = Object.keys(this.desk.values);
    this.desk.home(null, this.transport.time);
    if (snapshot) this.desk.moveTo(snapshot.values, 0, this.transport.time, false);
    this.noteDesk(moved);
    if (scene) this.note({ type: 'take', at: this.at, scene, seconds: 0 });
    if (scene) this.program.cut(scene);
  }

  apply(command: PerformanceCommand, show: Show): void {
    const { desk, transport, program } = this;
    switch (command.type) {
      case 'play':
        transport.playing = command.playing;
        break;
      case 'step':
        transport.step();
        break;
      case 'seek':
        if (command.exactly) transport.jumpExactly(command.time, show.canvas.fps);
        else transport.jump(command.time);
        break;
      case 'range':
        transport.range = command.range;
        break;
      case 'take':
        this.interrupt();
        this.take(show, command.scene, command.seconds);
        break;
      case 'take-next': {
        const { next, incoming, byHand } = program.state;
        this.interrupt();
        if (byHand && incoming) program.take(incoming, command.seconds);
        else if (next) this.take(show, next, command.seconds);
        program.setNext(null);
        break;
      }
      case 'next':
        program.setNext(command.scene);
        break;
      case 'crossfade':
      case 'crossfade-by':
        this.interrupt();
        program.crossfade(command.type === 'crossfade' ? command.to : program.state.fade + command.by);
        this.noteFade();
        break;
      case 'blackout':
        this.blackout = command.on ?? !this.blackout;
        this.note({ type: 'switch', at: this.at, what: 'blackout', on: this.blackout });
        break;
      case 'freeze':
        this.freeze = command.on ?? !this.freeze;
        this.note({ type: 'switch', at: this.at, what: 'freeze', on: this.freeze });
        break;
      case 'desk':
        desk.set(command.control, command.value, transport.time);
        this.noteDesk([command.control]);
        break;
      case 'turn':
      case 'turn-by':
      case 'flip':
      case 'press':
        if (this.hands.play(command, transport.time)) this.noteDesk([command.control]);
        break;
      case 'desk-home':
        desk.home(command.control, transport.time);
        this.noteDesk(command.control ? [command.control] : Object.keys(desk.values));
        break;
      case 'desk-undo': {
        const before = Object.keys(desk.values);
        if (desk.undo()) this.noteDesk([...before, ...Object.keys(desk.values)]);
        break;
      }
      case 'recall': {
        const snapshot = show.snapshots.find(({ id }) => id === command.snapshot);
        if (!snapshot) break;
        const { seconds, start = 'now' } = command;
        const beat = transitionStart({ ...this.now, transition: { ...show.transition, start } }, this.beat);
        // A show that stands would never come to its next beat.
        if (beat === null || !transport.playing) this.recall(snapshot, seconds);
        else this.waitingRecall = { snapshot: snapshot.id, seconds, beat };
        break;
      }
      case 'morph':
        this.noteDesk(this.hands.morph(show, command.page, command.at, transport.time));
        break;
      case 'cue':
        this.cue(show, command.do);
        break;
      case 'cue-jump': {
        const cue = this.cues.jump(show.cues, command.cue, this.clock());
        if (cue) this.begin(show, cue);
        break;
      }
      case 'master':
        if (command.master === 'speed') transport.speed = Math.min(4, Math.max(0, command.value));
        else this.motion = Math.min(2, Math.max(0, command.value));
        this.note({ type: 'master', at: this.at, master: command.master, value: command.value });
        break;
      case 'layer':
        if (command.layer && !show.scenes.some(({ id }) => id === command.layer!.scene)) break;
        this.layer = command.layer;
        this.note({ type: 'layer', at: this.at, layer: command.layer });
        break;
      case 'hit':
        this.hits.press(command.hit, command.on, this.seconds());
        this.note({ type: 'hit', at: this.at, hit: command.hit, on: command.on });
        break;
      case 'panic':
        this.panic(show);
        break;
      case 'tempo':
        this.setTempo(command.bpm);
        break;
      case 'record':
        this.isRecording = command.on;
        break;
      case 'replay':
        this.isReplaying = command.on;
        this.replayer.stop();
        break;
      default:
        assertNever(command);
    }
  }

  private noteDesk(controls: Iterable<string>): void {
    for (const control of new Set(controls)) {
      const value = this.desk.valueOf(control);
      if (value !== null) this.note({ type: 'desk', at: this.at, control, value });
    }
  }

  private noteFade(): void {
    const { incoming, program, fade } = this.program.state;
    this.note({ type: 'crossfade', at: this.at, scene: incoming ?? program, to: incoming ? fade : 1 });
  }

  private replay(show: Show): void {
    if (!this.isReplaying || !this.transport.playing) return;
    for (const move of this.replayer.at(show.moves, this.transport.time)) {
      switch (move.type) {
        case 'desk':
          // Who moves a control last wins: only what is due now is played.
          this.desk.set(move.control, move.value, null);
          break;
        case 'take':
          this.take(show, move.scene, move.seconds);
          break;
        case 'crossfade': {
          const { program, incoming } = this.program.state;
          if (incoming === null && program !== move.scene) this.program.setNext(move.scene);
          this.program.crossfade(move.to);
          break;
        }
        case 'tempo':
          this.setTempo(move.bpm);
          break;
        case 'cue':
        case 'recall':
          this.again(show, move);
          break;
        case 'master':
          this.apply({ type: 'master', master: move.master, value: move.value }, show);
          break;
        case 'layer':
          this.apply({ type: 'layer', layer: move.layer }, show);
          break;
        case 'hit':
          this.apply({ type: 'hit', hit: move.hit, on: move.on }, show);
          break;
        case 'switch':
          this.apply({ type: move.what, on: move.on }, show);
          break;
        default:
          assertNever(move);
      }
    }
  }

  private again(show: Show, move: Extract<Move, { type: 'cue' | 'recall' }>): void {
    if (move.type === 'cue') {
      const cue = this.cues.jump(show.cues, move.cue, this.clock());
      if (cue) this.begin(show, cue);
    } else this.apply(move, show);
  }

  /** What the running order, recorded moves and beats have this machine do. */
  private goOn(show: Show, heard: Heard): void {
    this.quietly(() => this.replay(show));
    this.recallWaiting(show);
    // What was recorded has its cues in it.
    if (!this.isReplaying)
      for (const cue of this.cues.advance(show.cues, this.clock(heard))) this.begin(show, cue);
  }

  /** Goes on by so many seconds of the clock on the wall. */
  advance(real: number, heard: Heard): void {
    const { show } = this;
    if (!show) return;
    if (!this.followed) this.goOn(show, heard);
    this.program.advance(real, this.beat);
    this.desk.advance(this.moment(0), this.transport.time);
  }

  /** Moves that were recorded since the last call, once recording has ended; null while there is nothing to hand over. */
  takeRecorded(): { moves: Move[]; end: number } | null {
    if (this.isRecording || this.recorder.count === 0) return null;
    return { moves: this.recorder.take(), end: this.at };
  }

  /** A numbered report of all of it, as it stood when the clock of this machine had so many milliseconds; 0: not known. */
  report(at = 0): PerformanceState {
    const { playing, range, preroll, speed, time, ahead } = this.transport;
    const { beat, bpm, fps } = this.transport.moment(0, this.now);
    const done = preroll ? (preroll.next - preroll.first) / (preroll.last + 1 - preroll.first) : 1;
    return {
      number: ++this.reports,
      at,
      transport: { playing, time, ahead, frame: Math.floor(time * fps + 1e-6), beat, range, done, bpm },
      program: this.program.state,
      blackout: this.blackout,
      freeze: this.freeze,
      desk: {
        version: this.desk.version,
        values: this.desk.values,
        canUndo: this.desk.canUndo,
        underWay: this.desk.underWay,
      },
      cues: this.cues.state,
      masters: { speed, motion: this.motion },
      layer: this.layer,
      hits: this.hits.active,
      bpm: this.bpm,
      moves: { recording: this.isRecording, replaying: this.isReplaying, fresh: this.recorder.count },
    };
  }
}
