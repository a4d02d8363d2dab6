import type { PerformanceCommand } from '../../core/desk/command';
import type { ToEngine } from '../../engine/protocol/protocol';

interface Due {
  message: ToEngine;
  /** An engine before was told of it, and was gone before it had reported it. */
  isAgain: boolean;
}

/**
 * What the performer did and no report of an engine holds yet. Each command is done by the engine that there is, or by the next one as soon as
 * that has the show; by none a third time, since it might be what ends engines.
 */
export class DueCommands {
  /** What the engine that is being started will do. */
  private waiting: Due[] = [];
  /** Commands that this engine was told of and has not reported, by their number. */
  private told: (Due & { number: number })[] = [];
  private count = 0;

  constructor(private readonly post: (message: ToEngine) => void) {}

  /** `canBeTold`: there is an engine, and it has the show. */
  add(message: ToEngine, canBeTold: boolean): void {
    if (canBeTold) this.tell({ message, isAgain: false });
    else this.waiting.push({ message, isAgain: false });
  }

  private tell(due: Due): void {
    this.post(due.message);
    if (due.message.type === 'perform') this.told.push({ ...due, number: ++this.count });
  }

  /** What the engine reports holds so many of its commands. */
  hear(count: number): void {
    this.told = this.told.filter(({ number }) => number > count);
  }

  /** The engine is gone: the next one, which goes on from the last report, does what that did not hold. */
  lose(): void {
    const again = this.told.filter(({ isAgain }) => !isAgain);
    this.waiting.unshift(...again.map(({ message }) => ({ message, isAgain: true })));
    this.told = [];
    this.count = 0;
  }

  /** What was done in an earlier page comes before all that waits. */
  precede(commands: readonly PerformanceCommand[]): void {
    this.waiting.unshift(
      ...commands.map((command): Due => ({ message: { type: 'perform', command }, isAgain: false })),
    );
  }

  /** The engine has the show. */
  tellAll(): void {
    for (const due of this.waiting.splice(0)) this.tell(due);
  }

  /** All of them, in the order they were given. */
  get commands(): PerformanceCommand[] {
    return [...this.told, ...this.waiting].flatMap(({ message }) =>
      message.type === 'perform' ? [message.command] : [],
    );
  }

  /** Another show is opened: what was done to the last one is over with it. */
  forget(): void {
    this.waiting = [];
    this.told = [];
  }
}
