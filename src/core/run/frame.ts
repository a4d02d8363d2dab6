import type { Moment } from '../time/clock';
import type { FeedbackSteps } from '../time/feedback-steps';
import type { InputState } from '../inputs/inputs';

/** What one frame of a scene is worked out from. */
export interface Frame {
  moment: Moment;
  live: InputState;
  /** Pixels that the scene is drawn at. */
  canvas: { width: number; height: number };
  /** How feedback goes on. */
  feedback: FeedbackSteps;
}
