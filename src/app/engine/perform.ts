import type { PerformanceCommand } from '../../core/desk/command';

type Receiver = (command: PerformanceCommand) => void;

let receiver: Receiver | null = null;

/** Says who carries out what a performer does on this page: the engine of this window, or that of the main machine. */
export const performOn = (to: Receiver): void => {
  receiver = to;
};

/** What a performer does on this page. */
export const perform: Receiver = (command) => receiver?.(command);
