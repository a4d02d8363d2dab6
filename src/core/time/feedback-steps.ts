/** How feedback goes on in one frame. */
export interface FeedbackSteps {
  /** How often what lies on a cycle is drawn in this frame; 0 leaves it as it is. */
  count: number;
  /** 1/60 s that each of these stands for: 1, except where a slow GPU had to leave some out. */
  sixtieths: number;
}

/** Steps of 1/60 s that one frame may take at most where the picture has to be exact: a stall goes on instead of leaping. */
const mostSteps = 16;

/** Milliseconds of a frame up to which it may take most steps, and from which it takes one. */
const cost = { quick: 30, slow: 120 };
/** Most steps of a frame that is seen at once. */
const mostSeen = 4;

/**
 * Steps that a frame which is seen at once may take at most, where frames cost so many milliseconds: fewer the slower the GPU, since each of them
 * costs again what lies on a cycle, and a picture that moves more often is better to judge.
 */
export function mostStepsAt(costMs: number): number {
  const slow = Math.min(1, Math.max(0, (costMs - cost.quick) / (cost.slow - cost.quick)));
  return Math.round(mostSeen - (mostSeen - 1) * slow);
}

/**
 * Counts the steps of 1/60 s that feedback takes, whatever the frame rate is: what is drawn 60 times a second looks alike at 30,
 * 60 and 144 frames a second, since what it adds, loses and moves is per step.
 */
export class FeedbackClock {
  private owed = 0;

  /** Steps of a frame that is `dt` seconds long. `most`: as many as the GPU can take; those left out are made up for. */
  next(dt: number, most = mostSteps): FeedbackSteps {
    if (dt <= 0) return { count: 0, sixtieths: 1 };
    this.owed += dt * 60;
    // Rounding, not cutting: at about 60 frames a second each gets its step though none is exactly 1/60 s long.
    const due = Math.floor(this.owed + 0.5);
    this.owed -= due;
    if (due <= most) return { count: due, sixtieths: 1 };
    return { count: most, sixtieths: due / most };
  }

  restart(): void {
    this.owed = 0;
  }
}

/** A frame that stands for exactly one step. */
export const oneStep: FeedbackSteps = { count: 1, sixtieths: 1 };
