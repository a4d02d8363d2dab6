import type { ProgramState } from '../protocol/protocol';

/** Which scene is on stage, which comes, and how far the fade between them is. */
export class ProgramBus {
  state: ProgramState = { program: '', incoming: null, fade: 0, next: null };
  private fadeSeconds = 0;

  /** Begins with a scene, or the first there is. */
  open(wanted: string, scenes: readonly string[]): void {
    const program = scenes.includes(wanted) ? wanted : (scenes[0] ?? '');
    this.state = { program, incoming: null, fade: 0, next: null };
  }

  /** Scenes that are gone leave the stage: to the one that was coming, else to the first. */
  keepTo(scenes: readonly string[]): void {
    const { program, incoming } = this.state;
    if (!scenes.includes(program))
      this.state = { ...this.state, program: incoming ?? scenes[0] ?? '', incoming: null, fade: 0 };
    if (this.state.incoming && !scenes.includes(this.state.incoming))
      this.state = { ...this.state, incoming: null, fade: 0 };
    if (this.state.next && !scenes.includes(this.state.next)) this.state = { ...this.state, next: null };
  }

  setNext(next: string | null): void {
    this.state = { ...this.state, next };
  }

  /** Brings a scene on in so many seconds; at once for 0. */
  take(scene: string, seconds: number): void {
    const { program, incoming, fade } = this.state;
    if (scene === (incoming ?? program)) return;
    if (incoming !== null) {
      // Taken again during a fade: what is more visible is where the new fade starts.
      const from = fade >= 0.5 ? incoming : program;
      this.state = { ...this.state, program: from, incoming: from === scene ? null : scene, fade: 0 };
    } else this.state = { ...this.state, incoming: scene, fade: 0 };
    this.fadeSeconds = seconds;
    if (seconds <= 0) this.state = { ...this.state, program: scene, incoming: null, fade: 0 };
  }

  advance(seconds: number): void {
    const { incoming, fade } = this.state;
    if (incoming === null) return;
    const next = this.fadeSeconds > 0 ? fade + seconds / this.fadeSeconds : 1;
    this.state =
      next >= 1
        ? { ...this.state, program: incoming, incoming: null, fade: 0 }
        : { ...this.state, fade: next };
  }
}
