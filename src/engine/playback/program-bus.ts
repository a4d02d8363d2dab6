import { onlyProgram, type ProgramState } from '../../core/desk/performance-state';
import type { Transition } from '../../core/document/types';

/** Which scene is on stage, which comes, and how far the transition between them is. */
export class ProgramBus {
  state: ProgramState = onlyProgram('');
  /** Whether a scene can be seen whole: a transition waits until it can, so that nothing is seen half made. */
  isReady: (scene: string) => boolean = () => true;

  /** Begins with a scene, or the first there is. */
  open(wanted: string, scenes: readonly string[]): void {
    this.state = onlyProgram(scenes.includes(wanted) ? wanted : (scenes[0] ?? ''));
  }

  /** Goes on from where another engine was, in the middle of a transition too; what it waited for was in its time. */
  resume(state: ProgramState, scenes: readonly string[]): void {
    this.state = { ...state, waiting: null };
    this.keepTo(scenes);
  }

  private change(change: Partial<ProgramState>): void {
    this.state = { ...this.state, ...change };
  }

  /** The transition is over at this scene. */
  private end(program: string): void {
    this.change({ program, incoming: null, fade: 0, byHand: false, look: null });
  }

  /** Scenes that are gone leave the stage: to the one that was coming, else to the first. */
  keepTo(scenes: readonly string[]): void {
    const { program, incoming } = this.state;
    if (!scenes.includes(program)) this.end(incoming ?? scenes[0] ?? '');
    if (this.state.incoming && !scenes.includes(this.state.incoming)) this.end(this.state.program);
    if (this.state.next && !scenes.includes(this.state.next)) this.change({ next: null });
    if (this.state.waiting && !scenes.includes(this.state.waiting.scene)) this.change({ waiting: null });
  }

  setNext(next: string | null): void {
    this.change({ next });
  }

  /** Brings a scene on when a beat has come. */
  wait(scene: string, seconds: number, beat: number, look: Transition | null = null): void {
    this.change({ waiting: { scene, seconds, beat, look } });
  }

  /** Brings a scene on in so many seconds; at once for 0. `look`: null as the show says. */
  take(scene: string, seconds: number, look: Transition | null = null): void {
    const { program, incoming, fade } = this.state;
    if (this.state.waiting) this.change({ waiting: null });
    if (scene === incoming) {
      // A hand has brought it part of the way: the rest goes by itself.
      if (this.state.byHand) this.change({ byHand: false, seconds });
      if (seconds <= 0) this.end(scene);
      return;
    }
    if (incoming === null && scene === program) return;
    // Taken again during a transition: what is more visible is where the new one starts.
    const from = incoming !== null && fade >= 0.5 ? incoming : program;
    this.change({
      program: from,
      incoming: from === scene ? null : scene,
      fade: 0,
      seconds,
      byHand: false,
      look,
    });
    if (seconds <= 0 && this.isReady(scene)) this.end(scene);
  }

  /** Brings a scene on air at once, whatever was under way and however much of it can be seen. */
  cut(scene: string): void {
    this.change({ waiting: null });
    this.end(scene);
  }

  /** Moves the crossfader, 0..1: the next scene comes as far as the hand brings it, and is on air at 1. */
  crossfade(to: number): void {
    const { next, program } = this.state;
    if (this.state.incoming === null) {
      if (next === null || next === program || to <= 0) return;
      this.change({ incoming: next, waiting: null, look: null });
    }
    if (to >= 1) {
      const incoming = this.state.incoming!;
      this.end(incoming);
      if (this.state.next === incoming) this.change({ next: null });
    } else if (to <= 0) this.end(program);
    else this.change({ fade: to, byHand: true });
  }

  /** `beat`: where the show is now. */
  advance(seconds: number, beat = 0): void {
    const { waiting } = this.state;
    if (waiting && beat >= waiting.beat) this.take(waiting.scene, waiting.seconds, waiting.look);
    const { incoming, fade, byHand } = this.state;
    if (incoming === null || byHand) return;
    if (fade === 0 && !this.isReady(incoming)) return;
    const next = this.state.seconds > 0 ? fade + seconds / this.state.seconds : 1;
    if (next >= 1) this.end(incoming);
    else this.change({ fade: next });
  }
}
