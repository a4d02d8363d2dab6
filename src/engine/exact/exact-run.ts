import type { Presented } from '../output/presenter';

/** Called after each moment that was worked out: who has to wait does it here, and who gives up throws. */
export type Rest = () => Promise<void>;

/** A scene or a whole program without a clock: moment by moment, the same each time. */
export interface ExactRun {
  /**
   * Works out a step, and of those before it what it needs: all of them, where it is not the one after the last. Throws what a node has
   * to say that cannot be worked out.
   */
  reach(step: number, rest?: Rest): Promise<void>;
  /** What is seen at the step that was reached. */
  seen(): Presented;
  dispose(): void;
}
