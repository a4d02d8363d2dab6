import type { PerformanceCommand } from '../../core/desk/command';
import { mayPerform, type DeskRole } from '../../core/machines/roles';
import { readCommand } from './message-check';

/** Milliseconds for which moves of faders are gathered before they are passed on. */
const gatherMs = 6;

/** What a remote desk holds: pads and hits, and what lets go of each. They are let go for a desk that is gone. */
export type Held = Map<string, PerformanceCommand>;

/** Remembers what lets go what a desk holds. */
function note(held: Held, command: PerformanceCommand): void {
  if (command.type === 'press') {
    if (command.down) held.set(`press ${command.control}`, { ...command, down: false });
    else held.delete(`press ${command.control}`);
  } else if (command.type === 'hit') {
    if (command.on) held.set(`hit ${command.hit}`, { ...command, on: false });
    else held.delete(`hit ${command.hit}`);
  }
}

/** Has done what the hands at remote desks do, as far as these may. */
export class Hands {
  /** Moves of faders that were not passed on yet, by control. */
  private readonly moves = new Map<string, PerformanceCommand>();
  private passing: NodeJS.Timeout | undefined;

  constructor(
    /** Whether there is somebody who performs. */
    private readonly isLed: () => boolean,
    /** Has commands carried out there. */
    private readonly perform: (commands: readonly PerformanceCommand[]) => void,
  ) {}

  /** Takes what was asked for at a desk; gives what is wrong with it, or nothing. */
  take(asked: unknown, desk: DeskRole, held: Held): string {
    const command = readCommand(asked);
    if (!command) return 'This is no command of Pyrvel.';
    if (!mayPerform(desk, command.type)) return 'This remote desk may not do that.';
    if (!this.isLed()) return 'The main machine is away.';
    note(held, command);
    this.pass(command);
    return '';
  }

  /** A desk is gone. */
  letGo(held: Held): void {
    for (const command of held.values()) this.pass(command);
    held.clear();
  }

  end(): void {
    clearTimeout(this.passing);
  }

  private pass(command: PerformanceCommand): void {
    if (command.type === 'desk') {
      // Many hands move many faders: of each, the main machine needs the last place it has come to.
      this.moves.delete(command.control);
      this.moves.set(command.control, command);
      this.passing ??= setTimeout(() => this.passMoves(), gatherMs);
    } else {
      this.passMoves();
      this.perform([command]);
    }
  }

  private passMoves(): void {
    clearTimeout(this.passing);
    this.passing = undefined;
    if (this.moves.size > 0) this.perform([...this.moves.values()]);
    this.moves.clear();
  }
}
