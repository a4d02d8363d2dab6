import { transitionStart } from '../../core/show/transition';
import type { Show } from '../../core/document/types';
import { assertNever } from '../../core/assert-never';
import type { PerformanceCommand, PerformanceState } from '../protocol/protocol';
import { ProgramBus } from './program-bus';
import { Transport } from './transport';

/** Owns all of a performance that is not in the show: time, what is on air, blackout and freeze. */
export class Performance {
  readonly transport = new Transport();
  readonly program = new ProgramBus();
  blackout = false;
  freeze = false;
  private reports = 0;

  /** Begins at a scene; or goes on from what an engine that is gone last reported. */
  open(show: Show, program: string, resume: PerformanceState | null): void {
    const scenes = show.scenes.map((scene) => scene.id);
    this.transport.open(resume?.transport.time ?? 0, resume?.transport.playing ?? true);
    this.transport.range = resume?.transport.range ?? null;
    if (resume) this.program.resume(resume.program, scenes);
    else this.program.open(program, scenes);
    this.blackout = resume?.blackout ?? false;
    this.freeze = resume?.freeze ?? false;
  }

  /** Takes an edited show: scenes that are gone leave the air, and beats go on from where they are. */
  changeShow(before: Show, show: Show): void {
    if (before.tempo.bpm !== show.tempo.bpm) this.transport.changeTempo(before.tempo);
    this.program.keepTo(show.scenes.map((scene) => scene.id));
  }

  apply(command: PerformanceCommand, show: Show): void {
    const take = (scene: string, seconds: number): void => {
      if (!show.scenes.some(({ id }) => id === scene)) return;
      const beat = transitionStart(show, this.transport.moment(0, show).beat);
      // A show that stands would never come to its next beat.
      if (beat === null || !this.transport.playing) this.program.take(scene, seconds);
      else this.program.wait(scene, seconds, beat);
    };
    switch (command.type) {
      case 'play':
        this.transport.playing = command.playing;
        break;
      case 'step':
        this.transport.step();
        break;
      case 'seek':
        if (command.exactly) this.transport.jumpExactly(command.time, show.canvas.fps);
        else this.transport.jump(command.time);
        break;
      case 'range':
        this.transport.range = command.range;
        break;
      case 'take':
        take(command.scene, command.seconds);
        break;
      case 'take-next': {
        const { next, incoming, byHand } = this.program.state;
        if (byHand && incoming) this.program.take(incoming, command.seconds);
        else if (next) take(next, command.seconds);
        this.program.setNext(null);
        break;
      }
      case 'next':
        this.program.setNext(command.scene);
        break;
      case 'crossfade':
        this.program.crossfade(command.to);
        break;
      case 'crossfade-by':
        this.program.crossfade(this.program.state.fade + command.by);
        break;
      case 'blackout':
        this.blackout = command.on ?? !this.blackout;
        break;
      case 'freeze':
        this.freeze = command.on ?? !this.freeze;
        break;
      default:
        assertNever(command);
    }
  }

  /** A numbered report of all of it. */
  report(show: Show): PerformanceState {
    const { playing, range, preroll } = this.transport;
    const { time, frame, beat } = this.transport.moment(0, show);
    const done = preroll ? (preroll.next - preroll.first) / (preroll.last + 1 - preroll.first) : 1;
    return {
      number: ++this.reports,
      transport: { playing, time, frame, beat, range, done },
      program: this.program.state,
      blackout: this.blackout,
      freeze: this.freeze,
    };
  }
}
